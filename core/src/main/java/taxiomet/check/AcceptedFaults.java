package taxiomet.check;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.Accepted;
import taxiomet.charter.Accepted.AcceptedRow;
import taxiomet.charter.Charter;
import taxiomet.charter.Table;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.RowLookup;
import taxiomet.check.pass.RowLookup.FoundRow;
import taxiomet.finding.CheckResult.Remark;
import taxiomet.finding.Finding.Accepting;
import taxiomet.keys.RowSet;
import taxiomet.rehearse.reach.CellCodec;
import taxiomet.rows.RefCursor;
import taxiomet.rows.TableSource;

/** Which rows of the logs the charter bears today, and what is to be said of those that it does no more. */
final class AcceptedFaults {
    private final Charter charter;
    private final Optional<LocalDate> today;
    private final Map<FaultLog, Borne> borne = new HashMap<>();
    private final Map<String, List<Remark>> remarks = new HashMap<>();

    private record Borne(RowSet rows, List<Accepting> reasons) {}

    /** @param today empty where nothing is borne */
    AcceptedFaults(Charter charter, Optional<LocalDate> today) {
        this.charter = charter;
        this.today = today;
    }

    /** Looks at the rows of all findings that the charter bears. */
    void look(List<FaultLog> logs, Map<String, TableSource> sources) {
        if (today.isEmpty() || charter.accepted().isEmpty()) {
            return;
        }
        for (Accepted accepted : charter.accepted()) {
            if (!accepted.holdsOn(today.get())) {
                remark(accepted, "was accepted until " + accepted.until().orElseThrow() + ", and is counted again");
            }
        }
        for (FaultLog log : logs) {
            List<Accepted> of = charter.accepted().stream()
                    .filter(each -> each.holdsOn(today.get()) && isOf(each, log))
                    .toList();
            if (!of.isEmpty() && sources.containsKey(log.table())) {
                look(log, of, sources.get(log.table()));
            }
        }
    }

    private static boolean isOf(Accepted accepted, FaultLog log) {
        return accepted.finding().equals(log.kind().words()) && log.isOf(log.kind(), accepted.table(), accepted.at());
    }

    private void look(FaultLog log, List<Accepted> of, TableSource source) {
        Table table = charter.table(log.table());
        List<Entry> entries =
                of.stream().map(each -> new Entry(each, table, log)).toList();
        RowSet all = new RowSet();
        log.forEachRow(all::add);
        RowSet rows = new RowSet();
        new RowLookup(table, source).forEach(RefCursor.of(all.iterator()), row -> {
            for (Entry entry : entries) {
                if (!rows.contains(row.ref()) && entry.takes(row)) {
                    rows.add(row.ref());
                    entry.count++;
                }
            }
        });
        entries.forEach(Entry::tellWhatIsLeft);
        if (rows.size() > 0) {
            borne.put(
                    log,
                    new Borne(
                            rows,
                            entries.stream()
                                    .filter(entry -> entry.count > 0)
                                    .map(entry ->
                                            new Accepting(entry.accepted.reason(), entry.accepted.until(), entry.count))
                                    .toList()));
        }
    }

    /** One entry of the charter, with its values read as those of their columns. */
    private final class Entry {
        private final Accepted accepted;
        private final CellCodec[] key;
        private final int[] keyPlaces;
        private final CellCodec[] fault;
        private final int[] faultPlaces;
        private final Map<List<Object>, Optional<List<Object>>> rows = new HashMap<>();
        private final Set<List<Object>> values = new HashSet<>();
        private final Set<List<Object>> found = new HashSet<>();
        private long changed;
        private long count;

        Entry(Accepted accepted, Table table, FaultLog log) {
            this.accepted = accepted;
            this.keyPlaces = table.indexesOf(table.namingKey());
            this.faultPlaces = table.indexesOf(log.columns());
            this.key = codecs(table, keyPlaces);
            this.fault = codecs(table, faultPlaces);
            for (AcceptedRow row : accepted.rows()) {
                rows.put(parsed(key, row.key()), row.holds().map(holds -> parsed(fault, holds)));
            }
            accepted.values().forEach(each -> values.add(parsed(fault, each)));
        }

        private static CellCodec[] codecs(Table table, int[] places) {
            return Arrays.stream(places)
                    .mapToObj(place -> new CellCodec(table.columns().get(place)))
                    .toArray(CellCodec[]::new);
        }

        private static List<Object> parsed(CellCodec[] codecs, List<String> texts) {
            List<Object> all = new ArrayList<>();
            for (int i = 0; i < texts.size() && i < codecs.length; i++) {
                Object value = texts.get(i) == null ? null : codecs[i].parse(texts.get(i));
                all.add(value instanceof java.math.BigDecimal number ? number.stripTrailingZeros() : value);
            }
            return all;
        }

        private static List<String> cells(FoundRow row, int[] places) {
            List<String> cells = new ArrayList<>();
            for (int place : places) {
                cells.add(row.values().get(place));
            }
            return cells;
        }

        boolean takes(FoundRow row) {
            if (row.values().isEmpty()) {
                return false;
            }
            List<Object> holds = parsed(fault, cells(row, faultPlaces));
            List<Object> called = parsed(key, cells(row, keyPlaces));
            Optional<List<Object>> asked = rows.get(called);
            if (asked != null) {
                found.add(called);
                boolean isSame = asked.isEmpty() || asked.get().equals(holds);
                changed += isSame ? 0 : 1;
                return isSame || values.contains(holds);
            }
            return !holds.isEmpty() && values.contains(holds);
        }

        void tellWhatIsLeft() {
            int mended = rows.size() - found.size();
            if (mended > 0) {
                remark(
                        accepted,
                        mended + (mended == 1 ? " accepted row is" : " accepted rows are") + " at fault no more");
            }
            if (changed > 0) {
                remark(
                        accepted,
                        changed + (changed == 1 ? " accepted row has" : " accepted rows have") + " changed since, and "
                                + (changed == 1 ? "is" : "are") + " counted again");
            }
        }
    }

    private void remark(Accepted accepted, String what) {
        remarks.computeIfAbsent(accepted.table(), table -> new ArrayList<>())
                .add(new Remark("accepted", accepted.finding() + " at " + accepted.at() + ": " + what));
    }

    /** Whether a row of a log is borne. */
    boolean isBorne(FaultLog log, long ref) {
        Borne of = borne.get(log);
        return of != null && of.rows().contains(ref);
    }

    /** Why rows of a log are borne; none where none is. */
    List<Accepting> of(FaultLog log) {
        Borne of = borne.get(log);
        return of == null ? List.of() : of.reasons();
    }

    /** What is to be said of a table. */
    List<Remark> remarks(Table table) {
        return remarks.getOrDefault(table.name(), List.of());
    }
}
