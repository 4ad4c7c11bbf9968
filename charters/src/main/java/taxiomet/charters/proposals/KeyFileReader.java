package taxiomet.charters.proposals;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.FieldMismatchStrategy;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import taxiomet.charter.Column;
import taxiomet.charter.NearestWord;
import taxiomet.charter.Table;
import taxiomet.charters.input.InputFile;
import taxiomet.charters.proposals.LineHandler.Line;
import taxiomet.proposal.Change;
import taxiomet.proposal.Change.InsertedRow;
import taxiomet.proposal.Change.ListedRow;
import taxiomet.proposal.Change.RowPlace;
import taxiomet.proposal.Input;
import taxiomet.proposal.Origin;
import taxiomet.proposal.ProposalException;

/** Makes changes of CSV files that list keys, or rows. */
final class KeyFileReader {
    private static final String NEW = "new:";
    /** How the header of evidence begins; what follows before the table's own columns says why the rows are in it. */
    private static final List<String> EVIDENCE = List.of("row", "line", "file");

    private static final List<String> REMARKS = List.of("group", "rule", "at_fault", "problem", "hint");
    private static final char[] DELIMITERS = {',', ';', '\t', '|'};

    private final Table table;
    private final Path file;
    private final String name;
    private final List<String> known;

    KeyFileReader(Table table, Path file) {
        this.table = table;
        this.file = file;
        this.name = InputFile.name(file);
        this.known = table.columns().stream().map(Column::name).toList();
    }

    private static boolean isEvidence(Line header) {
        return header.cells().size() > EVIDENCE.size()
                && header.cells().subList(0, EVIDENCE.size()).equals(EVIDENCE);
    }

    /** How many cells stand before the table's own columns: none but in evidence. */
    private static int remarksBefore(Line header) {
        if (!isEvidence(header)) {
            return 0;
        }
        int place = EVIDENCE.size();
        while (place < header.cells().size()
                && REMARKS.contains(String.valueOf(header.cells().get(place)))) {
            place++;
        }
        return place;
    }

    private Optional<RowPlace> at(Line line, Line header) {
        if (!isEvidence(header)) {
            return Optional.empty();
        }
        String number = String.valueOf(line.cells().get(0));
        String path = String.valueOf(line.cells().get(2));
        if (!number.matches("[0-9]{1,12}")) {
            throw problem(
                    line.number(), "`" + number + "` is no number of a row", "keep the first columns as they were");
        }
        return Optional.of(
                new RowPlace(path.substring(path.replace('\\', '/').lastIndexOf('/') + 1), Long.parseLong(number)));
    }

    Change delete() {
        List<Line> lines = lines();
        int first = remarksBefore(lines.get(0));
        List<String> columns = named(lines.get(0));
        List<ListedRow> rows = new ArrayList<>();
        for (Line line : rowsOf(lines)) {
            List<String> cells = line.cells().subList(first, line.cells().size());
            rows.add(new ListedRow(place(line), cells, List.of(), at(line, lines.get(0))));
        }
        return new Change.DeleteListed(origin("delete", rows.size()), table.name(), columns, rows);
    }

    Change insert() {
        List<Line> lines = lines();
        List<String> columns = named(lines.get(0));
        List<InsertedRow> rows = new ArrayList<>();
        for (Line line : rowsOf(lines)) {
            rows.add(new InsertedRow(place(line), inputs(line.cells())));
        }
        return new Change.Insert(origin("insert", rows.size()), table.name(), columns, rows);
    }

    Change update() {
        List<Line> lines = lines();
        List<String> header = lines.get(0).cells();
        List<String> keyColumns = new ArrayList<>();
        List<String> newColumns = new ArrayList<>();
        List<Integer> keyPlaces = new ArrayList<>();
        List<Integer> newPlaces = new ArrayList<>();
        for (int i = remarksBefore(lines.get(0)); i < header.size(); i++) {
            String name = String.valueOf(header.get(i));
            boolean isNew = name.regionMatches(true, 0, NEW, 0, NEW.length());
            String column = column(isNew ? name.substring(NEW.length()) : name);
            List<String> columns = isNew ? newColumns : keyColumns;
            if (columns.contains(column)) {
                throw problem(1, "the header names `" + name + "` twice", "name it once");
            }
            columns.add(column);
            (isNew ? newPlaces : keyPlaces).add(i);
        }
        if (newColumns.isEmpty() || keyColumns.isEmpty()) {
            throw problem(
                    1,
                    newColumns.isEmpty() ? "no column gives a new value" : "no column says which rows are meant",
                    "name the key's columns as they are, and those that change with `new:` before them, such as "
                            + keyExample());
        }
        List<ListedRow> rows = new ArrayList<>();
        for (Line line : rowsOf(lines)) {
            rows.add(new ListedRow(
                    place(line),
                    picked(line.cells(), keyPlaces),
                    inputs(picked(line.cells(), newPlaces)),
                    at(line, lines.get(0))));
        }
        return new Change.UpdateListed(origin("update", rows.size()), table.name(), keyColumns, newColumns, rows);
    }

