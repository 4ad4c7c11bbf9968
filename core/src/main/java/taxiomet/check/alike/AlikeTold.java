package taxiomet.check.alike;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import taxiomet.charter.Alike;
import taxiomet.check.pass.RowLookup.FoundRow;
import taxiomet.check.pass.RowsAtHand;
import taxiomet.check.pass.Telling;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.rows.RowRef;
import taxiomet.rows.TableSource;

/** Tells of each row which one it is likest to, and what speaks for one thing and what against; no value is named. */
final class AlikeTold implements Telling {
    private final AlikeCheck check;
    private TableSource source;

    AlikeTold(AlikeCheck check) {
        this.check = check;
    }

    @Override
    public void prepare(RowsAtHand rows) {
        source = rows.source(check.table().name());
    }

    @Override
    public Finding.Details details() {
        return new Finding.LikelyDoubles(
                check.found().pairs(), check.found().groups(), check.rule().clause());
    }

    @Override
    public Evidence evidence(FoundRow row, long group) {
        return evidence(row, group, row);
    }

    @Override
    public Evidence evidence(FoundRow row, long group, FoundRow first) {
        long other = check.found().likestTo(row.ref());
        long manners = check.found().mannersOf(row.ref());
        List<String> differing = new ArrayList<>();
        Map<Manner, List<String>> columns = new EnumMap<>(Manner.class);
        for (int i = 0; i < check.rule().columns().size(); i++) {
            Manner manner = Resemblance.manner(manners, i);
            String column = check.rule().columns().get(i);
            columns.computeIfAbsent(manner, m -> new ArrayList<>()).add(column);
            if (manner != Manner.EQUAL) {
                differing.add(column);
            }
        }
        List<String> clauses = new ArrayList<>();
        columns.forEach((manner, of) -> clauses.add(Alike.named(of) + " " + manner.words()));
        String part = source.partCount() > 1 ? " of " + source.partName(RowRef.part(other)) : "";
        return row.evidence(group, "as row " + RowRef.row(other) + part + ": " + String.join("; ", clauses), differing);
    }
}
