package taxiomet.reports.map;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.eclipse.elk.alg.layered.options.LayeredMetaDataProvider;
import org.eclipse.elk.alg.layered.options.LayeredOptions;
import org.eclipse.elk.core.RecursiveGraphLayoutEngine;
import org.eclipse.elk.core.data.LayoutMetaDataService;
import org.eclipse.elk.core.math.ElkPadding;
import org.eclipse.elk.core.options.CoreOptions;
import org.eclipse.elk.core.options.Direction;
import org.eclipse.elk.core.options.EdgeLabelPlacement;
import org.eclipse.elk.core.options.EdgeRouting;
import org.eclipse.elk.core.options.HierarchyHandling;
import org.eclipse.elk.core.util.BasicProgressMonitor;
import org.eclipse.elk.graph.ElkEdge;
import org.eclipse.elk.graph.ElkEdgeSection;
import org.eclipse.elk.graph.ElkLabel;
import org.eclipse.elk.graph.ElkNode;
import org.eclipse.elk.graph.util.ElkGraphUtil;
import taxiomet.finding.MapResult;
import taxiomet.finding.MapResult.MapLink;
import taxiomet.finding.MapResult.MapTable;
import taxiomet.reports.map.MapCards.Card;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.Counted;

/**
 * Where cards and lines stand: in layers, parents before their children, lines level and upright. Lengths are in
 * pixels from the upper left corner.
 */
public final class MapLayout {
    private static final double LABEL_LINE = 15;
    private static final double LABEL_LETTER = 6.6;
    private static final double BETWEEN_CARDS = 34;
    private static final double BETWEEN_LAYERS = 30;
    private static final double AREA_HEAD = 34;
    private static final double AREA_PADDING = 18;
    private static final double MARGIN = 16;
    private static final int LONGEST_NAME = 34;
    private static final double WINDOW_WIDTH = 1280;
    private static final double WINDOW_HEIGHT = 800;

    private final MapResult map;
    private final Map<String, ElkNode> nodes = new LinkedHashMap<>();
    private final Map<String, ElkNode> areas = new LinkedHashMap<>();
    private final Map<MapLink, ElkEdge> edges = new LinkedHashMap<>();

    /** A rectangle. */
    public record Box(double x, double y, double width, double height) {}

    /** A point. */
    public record Point(double x, double y) {}

    /** A card in its place. */
    public record PlacedCard(Card card, Box box) {}

    /** An area in its place. */
    public record PlacedArea(String name, Box box) {}

    /** Words at a line: their lines, and where they stand. */
    public record PlacedWords(List<String> lines, Box box, String css) {
        public PlacedWords {
            lines = List.copyOf(lines);
        }
    }

    /** A link in its place: the corners of its line from the parent to the child, and the words at it. */
    public record PlacedLink(MapLink link, List<Point> points, List<PlacedWords> words) {
        public PlacedLink {
            points = List.copyOf(points);
            words = List.copyOf(words);
        }
    }

    /** All of it. */
    public record Placed(
            double width, double height, List<PlacedArea> areas, List<PlacedCard> cards, List<PlacedLink> links) {
        public Placed {
            areas = List.copyOf(areas);
            cards = List.copyOf(cards);
            links = List.copyOf(links);
        }
    }

    private final Direction direction;

    private MapLayout(MapResult map, Direction direction) {
        this.map = map;
        this.direction = direction;
    }

    /** Finds the places: from left to right or from the top down, whichever is seen larger in a window. */
    public static Placed of(MapResult map) {
        LayoutMetaDataService.getInstance().registerLayoutMetaDataProviders(new LayeredMetaDataProvider());
        Placed level = new MapLayout(map, Direction.RIGHT).place();
        Placed upright = new MapLayout(map, Direction.DOWN).place();
        return scale(level) > scale(upright) ? level : upright;
    }

    /** How large it is seen in a window. */
    private static double scale(Placed placed) {
        return Math.min(WINDOW_WIDTH / placed.width(), WINDOW_HEIGHT / placed.height());
    }

    private Placed place() {
        List<Card> cards = MapCards.of(map);
        ElkNode root = ElkGraphUtil.createGraph();
        configure(root);
        root.setProperty(CoreOptions.PADDING, new ElkPadding(MARGIN));
        for (MapTable table : map.tables()) {
            ElkNode lane = table.area().map(name -> area(root, name)).orElse(root);
            nodes.put(table.name(), ElkGraphUtil.createNode(lane));
        }
        for (Card card : cards) {
            nodes.get(card.table()).setDimensions(card.width(), card.height());
        }
        for (MapLink link : map.links()) {
            ElkEdge edge = ElkGraphUtil.createSimpleEdge(nodes.get(link.parent()), nodes.get(link.child()));
            label(edge, List.of(link.parents()), EdgeLabelPlacement.TAIL);
            label(edge, middle(link), EdgeLabelPlacement.CENTER);
            label(edge, List.of(link.children()), EdgeLabelPlacement.HEAD);
            edges.put(link, edge);
        }
        new RecursiveGraphLayoutEngine().layout(root, new BasicProgressMonitor());
        return new Placed(
                root.getWidth(),
                root.getHeight(),
                areas.entrySet().stream()
                        .map(area -> new PlacedArea(area.getKey(), box(area.getValue())))
                        .toList(),
                cards.stream()
                        .map(card -> new PlacedCard(card, box(nodes.get(card.table()))))
                        .toList(),
                edges.entrySet().stream()
                        .map(edge -> placed(edge.getKey(), edge.getValue()))
                        .toList());
    }

