package taxiomet.reports.map;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import taxiomet.finding.MapResult;
import taxiomet.finding.MapResult.Health;
import taxiomet.reports.OutputException;
import taxiomet.reports.map.MapCards.Card;
import taxiomet.reports.map.MapCards.CardLine;
import taxiomet.reports.map.MapLayout.Box;
import taxiomet.reports.map.MapLayout.Placed;
import taxiomet.reports.map.MapLayout.PlacedArea;
import taxiomet.reports.map.MapLayout.PlacedCard;
import taxiomet.reports.map.MapLayout.PlacedLink;
import taxiomet.reports.map.MapLayout.PlacedWords;
import taxiomet.reports.map.MapLayout.Point;

/**
 * The map as SVG. A line leaves the parent's card with a bar along its edge and reaches the child's with a notch; words at both ends say how
 * many. What a check found is told in words, by the weight of lines, and by colour.
 */
public final class MapSvg {
    private static final double LABEL_LINE = 15;
    private static final double CORNER = 7;
    private static final double BAR = 9;
    private static final double NOTCH = 5;
    private static final double BASELINE = 13;

    private final StringBuilder svg = new StringBuilder();
    private final Placed placed;
    private final MapResult map;

    private MapSvg(MapResult map) {
        this.map = map;
        this.placed = MapLayout.of(map);
    }

    /** The picture, for a page that has its style. */
    public static String inPage(MapResult map) {
        return new MapSvg(map).draw("");
    }

    /**
     * The picture as a file of its own.
     *
     * @throws OutputException when the file cannot be written
     */
    public static void write(MapResult map, Path file) {
        try (InputStream style = MapSvg.class.getResourceAsStream("map.css")) {
            String css = new String(style.readAllBytes(), StandardCharsets.UTF_8);
            Files.writeString(file, new MapSvg(map).draw(css));
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        }
    }

    private String draw(String style) {
        svg.append(String.format(
                Locale.ROOT,
                "<svg xmlns=\"http://www.w3.org/2000/svg\" class=\"tables\" width=\"%.0f\" height=\"%.0f\""
                        + " viewBox=\"0 0 %.0f %.0f\" role=\"group\" aria-label=\"%s\">",
                placed.width(),
                placed.height(),
                placed.width(),
                placed.height(),
                escaped("Map of " + map.title())));
        if (!style.isEmpty()) {
            svg.append("<style>").append(style).append("</style>");
            svg.append("<rect class=\"ground\" width=\"100%\" height=\"100%\"/>");
        }
        placed.areas().forEach(this::draw);
        placed.links().forEach(this::drawLine);
        placed.cards().forEach(this::draw);
        placed.links().forEach(link -> link.words().forEach(words -> draw(link, words)));
        return svg.append("</svg>\n").toString();
    }

    private void draw(PlacedArea area) {
        Box box = area.box();
        svg.append(rect("area", box, 0));
        text("areaname", box.x() + 14, box.y() + 22, area.name());
    }

    private static String rect(String css, Box box, double corner) {
        return String.format(
                Locale.ROOT,
                "<rect class=\"%s\" x=\"%.1f\" y=\"%.1f\" width=\"%.1f\" height=\"%.1f\" rx=\"%.1f\"/>",
                css,
                box.x(),
                box.y(),
                box.width(),
                box.height(),
                corner);
    }

    private void text(String css, double x, double y, String text) {
        svg.append(String.format(Locale.ROOT, "<text class=\"%s\" x=\"%.1f\" y=\"%.1f\">", css, x, y))
                .append(escaped(text))
                .append("</text>");
    }

    private static String stateOf(Optional<Health> health) {
        return health.map(known -> known.isSound() ? " sound" : " fault").orElse("");
    }

    private void drawLine(PlacedLink link) {
        List<Point> points = link.points();
        svg.append("<g class=\"link")
                .append(stateOf(link.link().health()))
                .append(link.link().isEnforced() ? "" : " meant")
                .append("\" data-link=\"")
                .append(escaped(link.link().child() + "." + link.link().name()))
                .append("\" data-child=\"")
                .append(escaped(link.link().child()))
                .append("\" data-parent=\"")
                .append(escaped(link.link().parent()))
                .append("\"><title>")
                .append(escaped(link.link().sentence()))
                .append("</title>");
        StringBuilder path = new StringBuilder();
        for (Point point : points) {
            path.append(
                    String.format(Locale.ROOT, "%s%.1f %.1f", path.length() == 0 ? "M" : " L", point.x(), point.y()));
        }
        svg.append("<path class=\"wide\" d=\"").append(path).append("\"/>");
        svg.append("<path class=\"line\" d=\"").append(path).append("\"/>");
        drawBar(points.get(0), points.get(1));
        drawNotch(points.get(points.size() - 1), points.get(points.size() - 2));
        svg.append("</g>");
    }

