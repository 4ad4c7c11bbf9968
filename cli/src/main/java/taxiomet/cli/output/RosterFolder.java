package taxiomet.cli.output;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import taxiomet.cli.terminal.UsageException;
import taxiomet.finding.RosterResult.Section;
import taxiomet.reports.FileNames;
import taxiomet.reports.OutputException;
import taxiomet.reports.WholeOutput;
import taxiomet.reports.csv.RosterIndexCsv;
import taxiomet.reports.words.Counted;
import taxiomet.reports.words.RosterWords;
import taxiomet.roster.Roster;
import taxiomet.roster.RosterPart;

/** The folder that {@code --into} names for a roster: a file for each heading, and a list of them. */
public final class RosterFolder {
    private static final int MOST_FILES = 10_000;

    private final Path folder;
    private final String format;

    /** Writes one section into a file that does not exist. */
    public interface Writer {
        void write(RosterPart part, Path file);
    }

    /**
     * A folder for files of one format.
     *
     * @param formats those that there are
     */
    public RosterFolder(Path folder, String format, List<String> formats) {
        this.folder = folder;
        this.format = format.startsWith(".") ? format.substring(1) : format;
        if (!formats.contains(this.format)) {
            throw new UsageException("--per-heading " + format + ": there are " + String.join(", ", formats));
        }
    }

    /** What the files are written as. */
    public String format() {
        return format;
    }

    /** Refuses, before anything is read, what could not be written afterwards. */
    public void requireFree(Outputs outputs) {
        OutputFolder.requireFree(outputs, "--into", folder, "files of a roster");
    }

    /**
     * Writes the folder, whole or not at all.
     *
     * @param hasMark whether the list begins with a byte order mark
     * @return what was written, in words
     */
    public String write(Roster roster, boolean hasMark, Writer writer) {
        long headings = roster.result().headings();
        if (headings > MOST_FILES) {
            throw new UsageException("--per-heading would write " + Counted.grouped(headings) + " files, more than "
                    + Counted.grouped(MOST_FILES) + "; name fewer headings with --where or --childless hide");
        }
        long[] files = new long[1];
        String others;
        try (WholeOutput output = new WholeOutput(folder)) {
            Path draft = output.draft();
            Files.createDirectory(draft);
            FileNames names = new FileNames(Set.of(RosterIndexCsv.FILE));
            try (RosterIndexCsv list = new RosterIndexCsv(draft, hasMark)) {
                roster.eachSection(part -> {
                    String called =
                            part.section() == Section.HEADING ? part.name() : RosterWords.section(part.section(), "");
                    String name = names.different(FileNames.plain(called), "." + format);
                    writer.write(part, draft.resolve(name));
                    list.add(
                            name,
                            part.section(),
                            part.name(),
                            part.result().groups().stream()
                                    .mapToLong(group -> group.rows())
                                    .sum());
                    files[0]++;
                });
            }
            others = OutputFolder.complete(output);
        } catch (IOException e) {
            throw OutputException.of(folder.toString(), e);
        }
        return folder + " (" + Counted.of(files[0], "file") + " and " + RosterIndexCsv.FILE + ")" + others;
    }
}
