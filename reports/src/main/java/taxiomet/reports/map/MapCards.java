package taxiomet.reports.map;

import java.util.ArrayList;
import java.util.List;
import taxiomet.finding.MapResult;
import taxiomet.finding.MapResult.Health;
import taxiomet.finding.MapResult.MapColumn;
import taxiomet.finding.MapResult.MapTable;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.Counted;

/** What stands in the cards of tables, line by line, and how much room it takes. Lengths are in pixels. */
public final class MapCards {
    /** How wide a letter of the font is at its size, about. */
    public static final double LETTER = 7.25;

    static final double LINE = 18;
    static final double TITLE = 27;
    static final double PADDING = 9;
    /** In larger maps only columns of keys and links are listed. */
    private static final int SMALL_MAP = 20;

    private static final int MOST_COLUMNS = 14;
    private static final int LONGEST_NAME = 34;
    private static final int LONGEST_TYPE = 24;
    private static final double GAP = 22;

    private MapCards() {}

    /**
     * One line of a card.
     *
     * @param text left
     * @param more right; may be empty
     * @param css how it looks: key, plain, may be null
     */
    public record CardLine(String text, String more, String css) {}

    /**
     * The card of a table.
     *
     * @param title the table's name
     * @param count how many rows it has; empty where that is not known
     * @param foot what a check found; empty where none was asked
     */
    public record Card(String table, String title, String count, List<CardLine> lines, String foot, boolean isAtFault) {
        public Card {
            lines = List.copyOf(lines);
        }

        double width() {
            double widest = (title.length() * 1.12 + count.length()) * LETTER + (count.isEmpty() ? 0 : GAP);
            widest = Math.max(widest, foot.length() * LETTER);
            for (CardLine line : lines) {
                double wide = (line.text().length() + line.more().length()) * LETTER;
                widest = Math.max(widest, wide + (line.more().isEmpty() ? 0 : GAP));
            }
            return Math.ceil(widest + 2 * PADDING);
        }

        double height() {
            return TITLE + lines.size() * LINE + PADDING + (foot.isEmpty() ? 0 : LINE + PADDING / 2);
        }
    }

    /** The cards of all tables, in their order. */
    public static List<Card> of(MapResult map) {
        boolean isSmall = map.tables().size() <= SMALL_MAP;
        return map.tables().stream().map(table -> card(table, isSmall)).toList();
    }

    private static Card card(MapTable table, boolean isSmall) {
        List<CardLine> lines = new ArrayList<>();
        if (!table.label().isEmpty()) {
            lines.add(new CardLine("called by " + cut(String.join(", ", table.label()), LONGEST_NAME), "", "label"));
        }
        int left = 0;
        for (MapColumn column : table.columns()) {
            boolean isWanted = isSmall || column.isOfPrimaryKey() || column.isOfLink();
            if (!isWanted || lines.size() >= MOST_COLUMNS) {
                left++;
            } else {
                lines.add(line(column));
            }
        }
        if (left > 0) {
            lines.add(new CardLine("and " + Counted.of(left, "more column"), "", "label"));
        }
        String count = table.rows().isPresent() ? Counted.of(table.rows().getAsLong(), "row") : "";
        return new Card(
                table.name(),
                cut(table.name(), LONGEST_NAME),
                count,
                lines,
                table.health().map(MapCards::foot).orElse(""),
                table.health().filter(health -> !health.isSound()).isPresent());
    }

    private static CardLine line(MapColumn column) {
        String type = cut(column.type(), LONGEST_TYPE);
        String more = column.isRequired() ? type : type + " or null";
        String css = column.isOfPrimaryKey() ? "key" : column.isRequired() ? "plain" : "open";
        if (column.isOfPrimaryKey()) {
            more = type + ", key";
        } else if (!column.keys().isEmpty()) {
            more += ", unique";
        }
        return new CardLine(cut(column.name(), LONGEST_NAME), more, css);
    }

    private static String foot(Health health) {
        return health.isSound()
                ? "sound"
                : Counted.grouped(health.faulty()) + " of " + Counted.of(health.rows(), "row") + " at fault";
    }

    private static String cut(String text, int length) {
        return CellText.cut(CellText.escaped(text), length);
    }
}
