package taxiomet.cli;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import taxiomet.cli.terminal.Terminal;

/** Runs the program in this process, as its launcher would in one of its own. */
public record Program(int status, String out, String err) {
    private static final Set<String> ALLOWED = ConcurrentHashMap.newKeySet();

    /** Has all runs that follow connect to an address that a charter names, unless they say otherwise themselves. */
    public static void allow(String address) {
        ALLOWED.add(address);
    }

    /** What {@link #allow} was told, as a run in a process of its own is told. */
    public static Map<String, String> allowed() {
        return Map.of("TAXIOMET_ALLOW_DATABASE", String.join(" ", ALLOWED));
    }

    /** Runs one command without a terminal. */
    public static Program run(String... arguments) {
        return run(Map.of(), arguments);
    }

    /** @param environment what the launcher and the user say about the terminal */
    public static Program run(Map<String, String> environment, String... arguments) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ByteArrayOutputStream err = new ByteArrayOutputStream();
        Map<String, String> all = new HashMap<>(allowed());
        all.putAll(environment);
        Terminal terminal = Terminal.of(
                all,
                new PrintStream(out, false, StandardCharsets.UTF_8),
                new PrintStream(err, false, StandardCharsets.UTF_8));
        int status = Main.run(arguments, terminal);
        return new Program(status, out.toString(StandardCharsets.UTF_8), err.toString(StandardCharsets.UTF_8));
    }

    /** A terminal that nobody watches, with what {@link #allow} was told. */
    public static Terminal terminal() {
        PrintStream nowhere = new PrintStream(new ByteArrayOutputStream(), false, StandardCharsets.UTF_8);
        return Terminal.of(allowed(), nowhere, nowhere);
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
