package taxiomet.cli;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import taxiomet.cli.terminal.Terminal;

/** Runs the program in this process, as its launcher would in one of its own. */
public record Program(int status, String out, String err) {
    /** Runs one command without a terminal. */
    public static Program run(String... arguments) {
        return run(Map.of(), arguments);
    }

    /** @param environment what the launcher and the user say about the terminal */
    public static Program run(Map<String, String> environment, String... arguments) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ByteArrayOutputStream err = new ByteArrayOutputStream();
        Terminal terminal = Terminal.of(
                environment,
                new PrintStream(out, false, StandardCharsets.UTF_8),
                new PrintStream(err, false, StandardCharsets.UTF_8));
        int status = Main.run(arguments, terminal);
        return new Program(status, out.toString(StandardCharsets.UTF_8), err.toString(StandardCharsets.UTF_8));
    }

    /** What was printed, as JSON. */
    public JsonNode json() {
        try {
            return new ObjectMapper().readTree(out);
        } catch (IOException e) {
            throw new AssertionError("no JSON: " + out + err, e);
        }
    }
}
