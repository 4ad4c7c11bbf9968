package taxiomet.settle.docket;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.Accepted;
import taxiomet.charter.Accepted.AcceptedRow;
import taxiomet.charter.Charter;
import taxiomet.finding.FindingKind;
import taxiomet.finding.settled.Docket;
import taxiomet.finding.settled.Docket.Choice;
import taxiomet.finding.settled.Docket.Deed;
import taxiomet.finding.settled.Docket.Item;
import taxiomet.finding.settled.DocketDecisions;
import taxiomet.finding.settled.DocketDecisions.Remark;
import taxiomet.finding.settled.DocketDecisions.Why;
import taxiomet.proposal.Change;

/**
 * Takes in the decisions of a filled docket. The docket is made anew of the rows as they are, and a decision counts only where the fault is
 * there still, its row holds what it held, and what the docket shows is what it would show now.
 */
public final class Deciding {
    /** For whom a docket is made that is laid before nobody in particular; no owner is called so. */
    private static final String FOR_ALL = "\0";

    private final Charter charter;
    private final Map<String, Item> items = new LinkedHashMap<>();
    private final Map<String, Item> toldOtherwise = new HashMap<>();
    private final Map<List<Object>, Item> likeOthers = new HashMap<>();
    private final List<Remark> remarks = new ArrayList<>();
    private final List<String> open = new ArrayList<>();
    private final Map<String, Decision> decisions = new LinkedHashMap<>();
    private final Contradictions contradictions = new Contradictions(items, decisions, remarks);
    private final Set<String> seen = new HashSet<>();
    private long read;

    /**
     * One row of a filled docket.
     *
     * @param place how it is called in messages
     * @param reference as it was written into the docket
     * @param shown what stands in the columns that are not for decisions, by their names
     * @param decision the words of a choice; null where nobody decided, as with the others
     */
    public record Filled(
            String place,
            String reference,
            Map<String, String> shown,
            String decision,
            String newValue,
            String until,
            String reason,
            String decidedBy) {}

    /** What is shown of an item, column by column, so that it can be told from what stands in a filled docket. */
    public interface Shown {
        Map<String, String> of(Item item);
    }

    /** A decision that can be carried out as far as it alone says. */
    record Decision(Item item, Filled filled, Deed deed) {}

    /** @param now the docket as the rows are */
    public Deciding(Charter charter, Docket now) {
        this.charter = charter;
        now.items().forEach(item -> items.put(id(item.reference()), item));
    }

    /** Takes decisions from such a docket, too: the same one, in which what is personal is told by pseudonyms. */
    public void orTold(Docket veiled) {
        veiled.items().forEach(item -> toldOtherwise.put(id(item.reference()), item));
    }

    static String id(String reference) {
        int hyphen = reference.indexOf('-');
        return hyphen < 0 ? reference : reference.substring(0, hyphen);
    }

    /**
     * Takes in all rows of one docket. It is for the owner for whom most of its rows were made: where a row that was made for another stands in
     * it, somebody has brought it there.
     *
     * @param takesOthers whether such a row counts all the same
     */
    public void takeAll(List<Filled> docket, Shown shown, boolean takesOthers) {
        Map<String, Long> owners = new LinkedHashMap<>();
        for (Filled filled : docket) {
            madeFor(filled).ifPresent(owner -> owners.merge(owner, 1L, Long::sum));
        }
        String whose = owners.entrySet().stream()
                .max(Map.Entry.comparingByValue())
                .map(Map.Entry::getKey)
                .orElse(FOR_ALL);
        for (Filled filled : docket) {
            Optional<String> owner = madeFor(filled);
            boolean isOfOther =
                    owner.isPresent() && !whose.equals(FOR_ALL) && !owner.get().equals(whose);
            if (isOfOther && !takesOthers && isFilled(filled)) {
                read++;
                remark(
                        Why.OF_ANOTHER_OWNER,
                        filled,
                        "it was not laid before " + (whose.isEmpty() ? "the one" : whose)
                                + " for whom this docket was made; --any-owner takes it all the same");
            } else {
                take(filled, shown);
            }
        }
    }

