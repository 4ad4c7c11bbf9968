package taxiomet.check.link;

import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Table;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.Plan;
import taxiomet.check.pass.RowLookup.FoundRow;
import taxiomet.check.pass.RowsAtHand;
import taxiomet.check.pass.Telling;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.Finding.MissingValue;
import taxiomet.finding.Hint;
import taxiomet.finding.Hint.FaultyParent;
import taxiomet.hint.HintFinder;
import taxiomet.rows.RefCursor;
import taxiomet.rows.TableSource;
import taxiomet.spill.SortedSpool;
import taxiomet.values.ValueReader;

/**
 * Tells of orphans the commonest values without a parent, and of each value what is known of it: a row that bears it and is no
 * parent for a fault of its own, or parents that may have been meant.
 */
final class OrphansTold implements Telling {
    /** More numbers than this are not asked for elsewhere: all parents are sooner read. */
    private static final int MOST_SOUGHT = 100_000;

    private final Plan plan;
    private final ForeignKey link;
    private final FaultLog log;
    private final LinkCheck check;
    private final int[] places;
    private final HintFinder finder = new HintFinder();

    private RowsAtHand rows;
    private FaultyParents faulty;

    OrphansTold(Plan plan, ForeignKey link, FaultLog log, LinkCheck check) {
        this.plan = plan;
        this.link = link;
        this.log = log;
        this.check = check;
        this.places = plan.charter().table(link.child()).indexesOf(link.columns());
        this.faulty = FaultyParents.none();
    }

    @Override
    public Collection<Long> rowsNamed() {
        return check.missingValues().commonest().stream()
                .map(MissingValues.Value::firstRef)
                .toList();
    }

    /** Looks for hints for the commonest values, and for those that are shown. */
    @Override
    public void prepare(RowsAtHand atHand) {
        rows = atHand;
        if (plan.options().hinted() == 0) {
            return;
        }
        faulty = FaultyParents.of(link, plan, rows);
        Table child = plan.charter().table(link.child());
        List<ValueReader> readers = link.columns().stream()
                .map(column -> ValueReader.of(child.column(column)))
                .toList();
        check.missingValues().commonest().forEach(value -> ask(value.firstRef(), readers));
        SortedSpool.Reader reader = log.read();
        for (int i = 0; i < plan.options().examples() && reader.next(); i++) {
            ask(reader.first(), readers);
        }
        Table parent = plan.charter().table(link.parent());
        TableSource all = rows.source(parent.name()).whole();
        int[] key = parent.indexesOf(link.parentColumns());
        Optional<HintFinder.Parents> byNumbers = all.equals(rows.source(parent.name()))
                ? check.parentsByNumbers().filter(parents -> key.length <= HintFinder.MOST_LOOKED_UP)
                : parentsElsewhere(all, key);
        byNumbers.ifPresentOrElse(finder::lookUp, () -> finder.look(all, key));
    }

    /** A way to ask for parents that are not read: whoever has them is asked once for all numbers that might have been meant. */
    private Optional<HintFinder.Parents> parentsElsewhere(TableSource all, int[] key) {
        if (key.length > 1 || !check.areUsualNumbers()) {
            return Optional.empty();
        }
        Set<Long> sought = new HashSet<>();
        finder.lookUp(numbers -> {
            sought.add(numbers[0]);
            return false;
        });
        if (sought.size() > MOST_SOUGHT) {
            return Optional.empty();
        }
        return all.numbersIn(key[0], sought).map(there -> numbers -> there.contains(numbers[0]));
    }

    private void ask(long ref, List<ValueReader> readers) {
        List<String> key = keyOf(rows.row(link.child(), ref));
        finder.ask(key, isIllTyped(key, readers));
    }

    private static boolean isIllTyped(List<String> key, List<ValueReader> readers) {
        for (int i = 0; i < key.size(); i++) {
            if (key.get(i) != null && !readers.get(i).accepts(key.get(i))) {
                return true;
            }
        }
        return false;
    }

    private List<String> keyOf(FoundRow row) {
        List<String> key = new ArrayList<>();
        for (int column : places) {
            key.add(row.values().get(column));
        }
        return key;
    }

    private Optional<Hint> hintFor(List<String> key) {
        return faulty.of(key).or(() -> finder.hintFor(key));
    }

    @Override
    public Finding.Details details() {
        MissingValues missing = check.missingValues();
        List<MissingValue> commonest = missing.commonest().stream()
                .limit(plan.options().namedValues())
                .map(value -> {
                    List<String> key = keyOf(rows.row(link.child(), value.firstRef()));
                    return new MissingValue(key, value.rows(), hintFor(key));
                })
                .toList();
        return new Finding.Missing(link.name(), missing.distinct(), commonest, consequences());
    }

    /** How many orphans bear the key of a faulty parent: all are looked at, where there is such a parent. */
    private List<Finding.Consequence> consequences() {
        if (faulty.isEmpty()) {
            return List.of();
        }
        Map<FaultyParent.Fault, Long> counts = new EnumMap<>(FaultyParent.Fault.class);
        SortedSpool.Reader refs = log.read();
        rows.lookup(link.child())
                .forEach(
                        () -> refs.next() ? refs.first() : RefCursor.END,
                        row -> faulty.of(keyOf(row))
                                .flatMap(Hint::faultyParent)
                                .ifPresent(parent -> counts.merge(parent.fault(), 1L, Long::sum)));
        return counts.entrySet().stream()
                .map(count -> new Finding.Consequence(count.getKey().kind(), link.parent(), count.getValue()))
                .toList();
    }

    @Override
    public Evidence evidence(FoundRow row, long remark) {
        return row.evidence(hintFor(keyOf(row)));
    }
}
