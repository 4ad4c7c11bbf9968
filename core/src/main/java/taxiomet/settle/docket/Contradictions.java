package taxiomet.settle.docket;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import taxiomet.finding.FindingKind;
import taxiomet.finding.settled.Docket.Deed;
import taxiomet.finding.settled.Docket.Item;
import taxiomet.finding.settled.DocketDecisions.Remark;
import taxiomet.finding.settled.DocketDecisions.Why;
import taxiomet.settle.docket.Deciding.Decision;
import taxiomet.settle.docket.Deciding.RowOf;

/** Decisions of a docket that cannot be carried out together. */
final class Contradictions {
    private final Map<String, Item> items;
    private final Map<String, Decision> decisions;
    private final List<Remark> remarks;
    private final Set<String> contradicted = new HashSet<>();

    /**
     * @param items of the docket, by their ids
     * @param decisions that were taken, by the same
     * @param remarks gets what is found
     */
    Contradictions(Map<String, Item> items, Map<String, Decision> decisions, List<Remark> remarks) {
        this.items = items;
        this.decisions = decisions;
        this.remarks = remarks;
    }

    /** The ids of items whose decisions contradict others. */
    Set<String> decidedOtherwise() {
        return contradicted;
    }

    /** Notes that two decisions do not go together. */
    void note(Decision one, Decision other, String words) {
        contradicted.add(Deciding.id(one.item().reference()));
        contradicted.add(Deciding.id(other.item().reference()));
        remarks.add(new Remark(
                Why.CONTRADICTION,
                other.filled().place(),
                words + " (see " + one.filled().place() + ")"));
    }

    /** Decisions about one row must go together, and those about rows that share a key must leave one. */
    void find() {
        Map<RowOf, List<Decision>> byRow = new LinkedHashMap<>();
        decisions
                .values()
                .forEach(each -> byRow.computeIfAbsent(RowOf.of(each.item()), row -> new ArrayList<>())
                        .add(each));
        byRow.values().forEach(this::findOfRow);
        Map<List<String>, Decision> goers = new HashMap<>();
        for (Decision decision : decisions.values()) {
            if (decision.deed() instanceof Deed.Merge merge) {
                goers.put(keyOf(decision.item().table(), merge.goes()), decision);
            }
        }
        for (Decision decision : decisions.values()) {
            if (decision.deed() instanceof Deed.Merge merge) {
                Decision other = goers.get(keyOf(decision.item().table(), merge.stays()));
                if (other != null
                        && !contradicted.contains(Deciding.id(decision.item().reference()))) {
                    note(other, decision, "it would be merged into a row that is itself merged into another");
                }
            }
        }
        findMergedIntoWhatGoes(byRow, goers.values());
        findGroupsThatGo();
        findMergedThoughApart(goers);
    }

    private void findMergedIntoWhatGoes(Map<RowOf, List<Decision>> byRow, Collection<Decision> merged) {
        Map<List<String>, Decision> deleted = new HashMap<>();
        byRow.forEach((row, of) -> {
            if (of.stream().anyMatch(each -> each.deed() instanceof Deed.Delete)) {
                deleted.put(keyOf(row.table(), named(of.get(0).item())), of.get(0));
            }
        });
        for (Decision decision : merged) {
            Deed.Merge merge = (Deed.Merge) decision.deed();
            Decision goes = deleted.get(keyOf(decision.item().table(), merge.stays()));
            if (goes != null) {
                note(goes, decision, "it would be merged into a row that is deleted");
            }
        }
    }

    private void findMergedThoughApart(Map<List<String>, Decision> goers) {
        for (Decision decision : decisions.values()) {
            if (decision.deed() instanceof Deed.Apart apart) {
                for (List<String> key : apart.keys()) {
                    Decision other = goers.get(keyOf(decision.item().table(), key));
                    if (other != null
                            && (apart.keys().size() == 1
                                    || apart.keys().contains(((Deed.Merge) other.deed()).stays()))) {
                        note(decision, other, "it would be merged, and is said to be a thing of its own");
                    }
                }
            }
        }
    }

    /** What a row is called, the empty text for null. */
    static List<String> named(Item item) {
        return item.place().key().values().stream()
                .map(cell -> cell == null ? "" : cell)
                .toList();
    }

    private static List<String> keyOf(String table, List<String> key) {
        List<String> all = new ArrayList<>(List.of(table));
        all.addAll(key);
        return all;
    }

    private void findOfRow(List<Decision> ofRow) {
        Decision ending = null;
        Map<String, Decision> writing = new HashMap<>();
        for (Decision decision : ofRow) {
            boolean ends = decision.deed() instanceof Deed.Delete || decision.deed() instanceof Deed.Merge;
            if (ends && ending != null && !ending.deed().equals(decision.deed())) {
                note(ending, decision, "the row is to go in two ways");
            }
            ending = ends ? decision : ending;
        }
        for (Decision decision : ofRow) {
            if (ending != null && decision.deed() instanceof Deed.Write) {
                note(ending, decision, "the row is to be changed, and to go");
            } else if (decision.deed() instanceof Deed.Write write) {
                write.cells().forEach((column, value) -> {
                    Decision other = writing.putIfAbsent(column, decision);
                    if (other != null
                            && !Objects.equals(
                                    ((Deed.Write) other.deed()).cells().get(column), value)) {
                        note(other, decision, column + " is to hold two values");
                    }
                });
            }
        }
    }

    /** All copies of a key are to go, which is hardly meant. */
    private void findGroupsThatGo() {
        Map<List<String>, List<Item>> groups = new LinkedHashMap<>();
        items.values().stream()
                .filter(item -> item.kind() == FindingKind.DUPLICATE)
                .forEach(item -> groups.computeIfAbsent(
                                List.of(item.table(), item.at(), item.holds()), key -> new ArrayList<>())
                        .add(item));
        for (List<Item> group : groups.values()) {
            List<Decision> going = group.stream()
                    .map(item -> decisions.get(Deciding.id(item.reference())))
                    .filter(decision -> decision != null && decision.deed() instanceof Deed.Delete)
                    .toList();
            if (group.size() > 1 && going.size() == group.size()) {
                for (int i = 1; i < going.size(); i++) {
                    note(going.get(0), going.get(i), "every copy of the key is to be deleted, and none would be left");
                }
            }
        }
    }
}
