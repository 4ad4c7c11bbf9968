package taxiomet.sources.sheet;

import java.util.ArrayList;
import java.util.List;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import taxiomet.charter.place.SheetRows.Area;

/** The cells of one row after the other, as the elements of a table say. */
final class OdsRow {
    /** No sheet has more columns; what is repeated beyond them is no cell. */
    private static final int MOST_COLUMNS = 16_384;
    /** How many characters a cell may show. */
    private static final int LONGEST_TEXT = 1 << 20;

    private static final String OFFICE = "urn:oasis:names:tc:opendocument:xmlns:office:1.0";

    private final XMLStreamReader xml;
    private final List<OdsCell> cells = new ArrayList<>();
    /** As though the row were the first. */
    private final List<Area> merged = new ArrayList<>();

    private int inside;

    /** @param xml stands at a table's beginning */
    OdsRow(XMLStreamReader xml) {
        this.xml = xml;
    }

    /** How many columns it has up to its last cell that is not empty. */
    int width() {
        return cells.size();
    }

    /** The cell in a column, 0 for the first; null where it is empty. */
    OdsCell cell(int column) {
        return column < cells.size() ? cells.get(column) : null;
    }

    /** The merged cells that begin in the row, as though it were the first of the sheet. */
    List<Area> merged() {
        return merged;
    }

    /** Reads the next row, and gives how often it stands there; 0 when the table ends. */
    long read() throws XMLStreamException {
        cells.clear();
        merged.clear();
        while (xml.hasNext()) {
            int event = xml.next();
            if (OdsWorkbook.isTable(xml, event)) {
                // A table within a cell is none of the sheet's rows.
                inside++;
            } else if (event == XMLStreamConstants.END_ELEMENT
                    && xml.getLocalName().equals("table")
                    && OdsWorkbook.TABLE.equals(xml.getNamespaceURI())
                    && --inside < 0) {
                return 0;
            } else if (event == XMLStreamConstants.START_ELEMENT && inside == 0 && isNamed("table-row")) {
                long repeats = repeats("number-rows-repeated");
                readCells();
                return repeats;
            }
        }
        return 0;
    }

    private boolean isNamed(String name) {
        return xml.getLocalName().equals(name) && OdsWorkbook.TABLE.equals(xml.getNamespaceURI());
    }

    private long repeats(String attribute) {
        String repeats = xml.getAttributeValue(OdsWorkbook.TABLE, attribute);
        return repeats == null || !repeats.matches("[0-9]{1,9}") ? 1 : Math.max(1, Long.parseLong(repeats));
    }

    private void readCells() throws XMLStreamException {
        int column = 0;
        while (xml.hasNext()) {
            int event = xml.next();
            if (event == XMLStreamConstants.END_ELEMENT && isNamed("table-row")) {
                return;
            } else if (event == XMLStreamConstants.START_ELEMENT
                    && (isNamed("table-cell") || isNamed("covered-table-cell"))) {
                int repeats = (int) Math.min(repeats("number-columns-repeated"), MOST_COLUMNS - (long) column);
                long rowsSpanned = repeats("number-rows-spanned");
                long columnsSpanned = repeats("number-columns-spanned");
                if (rowsSpanned > 1 || columnsSpanned > 1) {
                    int last = (int) Math.min(column + columnsSpanned, MOST_COLUMNS) - 1;
                    merged.add(new Area(1, rowsSpanned, column, last));
                }
                OdsCell cell = readCell();
                column += repeats;
                if (cell != null) {
                    while (cells.size() < column - repeats) {
                        cells.add(null);
                    }
                    for (int i = 0; i < repeats; i++) {
                        cells.add(cell);
                    }
                }
            }
        }
    }

    /** Reads a cell to its end; null when it is empty. */
    private OdsCell readCell() throws XMLStreamException {
        String type = xml.getAttributeValue(OFFICE, "value-type");
        String stored = type == null ? null : xml.getAttributeValue(OFFICE, attributeOf(type));
        String shown = readText();
        if (stored != null) {
            return new OdsCell(type, stored);
        }
        return type == null && shown.isEmpty() ? null : new OdsCell("string", shown);
    }

    private static String attributeOf(String type) {
        return switch (type) {
            case "date" -> "date-value";
            case "time" -> "time-value";
            case "boolean" -> "boolean-value";
            case "string" -> "string-value";
            default -> "value";
        };
    }

    /** The text that a cell shows, without its notes; paragraphs are lines. */
    private String readText() throws XMLStreamException {
        StringBuilder text = new StringBuilder();
        int depth = 0;
        boolean isFirst = true;
        int paragraph = 0;
        while (xml.hasNext()) {
            int event = xml.next();
            if (event == XMLStreamConstants.START_ELEMENT) {
                String name = xml.getLocalName();
                if (name.equals("annotation") || name.equals("table") || name.equals("frame")) {
                    passOver();
                    continue;
                }
                depth++;
                if (name.equals("p") && paragraph == 0) {
                    text.append(isFirst ? "" : "\n");
                    isFirst = false;
                    paragraph = depth;
                } else if (name.equals("s")) {
                    String count = xml.getAttributeValue(xml.getNamespaceURI(), "c");
                    text.append(" ".repeat(count != null && count.matches("[0-9]{1,4}") ? Integer.parseInt(count) : 1));
                } else if (name.equals("tab")) {
                    text.append('\t');
                } else if (name.equals("line-break")) {
                    text.append('\n');
                }
            } else if (event == XMLStreamConstants.END_ELEMENT) {
                if (depth == 0) {
                    return text.toString();
                }
                paragraph = paragraph == depth ? 0 : paragraph;
                depth--;
            } else if (paragraph > 0 && xml.isCharacters()) {
                text.append(xml.getText());
            }
            if (text.length() > LONGEST_TEXT) {
                throw new XMLStreamException("a cell holds more than " + LONGEST_TEXT + " characters");
            }
        }
        return text.toString();
    }

    private void passOver() throws XMLStreamException {
        int depth = 1;
        while (depth > 0 && xml.hasNext()) {
            int event = xml.next();
            depth += event == XMLStreamConstants.START_ELEMENT ? 1 : event == XMLStreamConstants.END_ELEMENT ? -1 : 0;
        }
    }
}
