package taxiomet.cli.output;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import taxiomet.cli.terminal.UsageException;
import taxiomet.reports.words.Counted;

/** The files that {@code --report} names, each in a format that its ending says, or a word before it: {@code csv:-}. */
public final class ReportFiles {
    private final List<Report> reports = new ArrayList<>();

    private record Report(String format, Outputs.Place place) {}

    /** Writes a report into a file that does not exist. */
    public interface Writer {
        public void write(String format, Path file);
    }

    /**
     * Refuses, before anything is read, what could not be written afterwards.
     *
     * @param formats those that a command can write, in lower case
     */
    public ReportFiles(Outputs outputs, List<String> names, List<String> formats) {
        for (String name : names) {
            String lower = name.toLowerCase(Locale.ROOT);
            String format = formats.stream()
                    .filter(each -> lower.startsWith(each + ":"))
                    .findFirst()
                    .orElse("");
            String place = format.isEmpty() ? name : name.substring(format.length() + 1);
            if (format.isEmpty()) {
                format = formats.stream()
                        .filter(each -> lower.endsWith("." + each))
                        .findFirst()
                        .orElseThrow(() -> new UsageException("--report " + name
                                + ": the ending says the format, or a word before it; there "
                                + (formats.size() == 1 ? "is " : "are ")
                                + Counted.listed(formats) + ", as in " + formats.get(0) + ":" + name));
            }
            reports.add(new Report(format, outputs.place("--report", place)));
        }
    }

    boolean isEmpty() {
        return reports.isEmpty();
    }

    /** Writes all of them, each whole or not at all. */
    public void write(Writer writer) {
        reports.forEach(report -> report.place().write(file -> writer.write(report.format(), file)));
    }
}
