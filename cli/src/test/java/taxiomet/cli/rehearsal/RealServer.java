package taxiomet.cli.rehearsal;

import java.io.IOException;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import taxiomet.cli.rehearsal.RandomProposal.ColumnCase;
import taxiomet.cli.rehearsal.RandomProposal.KeyCase;
import taxiomet.cli.rehearsal.RandomProposal.LinkCase;
import taxiomet.cli.rehearsal.RandomProposal.TableCase;

/** A real database server that is asked what a change does. */
public abstract class RealServer implements AutoCloseable {
    /** The session at hand. */
    Connection connection;

    /**
     * What a server made of a change.
     *
     * @param refusedBy the rule it named; empty when it named none, null when the change is accepted
     */
    record Answer(Optional<String> refusedBy, boolean isAccepted) {
        static final Answer ACCEPTED = new Answer(Optional.empty(), true);
    }

    RealServer(Connection connection) {
        this.connection = connection;
    }

    abstract String name();

    /** Whether the server can have such tables at all. */
    abstract boolean takes(RandomProposal proposal);

    /** Makes the tables anew, with their rows as they are, and the links acting. */
    abstract void load(RandomProposal proposal) throws SQLException;

    abstract Optional<String> ruleNamedBy(SQLException e);

    Answer run(String change) throws SQLException {
        try (Statement sql = connection.createStatement()) {
            sql.executeUpdate(change);
            return Answer.ACCEPTED;
        } catch (SQLException e) {
            return new Answer(ruleNamedBy(e), false);
        }
    }

    /** Runs changes as a script does, leaving out those that are refused. */
    void runTogether(List<String> changes) throws SQLException {
        for (String change : changes) {
            run(change);
        }
    }

    void execute(String... statements) throws SQLException {
        try (Statement sql = connection.createStatement()) {
            for (String statement : statements) {
                sql.execute(statement);
            }
        }
    }

    /** Runs a script as a client does that stops at the first error and goes; gives what failed, or null. */
    String runScript(String script) throws SQLException {
        String failure = null;
        try (Statement sql = connection.createStatement()) {
            for (String statement : script.split(";\n")) {
                if (!statement.isBlank()) {
                    sql.execute(statement);
                }
            }
        } catch (SQLException e) {
            failure = e.getMessage();
        }
        if (failure != null) {
            try (Statement sql = connection.createStatement()) {
                sql.execute("ROLLBACK");
            } catch (SQLException e) {
                // The guard has rolled back already.
                return failure;
            }
        }
        return failure;
    }

    /** Whether rules on values cannot be set aside, even for an undo. */
    boolean keepsRules() {
        return false;
    }

    /** Deletes, behind the server's back, the first row that a script's guards name. */
    void spoil(RandomProposal proposal, String script) throws SQLException {
        java.util.regex.Matcher guard = java.util.regex.Pattern.compile(
                        "SELECT count\\(\\*\\) FROM [\"`](\\w+)[\"`] WHERE (\\([^()]*\\))[^=]*?(?:OR [^)]*\\)\\s*)*\\) = ([1-9])")
                .matcher(script);
        linksOff();
        int deleted = 0;
        while (deleted == 0 && guard.find()) {
            try (Statement sql = connection.createStatement()) {
                deleted = sql.executeUpdate("DELETE FROM " + guard.group(1) + " WHERE " + guard.group(2));
            }
        }
        if (deleted == 0) {
            // An insert alone: the key is taken by somebody else.
            guard = java.util.regex.Pattern.compile(
                            "INSERT INTO [\"`](\\w+)[\"`] (\\([^)]*\\)) VALUES\\s+(\\([^)]*\\))")
                    .matcher(script.replaceAll("\\(SELECT ([^()]*) FROM taxiomet_guard\\)", "$1"));
            if (guard.find()) {
                execute("INSERT INTO " + guard.group(1) + " " + guard.group(2) + " VALUES " + guard.group(3));
            }
        }
        linksOn();
    }

