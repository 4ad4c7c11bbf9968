package taxiomet.cli.option;

import java.util.List;
import java.util.Locale;
import picocli.CommandLine.Option;
import taxiomet.cli.terminal.UsageException;

/** How CSV files are written. */
public final class CsvOptions {
    @Option(
            names = "--bom",
            description =
                    "Begin CSV files with a byte order mark, for spreadsheets that show other letters than there are without it.")
    private boolean hasMark;

    public boolean hasMark() {
        return hasMark;
    }

    /**
     * An option that cannot be honoured is refused.
     *
     * @param reports as they were named
     * @param writesOthers whether CSV files are written beside these
     */
    public void requireSense(List<String> reports, boolean writesOthers) {
        boolean isWritten = writesOthers
                || reports.stream()
                        .map(name -> name.toLowerCase(Locale.ROOT))
                        .anyMatch(name -> name.startsWith("csv:") || name.endsWith(".csv"));
        if (hasMark && !isWritten) {
            throw new UsageException("--bom is about CSV files, and none is written");
        }
    }
}