    /** For whom the docket was made that a row was written into; empty where that cannot be told any more. */
    private Optional<String> madeFor(Filled filled) {
        String reference = filled.reference() == null ? "" : filled.reference().strip();
        Item item = items.get(id(reference));
        if (item == null) {
            return Optional.empty();
        } else if (item.ownersReference().equals(reference)) {
            return item.owner().or(() -> Optional.of(""));
        }
        return item.reference().equals(reference) ? Optional.of(FOR_ALL) : Optional.empty();
    }

    private void take(Filled filled, Shown shown) {
        read++;
        Item item = filled.reference() == null
                ? null
                : items.get(id(filled.reference().strip()));
        if (item == null) {
            if (isFilled(filled) || filled.reference() == null) {
                remark(
                        Why.NO_SUCH_FAULT,
                        filled,
                        "the fault is there no more, or the docket was made under another key; it was decided: "
                                + filled.decision());
            }
            return;
        }
        seen.add(id(item.reference()));
        if (!isFilled(filled)) {
            open.add(item.reference());
            return;
        }
        if (madeFor(filled).isEmpty()) {
            remark(
                    Why.ROW_HAS_CHANGED,
                    filled,
                    item.table() + " " + item.name() + " is no longer as the docket shows it");
            return;
        }
        Optional<String> edited = edited(shown.of(item), filled);
        Item veiled = toldOtherwise.get(id(item.reference()));
        if (edited.isPresent()
                && veiled != null
                && edited(shown.of(veiled), filled).isEmpty()) {
            decide(veiled, filled);
            return;
        }
        if (edited.isPresent()) {
            remark(
                    Why.EDITED,
                    filled,
                    "`" + edited.get() + "` was changed to " + filled.shown().get(edited.get())
                            + "; only the columns for decisions are read");
            return;
        }
        decide(item, filled);
    }

    private static Optional<String> edited(Map<String, String> shown, Filled filled) {
        return shown.entrySet().stream()
                .filter(cell -> filled.shown().containsKey(cell.getKey())
                        && !isSame(cell.getValue(), filled.shown().get(cell.getKey())))
                .map(Map.Entry::getKey)
                .findFirst();
    }

    private static boolean isSame(String one, String other) {
        return Objects.equals(blank(one), blank(other));
    }

    private static String blank(String text) {
        return text == null || text.isBlank() ? "" : text.strip();
    }

    private static boolean isFilled(Filled filled) {
        return !blank(filled.decision()).isEmpty()
                || !blank(filled.newValue()).isEmpty()
                || !blank(filled.until()).isEmpty()
                || !blank(filled.reason()).isEmpty();
    }

    private void remark(Why why, Filled filled, String words) {
        remarks.add(new Remark(why, filled.place(), words));
    }

    private void decide(Item item, Filled filled) {
        if (blank(filled.decision()).isEmpty()) {
            remark(Why.UNCLEAR, filled, "something is filled in, and no decision chosen");
            return;
        }
        Optional<Choice> choice = item.choices().stream()
                .filter(each -> each.words().equals(filled.decision().strip()))
                .findFirst();
        if (choice.isEmpty()) {
            remark(Why.UNCLEAR, filled, "`" + filled.decision() + "` is none of its choices");
            return;
        }
        Deed deed = choice.get().deed();
        if (deed instanceof Deed.WriteGiven given) {
            if (filled.newValue() == null || filled.newValue().isEmpty()) {
                remark(Why.UNCLEAR, filled, "the new value of " + given.column() + " is missing");
                return;
            }
            deed = new Deed.Write(Map.of(given.column(), filled.newValue()));
        } else if (deed instanceof Deed.Bear && !canBear(item, filled)) {
            return;
        } else if (deed instanceof Deed.Apart && !blank(filled.until()).isEmpty() && !isDay(filled)) {
            return;
        }
        add(new Decision(item, filled, deed));
    }

    private boolean canBear(Item item, Filled filled) {
        if (blank(filled.reason()).isEmpty()) {
            remark(Why.UNCLEAR, filled, "a fault that is borne needs a reason");
            return false;
        }
        if (!isDay(filled)) {
            return false;
        }
        boolean hasKey = !item.place().key().isEmpty()
                && item.place().key().values().stream().allMatch(Objects::nonNull);
        if (!hasKey) {
            remark(Why.UNCLEAR, filled, "the row has no key by which the charter could name it");
        }
        return hasKey;
    }

