package taxiomet.sources.csv;

import taxiomet.charter.DelimitedFiles;

/** Which fields the rows of a part have, and where they go. */
final class CsvFields {
    private final DelimitedFiles format;
    private final int[] columnOfField;

    /** @param columnOfField for each field, the place of its column in the batch, or -1 */
    CsvFields(DelimitedFiles format, int[] columnOfField) {
        this.format = format;
        this.columnOfField = columnOfField.clone();
    }

    DelimitedFiles format() {
        return format;
    }

    int count() {
        return columnOfField.length;
    }

    /** The place of a field's column in the batch; -1 when it is not wanted. */
    int columnOf(int field) {
        return columnOfField[field];
    }
}
