package taxiomet.cli.output;

import java.nio.file.Path;
import java.util.Optional;
import taxiomet.charter.Charter;
import taxiomet.charter.Server;
import taxiomet.cli.option.ServerOption;
import taxiomet.cli.terminal.Terminal;
import taxiomet.rehearse.Rehearsal;
import taxiomet.reports.OutputException;
import taxiomet.reports.sql.Dialect;
import taxiomet.reports.sql.ProposalSql;
import taxiomet.reports.sql.UndoSql;

/** The script that {@code --write-sql} names, and the way back beside it; standard output takes the script alone. */
public final class SqlOutput {
    private static final String OPTION = "--write-sql";

    private final Optional<Dialect> dialect;
    private final Outputs.Place forward;
    private final Optional<Outputs.Place> back;

    /**
     * Refuses, before anything is read, what could not be written afterwards.
     *
     * @param name {@code FILE} or {@code SERVER:FILE}
     */
    public SqlOutput(Outputs outputs, Terminal terminal, String name) {
        int colon = name.indexOf(':');
        boolean isNamed = colon > 0 && Server.find(name.substring(0, colon)).isPresent();
        dialect = isNamed
                ? Optional.of(
                        Dialect.of(ServerOption.parse(OPTION, name.substring(0, colon), Server::isWritten, terminal)))
                : Optional.empty();
        forward = outputs.place(OPTION, isNamed ? name.substring(colon + 1) : name);
        back = forward.isStandardOutput()
                ? Optional.empty()
                : Optional.of(outputs.place(OPTION, wayBackOf(forward.file()).toString()));
    }

    private static Path wayBackOf(Path script) {
        String name = script.getFileName().toString();
        return script.resolveSibling(name.replaceFirst("(?i)\\.sql$", "") + ".back.sql");
    }

    /**
     * Writes what is accepted, and what takes it back.
     *
     * @param rehearsed whose behaviour was rehearsed: the script is for that server where no other was named
     */
    public void write(Charter charter, Rehearsal rehearsal, Server rehearsed) {
        rehearsal.oneOfTwoCopies().ifPresent(row -> {
            throw new OutputException(
                    forward.isStandardOutput()
                            ? "standard output"
                            : forward.file().toString(),
                    "row " + row.row() + " of " + row.table()
                            + " has a copy with the same key, and SQL cannot name one of the two alone",
                    "write the tables with --into; on a server, delete one copy by ctid (PostgreSQL), by rowid (SQLite) or with"
                            + " LIMIT 1 (MariaDB)");
        });
        Dialect written = dialect.orElseGet(() -> Dialect.of(rehearsed.isWritten() ? rehearsed : Server.POSTGRESQL));
        if (back.isEmpty()) {
            forward.write(file -> new ProposalSql(charter, written).write(rehearsal.statements(), file));
            return;
        }
        // Neither takes its place before both are written.
        forward.write(script -> back.get().write(wayBack -> {
            new ProposalSql(charter, written).write(rehearsal.statements(), script);
            new UndoSql(charter, written).write(rehearsal.statements(), wayBack);
        }));
    }
}
