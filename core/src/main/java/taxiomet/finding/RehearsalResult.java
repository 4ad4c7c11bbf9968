package taxiomet.finding;

import java.math.BigDecimal;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Stream;
import taxiomet.charter.NotRead;
import taxiomet.charter.Severity;

/**
 * What proposed changes would do.
 *
 * @param title what the charter is called
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
 * @param notRead what the charter's schema declares and could not be read: the rehearsal knows nothing of it
 */
public record RehearsalResult(
        String title,
        String behaviour,
        String now,
        List<LinkActions> links,
        List<ChangeResult> changes,
        List<RefusalResult> atEnd,
        boolean isUndone,
        List<TableChange> tables,
        List<FindingChange> added,
        List<FindingChange> mended,
        List<Divergence> elsewhere,
        List<NotRead> notRead) {

    private static final String ACCEPTED = "accepted";
    private static final String BLOCKED = "blocked";

    public RehearsalResult {
        links = List.copyOf(links);
        changes = List.copyOf(changes);
        atEnd = List.copyOf(atEnd);
        tables = List.copyOf(tables);
        added = List.copyOf(added);
        mended = List.copyOf(mended);
        elsewhere = List.copyOf(elsewhere);
        notRead = List.copyOf(notRead);
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
        INSERTED("inserted"),
        /** Nothing happens to it, but it stands in the way of a change that is blocked. */
        IN_THE_WAY("in the way");

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
     * @param isIdle whether it names rows by what they hold, and no row does
     * @param tables how many rows of which tables it would delete, change and insert, taken by itself
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
            boolean isIdle,
            List<TableCount> tables,
            List<EffectCount> effects,
            List<TotalSum> totals,
            List<RefusalResult> refusals,
            int passesAfter,
            long keptByTwins) {
        public ChangeResult {
            tables = List.copyOf(tables);
            effects = List.copyOf(effects);
            totals = List.copyOf(totals);
            refusals = List.copyOf(refusals);
        }

        /** What became of it, in a word. */
        public String answer() {
            return isAccepted ? ACCEPTED : BLOCKED;
        }

        /** How many rows of all tables there are with an effect. */
        public long rows(EffectKind kind) {
            return effects.stream()
                    .filter(effect -> effect.kind() == kind)
                    .mapToLong(EffectCount::rows)
                    .sum();
        }
    }

    /** How many rows of a table a change deletes, changes and inserts. */
    public record TableCount(String table, long deleted, long changed, long inserted) {}

    /**
     * Rows of one table to which the same happens on the same way.
     *
     * @param link by which it gets there; empty for rows that the change names itself
     * @param steps how many links away; 0 for rows that the change names itself
     * @param farthest the greatest steps counted in; beyond some steps steps are counted together
     * @param rows each row once
     * @param writes how often they are written, each time counted
     * @param values what becomes of the cells of the examples, in their order
     */
    public record EffectCount(
            String table,
            EffectKind kind,
            Optional<String> link,
            int steps,
            int farthest,
            long rows,
            long writes,
            List<RowName> examples,
            List<CellChanges> values) {
        public EffectCount {
            examples = List.copyOf(examples);
            values = List.copyOf(values);
        }
    }

    /**
     * Cells before and after an effect, by their columns, null for null: those that change; for a new row all, and for one that goes
     * those that were read of it.
     */
    public record CellChanges(Map<String, String> before, Map<String, String> after) {
        public CellChanges {
            before = Collections.unmodifiableMap(new LinkedHashMap<>(before));
            after = Collections.unmodifiableMap(new LinkedHashMap<>(after));
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
     * @param isOfKey whether rows would lose a parent since it gets another key, and not since it goes
     * @param remedy what would have to be done first
     */
    public record RefusalResult(
            RefusalKind kind,
            String table,
            String at,
            long rows,
            List<RowName> examples,
            List<TotalSum> totals,
            boolean isOfKey,
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
     * @param key the values of its key by their columns, null for null
     * @param label the values that name it to a person, by their columns
     */
    public record RowName(
            String table, String part, long row, long line, Map<String, String> key, Map<String, String> label) {
        public RowName {
            key = Collections.unmodifiableMap(new LinkedHashMap<>(key));
            label = Collections.unmodifiableMap(new LinkedHashMap<>(label));
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

    /**
     * One effect, whole.
     *
     * @param change from 1; one more than there are changes for what refuses the whole at its end
     * @param by the row by which it came
     * @param refusal for a row in the way, what is broken there; the link is that which refuses
     */
    public record EffectRow(
            int change,
            boolean isAccepted,
            RowName row,
            EffectKind kind,
            Optional<String> link,
            int steps,
            Optional<RowName> by,
            CellChanges values,
            Optional<String> refusal) {
        /** What became of the change, in a word. */
        public String answer() {
            return isAccepted ? ACCEPTED : BLOCKED;
        }
    }

    /**
     * Why a row is touched.
     *
     * @param ways for each effect on it, the effects that lead there, that on a row which a change names first
     * @param inTheWay the changes that it blocks
     */
    public record Ways(List<List<EffectRow>> ways, List<EffectRow> inTheWay) {
        public Ways {
            ways = List.copyOf(ways);
            inTheWay = List.copyOf(inTheWay);
        }
    }

    /** All effects, wherever they are kept; usable until the rehearsal is closed. */
    @FunctionalInterface
    public interface EffectRows {
        void forEach(Consumer<EffectRow> reader);
    }

    /** How bad each thing is that is not as it should be; none where all is well. */
    public Stream<Severity> severities() {
        return Stream.of(
                        isAccepted() ? Stream.<Severity>empty() : Stream.of(Severity.ERROR),
                        added.stream().map(finding -> Severity.ERROR),
                        changes.stream().filter(ChangeResult::isIdle).map(change -> Severity.WARNING),
                        notRead.stream()
                                .map(NotRead::severity)
                                .map(severity -> severity == Severity.NOTE ? Severity.NOTE : Severity.WARNING))
                .flatMap(severities -> severities);
    }

    /** What it comes to, in a word or a few. */
    public String answer() {
        return !isAccepted() ? BLOCKED : added.isEmpty() ? ACCEPTED : ACCEPTED + ", with new findings";
    }

    /** Whether every change is accepted, and stays. */
    public boolean isAccepted() {
        return !isUndone && atEnd.isEmpty() && changes.stream().allMatch(ChangeResult::isAccepted);
    }
}
