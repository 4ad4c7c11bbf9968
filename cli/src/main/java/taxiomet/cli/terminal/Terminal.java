package taxiomet.cli.terminal;

import java.io.PrintStream;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import taxiomet.reports.words.CellText;

/**
 * Where text goes, and what is known about it. The launcher finds out about the terminal, since Java would have to start
 * a process for it.
 */
public final class Terminal {
    private static final int DEFAULT_WIDTH = 80;
    private static final int LEAST_WIDTH = 40;
    private static final int DEFAULT_HEIGHT = 24;

    private final Map<String, String> environment;
    private final PrintStream out;
    private final PrintStream err;
    private final Map<String, String> secrets = new HashMap<>();
    private final RunFiles files = new RunFiles();
    private boolean saysMore;
    private final List<Runnable> atEnd = new ArrayList<>();

    private Terminal(Map<String, String> environment, PrintStream out, PrintStream err) {
        this.environment = environment;
        this.out = out;
        this.err = err;
    }

    /** @param environment the variables that the launcher sets, and those that users set to say what they like */
    public static Terminal of(Map<String, String> environment, PrintStream out, PrintStream err) {
        return new Terminal(new HashMap<>(environment), out, err);
    }

    public PrintStream out() {
        return out;
    }

    public PrintStream err() {
        return err;
    }

    /** Prints what went wrong. */
    public void complain(String message) {
        String label = isColorful("2", ColorChoice.AUTO) ? "\u001B[1;31mtaxiomet:\u001B[0m " : "taxiomet: ";
        out.flush();
        err.println(label + visible(message));
    }

    /** Prints what is to be said beside the result. */
    public void say(String message) {
        out.flush();
        err.println(visible(message));
    }

    /** Prints what is said with --verbose alone. */
    public void sayMore(String message) {
        if (saysMore) {
            say(message);
        }
    }

    /** Has it say more. */
    public void beVerbose() {
        saysMore = true;
    }

    /** What the run reads and writes. */
    public RunFiles files() {
        return files;
    }

    /** Keeps what no argument shall hold from here on. */
    public void keepSecret(String of, String secret) {
        secrets.put(of, secret);
    }

    /** What was kept of something. */
    public Optional<String> secretOf(String of) {
        return Optional.ofNullable(secrets.get(of));
    }

    /** Lines in which nothing moves the cursor, hides, or turns the line round: names from files stand in messages. */
    private static String visible(String message) {
        return message.lines().map(CellText::escaped).collect(Collectors.joining("\n"));
    }

    /** The width of a line, in columns. */
    public int width() {
        for (String name : new String[] {"COLUMNS", "TAXIOMET_COLUMNS"}) {
            String columns = environment.getOrDefault(name, "");
            if (columns.matches("[1-9][0-9]{0,4}")) {
                return Math.max(LEAST_WIDTH, Integer.parseInt(columns));
            }
        }
        return DEFAULT_WIDTH;
    }

    /** How many lines the window has. */
    int height() {
        for (String name : new String[] {"LINES", "TAXIOMET_LINES"}) {
            String lines = environment.getOrDefault(name, "");
            if (lines.matches("[1-9][0-9]{0,4}")) {
                return Integer.parseInt(lines);
            }
        }
        return DEFAULT_HEIGHT;
    }

    /** Whether standard output is a terminal. */
    boolean isShown() {
        return isTerminal("1");
    }

    /** Whether standard output is to be coloured. */
    public boolean hasColor(ColorChoice choice) {
        return isColorful("1", choice);
    }

    private boolean isColorful(String stream, ColorChoice choice) {
        if (choice != ColorChoice.AUTO) {
            return choice == ColorChoice.ALWAYS;
        }
        return isTerminal(stream)
                && environment.getOrDefault("NO_COLOR", "").isEmpty()
                && !environment.getOrDefault("TERM", "").equals("dumb");
    }

    /** Whether somebody watches standard error. */
    public boolean isWatched() {
        return isTerminal("2");
    }

    private boolean isTerminal(String stream) {
        return environment.getOrDefault("TAXIOMET_TERMINALS", "").contains(stream);
    }

    /** Has something done when the command is through, whatever became of it. */
    public void atEnd(Runnable what) {
        atEnd.add(what);
    }

    /** The command is through. */
    public void end() {
        atEnd.forEach(Runnable::run);
        atEnd.clear();
    }

    /** Sets a variable for this run. */
    public void setVariable(String name, String value) {
        environment.put(name, value);
    }

    /** A variable of the environment; empty where it is not set. */
    public String variable(String name) {
        return environment.getOrDefault(name, "");
    }
}
