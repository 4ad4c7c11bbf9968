package taxiomet.cli;

import java.io.IOException;
import java.util.List;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.Table;
import taxiomet.cli.option.CommonOptions;
import taxiomet.cli.option.KeyText;
import taxiomet.cli.option.TableNames;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
import taxiomet.finding.RehearsalResult.Ways;
import taxiomet.personal.Pseudonyms;
import taxiomet.proposal.ProposalException;
import taxiomet.rehearse.Rehearsal;
import taxiomet.reports.json.Provenance;
import taxiomet.reports.json.RehearsalJson;
import taxiomet.reports.text.LinePaper;
import taxiomet.reports.text.RehearsalText;

/** Why a rehearsal touches a row: what --why asks. */
final class RowWays {
    private final Charter charter;
    private final String table;
    private final String key;

    /** @throws UsageException where there is no such table */
    RowWays(Charter charter, String table, String key) {
        TableNames.require(charter, table);
        this.charter = charter;
        this.table = table;
        this.key = key;
    }

    void write(Rehearsal rehearsal, boolean isJson, CommonOptions common, Terminal terminal, Provenance provenance)
            throws IOException {
        Ways ways = ways(rehearsal);
        if (isJson) {
            RehearsalJson.writeWays(ways, provenance, charter.name(), terminal.out());
        } else {
            RehearsalText.writeWays(
                    table + " " + shownKey(),
                    ways,
                    new LinePaper(terminal.width(), terminal.hasColor(common.color()), terminal.out()::println));
        }
    }

    private String shownKey() {
        Table whose = charter.table(table);
        boolean isPersonal = whose.namingKey().stream().map(whose::column).anyMatch(Column::isPersonal);
        return isPersonal ? Pseudonyms.HIDDEN : key;
    }

    /** By the first reading of the key that names a row. */
    private Ways ways(Rehearsal rehearsal) {
        List<String> columns = charter.table(table).namingKey();
        List<List<String>> readings = KeyText.readings(key, columns.size());
        if (readings.isEmpty() || columns.isEmpty()) {
            throw new UsageException("--why " + table + ": the key of this table has " + columns.size() + " columns"
                    + (columns.isEmpty() ? "" : ": " + String.join(", ", columns)));
        }
        for (int i = 0; ; i++) {
            try {
                return rehearsal.why(table, readings.get(i));
            } catch (ProposalException e) {
                if (i + 1 == readings.size()) {
                    throw e;
                }
            }
        }
    }
}
