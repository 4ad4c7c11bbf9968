package taxiomet.reports.text;

import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.ChildrenTally;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.Counted;
import taxiomet.survey.SurveyResult;
import taxiomet.survey.SurveyResult.SurveyedTable;
import taxiomet.survey.choice.CandidateLink;
import taxiomet.vet.LinkGraph.ManyToMany;

/** What a survey found, for a person: one screen for all tables, and each table in full where it is asked for. */
public final class SurveyText implements ResultText {
    private static final int INDENT = 4;
    private static final int MOST_LINKS = 14;
    private static final int OTHER_LINKS = 4;
    private static final double LEAST_SCORE = 0.3;
    /** So few tables are shown in full at once. */
    private static final int FEW_TABLES = 2;

    private final SurveyResult result;
    private final Set<String> only;
    private final boolean isFull;
    private final Paper paper;

    /**
     * @param only names of tables to show in full, and nothing else; empty for the overview
     * @param isFull whether all is shown: every table in full, and all links
     */
    public SurveyText(SurveyResult result, Collection<String> only, boolean isFull, Paper paper) {
        this.result = result;
        this.only = Set.copyOf(only);
        this.isFull = isFull;
        this.paper = paper;
    }

    @Override
    public void write() {
        writeAnswer();
        if (only.isEmpty()) {
            new SurveyOverview(result, isFull, paper).write();
            writeSampled();
        }
        result.tables().stream()
                .filter(table -> only.contains(table.name())
                        || (only.isEmpty() && (isFull || result.tables().size() <= FEW_TABLES)))
                .forEach(table -> new SurveyedTableText(
                                table,
                                result.keysOf(table.name()),
                                Optional.ofNullable(result.alike().get(table.name())),
                                paper)
                        .write());
        writeLinks();
        writePairs();
        if (only.isEmpty() && !isFull && result.tables().size() > FEW_TABLES) {
            paper.gap();
            sentence("--only TABLE shows what the columns of a table hold; --full shows all", 0);
        }
    }

    @Override
    public void writeAnswer() {
        long rows = result.tables().stream().mapToLong(SurveyedTable::rows).sum();
        long links = result.links().stream().filter(CandidateLink::isChosen).count();
        boolean isSampled = result.tables().stream().anyMatch(SurveyedTable::isSampled);
        paper.answer(
                result.draft().name(),
                Counted.of(result.tables().size(), "table") + ", "
                        + Counted.of(rows, "row") + (isSampled ? " looked at, of more" : "") + ", "
                        + Counted.of(links, "likely link"),
                Style.PLAIN);
    }

    private void writeSampled() {
        if (result.tables().stream().anyMatch(SurveyedTable::isSampled)) {
            paper.gap();
            sentence(
                    "Of tables marked + only the first rows were looked at: what is said of their columns, keys, rows with a parent and children"
                            + " holds for these alone. Keys that links point at were read whole.",
                    0);
        }
    }

    private void sentence(String text, int indent) {
        paper.paragraph(CellText.escaped(text), indent);
    }

    private void heading(String text) {
        paper.gap();
        paper.paragraph(Style.STRONG.apply(text, paper.hasColor()), 0, Paragraph.HANGING);
    }

    private boolean isAskedFor(LinkResult link) {
        return only.isEmpty() || only.contains(link.child()) || only.contains(link.parent());
    }

    private void writeLinks() {
        List<CandidateLink> chosen = result.links().stream()
                .filter(link -> link.isChosen() && isAskedFor(link.counts()))
                .sorted(Comparator.comparing(link -> link.counts().child()))
                .toList();
        heading(chosen.isEmpty() ? "No likely links" : "Likely links");
        writeLinks(chosen, MOST_LINKS);
        List<CandidateLink> others = result.links().stream()
                .filter(link -> isAskedFor(link.counts()) && !link.isChosen() && !link.isTaken(result.links()))
                .filter(link -> link.score() >= LEAST_SCORE || link.isNamed())
                .toList();
        if (!others.isEmpty()) {
            heading("Less likely");
            writeLinks(others, OTHER_LINKS);
        }
    }

    private void writeLinks(List<CandidateLink> links, int most) {
        boolean areAll = isFull || !only.isEmpty() || links.size() <= most;
        Grid grid = new Grid();
        grid.addColumn("from", Grid.Kind.TEXT);
        grid.addColumn("to", Grid.Kind.TEXT);
        grid.addColumn("covered", Grid.Kind.TEXT);
        grid.addColumn("children", Grid.Kind.TEXT);
        grid.addColumn("why", Grid.Kind.TEXT);
        links.stream()
                .limit(areAll ? links.size() : most)
                .forEach(link -> grid.addRow(List.of(
                        cell(end(link.counts().child(), link.counts().columns())),
                        cell(end(link.counts().parent(), link.counts().parentColumns())),
                        cell(covered(link)),
                        cell(children(link)),
                        cell(link.mainReason()))));
        paper.grid(grid, INDENT);
        if (!areAll) {
            sentence("and " + Counted.grouped(links.size() - most) + " more; --full shows all", INDENT);
        }
    }

    private static Grid.Cell cell(String text) {
        return Grid.Cell.of(CellText.escaped(text));
    }

    private static String end(String table, List<String> columns) {
        return table + " (" + String.join(", ", columns) + ")";
    }

    private static String covered(CandidateLink link) {
        LinkResult counts = link.counts();
        String all = counts.judged() == 0
                ? "no value yet"
                : counts.orphans() == 0 ? "all" : String.format(Locale.ROOT, "%.1f%%", 100 * link.coverage());
        long nulls = counts.nulls() + counts.halfNulls();
        return all + (nulls > 0 && counts.judged() > 0 ? ", " + Counted.grouped(nulls) + " null" : "");
    }

    private static String children(CandidateLink link) {
        ChildrenTally tally = link.counts().children().orElseThrow();
        return link.isOneToOne() && tally.most() == 1 ? "0 to 1" : tally.least() + " to " + tally.most();
    }

    private void writePairs() {
        List<ManyToMany> pairs = result.pairs().stream()
                .filter(pair -> only.isEmpty()
                        || only.contains(pair.one())
                        || only.contains(pair.other())
                        || only.contains(pair.through()))
                .toList();
        if (pairs.isEmpty()) {
            return;
        }
        heading("Many to many");
        int most = isFull ? pairs.size() : OTHER_LINKS;
        pairs.stream()
                .limit(most)
                .forEach(pair -> sentence(pair.one() + " and " + pair.other() + ", through " + pair.through(), INDENT));
        if (pairs.size() > most) {
            sentence("and " + Counted.grouped(pairs.size() - most) + " more; --full shows all", INDENT);
        }
    }
}
