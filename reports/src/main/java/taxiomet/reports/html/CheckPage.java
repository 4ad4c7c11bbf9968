package taxiomet.reports.html;

import java.util.List;

/**
 * What a page about a check shows, in texts: templates only put them in their places.
 *
 * @param moreCauses how many are left out; empty for none
 * @param map a picture of the tables, as SVG; empty without one
 * @param load null where nobody asked
 */
public record CheckPage(
        String title,
        String answer,
        boolean isSound,
        List<String> figures,
        List<CauseItem> causes,
        String moreCauses,
        List<TableItem> tables,
        List<String> remarks,
        String map,
        LoadItem load,
        List<FindingItem> findings) {
    private static final int FIRST_CAUSES = 5;

    public boolean hasMap() {
        return !map.isEmpty();
    }

    /** Those that stand on the first screen. */
    public List<CauseItem> firstCauses() {
        return causes.subList(0, Math.min(FIRST_CAUSES, causes.size()));
    }

    /** Those that are shown when somebody asks for them. */
    public List<CauseItem> otherCauses() {
        return causes.subList(Math.min(FIRST_CAUSES, causes.size()), causes.size());
    }

    /** How many these are. */
    public String othersSaid() {
        int others = causes.size() - FIRST_CAUSES;
        return "the next " + (others == 1 ? "one" : String.valueOf(others));
    }

    /** The severities that there are. */
    public List<String> severities() {
        return findings.stream().map(FindingItem::severity).distinct().toList();
    }

    /** The tables that findings are about. */
    public List<String> tablesOfFindings() {
        return findings.stream()
                .map(FindingItem::table)
                .filter(table -> !table.isEmpty())
                .distinct()
                .toList();
    }

    /** What would cure some findings, and the command that goes on from there. */
    public record CauseItem(String todo, String cures, String command) {}

    /**
     * A table.
     *
     * @param share of its rows that are at fault, in words
     * @param width the same, as a part of 100
     */
    public record TableItem(String name, String rows, String atFault, String share, String width, String kinds) {}

    /** What a load would take in. */
    public record LoadItem(String answer, List<LoadedItem> tables, List<String> remarks) {}

    /** What a load would take in of one table. */
    public record LoadedItem(String place, String name, String rows, String loaded, List<String> refused) {}

    /**
     * A finding.
     *
     * @param id by which the page leads to it
     * @param sentences what there is to say of it as a whole
     * @param commonest of orphans, the commonest values without a parent
     * @param more how many rows are left out, and where they are; empty for none
     * @param meaning the command that tells what it means
     */
    public record FindingItem(
            String id,
            String severity,
            String kind,
            String table,
            String place,
            String rows,
            List<String> sentences,
            List<ValueItem> commonest,
            List<Head> heads,
            List<List<CellItem>> lines,
            String more,
            String meaning) {
        /** The sentences behind the first. */
        public List<String> rest() {
            return sentences.isEmpty() ? sentences : sentences.subList(1, sentences.size());
        }
    }

    /** A value, how often it comes, and what may have been meant. */
    public record ValueItem(String text, String rows, String width, String hint) {}

    /** The head of a column, and how it looks. */
    public record Head(String text, String css) {}

    /** A cell: its text, null for null, and how it looks. */
    public record CellItem(String text, String css) {
        public boolean isNull() {
            return text == null;
        }
    }
}
