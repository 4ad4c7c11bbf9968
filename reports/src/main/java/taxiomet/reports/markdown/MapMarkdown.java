package taxiomet.reports.markdown;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import taxiomet.finding.MapResult;
import taxiomet.finding.MapResult.MapLink;
import taxiomet.finding.MapResult.MapTable;
import taxiomet.reports.OutputException;
import taxiomet.reports.words.MapWords;

/** The map as Markdown: a table of the tables, and one of the links. */
public final class MapMarkdown {
    private MapMarkdown() {}

    /** @throws OutputException when the file cannot be written */
    public static void write(MapResult map, Path file) {
        List<String> lines = new ArrayList<>();
        lines.add("# " + Markdown.plain(map.title()));
        lines.add("");
        lines.add(MapWords.figures(map) + ".");
        lines.add("");
        lines.add(Markdown.row("table", "key", "said of it"));
        lines.add(Markdown.row("---", "---", "---"));
        for (MapTable table : map.tables()) {
            lines.add(Markdown.row(
                    Markdown.plain(table.name()),
                    Markdown.plain(MapWords.key(table)),
                    Markdown.plain(MapWords.table(table))));
        }
        lines.add("");
        lines.add(Markdown.row("link", "child", "parent", "what it means", "found"));
        lines.add(Markdown.row("---", "---", "---", "---", "---"));
        for (MapLink link : map.links()) {
            lines.add(Markdown.row(
                    Markdown.plain(link.name()),
                    Markdown.plain(link.child()),
                    Markdown.plain(link.parent()),
                    Markdown.plain(link.sentence()),
                    Markdown.plain(MapWords.linkHealth(link))));
        }
        try {
            Files.write(file, lines);
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        }
    }
}
