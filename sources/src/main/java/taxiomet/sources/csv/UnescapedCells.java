package taxiomet.sources.csv;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import taxiomet.values.CellColumn;

/** The cells of a chunk whose text stands apart from its bytes, since quotes were doubled in them. */
final class UnescapedCells {
    private final List<Cell> cells = new ArrayList<>();
    private byte[] text = new byte[256];
    private int length;

    private record Cell(int field, int row, int start, int length) {}

    void clear() {
        cells.clear();
        length = 0;
    }

    /** Adds the cell that stands between two quotes, exclusive of both. */
    void add(int field, int row, byte[] bytes, int from, int end, byte quote) {
        if (text.length < length + end - from) {
            text = Arrays.copyOf(text, Math.max(text.length * 2, length + end - from));
        }
        int start = length;
        for (int place = from; place < end; place++) {
            text[length++] = bytes[place];
            if (bytes[place] == quote) {
                place++;
            }
        }
        cells.add(new Cell(field, row, start, length - start));
    }

    /** Takes back the cells of a row that turned out to be none; it is the last that has any. */
    void drop(int row) {
        while (!cells.isEmpty() && cells.get(cells.size() - 1).row() == row) {
            length = cells.remove(cells.size() - 1).start();
        }
    }

    /** Puts the text into the chunk, and the cells' spans to those of their rows. */
    void handOver(Chunk chunk, long[][] spans) {
        if (cells.isEmpty()) {
            return;
        }
        int base = chunk.addText(text, length);
        for (Cell cell : cells) {
            spans[cell.field()][cell.row()] = CellColumn.span(base + cell.start(), cell.length());
        }
    }
}
