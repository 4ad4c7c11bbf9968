package taxiomet.cli.rehearsal;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Charter;
import taxiomet.charter.Server;
import taxiomet.charters.Charters;
import taxiomet.cli.Program;
import taxiomet.cli.rehearsal.RandomProposal.TableCase;
import taxiomet.finding.RefusalKind;
import taxiomet.finding.RehearsalResult;
import taxiomet.finding.RehearsalResult.ChangeResult;
import taxiomet.finding.RehearsalResult.RefusalResult;
import taxiomet.rehearse.Rehearsal;

/**
 * Rehearses random changes on random tables and compares with real servers, row by row: each change alone, and all in sequence.
 */
final class RehearsalConformanceTest {
    private RandomCases cases;

    private boolean isDeepCase;
    private boolean isRefusedCase;

    @TempDir
    Path folder;

    @Test
    void postgresql_does_what_is_rehearsed() throws Exception {
        try (RealServer server = new PostgresServer()) {
            compare(server, Server.POSTGRESQL);
        }
    }

    @Test
    void sqlite_does_what_is_rehearsed() throws Exception {
        try (RealServer server = new SqliteServer()) {
            compare(server, Server.SQLITE);
        }
    }

    @Test
    void mariadb_does_what_is_rehearsed() throws Exception {
        Optional<MariadbServer> server = MariadbServer.started();
        if (server.isEmpty()) {
            return;
        }
        try (MariadbServer started = server.get()) {
            compare(started, Server.MARIADB);
        }
    }

    private void compare(RealServer server, Server behaviour) throws Exception {
        cases = new RandomCases(server.name(), folder);
        cases.compare(RandomCases.USUAL, RandomProposal::inAnyOrder, server::takes, drawn -> {
            RandomProposal proposal = drawn.proposal();
            proposal.traits().forEach((trait, isThere) -> cases.note("case: " + trait, isThere ? 1 : 0));
            isDeepCase = false;
            isRefusedCase = false;
            String difference = compare(server, behaviour, proposal, drawn.folder());
            cases.note("case: accepts two steps or more", isDeepCase ? 1 : 0);
            cases.note("case: refuses", isRefusedCase ? 1 : 0);
            return Optional.ofNullable(difference);
        });
    }

    private String compare(RealServer server, Server behaviour, RandomProposal proposal, Path caseFolder)
            throws Exception {
        Path written = behaviour == Server.POSTGRESQL
                ? CharterOfCase.writeOrdered(proposal, caseFolder)
                : CharterOfCase.write(proposal, caseFolder);
        // Where only PostgreSQL's order counts, half of the cases are read from a schema.
        boolean isSchema =
                behaviour == Server.POSTGRESQL && (proposal.changes.size() + proposal.tables.size()) % 2 == 0;
        Charter charter = Charters.read(
                        isSchema ? CharterOfCase.writeSchema(proposal, caseFolder, true) : written, Optional.empty())
                .charter();
        assertThat(charter.notRead()).isEmpty();
        cases.note("case: read from a schema", isSchema ? 1 : 0);
        for (String change : proposal.changes) {
            String difference = compare(server, behaviour, proposal, charter, List.of(change));
            if (difference != null) {
                return difference;
            }
        }
        String difference = compare(server, behaviour, proposal, charter, proposal.changes);
        requireWayBack(caseFolder, behaviour, proposal);
        return difference == null ? differenceOfScript(server, caseFolder, behaviour, proposal) : difference;
    }

    /**
     * The accepted changes as SQL, run on the server, make the rows that were rehearsed; their undo makes those that were there; and with
     * a row changed in between, nothing happens.
     */
    private String differenceOfScript(RealServer server, Path caseFolder, Server behaviour, RandomProposal proposal)
            throws SQLException, IOException {
        Path script = caseFolder.resolve("script.sql");
        Program written = Program.run(
                "rehearse",
                caseFolder.resolve("charter.yaml").toString(),
                "-e",
                String.join(";\n", proposal.changes),
                "--server",
                behaviour.name(),
                "--write-sql",
                script.toString(),
                "--into",
                caseFolder.resolve("again").toString(),
                "--quiet");
        assertThat(written.status()).as(written.err()).isLessThan(2);
        server.load(proposal);
        Map<String, List<String>> before = server.rows(proposal);
        server.runTogether(proposal.changes);
        Map<String, List<String>> wanted = server.rows(proposal);
        server.load(proposal);
        String failure = server.runScript(Files.readString(script));
        if (failure != null || !server.rows(proposal).equals(wanted)) {
            return "script: " + failure + " " + server.rows(proposal) + " instead of " + wanted + "\n"
                    + Files.readString(script);
        }
        cases.note("script: run");
        failure = server.runScript(Files.readString(caseFolder.resolve("script.back.sql")));
        // Rows that broke a rule on values cannot be put back where such rules cannot be set aside.
        boolean isHeldUp = proposal.isDirty && server.keepsRules() && failure != null && failure.contains("\"c_");
        if (!isHeldUp && (failure != null || !server.rows(proposal).equals(before))) {
            return "undo script: " + failure + " " + server.rows(proposal) + " instead of " + before + "\n"
                    + Files.readString(caseFolder.resolve("script.back.sql"));
        }
        cases.note(isHeldUp ? "script: not undone, for a rule" : "script: undone");
        if (!wanted.equals(before)) {
            server.load(proposal);
            server.spoil(proposal, Files.readString(script));
            Map<String, List<String>> spoilt = server.rows(proposal);
            failure = server.runScript(Files.readString(script));
            if (failure == null || !server.rows(proposal).equals(spoilt)) {
                return "script on other rows: " + failure + "\n" + Files.readString(script);
            }
            cases.note("script: rolled back");
        }
        return null;
    }

