package taxiomet.cli;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import picocli.AutoComplete;

/** Writes the completion of commands and options for shells. The build calls it. */
final class Completion {
    private Completion() {}

    /** @param arguments the file to write */
    public static void main(String[] arguments) throws IOException {
        PrintStream nowhere = new PrintStream(new ByteArrayOutputStream(), false, StandardCharsets.UTF_8);
        String script = AutoComplete.bash("taxiomet", Main.commandLine(Terminal.of(Map.of(), nowhere, nowhere)));
        Files.writeString(Path.of(arguments[0]), script);
    }
}
