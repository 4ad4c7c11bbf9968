package taxiomet.sources.csv;

/** Which fields the rows of a part have, and where they go. */
final class CsvFields {
    private final ByteForm form;
    private final int[] columnOfField;

    /**
     * @param form of the bytes that the fields stand in
     * @param columnOfField for each field, the place of its column in the batch, or -1
     */
    CsvFields(ByteForm form, int[] columnOfField) {
        this.form = form;
        this.columnOfField = columnOfField.clone();
    }

    ByteForm form() {
        return form;
    }

    int count() {
        return columnOfField.length;
    }

    /** The place of a field's column in the batch; -1 when it is not wanted. */
    int columnOf(int field) {
        return columnOfField[field];
    }
}
