package taxiomet.settle.sift;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Table;
import taxiomet.check.CheckRun;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;
import taxiomet.finding.Hint;
import taxiomet.finding.settled.SiftResult.Mend;
import taxiomet.keys.RowSet;
import taxiomet.rows.RowEdits.RowEdit;
import taxiomet.rows.TableSource;
import taxiomet.values.SqlText;
import taxiomet.values.ValueReader;

/**
 * Mendings that leave no doubt: a value of a link without a parent, and a value that is not among those allowed, where one key or one
 * allowed value alone is the same but for blanks at an end, another case or leading zeros. A cell for which two links mean different values
 * is left as it is.
 */
public final class Mending {
    private static final Set<Hint.Kind> SAFE = Set.of(Hint.Kind.TRIMMED, Hint.Kind.OTHER_CASE, Hint.Kind.LEADING_ZEROS);

    private final Charter charter;
    private final CheckRun run;
    private final Map<String, Map<Cell, Mend>> found = new LinkedHashMap<>();
    private final Set<Cell> doubtful = new HashSet<>();

    private record Cell(String table, long ref, int column) {}

    private Mending(Charter charter, CheckRun run) {
        this.charter = charter;
        this.run = run;
    }

    /**
     * What can be mended.
     *
     * @param run a check of all tables, still open, that looked for what values without a parent mean
     */
    public static Mending of(Charter charter, CheckRun run) {
        Mending mending = new Mending(charter, run);
        for (Finding finding : run.result().findings()) {
            if (finding.kind() == FindingKind.ORPHAN) {
                mending.addOrphans(finding);
            } else if (finding.kind() == FindingKind.VALUE_NOT_ALLOWED) {
                mending.addValues(finding);
            }
        }
        mending.doubtful.forEach(cell -> mending.found.get(cell.table()).remove(cell));
        return mending;
    }

    private void addOrphans(Finding finding) {
        Table table = charter.table(finding.table());
        ForeignKey link = table.link(finding.at()).orElseThrow();
        finding.evidence().forEach(row -> {
            Hint hint = row.hint().orElse(null);
            if (hint == null || !SAFE.contains(hint.kind()) || hint.parents().size() != 1) {
                return;
            }
            List<String> meant = hint.parents().get(0);
            List<Column> columns = link.columns().stream().map(table::column).toList();
            for (int i = 0; i < meant.size(); i++) {
                // A column that is narrower, or written otherwise, cannot hold the key as its parent writes it.
                if (!ValueReader.of(columns.get(i)).accepts(meant.get(i))) {
                    return;
                }
            }
            for (int i = 0; i < meant.size(); i++) {
                add(table, row, columns.get(i), meant.get(i), finding);
            }
        });
    }

    private void addValues(Finding finding) {
        Table table = charter.table(finding.table());
        Column column = table.column(finding.at());
        finding.evidence().forEach(row -> {
            String cell = row.values().get(table.indexOf(column.name()));
            List<String> meant = column.values().stream()
                    .filter(value -> SqlText.fold(SqlText.trim(value)).equals(SqlText.fold(SqlText.trim(cell))))
                    .toList();
            if (meant.size() == 1) {
                add(table, row, column, meant.get(0), finding);
            }
        });
    }

    private void add(Table table, Evidence row, Column column, String meant, Finding finding) {
        int place = table.indexOf(column.name());
        String now = row.values().get(place);
        if (Objects.equals(now, meant)) {
            return;
        }
        Cell cell = new Cell(table.name(), run.ref(table.name(), row), place);
        Mend mend =
                new Mend(table.name(), row.part(), row.row(), column.name(), now, meant, finding.kind(), finding.at());
        Mend before = found.computeIfAbsent(table.name(), name -> new LinkedHashMap<>())
                .putIfAbsent(cell, mend);
        if (before != null && !before.after().equals(meant)) {
            doubtful.add(cell);
        }
    }

    /** All of them, table by table. */
    public List<Mend> mends() {
        List<Mend> all = new ArrayList<>();
        found.values().forEach(mends -> all.addAll(mends.values()));
        return all;
    }

    /** The rows of a table with what is mended. */
    public TableSource mended(String table, TableSource rows) {
        NavigableMap<Long, RowEdit> edits = edits(table);
        RowSet refs = new RowSet();
        edits.keySet().forEach(refs::add);
        return new PatchedRows(rows) {
            @Override
            protected RowEdit editOf(long ref) {
                return refs.contains(ref) ? edits.get(ref) : null;
            }
        };
    }

    /** What is mended in a table, row by row. */
    public NavigableMap<Long, RowEdit> edits(String table) {
        NavigableMap<Long, RowEdit> edits = new TreeMap<>();
        Optional.ofNullable(found.get(table))
                .ifPresent(mends -> mends.forEach(
                        (cell, mend) -> edits.computeIfAbsent(cell.ref(), ref -> new RowEdit(false, new HashMap<>()))
                                .cells()
                                .put(cell.column(), mend.after())));
        return edits;
    }
}
