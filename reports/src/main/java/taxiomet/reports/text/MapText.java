package taxiomet.reports.text;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import taxiomet.finding.MapResult;
import taxiomet.finding.MapResult.MapLink;
import taxiomet.finding.MapResult.MapTable;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.MapWords;

/** The map in lines: each table with the tables that point at it indented below, each with its links once. */
public final class MapText implements ResultText {
    private static final int INDENT = 4;

    private final MapResult map;
    private final Paper paper;
    private final Map<String, MapTable> tables = new LinkedHashMap<>();
    private final Set<String> told = new LinkedHashSet<>();

    /**
     * @param paper takes it
     */
    public MapText(MapResult map, Paper paper) {
        this.map = map;
        this.paper = paper;
        map.tables().forEach(table -> tables.put(table.name(), table));
    }

    @Override
    public void writeAnswer() {
        paper.answer(map.title(), MapWords.figures(map), Style.PLAIN);
    }

    @Override
    public void write() {
        writeAnswer();
        for (MapTable table : map.tables()) {
            boolean isRoot = map.links().stream()
                    .noneMatch(link ->
                            link.child().equals(table.name()) && !link.parent().equals(table.name()));
            if (isRoot) {
                paper.gap();
                write(table, 0);
            }
        }
        // What stands in a circle of links is below no root.
        for (MapTable table : map.tables()) {
            if (!told.contains(table.name())) {
                paper.gap();
                write(table, 0);
            }
        }
    }

    private void write(MapTable table, int indent) {
        boolean isNew = told.add(table.name());
        String name = Style.STRONG.apply(CellText.escaped(table.name()), paper.hasColor());
        if (!isNew) {
            line(name + Style.FAINT.apply(", as above", paper.hasColor()), indent);
            return;
        }
        String said = MapWords.table(table);
        line(name + "  " + CellText.escaped(MapWords.key(table) + (said.isEmpty() ? "" : "; " + said)), indent);
        Map<String, List<MapLink>> below = new LinkedHashMap<>();
        for (MapLink link : map.links()) {
            if (link.parent().equals(table.name())) {
                below.computeIfAbsent(link.child(), child -> new ArrayList<>()).add(link);
            }
        }
        below.forEach((child, links) -> {
            for (MapLink link : links) {
                line(
                        CellText.escaped(link.name()) + ": " + CellText.escaped(MapWords.link(link)) + health(link),
                        indent + INDENT);
            }
            if (child.equals(table.name())) {
                line(Style.FAINT.apply("that is a link to itself", paper.hasColor()), indent + INDENT + 2);
            } else {
                write(tables.get(child), indent + INDENT + 2);
            }
        });
    }

    private String health(MapLink link) {
        String health = CellText.escaped(MapWords.linkHealth(link));
        if (health.isEmpty()) {
            return "";
        }
        return "; " + (health.equals("sound") ? Style.GOOD : Style.ERROR).apply(health, paper.hasColor());
    }

    private void line(String text, int indent) {
        paper.paragraph(text, indent, indent + Paragraph.HANGING);
    }
}