    abstract void linksOff() throws SQLException;

    abstract void linksOn() throws SQLException;

    /** All rows of all tables, sorted. */
    Map<String, List<String>> rows(RandomProposal proposal) throws SQLException {
        Map<String, List<String>> all = new TreeMap<>();
        try (Statement sql = connection.createStatement()) {
            for (TableCase table : proposal.tables) {
                List<String> rows = new ArrayList<>();
                try (ResultSet found = sql.executeQuery("SELECT * FROM " + table.name)) {
                    while (found.next()) {
                        List<String> cells = new ArrayList<>();
                        for (int i = 0; i < table.columns.size(); i++) {
                            cells.add(cell(table.columns.get(i), found.getString(i + 1)));
                        }
                        rows.add(cells.toString());
                    }
                }
                rows.sort(null);
                all.put(table.name, rows);
            }
        }
        return all;
    }

    static String cell(ColumnCase column, String text) {
        if (text == null || !column.type().startsWith("numeric")) {
            return text;
        }
        return new java.math.BigDecimal(text).setScale(2).toPlainString();
    }

    String insertOf(TableCase table, List<String> row) {
        List<String> cells = new ArrayList<>();
        for (int i = 0; i < row.size(); i++) {
            String cell = row.get(i);
            cells.add(cell == null ? "NULL" : table.columns.get(i).isText() ? "'" + cell + "'" : cell);
        }
        return "INSERT INTO " + table.name + " VALUES (" + String.join(", ", cells) + ")";
    }

    /** Makes tables with all their rules in them, and fills them. */
    void createTables(RandomProposal proposal, String generated, boolean hasMatch) throws SQLException {
        for (TableCase table : proposal.tables) {
            List<String> parts = new ArrayList<>();
            table.columns.forEach(column -> parts.add(columnOf(column, generated)));
            parts.add("PRIMARY KEY (" + String.join(", ", table.names(table.primaryKey.columns())) + ")");
            for (KeyCase key : table.uniqueKeys) {
                parts.add(
                        "CONSTRAINT " + key.name() + " UNIQUE (" + String.join(", ", table.names(key.columns())) + ")");
            }
            table.rules.forEach(rule -> parts.add("CONSTRAINT " + rule.name() + " CHECK (" + rule.condition() + ")"));
            for (LinkCase link : proposal.links) {
                if (proposal.tables.get(link.child()) == table) {
                    parts.add(linkOf(proposal, link, hasMatch));
                }
            }
            execute("CREATE TABLE " + table.name + " (" + String.join(", ", parts) + ")");
            for (List<String> row : table.rows) {
                execute(insertOf(table, row));
            }
        }
    }

    static String columnOf(ColumnCase column, String generated) {
        return column.name() + " " + column.type() + (column.isRequired() ? " NOT NULL" : "")
                + (column.defaultValue() == null ? "" : " DEFAULT " + column.defaultSql())
                + (column.isGenerated() ? generated : "");
    }

    static String linkOf(RandomProposal proposal, LinkCase link, boolean hasMatch) {
        TableCase child = proposal.tables.get(link.child());
        TableCase parent = proposal.tables.get(link.parent());
        String list =
                link.nullColumns().isEmpty() ? "" : " (" + String.join(", ", child.names(link.nullColumns())) + ")";
        return "CONSTRAINT " + link.name() + " FOREIGN KEY (" + String.join(", ", child.names(link.columns()))
                + ") REFERENCES " + parent.name + " (" + String.join(", ", parent.names(link.parentColumns())) + ")"
                + (hasMatch && link.isFull() ? " MATCH FULL" : "") + " ON DELETE " + link.onDelete() + list
                + " ON UPDATE " + link.onUpdate();
    }

    @Override
    public void close() throws SQLException, IOException {
        connection.close();
    }
}
