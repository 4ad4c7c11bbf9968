package taxiomet.reports.csv;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.Closeable;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;
import taxiomet.reports.EvidenceFields;

/** One CSV file with the rows of one finding: where each stands, its own columns, and what is wrong with it. */
final class FindingRows implements Closeable {
    private final CsvWriter writer;
    private final EvidenceFields fields;
    private final boolean isGrouped;
    private final boolean isMalformed;

    /** Opens the file; what stands in it already stays, and more rows follow. */
    FindingRows(Path file, Finding finding, EvidenceFields fields, boolean hasMark) throws IOException {
        this.fields = fields;
        this.isGrouped = finding.kind().isGrouped();
        this.isMalformed = finding.kind() == FindingKind.MALFORMED_ROW;
        boolean isNew = Files.notExists(file);
        this.writer = CsvFile.open(file, hasMark, StandardOpenOption.CREATE, StandardOpenOption.APPEND);
        if (isNew) {
            writeHeader();
        }
    }

    private void writeHeader() {
        List<String> header = new ArrayList<>(List.of("row", "line", "file"));
        if (isGrouped) {
            header.add("group");
        }
        header.addAll(List.of("rule", "at_fault", "problem"));
        header.add("hint");
        if (isMalformed) {
            header.add("raw");
            writer.writeRecord(header);
            return;
        }
        fields.table().columns().forEach(column -> header.add(SafeCell.of(column)));
        writer.writeRecord(header);
    }

    void write(Evidence row, Finding finding) {
        List<String> cells = new ArrayList<>();
        cells.add(Long.toString(row.row()));
        cells.add(row.line() > 0 ? Long.toString(row.line()) : null);
        cells.add(SafeCell.of(row.part()));
        if (isGrouped) {
            cells.add(Long.toString(row.group()));
        }
        cells.add(SafeCell.of(finding.kind().words() + " at " + finding.at()));
        cells.add(finding.columns().isEmpty() ? null : SafeCell.of(String.join(", ", finding.columns())));
        cells.add((row.problem().isEmpty() ? finding.kind().words() : row.problem())
                + (row.isAccepted() ? "; accepted" : ""));
        cells.add(row.hint().map(hint -> hint.words()).orElse(null));
        if (isMalformed) {
            cells.add(SafeCell.of(row.raw()));
        }
        for (int i = 0; i < row.values().size(); i++) {
            cells.add(SafeCell.of(row.values().get(i)));
        }
        writer.writeRecord(cells);
    }

    @Override
    public void close() {
        try {
            writer.close();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
