package taxiomet.reports.markdown;

import java.io.BufferedWriter;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Collections;
import java.util.List;
import java.util.function.Consumer;
import taxiomet.finding.RosterResult;
import taxiomet.finding.RosterResult.Group;
import taxiomet.finding.RosterResult.Section;
import taxiomet.finding.TraceResult.Sum;
import taxiomet.reports.OutputException;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.RosterWords;

/** A roster as Markdown: a heading for each heading, a table for its children. */
public final class RosterMarkdown {
    private RosterMarkdown() {}

    /** @throws OutputException when the file cannot be written */
    public static void write(RosterResult roster, Consumer<RosterResult.Reader> content, Path file) {
        try (BufferedWriter writer = Files.newBufferedWriter(file, StandardCharsets.UTF_8)) {
            Lines lines = new Lines(roster, writer);
            lines.line("# " + Markdown.plain(roster.title()));
            lines.line("");
            lines.line(Markdown.plain(RosterWords.answer(roster)) + ".");
            content.accept(lines);
            lines.line("");
            roster.groups()
                    .forEach(group -> lines.line(
                            "- " + Markdown.plain(RosterWords.whole(group) + RosterWords.sums(group.sums()))));
            roster.remarks().forEach(remark -> lines.line("- " + Markdown.plain(remark)));
        } catch (UncheckedIOException e) {
            throw OutputException.of(file.toString(), e.getCause());
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        }
    }

    private static final class Lines implements RosterResult.Reader {
        private final RosterResult roster;
        private final BufferedWriter writer;

        Lines(RosterResult roster, BufferedWriter writer) {
            this.roster = roster;
            this.writer = writer;
        }

        void line(String text) {
            try {
                writer.write(text);
                writer.write('\n');
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }

        @Override
        public void section(Section section, String name, long children) {
            line("");
            line("## "
                    + Markdown.plain((section == Section.HEADING ? roster.table() + " " : "")
                            + RosterWords.section(section, name)));
            if (children == 0) {
                line("");
                line("no children");
            }
        }

        @Override
        public void group(Group group, List<String> columns) {
            line("");
            if (roster.groups().size() > 1) {
                line("**" + Markdown.plain(group.table() + " over " + group.link()) + "**");
                line("");
            }
            line(Markdown.row(columns.stream().map(Markdown::plain).toArray(String[]::new)));
            line(Markdown.row(Collections.nCopies(columns.size(), "---").toArray(String[]::new)));
        }

        @Override
        public void row(List<String> cells) {
            line(Markdown.row(cells.stream()
                    .map(cell -> Markdown.plain(CellText.of(cell)))
                    .toArray(String[]::new)));
        }

        @Override
        public void endGroup(Group group, long rows, List<Sum> subtotals) {
            line("");
            line(Markdown.plain(RosterWords.subtotal(group, rows, subtotals)));
        }
    }
}
