package taxiomet.reports.html;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import taxiomet.charter.Severity;
import taxiomet.finding.FindingKind;
import taxiomet.finding.FindingShift;
import taxiomet.finding.ResultComparison;
import taxiomet.finding.ResultComparison.Standing;

class TrendChartTest {
    private static final Pattern RECT =
            Pattern.compile("class=\"(\\w+)\" x=\"[0-9.]+\" y=\"([0-9.]+)\" width=\"[0-9.]+\" height=\"([0-9.]+)\"");

    private static Standing standing(String day, long faulty) {
        return new Standing(Instant.parse(day + "T00:00:00Z"), 1, 0, 0, 100, faulty, 0);
    }

    @Test
    void a_column_stands_on_the_line_with_what_is_new_on_top_and_what_is_gone_below() {
        FindingShift shift = new FindingShift(
                FindingKind.ORPHAN,
                Severity.ERROR,
                "boat",
                "quay",
                20,
                40,
                java.util.Collections.nCopies(30, "x"),
                java.util.Collections.nCopies(10, "y"),
                List.of(),
                List.of(),
                0,
                List.of(),
                true);
        String svg = TrendChart.of(List.of(new ResultComparison(
                "Harbour", standing("2027-05-24", 20), standing("2027-05-31", 40), List.of(shift), 10, true)));
        List<String> rects = new ArrayList<>();
        Matcher rect = RECT.matcher(svg);
        while (rect.find()) {
            double top = Double.parseDouble(rect.group(2));
            double height = Double.parseDouble(rect.group(3));
            rects.add(rect.group(1) + " " + Math.round(top) + " to " + Math.round(top + height));
        }
        // The line stands at 204: 190 for 40 rows above it.
        assertThat(rects).containsExactly("still 109 to 204", "still 157 to 204", "new 14 to 157", "gone 205 to 253");
        assertThat(svg).contains("2027-05-31: 40 rows at fault, 30 new, 10 gone");
    }
}
