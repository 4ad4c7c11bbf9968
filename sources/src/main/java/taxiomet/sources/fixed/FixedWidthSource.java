package taxiomet.sources.fixed;

import java.io.IOException;
import java.nio.charset.CharacterCodingException;
import java.util.List;
import taxiomet.charter.place.FixedWidth;
import taxiomet.charter.place.FixedWidth.Positions;
import taxiomet.rows.ColumnNames;
import taxiomet.rows.RowBatch;
import taxiomet.rows.SourceException;
import taxiomet.rows.Undeclared;
import taxiomet.sources.file.FileCursorSource;

/**
 * A table in one or several files of text whose columns have their positions. Blanks round a value fill its positions up, and blanks alone are a
 * null; a line that ends before a column has none there.
 */
public final class FixedWidthSource extends FileCursorSource {
    private final FixedWidth rows;
    private final List<String> columns;
    private final List<Positions> positions;

    private FixedWidthSource(FixedWidth rows, List<String> columns) {
        super(rows.folder(), rows.path());
        this.rows = rows;
        this.columns = List.copyOf(columns);
        for (String column : columns) {
            if (!rows.positions().containsKey(column)) {
                List<String> names = List.copyOf(rows.positions().keySet());
                throw new SourceException(
                        rows.path(),
                        "column `" + column + "` has no `positions`" + ColumnNames.near(column, names),
                        "positions are given for " + ColumnNames.listed(names));
            }
        }
        this.positions = columns.stream().map(rows.positions()::get).toList();
    }

    /**
     * Opens the files of a table.
     *
     * @param columns names of the columns wanted
     * @throws SourceException when a file is not there, or a column has no positions
     */
    public static FixedWidthSource open(FixedWidth rows, List<String> columns) {
        return new FixedWidthSource(rows, columns);
    }

    @Override
    public List<String> columns() {
        return columns;
    }

    @Override
    public Undeclared undeclared() {
        return Undeclared.columns(List.of());
    }

    @Override
    protected Cursor open(int part, int[] wanted, Object place) throws IOException {
        return new Lines(part, wanted);
    }

    private final class Lines implements Cursor {
        private final int part;
        private final int[] wanted;
        private final BoundedLines lines;
        private String line;
        private long empty;

        Lines(int part, int[] wanted) throws IOException {
            this.part = part;
            this.wanted = wanted;
            this.lines = new BoundedLines(file(part).open(0), rows.encoding());
        }

        @Override
        public boolean next() {
            try {
                line = lines.next();
                boolean isHeading = rows.hasHeader() && lines.number() == 1;
                while (line != null && (isHeading || line.isBlank())) {
                    empty += isHeading ? 0 : 1;
                    isHeading = false;
                    line = lines.next();
                }
                return line != null;
            } catch (CharacterCodingException e) {
                throw new SourceException(
                        partName(part) + ", behind line " + lines.number(),
                        "there are bytes that are no characters in " + rows.encoding(),
                        "name the file's `encoding` in the charter");
            } catch (IOException e) {
                file(part).requireUnchanged();
                throw file(part).unreadable(e);
            }
        }

        @Override
        public Object place() {
            return null;
        }

        @Override
        public long line() {
            return lines.number();
        }

        @Override
        public long emptyLines() {
            return empty;
        }

        @Override
        public long addTo(RowBatch batch) {
            int length = line.codePointCount(0, line.length());
            for (int i = 0; i < wanted.length; i++) {
                String cell = cell(positions.get(wanted[i]), length);
                if (cell.isEmpty() || rows.nullWords().contains(cell)) {
                    batch.column(i).addNull();
                } else {
                    batch.column(i).add(cell);
                }
            }
            return line.length();
        }

        private String cell(Positions at, int length) {
            if (at.first() > length) {
                return "";
            }
            int start = line.offsetByCodePoints(0, at.first() - 1);
            int last = Math.min(length, at.last());
            return line.substring(start, line.offsetByCodePoints(start, last - at.first() + 1))
                    .strip();
        }

        @Override
        public void close() {
            try {
                lines.close();
            } catch (IOException e) {
                throw file(part).unreadable(e);
            }
        }
    }
}
