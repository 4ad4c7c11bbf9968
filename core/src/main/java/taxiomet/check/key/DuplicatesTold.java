package taxiomet.check.key;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import taxiomet.charter.Column;
import taxiomet.charter.Table;
import taxiomet.check.pass.RowLookup.FoundRow;
import taxiomet.check.pass.Telling;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;

/** Tells of duplicates how many groups there are, and of each row how it differs from the first of its group. */
final class DuplicatesTold implements Telling {
    private static final int NAMED_COLUMNS = 5;

    private final RepeatedRows repeated;
    private final List<String> columns;
    private final boolean[] isOfKey;

    DuplicatesTold(Table table, List<String> key, RepeatedRows repeated) {
        this.repeated = repeated;
        this.columns = table.columns().stream().map(Column::name).toList();
        this.isOfKey = new boolean[columns.size()];
        for (int place : table.indexesOf(key)) {
            isOfKey[place] = true;
        }
    }

    @Override
    public Finding.Details details() {
        return new Finding.Duplicates(repeated.groups(), repeated.excess());
    }

    @Override
    public Evidence evidence(FoundRow row, long group) {
        return row.evidence(group, "", List.of());
    }

    @Override
    public Evidence evidence(FoundRow row, long group, FoundRow first) {
        List<String> differing = new ArrayList<>();
        for (int i = 0; i < isOfKey.length; i++) {
            if (!isOfKey[i]
                    && !Objects.equals(first.values().get(i), row.values().get(i))) {
                differing.add(columns.get(i));
            }
        }
        return row.evidence(
                group,
                differing.isEmpty() ? "a copy of the first" : "not as the first: " + named(differing),
                differing);
    }

    private static String named(List<String> differing) {
        return differing.size() <= NAMED_COLUMNS
                ? String.join(", ", differing)
                : String.join(", ", differing.subList(0, NAMED_COLUMNS)) + " and " + (differing.size() - NAMED_COLUMNS)
                        + " more";
    }
}
