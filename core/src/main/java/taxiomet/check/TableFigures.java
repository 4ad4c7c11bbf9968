package taxiomet.check;

/**
 * How much was read of a table.
 *
 * @param rows malformed ones among them
 */
record TableFigures(long rows, long malformed, long emptyLines) {
    static final TableFigures NONE = new TableFigures(0, 0, 0);

    TableFigures plus(TableFigures others) {
        return new TableFigures(rows + others.rows, malformed + others.malformed, emptyLines + others.emptyLines);
    }
}