    private String keyExample() {
        String key = table.keys().isEmpty()
                ? known.get(0)
                : table.keys().get(0).columns().get(0);
        return key + "," + NEW + known.get(known.size() - 1);
    }

    private static List<String> picked(List<String> cells, List<Integer> places) {
        List<String> picked = new ArrayList<>();
        places.forEach(place -> picked.add(cells.get(place)));
        return picked;
    }

    private static List<Input> inputs(List<String> cells) {
        List<Input> inputs = new ArrayList<>();
        cells.forEach(cell -> inputs.add(new Input.Cell(cell)));
        return inputs;
    }

    private Origin origin(String what, int rows) {
        return new Origin(
                what + " " + rows + (rows == 1 ? " row of " : " rows of ") + table.name() + " listed in "
                        + Path.of(name).getFileName(),
                name);
    }

    private String place(Line line) {
        return name + ":" + line.number();
    }

    private ProposalException problem(long line, String problem, String remedy) {
        return new ProposalException(name + ":" + line, problem, remedy);
    }

    private List<String> named(Line header) {
        List<String> columns = new ArrayList<>();
        for (String name :
                header.cells().subList(remarksBefore(header), header.cells().size())) {
            String column = column(String.valueOf(name));
            if (columns.contains(column)) {
                throw problem(header.number(), "the header names `" + name + "` twice", "name it once");
            }
            columns.add(column);
        }
        return columns;
    }

    private String column(String name) {
        Optional<String> column = ColumnNames.find(name.strip(), known, true);
        return column.orElseThrow(() -> problem(
                1,
                "table " + table.name() + " has no column "
                        + (table.columns().stream().anyMatch(Column::isPersonal) ? "of this name" : "`" + name + "`"),
                NearestWord.of(name, known)
                        .map(near -> "did you mean `" + near + "`?")
                        .orElseGet(() -> "the first line names columns: " + String.join(", ", known))));
    }

    private List<Line> rowsOf(List<Line> lines) {
        if (lines.size() == 1) {
            throw problem(1, "the file names columns and lists no row", "add the rows, or leave the file out");
        }
        return lines.subList(1, lines.size());
    }

    /** All lines, the header first, each with as many cells as the header. */
    private List<Line> lines() {
        String all = ProposalText.of(file);
        String text = all.startsWith("\uFEFF") ? all.substring(1) : all;
        List<Line> lines = new ArrayList<>();
        try (CsvReader<Line> reader = CsvReader.builder()
                .fieldSeparator(delimiter(text))
                .extraFieldStrategy(FieldMismatchStrategy.IGNORE)
                .missingFieldStrategy(FieldMismatchStrategy.IGNORE)
                .allowUnclosedQuote(false)
                .build(new LineHandler(), text)) {
            for (Line line : reader) {
                if (!lines.isEmpty()
                        && line.cells().size() != lines.get(0).cells().size()) {
                    throw problem(
                            line.number(),
                            "this line has " + line.cells().size() + " fields, and the first "
                                    + lines.get(0).cells().size(),
                            "put texts that hold the delimiter in quotes");
                }
                lines.add(line);
            }
        } catch (CsvParseException e) {
            throw new ProposalException(name, "this is no CSV (" + e.getMessage() + ")", "check its quotes");
        } catch (IOException e) {
            throw ProposalText.unreadable(file, e);
        }
        if (lines.isEmpty()) {
            throw problem(1, "the file is empty", "begin it with a line that names columns of " + table.name());
        }
        return lines;
    }

    /** The delimiter that takes most known columns out of the first line. */
    private char delimiter(String text) {
        String first = text.lines().findFirst().orElse("");
        char best = DELIMITERS[0];
        long most = -1;
        for (char delimiter : DELIMITERS) {
            long count = List.of(first.split(java.util.regex.Pattern.quote(String.valueOf(delimiter)), -1)).stream()
                    .map(name -> name.replace("\"", "").strip().replaceFirst("(?i)^" + NEW, ""))
                    .filter(name -> ColumnNames.find(name, known, true).isPresent())
                    .count();
            if (count > most) {
                best = delimiter;
                most = count;
            }
        }
        return best;
    }
}