    /** What the program writes, and its undo, give the files that were read, byte for byte. */
    private void requireWayBack(Path caseFolder, Server behaviour, RandomProposal proposal) throws IOException {
        Path copies = caseFolder.resolve("copies");
        Path back = caseFolder.resolve("back");
        Program rehearsed = Program.run(
                "rehearse",
                caseFolder.resolve("charter.yaml").toString(),
                "-e",
                String.join(";\n", proposal.changes),
                "--server",
                behaviour.name(),
                "--into",
                copies.toString(),
                "--quiet");
        assertThat(rehearsed.status()).as(rehearsed.err()).isLessThan(2);
        Program undone =
                Program.run("rehearse", "--undo", copies.resolve("undo.json").toString(), "--into", back.toString());
        assertThat(undone.status()).as(undone.err()).isZero();
        try (Stream<Path> files = Files.list(back)) {
            for (Path file : files.filter(each -> !each.getFileName().toString().equals(".taxiomet-written"))
                    .toList()) {
                assertThat(file).hasSameBinaryContentAs(caseFolder.resolve(file.getFileName()));
                cases.note("file undone");
            }
        }
    }

    private String compare(
            RealServer server, Server behaviour, RandomProposal proposal, Charter charter, List<String> changes)
            throws SQLException, IOException {
        server.load(proposal);
        List<RealServer.Answer> answers = new ArrayList<>();
        for (String change : changes) {
            answers.add(server.run(change));
        }
        try (Rehearsal rehearsal = Rehearsals.start(charter, changes, behaviour)) {
            RehearsalResult result = rehearsal.result();
            for (int i = 0; i < answers.size(); i++) {
                String difference =
                        difference(server, answers.get(i), result.changes().get(i), proposal);
                if (difference != null) {
                    return changes + ": change " + (i + 1) + ": " + difference;
                }
                note(result.changes().get(i), changes.get(i).startsWith("DELETE"), proposal);
            }
            Map<String, List<String>> wanted = server.rows(proposal);
            Map<String, List<String>> got = Rehearsals.rows(rehearsal, proposal);
            return wanted.equals(got) ? null : changes + ": rows " + got + " instead of " + wanted;
        }
    }

    /** For the quotas: which actions were met, by a delete or by an update. */
    private void noteActions(ChangeResult change, boolean isDelete, RandomProposal proposal) {
        Set<String> met = new TreeSet<>();
        for (RandomProposal.LinkCase link : proposal.links) {
            boolean refuses = change.refusals().stream()
                    .anyMatch(refusal -> refusal.kind() == RefusalKind.STILL_REFERENCED
                            && refusal.at().equals(link.name()));
            boolean acts =
                    change.effects().stream().anyMatch(effect -> effect.link().equals(Optional.of(link.name())));
            if (refuses || acts) {
                met.add(isDelete ? "on delete " + link.onDelete() : "on update " + link.onUpdate());
            }
        }
        met.forEach(what -> cases.note("action: " + what));
    }

    private void note(ChangeResult change, boolean isDelete, RandomProposal proposal) {
        noteActions(change, isDelete, proposal);
        isRefusedCase |= !change.isAccepted();
        cases.note(change.isAccepted() ? "change: accepted" : "change: refused");
        if (change.isAccepted() && change.effects().stream().anyMatch(effect -> effect.steps() >= 2)) {
            cases.note("change: accepted, two steps or more");
            isDeepCase = true;
        }
        change.refusals().stream()
                .limit(1)
                .forEach(refusal -> cases.note("refused: " + refusal.kind().words()));
        change.effects().forEach(effect -> cases.note("effect: " + effect.kind().words()));
    }

    private static String difference(
            RealServer server, RealServer.Answer answer, ChangeResult change, RandomProposal proposal) {
        if (answer.isAccepted() != change.isAccepted()) {
            return answer.isAccepted()
                    ? "refused by " + change.refusals() + ", and the server accepts it"
                    : "accepted, and the server refuses it by " + answer.refusedBy();
        }
        if (answer.isAccepted() || answer.refusedBy().isEmpty()) {
            return null;
        }
        if (server.name().equals("mariadb") || change.words().contains("IN (SELECT")) {
            // Which of several rules is named first depends on the indexes, or on the plan of a join.
            boolean isKnown = change.refusals().stream()
                    .anyMatch(refusal -> refusal.kind() == RefusalKind.TOO_DEEP
                            || nameOf(server, refusal, proposal)
                                    .equals(answer.refusedBy().get()));
            return isKnown ? null : "refused by " + change.refusals() + ", and the server names " + answer.refusedBy();
        }
        String named = nameOf(server, change.refusals().get(0), proposal);
        return named.equals(answer.refusedBy().get())
                ? null
                : "refused by " + named + ", and the server names "
                        + answer.refusedBy().get();
    }

    /** The rule as the server names it. */
    private static String nameOf(RealServer server, RefusalResult refusal, RandomProposal proposal) {
        if (server.name().equals("sqlite")) {
            if (refusal.kind() == RefusalKind.KEY_TAKEN) {
                TableCase table = proposal.tables.stream()
                        .filter(t -> t.name.equals(refusal.table()))
                        .findFirst()
                        .orElseThrow();
                List<Integer> columns = refusal.at().equals("primary_key")
                        ? table.primaryKey.columns()
                        : table.uniqueKeys.get(0).columns();
                return "unique "
                        + String.join(
                                ", ",
                                table.names(columns).stream()
                                        .map(c -> table.name + "." + c)
                                        .toList());
            }
            return refusal.kind() == RefusalKind.BROKEN_RULE ? refusal.at() : refusal.table() + "." + refusal.at();
        }
        return server.name().equals("mariadb") ? refusal.at() : refusal.table() + "." + refusal.at();
    }
}
