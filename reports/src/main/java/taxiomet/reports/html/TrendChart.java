package taxiomet.reports.html;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import taxiomet.finding.ResultComparison;
import taxiomet.finding.ResultComparison.Standing;
import taxiomet.reports.words.CompareWords;
import taxiomet.reports.words.Counted;

/**
 * How many rows are at fault in one result after the other, as a picture: a column for each, its upper part those that are new, and below
 * the line those that are gone.
 */
final class TrendChart {
    private static final double WIDTH = 1_000;
    private static final double LEFT = 64;
    private static final double ABOVE = 190;
    private static final double BELOW = 60;
    private static final double TOP = 14;
    private static final double LABELS = 26;
    private static final double WIDEST = 60;
    private static final int MOST_LABELS = 9;

    private final List<Point> points = new ArrayList<>();
    private final StringBuilder svg = new StringBuilder();

    private record Point(Standing standing, long come, long gone) {}

    private TrendChart(List<ResultComparison> steps) {
        points.add(new Point(steps.get(0).earlier(), 0, 0));
        steps.forEach(step -> points.add(new Point(step.later(), step.newFaults(), step.goneFaults())));
    }

    /** The picture as SVG, for a page that has its style. */
    static String of(List<ResultComparison> steps) {
        return new TrendChart(steps).draw();
    }

    private String draw() {
        long most = 1;
        long mostGone = 1;
        for (Point point : points) {
            most = Math.max(most, Math.max(point.standing().faultyRows(), point.come()));
            mostGone = Math.max(mostGone, point.gone());
        }
        double below = Math.min(BELOW, ABOVE * mostGone / most);
        double height = TOP + ABOVE + below + LABELS;
        double line = TOP + ABOVE;
        double step = (WIDTH - LEFT) / points.size();
        double width = Math.min(WIDEST, step * 0.72);
        Point last = points.get(points.size() - 1);
        svg.append(String.format(
                Locale.ROOT,
                "<svg class=\"trend\" viewBox=\"0 0 %.0f %.0f\" role=\"img\" aria-label=\"Rows at fault in %d results, %s in the"
                        + " last\">",
                WIDTH,
                height,
                points.size(),
                Counted.grouped(last.standing().faultyRows())));
        text(LEFT - 8, TOP + 10, "end", Counted.grouped(most));
        text(LEFT - 8, line + 4, "end", "0");
        int every = (points.size() + MOST_LABELS - 1) / MOST_LABELS;
        for (int i = 0; i < points.size(); i++) {
            Point point = points.get(i);
            double x = LEFT + i * step + (step - width) / 2;
            double all = ABOVE * point.standing().faultyRows() / most;
            double come = Math.min(all, ABOVE * point.come() / most);
            svg.append("<g><title>").append(title(point)).append("</title>");
            rect("still", x, line - all + come, width, all - come);
            rect("new", x, line - all, width, come);
            rect("gone", x, line + 1, width, Math.min(below, ABOVE * point.gone() / most));
            svg.append("</g>");
            if (i % every == 0) {
                text(
                        x + width / 2,
                        height - 6,
                        "middle",
                        CompareWords.moment(point.standing().made()));
            }
        }
        svg.append(String.format(
                Locale.ROOT,
                "<line x1=\"%.1f\" y1=\"%.1f\" x2=\"%.1f\" y2=\"%.1f\"></line></svg>",
                LEFT,
                line,
                WIDTH,
                line));
        return svg.toString();
    }

    private static String title(Point point) {
        return CompareWords.moment(point.standing().made()) + ": "
                + Counted.of(point.standing().faultyRows(), "row") + " at fault, " + Counted.grouped(point.come())
                + " new, " + Counted.grouped(point.gone()) + " gone";
    }

    private void rect(String kind, double x, double y, double width, double height) {
        if (height > 0) {
            svg.append(String.format(
                    Locale.ROOT,
                    "<rect class=\"%s\" x=\"%.1f\" y=\"%.1f\" width=\"%.1f\" height=\"%.1f\"></rect>",
                    kind,
                    x,
                    y,
                    width,
                    height));
        }
    }

    private void text(double x, double y, String anchor, String text) {
        svg.append(String.format(
                Locale.ROOT, "<text x=\"%.1f\" y=\"%.1f\" text-anchor=\"%s\">%s</text>", x, y, anchor, text));
    }
}
