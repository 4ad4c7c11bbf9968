package taxiomet.cli.option;

import java.io.IOException;
import java.nio.charset.MalformedInputException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Stack;
import java.util.regex.Pattern;
import picocli.CommandLine.IParameterConsumer;
import picocli.CommandLine.Model.ArgSpec;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import taxiomet.charter.Charter;
import taxiomet.charter.CharterException;
import taxiomet.charters.input.InputFile;
import taxiomet.charters.proposals.ProposalReader;
import taxiomet.charters.proposals.ProposalReader.Use;
import taxiomet.charters.yaml.ProposalDocument;
import taxiomet.cli.terminal.UsageException;
import taxiomet.proposal.Change;
import taxiomet.proposal.ProposalException;

/** What is proposed: statements and files, in the order in which they stand on the command line. */
public final class ProposalOptions {
    private static final Pattern CHARTER = Pattern.compile("(?im)^\\s*[{]?\\s*\"?charter\"?\\s*:");
    private static final Pattern DOCUMENT = Pattern.compile("(?im)^\\s*([{]|proposal\\s*:)");
    private static final int MOST_READ = 4_000_000;

    @Parameters(
            arity = "0..*",
            paramLabel = "PROPOSAL",
            description =
                    "The charter first, unless it is charter.yaml in the current folder; then proposals: SQL scripts"
                            + " (.sql), documents of changes, merges and renumberings (.yaml, .json), or - for standard input.",
            parameterConsumer = InOrder.class)
    @SuppressWarnings("UnusedVariable")
    private List<Part> files = new ArrayList<>();

    @Option(
            names = "-e",
            paramLabel = "SQL",
            description = "One or more statements. Can be repeated.",
            parameterConsumer = InOrder.class)
    @SuppressWarnings("UnusedVariable")
    private List<Part> sql = new ArrayList<>();

    @Option(
            names = "--delete",
            paramLabel = "TABLE=FILE",
            description = "Delete the rows that a CSV file lists, by their keys or any other columns.",
            parameterConsumer = InOrder.class)
    @SuppressWarnings("UnusedVariable")
    private List<Part> deletes = new ArrayList<>();

    @Option(
            names = "--update",
            paramLabel = "TABLE=FILE",
            description = "Update the rows that a CSV file lists: columns as they are say which rows, columns named"
                    + " new:COLUMN what they get.",
            parameterConsumer = InOrder.class)
    @SuppressWarnings("UnusedVariable")
    private List<Part> updates = new ArrayList<>();

    @Option(
            names = "--insert",
            paramLabel = "TABLE=FILE",
            description = "Insert the rows of a CSV file.",
            parameterConsumer = InOrder.class)
    @SuppressWarnings("UnusedVariable")
    private List<Part> inserts = new ArrayList<>();

    @Option(
            names = "--any-owner",
            description =
                    "Take decisions from a docket also in rows that were laid before another owner than the docket.")
    private boolean takesAnyOwner;

    /** All of them, in their order. */
    private final List<Part> parts = new ArrayList<>();

    /** One argument: the option's name, or nothing for a file, and its value. */
    record Part(String option, String value) {}

    /** A command with such options. */
    public interface Proposing {
        ProposalOptions proposal();
    }

    /** Keeps arguments of different options in the order in which they stand. */
    static final class InOrder implements IParameterConsumer {
        @Override
        public void consumeParameters(Stack<String> arguments, ArgSpec argument, CommandSpec command) {
            String option = argument.isOption() ? argument.paramLabel() : "";
            if (arguments.isEmpty()) {
                throw new ParameterException(command.commandLine(), "Missing required parameter for option " + option);
            }
            List<Part> all = argument.getValue();
            String name = argument.isOption() ? ((picocli.CommandLine.Model.OptionSpec) argument).longestName() : "";
            all.add(new Part(name, arguments.pop()));
            ((Proposing) command.userObject()).proposal().parts.add(all.get(all.size() - 1));
        }
    }

    /** Whether rows of a docket count that were made for another owner. */
    public boolean takesAnyOwner() {
        return takesAnyOwner;
    }

    /** Whether nothing is proposed. */
    public boolean isEmpty() {
        return parts.isEmpty();
    }

    /** The file that is the charter: the first that looks like one, else the usual one. */
    public Path charter() {
        return charterPart().map(part -> Path.of(part.value())).orElse(Path.of("charter.yaml"));
    }

    private Optional<Part> charterPart() {
        Optional<Part> first =
                parts.stream().filter(part -> part.option().isEmpty()).findFirst();
        return first.filter(part -> !isDocket(part) && isCharter(Path.of(part.value())));
    }

