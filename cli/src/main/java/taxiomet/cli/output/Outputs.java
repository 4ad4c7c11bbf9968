package taxiomet.cli.output;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import taxiomet.cli.terminal.ColorChoice;
import taxiomet.cli.terminal.TemporaryFolder;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.TextPage;
import taxiomet.cli.terminal.UsageException;
import taxiomet.reports.OutputException;
import taxiomet.reports.WholeOutput;
import taxiomet.reports.text.LinePaper;
import taxiomet.reports.text.ResultText;
import taxiomet.reports.words.Counted;

/**
 * All that a command writes: its text, or one document in its place ({@code -}), and files, each whole or not at all. What was
 * written is told in one line at the end.
 */
public final class Outputs {
    public static final String JSON = "--json";

    private static final String STANDARD_OUTPUT = "-";

    private final Terminal terminal;
    private final boolean isForced;
    private final List<Place> files = new ArrayList<>();
    private final List<String> written = new ArrayList<>();
    private String holder = "";

    /** @param isForced whether what exists is replaced */
    public Outputs(Terminal terminal, boolean isForced) {
        this.terminal = terminal;
        this.isForced = isForced;
    }

    boolean isForced() {
        return isForced;
    }

    /** Writes a document into a file that does not exist. */
    interface Writer {
        void write(Path file);
    }

    /** A file that an option names, or standard output. */
    final class Place {
        private final String option;
        private final String name;
        private boolean isWritten;

        private Place(String option, String name) {
            this.option = option;
            this.name = name;
        }

        boolean isStandardOutput() {
            return name.equals(STANDARD_OUTPUT);
        }

        Path file() {
            return Path.of(name);
        }

        /** Writes it, whole or not at all. */
        void write(Writer writer) {
            if (!isStandardOutput()) {
                try (WholeOutput output = new WholeOutput(file())) {
                    writer.write(output.draft());
                    output.complete();
                }
                isWritten = true;
                return;
            }
            try {
                Path folder = Files.createTempDirectory(TemporaryFolder.path(), "taxiomet-");
                try {
                    Path file = folder.resolve(option.replace("-", ""));
                    writer.write(file);
                    Files.copy(file, terminal.out());
                } finally {
                    WholeOutput.removeTree(folder);
                }
            } catch (IOException e) {
                throw OutputException.of("standard output", e);
            }
        }
    }

    /** Takes standard output for an option; there is one document in it, and no other. */
    public void claim(String option) {
        if (!holder.isEmpty()) {
            throw new UsageException(
                    holder.equals(option)
                            ? option + " wants standard output twice"
                            : holder + " and " + option + " both want standard output; name a file for one of them");
        }
        holder = option;
    }

    /** The text of a result: on standard output, or the answer alone beside the document that is printed there. */
    public void show(ColorChoice color, boolean isPaged, boolean isQuiet, ResultText.Maker result, String next)
            throws IOException {
        if (holder.isEmpty()) {
            TextPage.show(terminal, color, isPaged, isQuiet, result, next);
        } else if (!isQuiet && !holder.equals(JSON)) {
            result.of(new LinePaper(terminal.width(), false, terminal::say)).writeAnswer();
        }
    }

    /** A place to write to; refuses, before anything is read, what could not be written afterwards. */
    Place place(String option, String name) {
        if (name.isEmpty()) {
            throw new UsageException(option + " names no file");
        }
        Place place = new Place(option, name);
        if (place.isStandardOutput()) {
            claim(option + " -");
            return place;
        }
        Path file = place.file();
        if (files.stream().anyMatch(other -> isSame(other.file(), file))) {
            throw new UsageException(option + " " + file + " is named twice");
        }
        requireFolderOf(file);
        if (Files.isDirectory(file)) {
            throw new UsageException(option + " " + file + " is a folder");
        }
        if (Files.exists(file) && !isForced) {
            throw new UsageException(option + " " + file + " exists already; name another file, or add --force");
        }
        terminal.files().writes(option, file);
        files.add(place);
        return place;
    }

    private static boolean isSame(Path one, Path other) {
        return one.toAbsolutePath().normalize().equals(other.toAbsolutePath().normalize());
    }

    /** Notes a folder that is replaced. */
    void replaces(String option, Path folder) {
        terminal.files().writes(option, folder);
    }

    /** Refuses a folder that could not be written, whatever stands there. */
    static void requireFolder(String option, Path folder) {
        if (folder.toString().equals(STANDARD_OUTPUT)) {
            throw new UsageException(option + " -: a folder cannot be standard output; name one");
        }
        requireFolderOf(folder);
    }

    private static void requireFolderOf(Path output) {
        Path folder = output.toAbsolutePath().getParent();
        if (folder == null || !Files.isDirectory(folder)) {
            throw new UsageException(
                    "there is no folder " + folder + " to write " + output.getFileName() + " into; make it first");
        }
        if (!Files.isWritable(folder)) {
            throw new OutputException(
                    folder.toString(), "there is no permission to write into it", "name another place");
        }
    }

    /** Notes what was written elsewhere than in a place of these. */
    public void wrote(String what) {
        written.add(what);
    }

    /** Notes what could not be said in what was written, each a clause. */
    public void leftOut(String why, List<String> what) {
        if (!what.isEmpty()) {
            terminal.say(why + ": " + String.join("; ", what));
        }
    }

    /** Tells in one line what was written, if anything was, and what to do with it. */
    public void tell(String next) {
        written.addAll(
                0,
                files.stream()
                        .filter(place -> place.isWritten)
                        .map(place -> place.name)
                        .toList());
        if (!written.isEmpty()) {
            terminal.say("written: " + Counted.listed(written) + (next.isEmpty() ? "" : "; " + next));
        }
    }
}
