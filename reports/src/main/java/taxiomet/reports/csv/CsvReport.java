package taxiomet.reports.csv;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;
import taxiomet.finding.CheckResult;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.reports.EvidenceFields;
import taxiomet.reports.OutputException;

/** All rows of all findings in one CSV file, one line for each row of each finding. */
public final class CsvReport {
    private CsvReport() {}

    /**
     * Writes them.
     *
     * @param hasMark whether the file begins with a byte order mark
     * @throws OutputException when the file cannot be written
     */
    public static void write(CheckResult result, Path file, boolean hasMark) {
        try (CsvWriter writer = CsvFile.open(file, hasMark)) {
            writer.writeRecord(
                    "severity",
                    "finding",
                    "table",
                    "at",
                    "row",
                    "line",
                    "file",
                    "group",
                    "key",
                    "label",
                    "values",
                    "problem",
                    "hint");
            for (Finding finding : result.findings()) {
                if (finding.details() instanceof Finding.Undeclared lost) {
                    write(writer, finding, lost);
                    continue;
                }
                EvidenceFields fields = new EvidenceFields(result, finding);
                finding.evidence().forEach(row -> write(writer, finding, fields, row));
            }
        } catch (UncheckedIOException e) {
            throw OutputException.of(file.toString(), e.getCause());
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        }
    }

    private static void write(CsvWriter writer, Finding finding, Finding.Undeclared lost) {
        writer.writeRecord(
                finding.severity().word(),
                finding.kind().words(),
                SafeCell.of(finding.table()),
                SafeCell.of(finding.at()),
                null,
                null,
                SafeCell.of(lost.place()),
                null,
                null,
                null,
                SafeCell.of(lost.declared()),
                SafeCell.of(lost.problem()),
                null);
    }

    private static void write(CsvWriter writer, Finding finding, EvidenceFields fields, Evidence row) {
        writer.writeRecord(
                finding.severity().word(),
                finding.kind().words(),
                SafeCell.of(finding.table()),
                SafeCell.of(finding.at()),
                Long.toString(row.row()),
                row.line() > 0 ? Long.toString(row.line()) : null,
                SafeCell.of(row.part()),
                row.group() == 0 ? null : Long.toString(row.group()),
                joined(fields, row, fields.table().key()),
                joined(fields, row, fields.table().label()),
                row.raw().isEmpty() ? joined(fields, row, fields.columns()) : SafeCell.of(row.raw()),
                row.problem().isEmpty() ? null : row.problem(),
                row.hint().map(hint -> hint.words()).orElse(null));
    }

    private static String joined(EvidenceFields fields, Evidence row, List<String> columns) {
        return row.values().isEmpty() || columns.isEmpty()
                ? null
                : SafeCell.of(columns.stream()
                        .map(column -> fields.cell(row, column).orElse(""))
                        .collect(Collectors.joining(", ")));
    }
}
