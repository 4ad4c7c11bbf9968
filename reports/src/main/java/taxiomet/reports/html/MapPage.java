package taxiomet.reports.html;

import java.util.List;

/** What a page about a map shows, in texts. */
public record MapPage(String title, String figures, String svg, List<TableItem> tables) {
    /**
     * A table.
     *
     * @param said of it as a whole
     * @param found what a check found
     */
    public record TableItem(
            String name, String said, List<String> found, List<ColumnItem> columns, List<LinkItem> links) {}

    /** A column, and how it looks. */
    public record ColumnItem(String name, String type, String said, String css) {}

    /** A link, what it means, and what a check found. */
    public record LinkItem(String name, String sentence, String found) {}
}
