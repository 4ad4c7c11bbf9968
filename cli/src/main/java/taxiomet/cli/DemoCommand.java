package taxiomet.cli;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import taxiomet.cli.option.CommonOptions;
import taxiomet.cli.terminal.ExitStatus;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
import taxiomet.reports.words.Counted;
import taxiomet.rows.ColumnNames;

/** A guided run on the data that ships with the program. */
@Command(
        name = "demo",
        customSynopsis = "taxiomet demo [OPTION...]",
        header = "A guided run on data that ships with the program.",
        description = {
            "",
            "Copies the tables and the charter of a made-up honey cooperative to a folder, checks them,"
                    + " rehearses that a keeper leaves, and tells what to try next. It ends with status 0, though the data has faults."
        },
        footerHeading = "%nExamples:%n",
        footer = {
            "  taxiomet demo                                  in a folder taxiomet-demo",
            "  taxiomet demo --into try"
        })
final class DemoCommand implements Callable<Integer> {
    private final Terminal terminal;

    @Option(
            names = "--into",
            paramLabel = "DIR",
            description = "The folder to copy to. Default: ${DEFAULT-VALUE}",
            defaultValue = "taxiomet-demo")
    private Path into;

    @Option(
            names = "--force",
            description =
                    "Replace what the demo wrote in a folder in which somebody has changed something; all else stays.")
    private boolean force;

    @Mixin
    private CommonOptions common;

    DemoCommand(Terminal terminal) {
        this.terminal = terminal;
    }

    @Override
    public Integer call() {
        Path home = Path.of(terminal.variable("TAXIOMET_HOME"), "demo");
        if (!Files.isDirectory(home)) {
            throw new UsageException("the demo's data is not where the program was installed; install it again");
        }
        DemoFolder demo = new DemoFolder(home);
        switch (demo.stateOf(into)) {
            case FOREIGN ->
                throw new UsageException(
                        into + " is there already and is none of the demo's; name another folder with --into");
            case CHANGED -> {
                if (!force) {
                    throw new UsageException(into
                            + " was changed since it was copied, and is left alone; name another folder with --into, or move away what you"
                            + " changed and add --force");
                }
            }
            default -> {
                // Nothing of anybody's is lost.
            }
        }
        List<String> others = demo.copyTo(into);
        if (!others.isEmpty()) {
            say(Counted.of(others.size(), "file") + " there that the demo did not write, and that "
                    + (others.size() == 1 ? "stays: " : "stay: ") + ColumnNames.listed(others));
        }
        String charter = into.resolve("charter.yaml").toString();
        say("The tables of the Merrow Vale honey cooperative and their charter now stand in " + into + ".");
        say("$ taxiomet check " + charter);
        say("");
        int status = Main.run(new String[] {"check", charter, "--examples", "3", "--color", color()}, terminal);
        if (status > ExitStatus.FINDINGS) {
            return status;
        }
        say("");
        String leaves = into.resolve("proposals").resolve("keeper-leaves.sql").toString();
        say("A keeper leaves. What would go with him, and what is still owed?");
        say("$ taxiomet rehearse " + charter + " " + leaves);
        say("");
        status = Main.run(new String[] {"rehearse", charter, leaves, "--examples", "2", "--color", color()}, terminal);
        if (status > ExitStatus.FINDINGS) {
            return status;
        }
        say("");
        say("The same, if whatever points at him went along, under each action of one link:");
        List<String> compare =
                new ArrayList<>(List.of("rehearse", charter, leaves, "--compare-actions", "apiary_keeper"));
        for (String link : List.of(
                "visit_keeper", "payout_keeper", "hive_apiary", "harvest_hive", "transfer_from", "transfer_to")) {
            compare.add("--try");
            compare.add(link + ".on_delete=cascade");
        }
        say("$ taxiomet " + String.join(" ", compare));
        say("");
        compare.addAll(List.of("--color", color()));
        status = Main.run(compare.toArray(new String[0]), terminal);
        if (status > ExitStatus.FINDINGS) {
            return status;
        }
        say("");
        say("What to try next:");
        say("  read the rules                     " + charter);
        say("  see which faults were planted      " + into.resolve("FAULTS.md"));
        say("  see what a finding means           taxiomet meaning orphan");
        say("  look at one table                  taxiomet check " + charter + " --only hive");
        say("  have every faulty row in a file    taxiomet check " + charter + " --evidence faults");
        say("  mend a row in a file, check again  taxiomet check " + charter);
        say("  give each faulty row to its owner  taxiomet docket " + charter + " --into dockets --per-owner");
        say("  part the sound rows from others    taxiomet sift " + charter + " --into sifted --reveal");
        say("  keep the result                    taxiomet check " + charter + " --keep-history history");
        say("  see next week what is new          taxiomet check " + charter + " --since history");
        say("  close an apiary");
        say("      taxiomet rehearse " + charter + " "
                + into.resolve("proposals").resolve("apiary-closes.sql"));
        say("  merge a person entered twice");
        say("      taxiomet rehearse " + charter + " "
                + into.resolve("proposals").resolve("one-person-twice.yaml"));
        say("  renumber a code, and see the tables as they would be");
        say("      taxiomet rehearse " + charter + " "
                + into.resolve("proposals").resolve("code-renumbered.yaml") + " --into new");
        return ExitStatus.SOUND;
    }

    private String color() {
        return terminal.hasColor(common.color()) ? "always" : "never";
    }

    private void say(String line) {
        terminal.out().println(line);
    }
}