    private boolean isDay(Filled filled) {
        try {
            LocalDate.parse(blank(filled.until()));
            return true;
        } catch (DateTimeException e) {
            remark(Why.UNCLEAR, filled, "a fault that is borne needs a day such as 2027-05-31 in `until`");
            return false;
        }
    }

    private void add(Decision decision) {
        String id = id(decision.item().reference());
        Decision before = decisions.putIfAbsent(id, decision);
        if (before != null && !before.deed().equals(decision.deed())) {
            contradictions.note(before, decision, "the same fault stands in the docket twice, decided otherwise");
        }
    }

    /** The row that a decision is about. */
    record RowOf(String table, String part, long row) {
        static RowOf of(Item item) {
            return new RowOf(item.table(), item.place().part(), item.place().row());
        }
    }

    /** What the decisions come to; to be asked once, when all rows have been taken in. */
    public Outcome outcome() {
        contradictions.find();
        decisions.keySet().removeAll(contradictions.decidedOtherwise());
        List<Accepted> accepted = new ArrayList<>();
        long elsewhere = 0;
        for (Decision decision : decisions.values()) {
            if (decision.deed() instanceof Deed.Bear) {
                accepted.add(accepted(decision));
            } else if (decision.deed() instanceof Deed.Apart apart) {
                accepted.add(apart(decision, apart));
            }
            elsewhere += decision.deed() instanceof Deed.Elsewhere ? 1 : 0;
        }
        DocketDecisions told = new DocketDecisions(
                read,
                decisions.size(),
                open,
                remarks,
                accepted.size(),
                elsewhere,
                items.keySet().stream().filter(id -> !seen.contains(id)).count());
        return new Outcome(told, new DecidedChanges(charter, decisions.values()).all(), accepted);
    }

    /**
     * What decisions come to.
     *
     * @param changes parents that are created first, then other values, merges, and rows that go
     * @param accepted what is to be borne
     */
    public record Outcome(DocketDecisions told, List<Change> changes, List<Accepted> accepted) {
        public Outcome {
            changes = List.copyOf(changes);
            accepted = List.copyOf(accepted);
        }
    }

    /** Rows that are like each other and not one thing: as long as they hold what they do. */
    private Accepted apart(Decision decision, Deed.Apart apart) {
        Item item = decision.item();
        List<AcceptedRow> rows = new ArrayList<>();
        for (List<String> key : apart.keys()) {
            Item other = byKey().get(List.of(item.table(), item.at(), key));
            rows.add(row(other == null ? item : other));
        }
        String reason = blank(decision.filled().reason());
        String until = blank(decision.filled().until());
        return new Accepted(
                item.kind().words(),
                item.table(),
                item.at(),
                rows,
                List.of(),
                reason.isEmpty() ? decision.filled().decision().strip() : reason,
                until.isEmpty() ? Optional.empty() : Optional.of(LocalDate.parse(until)));
    }

    /** Rows that are like others, by table, rule and key. */
    private Map<List<Object>, Item> byKey() {
        if (likeOthers.isEmpty()) {
            items.values().stream()
                    .filter(item -> item.kind() == FindingKind.LIKELY_DOUBLE)
                    .forEach(
                            item -> likeOthers.put(List.of(item.table(), item.at(), Contradictions.named(item)), item));
        }
        return likeOthers;
    }

    /** A row by its key, and what it holds where that may be written down. */
    private AcceptedRow row(Item item) {
        List<String> columns = item.columns();
        boolean areShown = !columns.isEmpty() && item.cells().keySet().containsAll(columns);
        boolean isPersonal = columns.stream()
                .anyMatch(column -> charter.table(item.table()).column(column).isPersonal());
        List<String> cells = new ArrayList<>();
        columns.forEach(column -> cells.add(item.cells().get(column)));
        return new AcceptedRow(
                List.copyOf(item.place().key().values()),
                areShown && !isPersonal && item.kind() != FindingKind.DUPLICATE
                        ? Optional.of(cells)
                        : Optional.empty());
    }

    private Accepted accepted(Decision decision) {
        Item item = decision.item();
        return new Accepted(
                item.kind().words(),
                item.table(),
                item.at(),
                List.of(row(item)),
                List.of(),
                blank(decision.filled().reason()),
                Optional.of(LocalDate.parse(blank(decision.filled().until()))));
    }
}