    private static boolean isCharter(Path file) {
        if (InputFile.isStandardInput(file)) {
            String text = textOf(file);
            return CHARTER.matcher(text).find() || InputFile.declaresTables(text);
        }
        String name = file.toString().toLowerCase(Locale.ROOT);
        if (!Files.isRegularFile(file)) {
            return !name.endsWith(".sql") || !Files.exists(Path.of("charter.yaml"));
        }
        try {
            if (Files.size(file) > MOST_READ) {
                return false;
            }
            String text = Files.readString(file, StandardCharsets.UTF_8);
            return name.endsWith(".sql")
                    ? InputFile.declaresTables(text)
                    : CHARTER.matcher(text).find();
        } catch (MalformedInputException e) {
            return !name.endsWith(".sql");
        } catch (IOException e) {
            return true;
        }
    }

    private static String textOf(Path file) {
        try {
            return new String(InputFile.bytes(file), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UsageException(InputFile.name(file) + " cannot be read (" + e.getMessage() + ")");
        }
    }

    /** Standard input comes once. */
    private void requireOneStandardInput() {
        long uses = parts.stream()
                .filter(part -> part.option().isEmpty()
                        ? part.value().equals("-")
                        : !part.option().equals("-e") && part.value().endsWith("=-"))
                .count();
        if (uses > 1) {
            throw new UsageException("standard input (-) comes once, and " + uses + " arguments want it");
        }
    }

    private static boolean isDocket(Part part) {
        return part.option().isEmpty() && FilledDocket.isOne(Path.of(part.value()));
    }

    /** The dockets that were filled in. */
    public List<Path> dockets() {
        return parts.stream()
                .filter(ProposalOptions::isDocket)
                .map(part -> Path.of(part.value()))
                .toList();
    }

    /** The files that hold what is proposed. */
    public List<Path> files() {
        return parts.stream()
                .filter(part -> !part.option().equals("-e"))
                .map(part -> part.option().isEmpty()
                        ? part.value()
                        : part.value().substring(part.value().indexOf('=') + 1))
                .map(Path::of)
                .toList();
    }

    /** All changes but those of dockets, in their order. */
    public List<Change> changes(Charter charter, Instant now) throws CharterException {
        requireOneStandardInput();
        ProposalReader reader = new ProposalReader(charter, now);
        Optional<Part> charterPart = charterPart();
        List<Change> changes = new ArrayList<>();
        int statements = 0;
        List<Part> proposed = new ArrayList<>(parts);
        charterPart.ifPresent(proposed::remove);
        proposed.removeIf(ProposalOptions::isDocket);
        List<ProposalException> faults = new ArrayList<>();
        for (Part part : proposed) {
            statements += part.option().equals("-e") ? 1 : 0;
            try {
                changes.addAll(changes(charter, reader, part, statements));
            } catch (ProposalException e) {
                faults.add(e);
            }
        }
        if (!faults.isEmpty()) {
            throw ProposalException.ofAll(faults);
        }
        if (changes.isEmpty() && dockets().isEmpty()) {
            throw new UsageException(
                    "nothing is proposed; add -e \"DELETE FROM ...\", a .sql file, or --delete TABLE=FILE.csv");
        }
        return changes;
    }

    private static List<Change> changes(Charter charter, ProposalReader reader, Part part, int statements)
            throws CharterException {
        return switch (part.option()) {
            case "-e" -> reader.sql(part.value(), "-e" + (statements == 1 ? "" : " (" + statements + ")"));
            case "--delete" -> List.of(rows(reader, Use.DELETE, part));
            case "--update" -> List.of(rows(reader, Use.UPDATE, part));
            case "--insert" -> List.of(rows(reader, Use.INSERT, part));
            default -> file(charter, reader, Path.of(part.value()));
        };
    }

    /**
     * The changes of one argument: a file, or SQL as it is.
     *
     * @param option whose argument it is
     */
    public static List<Change> changesOf(Charter charter, String proposed, String option, Instant now)
            throws CharterException {
        ProposalReader reader = new ProposalReader(charter, now);
        boolean isStatement = proposed.strip().contains(" ") && !Files.exists(Path.of(proposed));
        return isStatement ? reader.sql(proposed, option) : file(charter, reader, Path.of(proposed));
    }

    private static Change rows(ProposalReader reader, Use use, Part part) {
        int equals = part.value().indexOf('=');
        if (equals < 1 || equals == part.value().length() - 1) {
            throw new UsageException(part.option() + " " + part.value() + ": write TABLE=FILE.csv");
        }
        return reader.rows(
                use, part.value().substring(0, equals), Path.of(part.value().substring(equals + 1)));
    }

    private static List<Change> file(Charter charter, ProposalReader reader, Path file) throws CharterException {
        String name = file.toString().toLowerCase(Locale.ROOT);
        if (InputFile.isStandardInput(file)) {
            boolean isDocument = DOCUMENT.matcher(textOf(file)).lookingAt();
            return isDocument ? ProposalDocument.read(file, charter, reader) : reader.script(file);
        }
        if (name.endsWith(".sql")) {
            return reader.script(file);
        } else if (name.endsWith(".yaml") || name.endsWith(".yml") || name.endsWith(".json")) {
            return ProposalDocument.read(file, charter, reader);
        }
        throw new UsageException(file + ": a proposal is a .sql or .yaml file; for a CSV file write --delete TABLE="
                + file + ", --update or --insert");
    }
}
