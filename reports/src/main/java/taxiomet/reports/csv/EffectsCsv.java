package taxiomet.reports.csv;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.Collection;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import taxiomet.finding.RehearsalResult.EffectRow;
import taxiomet.finding.RehearsalResult.EffectRows;
import taxiomet.finding.RehearsalResult.RowName;
import taxiomet.reports.OutputException;

/** All effects of a rehearsal in one CSV file, one line for each. */
public final class EffectsCsv {
    private EffectsCsv() {}

    /**
     * Writes them.
     *
     * @param hasMark whether the file begins with a byte order mark
     * @throws OutputException when the file cannot be written
     */
    public static void write(EffectRows effects, Path file, boolean hasMark) {
        try (CsvWriter writer = CsvFile.open(file, hasMark)) {
            writer.writeRecord(
                    "change",
                    "answer",
                    "table",
                    "effect",
                    "link",
                    "steps",
                    "row",
                    "line",
                    "file",
                    "key",
                    "label",
                    "by_table",
                    "by_key",
                    "refusal",
                    "before",
                    "after");
            effects.forEach(effect -> write(writer, effect));
        } catch (UncheckedIOException e) {
            throw OutputException.of(file.toString(), e.getCause());
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        }
    }

    private static void write(CsvWriter writer, EffectRow effect) {
        RowName row = effect.row();
        writer.writeRecord(
                String.valueOf(effect.change()),
                effect.answer(),
                SafeCell.of(row.table()),
                effect.kind().words(),
                effect.link().map(SafeCell::of).orElse(null),
                String.valueOf(effect.steps()),
                String.valueOf(row.row()),
                row.isNew() || row.line() == 0 ? null : String.valueOf(row.line()),
                row.isNew() ? null : SafeCell.of(row.part()),
                joined(row.key().values()),
                joined(row.label().values()),
                effect.by().map(by -> SafeCell.of(by.table())).orElse(null),
                effect.by().map(by -> joined(by.key().values())).orElse(null),
                effect.refusal().map(SafeCell::of).orElse(null),
                cells(effect.values().before()),
                cells(effect.values().after()));
    }

    private static String cells(Map<String, String> cells) {
        return cells.isEmpty()
                ? null
                : SafeCell.of(cells.entrySet().stream()
                        .map(cell -> cell.getKey() + "=" + Objects.requireNonNullElse(cell.getValue(), ""))
                        .collect(Collectors.joining("; ")));
    }

    private static String joined(Collection<String> cells) {
        return cells.isEmpty()
                ? null
                : SafeCell.of(cells.stream()
                        .map(cell -> Objects.requireNonNullElse(cell, ""))
                        .collect(Collectors.joining(", ")));
    }
}