    /** A bar along the parent's edge. */
    private void drawBar(Point end, Point next) {
        boolean isLevel = Math.abs(end.y() - next.y()) < Math.abs(end.x() - next.x());
        svg.append(String.format(
                Locale.ROOT,
                "<path class=\"bar\" d=\"M%.1f %.1f L%.1f %.1f\"/>",
                end.x() - (isLevel ? 0 : BAR),
                end.y() - (isLevel ? BAR : 0),
                end.x() + (isLevel ? 0 : BAR),
                end.y() + (isLevel ? BAR : 0)));
    }

    /** A small lozenge on the child's edge. */
    private void drawNotch(Point end, Point before) {
        double x = end.x() + Math.signum(before.x() - end.x()) * NOTCH;
        double y = end.y() + Math.signum(before.y() - end.y()) * NOTCH;
        svg.append(String.format(
                Locale.ROOT,
                "<path class=\"notch\" d=\"M%.1f %.1f L%.1f %.1f L%.1f %.1f L%.1f %.1f Z\"/>",
                x - NOTCH,
                y,
                x,
                y - NOTCH,
                x + NOTCH,
                y,
                x,
                y + NOTCH));
    }

    private void draw(PlacedLink link, PlacedWords words) {
        Box box = words.box();
        int line = 0;
        for (String text : words.lines()) {
            boolean isState = line == 2;
            String css = words.css()
                    + (line == 0 && words.css().equals("middle") ? " name" : "")
                    + (isState ? stateOf(link.link().health()) : "");
            text(css, box.x() + 2, box.y() + line * LABEL_LINE + BASELINE - 2, text);
            line++;
        }
    }

    private void draw(PlacedCard placedCard) {
        Card card = placedCard.card();
        Box box = placedCard.box();
        svg.append("<g class=\"card")
                .append(card.foot().isEmpty() ? "" : card.isAtFault() ? " fault" : " sound")
                .append("\" data-table=\"")
                .append(escaped(card.table()))
                .append("\" tabindex=\"0\" role=\"button\" aria-label=\"")
                .append(escaped("table " + card.table() + (card.foot().isEmpty() ? "" : ", " + card.foot())))
                .append("\">");
        svg.append(rect("body", box, CORNER));
        svg.append(String.format(
                Locale.ROOT,
                "<path class=\"rule\" d=\"M%.1f %.1f h%.1f\"/>",
                box.x(),
                box.y() + MapCards.TITLE,
                box.width()));
        text("title", box.x() + MapCards.PADDING, box.y() + 18, card.title());
        if (!card.count().isEmpty()) {
            text("count", box.x() + box.width() - MapCards.PADDING, box.y() + 18, card.count());
        }
        double y = box.y() + MapCards.TITLE;
        for (CardLine line : card.lines()) {
            text("column " + line.css(), box.x() + MapCards.PADDING, y + BASELINE, line.text());
            if (!line.more().isEmpty()) {
                text("type " + line.css(), box.x() + box.width() - MapCards.PADDING, y + BASELINE, line.more());
            }
            y += MapCards.LINE;
        }
        if (!card.foot().isEmpty()) {
            text("foot", box.x() + MapCards.PADDING, box.y() + box.height() - MapCards.PADDING, card.foot());
        }
        svg.append("</g>");
    }

    /** Fit to stand in a text or an attribute. */
    static String escaped(String text) {
        StringBuilder escaped = new StringBuilder();
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            switch (c) {
                case '&' -> escaped.append("&amp;");
                case '<' -> escaped.append("&lt;");
                case '>' -> escaped.append("&gt;");
                case '"' -> escaped.append("&quot;");
                default -> {
                    boolean isFit = c >= ' ' && c != 0x7F && c < 0xFFFE && !isHalf(text, i);
                    escaped.append(isFit ? String.valueOf(c) : "?");
                }
            }
        }
        return escaped.toString();
    }

    private static boolean isHalf(String text, int at) {
        char c = text.charAt(at);
        if (Character.isHighSurrogate(c)) {
            return at + 1 == text.length() || !Character.isLowSurrogate(text.charAt(at + 1));
        }
        return Character.isLowSurrogate(c) && (at == 0 || !Character.isHighSurrogate(text.charAt(at - 1)));
    }
}
