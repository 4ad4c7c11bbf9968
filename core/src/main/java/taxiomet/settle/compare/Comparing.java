package taxiomet.settle.compare;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.Severity;
import taxiomet.finding.FindingKind;
import taxiomet.finding.FindingShift;
import taxiomet.finding.FindingShift.Renumbered;
import taxiomet.finding.KeptResult;
import taxiomet.finding.KeptResult.KeptFinding;
import taxiomet.finding.KeptResult.KeptParents;
import taxiomet.finding.KeptResult.KeptRow;
import taxiomet.finding.ResultComparison;
import taxiomet.finding.ResultComparison.Standing;

/**
 * Holds two results against each other. Rows are known again by their primary key, or by all they hold where that is at fault or not there;
 * never by where they stand. A row that is gone and one that is new are the same, renumbered, when they alone hold the same beside their
 * keys.
 */
public final class Comparing {
    private final KeptResult earlier;
    private final KeptResult later;
    private final boolean areRowsKnown;
    private long still;

    private record Place(FindingKind kind, String table, String at) {}

    private Comparing(KeptResult earlier, KeptResult later) {
        this.earlier = earlier;
        this.later = later;
        this.areRowsKnown = earlier.keyMark().equals(later.keyMark());
    }

    /** What is new and what is gone. */
    public static ResultComparison of(KeptResult earlier, KeptResult later) {
        return new Comparing(earlier, later).compare();
    }

    private ResultComparison compare() {
        Map<Place, KeptFinding> before = byPlace(earlier);
        Map<Place, KeptFinding> now = byPlace(later);
        List<FindingShift> shifts = new ArrayList<>();
        now.forEach((place, finding) -> shifts.add(shift(place, before.get(place), finding)));
        before.forEach((place, finding) -> {
            if (!now.containsKey(place)) {
                shifts.add(shift(place, finding, null));
            }
        });
        shifts.removeIf(FindingShift::isNothing);
        return new ResultComparison(
                later.title(), Standing.of(earlier), Standing.of(later), shifts, still, areRowsKnown);
    }

    private static Map<Place, KeptFinding> byPlace(KeptResult result) {
        Map<Place, KeptFinding> findings = new LinkedHashMap<>();
        result.findings().forEach(each -> findings.put(new Place(each.kind(), each.table(), each.at()), each));
        return findings;
    }

    private FindingShift shift(Place place, KeptFinding before, KeptFinding now) {
        Severity severity = now == null ? before.severity() : now.severity();
        long countBefore = before == null ? 0 : before.rows();
        long countNow = now == null ? 0 : now.rows();
        boolean areKept = areRowsKnown && isKept(before) && isKept(now);
        Rows rows = areKept ? new Rows(rows(before), rows(now)) : new Rows(List.of(), List.of());
        still += rows.still;
        return new FindingShift(
                place.kind(),
                severity,
                place.table(),
                place.at(),
                // What has no rows is there or not.
                place.kind().hasNoRows() && before != null ? 1 : countBefore,
                place.kind().hasNoRows() && now != null ? 1 : countNow,
                names(rows.come),
                names(rows.gone),
                rows.renumbered,
                names(rows.acceptedAgain),
                rows.newlyAccepted,
                names(lostParents(place, rows.come)),
                areKept);
    }

    private static boolean isKept(KeptFinding finding) {
        return finding == null || finding.kept().size() == finding.rows();
    }

    private static List<KeptRow> rows(KeptFinding finding) {
        return finding == null ? List.of() : finding.kept();
    }

    private static List<String> names(List<KeptRow> rows) {
        return rows.stream().map(KeptRow::name).toList();
    }

    /** New orphans whose parent was there. */
    private List<KeptRow> lostParents(Place place, List<KeptRow> come) {
        Optional<KeptParents> parents = earlier.parents().stream()
                .filter(each -> place.kind() == FindingKind.ORPHAN
                        && each.child().equals(place.table())
                        && each.link().equals(place.at()))
                .findFirst();
        return parents.isEmpty()
                ? List.of()
                : come.stream()
                        .filter(row -> row.pointsAt() != 0 && parents.get().contains(row.pointsAt()))
                        .toList();
    }

    /** The rows of one finding, before and now, each told once for each time it comes. */
    private static final class Rows {
        private final List<KeptRow> come = new ArrayList<>();
        private final List<KeptRow> gone = new ArrayList<>();
        private final List<Renumbered> renumbered = new ArrayList<>();
        private final List<KeptRow> acceptedAgain = new ArrayList<>();
        private long newlyAccepted;
        private long still;

        Rows(List<KeptRow> before, List<KeptRow> now) {
            Map<Long, Deque<KeptRow>> left = new HashMap<>();
            before.forEach(row -> left.computeIfAbsent(row.identity(), id -> new ArrayDeque<>())
                    .add(row));
            for (KeptRow row : now) {
                Deque<KeptRow> same = left.get(row.identity());
                KeptRow was = same == null ? null : same.poll();
                if (was == null) {
                    come.add(row);
                } else {
                    still++;
                    accept(was, row);
                }
            }
            before.forEach(row -> {
                Deque<KeptRow> same = left.get(row.identity());
                if (same.remove(row)) {
                    gone.add(row);
                }
            });
            findRenumbered();
            come.removeIf(row -> {
                newlyAccepted += row.isAccepted() ? 1 : 0;
                return row.isAccepted();
            });
        }

        private void accept(KeptRow was, KeptRow row) {
            if (was.isAccepted() && !row.isAccepted()) {
                acceptedAgain.add(row);
            } else if (!was.isAccepted() && row.isAccepted()) {
                newlyAccepted++;
            }
        }

        private void findRenumbered() {
            Map<Long, List<KeptRow>> goneByRest = byRest(gone);
            Map<Long, List<KeptRow>> comeByRest = byRest(come);
            Set<KeptRow> known = new HashSet<>();
            goneByRest.forEach((rest, rows) -> {
                List<KeptRow> others = comeByRest.getOrDefault(rest, List.of());
                if (rest != 0 && rows.size() == 1 && others.size() == 1) {
                    KeptRow was = rows.get(0);
                    KeptRow row = others.get(0);
                    renumbered.add(new Renumbered(was.name(), row.name()));
                    still++;
                    accept(was, row);
                    known.add(was);
                    known.add(row);
                }
            });
            gone.removeAll(known);
            come.removeAll(known);
        }

        private static Map<Long, List<KeptRow>> byRest(List<KeptRow> rows) {
            Map<Long, List<KeptRow>> all = new LinkedHashMap<>();
            rows.forEach(row ->
                    all.computeIfAbsent(row.rest(), rest -> new ArrayList<>()).add(row));
            return all;
        }
    }
}