    private void configure(ElkNode graph) {
        graph.setProperty(CoreOptions.ALGORITHM, LayeredOptions.ALGORITHM_ID);
        graph.setProperty(CoreOptions.DIRECTION, direction);
        graph.setProperty(CoreOptions.EDGE_ROUTING, EdgeRouting.ORTHOGONAL);
        graph.setProperty(CoreOptions.HIERARCHY_HANDLING, HierarchyHandling.INCLUDE_CHILDREN);
        graph.setProperty(CoreOptions.RANDOM_SEED, 1);
        graph.setProperty(CoreOptions.SPACING_NODE_NODE, BETWEEN_CARDS);
        graph.setProperty(LayeredOptions.SPACING_NODE_NODE_BETWEEN_LAYERS, BETWEEN_LAYERS);
        graph.setProperty(LayeredOptions.SPACING_EDGE_NODE_BETWEEN_LAYERS, BETWEEN_CARDS / 2);
        graph.setProperty(LayeredOptions.SPACING_EDGE_EDGE_BETWEEN_LAYERS, BETWEEN_CARDS / 2);
        graph.setProperty(CoreOptions.SPACING_EDGE_NODE, BETWEEN_CARDS / 2);
        graph.setProperty(CoreOptions.SPACING_EDGE_LABEL, 4.0);
    }

    private ElkNode area(ElkNode root, String name) {
        return areas.computeIfAbsent(name, n -> {
            ElkNode area = ElkGraphUtil.createNode(root);
            configure(area);
            area.setProperty(CoreOptions.PADDING, new ElkPadding(AREA_HEAD, AREA_PADDING, AREA_PADDING, AREA_PADDING));
            return area;
        });
    }

    private static void label(ElkEdge edge, List<String> lines, EdgeLabelPlacement placement) {
        ElkLabel label = ElkGraphUtil.createLabel(String.join("\n", lines), edge);
        int longest = lines.stream().mapToInt(String::length).max().orElse(0);
        label.setDimensions(longest * LABEL_LETTER + 4, lines.size() * LABEL_LINE);
        label.setProperty(CoreOptions.EDGE_LABELS_PLACEMENT, placement);
    }

    /** What stands in the middle of a line: the link's name, what a delete does, and how it stands with it. */
    private static List<String> middle(MapLink link) {
        List<String> lines = new ArrayList<>();
        lines.add(CellText.cut(CellText.escaped(link.name()), LONGEST_NAME));
        lines.add(link.onDelete() + (link.isEnforced() ? "" : ", not enforced"));
        link.health()
                .map(health -> health.isSound()
                        ? "sound"
                        : health.faulty() > 0
                                ? Counted.of(health.faulty(), "orphan")
                                : health.findings().get(0))
                .map(CellText::escaped)
                .ifPresent(lines::add);
        return lines;
    }

    private static Point origin(ElkNode node) {
        double x = 0;
        double y = 0;
        for (ElkNode at = node; at != null; at = at.getParent()) {
            x += at.getX();
            y += at.getY();
        }
        return new Point(x, y);
    }

    private static Box box(ElkNode node) {
        Point origin = origin(node);
        return new Box(origin.x(), origin.y(), node.getWidth(), node.getHeight());
    }

    private static PlacedLink placed(MapLink link, ElkEdge edge) {
        Point origin = origin(edge.getContainingNode());
        List<Point> points = new ArrayList<>();
        for (ElkEdgeSection section : edge.getSections()) {
            points.add(new Point(origin.x() + section.getStartX(), origin.y() + section.getStartY()));
            section.getBendPoints()
                    .forEach(bend -> points.add(new Point(origin.x() + bend.getX(), origin.y() + bend.getY())));
            points.add(new Point(origin.x() + section.getEndX(), origin.y() + section.getEndY()));
        }
        List<PlacedWords> words = new ArrayList<>();
        for (ElkLabel label : edge.getLabels()) {
            boolean isMiddle = label.getProperty(CoreOptions.EDGE_LABELS_PLACEMENT) == EdgeLabelPlacement.CENTER;
            words.add(new PlacedWords(
                    List.of(label.getText().split("\n")),
                    new Box(origin.x() + label.getX(), origin.y() + label.getY(), label.getWidth(), label.getHeight()),
                    isMiddle ? "middle" : "end"));
        }
        return new PlacedLink(link, points, words);
    }
}
