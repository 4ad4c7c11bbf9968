package taxiomet.cli.terminal;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** What a run reads and what it writes, so that nothing is both: no output takes the place of an input, whatever options say. */
public final class RunFiles {
    private final List<Path> read = new ArrayList<>();
    private final List<Output> written = new ArrayList<>();

    private record Output(String option, Path path) {}

    /**
     * Notes a file that the run reads.
     *
     * @throws UsageException when an option would have it replaced
     */
    public void reads(Path file) {
        read.add(file);
        written.forEach(output -> requireApart(output, file));
    }

    /**
     * Notes a file or a folder that the run replaces with all that is in it.
     *
     * @throws UsageException when the run reads it
     */
    public void writes(String option, Path path) {
        Output output = new Output(option, path);
        written.add(output);
        read.forEach(file -> requireApart(output, file));
    }

    private static void requireApart(Output output, Path input) {
        try {
            boolean isSame = Files.exists(input)
                    && Files.exists(output.path)
                    && (Files.isSameFile(input, output.path)
                            || (Files.isDirectory(output.path)
                                    && input.toRealPath().startsWith(output.path.toRealPath())));
            if (isSame) {
                String what = Files.isDirectory(output.path) ? input + ", which" : "what";
                throw new UsageException(
                        output.option + " " + output.path + " would replace " + what + " is read; name another place");
            }
        } catch (IOException e) {
            // What cannot be looked at cannot be replaced.
            return;
        }
    }
}
