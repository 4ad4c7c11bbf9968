package taxiomet.reports.map;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import taxiomet.finding.MapResult;
import taxiomet.finding.MapResult.MapColumn;
import taxiomet.finding.MapResult.MapLink;
import taxiomet.finding.MapResult.MapTable;
import taxiomet.reports.map.MapLayout.Box;
import taxiomet.reports.map.MapLayout.Placed;
import taxiomet.reports.map.MapLayout.PlacedCard;
import taxiomet.reports.map.MapLayout.PlacedLink;
import taxiomet.reports.map.MapLayout.Point;

/** The geometry of maps: nothing lies on something else. */
class MapLayoutTest {
    private static final double TOUCH = 0.5;

    private static MapTable table(int number, Random random, int areas) {
        List<MapColumn> columns = new ArrayList<>();
        int count = 3 + random.nextInt(14);
        for (int i = 0; i < count; i++) {
            columns.add(new MapColumn(
                    "column_" + "x".repeat(random.nextInt(9)) + i,
                    random.nextBoolean() ? "integer" : "varchar(40)",
                    i == 0,
                    List.of(),
                    random.nextBoolean(),
                    i == 1));
        }
        return new MapTable(
                "table_" + number,
                areas == 0 ? Optional.empty() : Optional.of("area " + number % areas),
                number % 3 == 0 ? List.of("column_0") : List.of(),
                columns,
                OptionalLong.of(number * 97L),
                Optional.empty());
    }

    private static MapLink link(int child, int parent, int number) {
        return new MapLink(
                "link_" + number,
                "table_" + child,
                List.of("column_1"),
                "table_" + parent,
                List.of("column_0"),
                "one or none",
                "any number",
                "delete refused",
                "a sentence",
                number % 5 > 0,
                Optional.empty());
    }

    private static MapResult map(int tables, int areas, Random random) {
        List<MapTable> all = new ArrayList<>();
        List<MapLink> links = new ArrayList<>();
        for (int i = 0; i < tables; i++) {
            all.add(table(i, random, areas));
            int count = i == 0 ? 0 : 1 + random.nextInt(2);
            for (int j = 0; j < count; j++) {
                // Most point at one of a few tables that many point at; some at themselves, some back in a circle.
                int parent = random.nextInt(10) == 0 ? random.nextInt(tables) : random.nextInt(Math.min(i, 6) + 1);
                links.add(link(i, parent, links.size()));
            }
        }
        return new MapResult("test", all, links, 0);
    }

    private static boolean overlap(Box one, Box other) {
        return one.x() + TOUCH < other.x() + other.width()
                && other.x() + TOUCH < one.x() + one.width()
                && one.y() + TOUCH < other.y() + other.height()
                && other.y() + TOUCH < one.y() + one.height();
    }

    /** The ground that a piece of a line covers. */
    private static Box ground(Point from, Point to) {
        return new Box(
                Math.min(from.x(), to.x()),
                Math.min(from.y(), to.y()),
                Math.max(Math.abs(from.x() - to.x()), 2 * TOUCH),
                Math.max(Math.abs(from.y() - to.y()), 2 * TOUCH));
    }

    @ParameterizedTest
    @CsvSource({"12,0,1", "12,3,2", "12,4,3", "30,0,4", "30,5,5", "60,0,6", "60,8,7", "60,6,8"})
    void no_card_lies_on_another_and_no_line_goes_through_one(int tables, int areas, long seed) {
        Placed placed = MapLayout.of(map(tables, areas, new Random(seed)));

        assertThat(placed.cards()).hasSize(tables);
        for (PlacedCard card : placed.cards()) {
            assertThat(card.box().x() + card.box().width()).isLessThanOrEqualTo(placed.width());
            assertThat(card.box().y() + card.box().height()).isLessThanOrEqualTo(placed.height());
            for (PlacedCard other : placed.cards()) {
                assertThat(!card.equals(other) && overlap(card.box(), other.box()))
                        .as("%s on %s", card.card().table(), other.card().table())
                        .isFalse();
            }
            for (PlacedLink link : placed.links()) {
                for (int i = 1; i < link.points().size(); i++) {
                    Point from = link.points().get(i - 1);
                    Point to = link.points().get(i);
                    assertThat(Math.abs(from.x() - to.x()) < TOUCH || Math.abs(from.y() - to.y()) < TOUCH)
                            .as("%s is level or upright", link.link().name())
                            .isTrue();
                    assertThat(overlap(ground(from, to), inner(card.box())))
                            .as("%s through %s", link.link().name(), card.card().table())
                            .isFalse();
                }
                link.words()
                        .forEach(words -> assertThat(overlap(words.box(), card.box()))
                                .as(
                                        "words of %s on %s",
                                        link.link().name(), card.card().table())
                                .isFalse());
            }
        }
    }

    private static Box inner(Box box) {
        return new Box(box.x() + 1, box.y() + 1, box.width() - 2, box.height() - 2);
    }
}
