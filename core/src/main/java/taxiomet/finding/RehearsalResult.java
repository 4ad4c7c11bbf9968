package taxiomet.finding;

import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/**
 * What proposed changes would do.
 *
 * @param charter what the charter is called
 * @param behaviour whose behaviour was rehearsed
 * @param now the one moment that was current throughout, in UTC
 * @param links the links that the proposal met, with their actions
 * @param changes in their order
 * @param atEnd what refuses the proposal as a whole at its end
 * @param isUndone whether nothing of the proposal stays, though some of its changes are accepted
 * @param tables all tables whose rows would change in number or value
 * @param added findings with rows that the proposal puts at fault
 * @param mended findings with rows that the proposal puts right
 * @param elsewhere where it would end differently
 */
public record RehearsalResult(
        String charter,
        String behaviour,
        String now,
        List<LinkActions> links,
        List<ChangeResult> changes,
        List<RefusalResult> atEnd,
        boolean isUndone,
        List<TableChange> tables,
        List<FindingChange> added,
        List<FindingChange> mended,
        List<Divergence> elsewhere) {

    public RehearsalResult {
        links = List.copyOf(links);
        changes = List.copyOf(changes);
        atEnd = List.copyOf(atEnd);
        tables = List.copyOf(tables);
        added = List.copyOf(added);
        mended = List.copyOf(mended);
        elsewhere = List.copyOf(elsewhere);
    }

    /** What a change does to a row. */
    public enum EffectKind {
        DELETED("deleted"),
        /** The columns of a link are set null. */
        EMPTIED("emptied"),
        /** The columns of a link get their defaults. */
        DEFAULTED("defaulted"),
        /** The new key of the parent is written into the child. */
        REPOINTED("re-pointed"),
        CHANGED("changed"),
        INSERTED("inserted");

        private final String words;

        EffectKind(String words) {
            this.words = words;
        }

        /** The kind as messages and results name it. */
        public String words() {
            return words;
        }
    }

    /** A link and what it does; {@code onDelete} and {@code onUpdate} in the words of SQL. */
    public record LinkActions(
            String name, String child, String parent, String onDelete, String onUpdate, boolean isEnforced) {}

    /**
     * What became of one change.
     *
     * @param words the change as it was written
     * @param place the file and line, or the option, that it came from
     * @param isAccepted whether no rule refuses it
     * @param direct how many rows it names
     * @param effects what it does, or would do if nothing refused it
     * @param totals sums over the rows that it would delete, or that would lose what they point at
     * @param refusals the rules that it would break, the one that is met first before the others
     * @param passesAfter a later change of the proposal, from 1, that would let it pass if it came first; 0 for none
     * @param keptByTwins rows that went, or whose key changed, while another row keeps the same key: nothing acted
     */
    public record ChangeResult(
            String words,
            String place,
            boolean isAccepted,
            long direct,
            List<EffectCount> effects,
            List<TotalSum> totals,
            List<RefusalResult> refusals,
            int passesAfter,
            long keptByTwins) {
        public ChangeResult {
            effects = List.copyOf(effects);
            totals = List.copyOf(totals);
            refusals = List.copyOf(refusals);
        }

        /** How many rows of all tables there are with an effect. */
        public long rows(EffectKind kind) {
            return effects.stream()
                    .filter(effect -> effect.kind() == kind)
                    .mapToLong(EffectCount::rows)
                    .sum();
        }
    }

    /**
     * Rows of one table to which the same happens on the same way.
     *
     * @param link by which it gets there; empty for rows that the change names itself
     * @param distance how many links away; 0 for rows that the change names itself
     * @param farthest the greatest distance counted in; beyond some steps distances are counted together
     */
    public record EffectCount(
            String table,
            EffectKind kind,
            Optional<String> link,
            int distance,
            int farthest,
            long rows,
            List<RowName> examples) {
        public EffectCount {
            examples = List.copyOf(examples);
        }
    }

    /**
     * A sum of a totals column over the rows at stake of one table.
     *
     * @param rowsAre what becomes of them: deleted, emptied, defaulted, or in the way
     */
    public record TotalSum(String table, String text, BigDecimal sum, String rowsAre, long rows) {}

    /**
     * A rule that refuses a change.
     *
     * @param table the table that declares the rule
     * @param at name of the column, key, link or rule
     * @param rows exact count of the rows at which it refuses
     * @param totals sums over these rows, where they would lose what they point at
     * @param remedy what would have to be done first
     */
    public record RefusalResult(
            RefusalKind kind,
            String table,
            String at,
            long rows,
            List<RowName> examples,
            List<TotalSum> totals,
            String remedy) {
        public RefusalResult {
            totals = List.copyOf(totals);
            examples = List.copyOf(examples);
        }
    }

    /**
     * A row as a person knows it.
     *
     * @param part the file that it stands in; empty for a new row
     * @param row its number in that file; for a new row among the new ones of its table
     * @param line the line it begins in; 0 for a new row
     * @param key the values of its key, null for null
     * @param label the columns that name it to a person
     */
    public record RowName(String table, String part, long row, long line, List<String> key, List<String> label) {
        public RowName {
            key = java.util.Collections.unmodifiableList(new java.util.ArrayList<>(key));
            label = java.util.Collections.unmodifiableList(new java.util.ArrayList<>(label));
        }

        public boolean isNew() {
            return part.isEmpty();
        }
    }

    /** A table before and after. */
    public record TableChange(
            String table, long rowsBefore, long rowsAfter, long deleted, long changed, long inserted) {}

    /** A finding with the rows that it gains or loses. */
    public record FindingChange(FindingKind kind, String table, String at, long rows, List<RowName> examples) {
        public FindingChange {
            examples = List.copyOf(examples);
        }
    }

    /**
     * Another behaviour, or another order of the declarations, under which the proposal ends differently.
     *
     * @param where the behaviour or the order, as the beginning of a sentence
     * @param words what is different, as its end
     * @param rows how many rows would stand differently in the end
     */
    public record Divergence(String where, String words, long rows, List<RowName> examples) {
        public Divergence {
            examples = List.copyOf(examples);
        }
    }

    /** One effect, whole. */
    public record EffectRow(
            int change,
            boolean isAccepted,
            RowName row,
            EffectKind kind,
            Optional<String> link,
            int distance,
            Optional<RowName> by) {}

    /** All effects, wherever they are kept; usable until the rehearsal is closed. */
    @FunctionalInterface
    public interface EffectRows {
        void forEach(Consumer<EffectRow> reader);
    }

    /** Whether every change is accepted, and stays. */
    public boolean isAccepted() {
        return !isUndone && atEnd.isEmpty() && changes.stream().allMatch(ChangeResult::isAccepted);
    }
}
