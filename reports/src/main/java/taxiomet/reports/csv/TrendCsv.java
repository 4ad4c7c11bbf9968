package taxiomet.reports.csv;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import taxiomet.finding.ResultComparison;
import taxiomet.finding.ResultComparison.Standing;
import taxiomet.reports.OutputException;

/** How it stood in one result after the other, as CSV: a row for each. */
public final class TrendCsv {
    private TrendCsv() {}

    /**
     * Writes it.
     *
     * @param steps from each result to the next, at least one
     * @param hasMark whether the file begins with a byte order mark
     * @throws OutputException when the file cannot be written
     */
    public static void write(List<ResultComparison> steps, Path file, boolean hasMark) {
        try (CsvWriter writer = CsvFile.open(file, hasMark, StandardOpenOption.CREATE_NEW)) {
            writer.writeRecord(
                    "made",
                    "errors",
                    "warnings",
                    "notes",
                    "rows",
                    "faulty_rows",
                    "accepted",
                    "new_faults",
                    "gone_faults");
            write(writer, steps.get(0).earlier(), "", "");
            for (ResultComparison step : steps) {
                write(writer, step.later(), String.valueOf(step.newFaults()), String.valueOf(step.goneFaults()));
            }
        } catch (UncheckedIOException e) {
            throw OutputException.of(file.toString(), e.getCause());
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        }
    }

    private static void write(CsvWriter writer, Standing standing, String come, String gone) {
        writer.writeRecord(
                standing.made().toString(),
                String.valueOf(standing.errors()),
                String.valueOf(standing.warnings()),
                String.valueOf(standing.notes()),
                String.valueOf(standing.rows()),
                String.valueOf(standing.faultyRows()),
                String.valueOf(standing.accepted()),
                come.isEmpty() ? null : come,
                gone.isEmpty() ? null : gone);
    }
}
