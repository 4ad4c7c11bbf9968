package taxiomet.cli.rehearsal;

import java.nio.file.Path;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Server;
import taxiomet.cli.rehearsal.RandomProposal.ColumnCase;
import taxiomet.cli.rehearsal.RandomProposal.KeyCase;
import taxiomet.cli.rehearsal.RandomProposal.LinkCase;
import taxiomet.cli.rehearsal.RandomProposal.TableCase;
import taxiomet.proposal.Change;
import taxiomet.proposal.Change.Combination;
import taxiomet.proposal.Origin;
import taxiomet.proposal.Proposal;
import taxiomet.rehearse.Rehearsal;
import taxiomet.rehearse.RehearsalOptions;

/**
 * A merge, and a renumbering, end as the same done by hand in SQL: here statement by statement on PostgreSQL, written from what the
 * guide says of them.
 */
final class MergeConformanceTest {
    private static final int CASES = RandomCases.USUAL * 2;
    private static final Origin HERE = new Origin("by hand", "test:1");

    @TempDir
    Path folder;

    /** Something that has to be decided by hand first. */
    private static final class Undecided extends Exception {
        private static final long serialVersionUID = 1;
    }

    /** A series of statements, of which each may depend on what the others did. */
    private interface Series {
        void run(ByHand by) throws SQLException, Undecided;
    }

    @Test
    void a_merge_ends_as_the_same_done_in_sql() throws Exception {
        RandomCases cases = new RandomCases("merges", folder);
        try (RealServer server = new PostgresServer()) {
            cases.compare(CASES, MergeConformanceTest::hasRowsToMerge, drawn -> {
                RandomProposal proposal = drawn.proposal();
                Random random = new Random(drawn.seed());
                TableCase table = proposal.tables.get(random.nextInt(2));
                List<String> goes = table.rows.get(random.nextInt(table.rows.size()));
                List<String> stays = table.rows.get((table.rows.indexOf(goes) + 1) % table.rows.size());
                boolean fills = random.nextBoolean();
                Map<String, Map<String, Combination>> combine =
                        random.nextInt(3) == 0 ? Map.of() : combinations(proposal, random);
                Change merge = new Change.Merge(
                        HERE, table.name, ByHand.key(table, goes), ByHand.key(table, stays), fills, combine);
                return difference(cases, server, drawn, merge, by -> {
                    by.merge(table, goes, stays, Map.of(), combine);
                    if (fills) {
                        by.fill(table, goes, stays);
                    }
                });
            });
        }
        cases.requireSeen("accepted", "refused", "accepted, children merged", "undecided");
    }

    /** Whether the table that the case's own seed picks has two rows, and children. */
    private static boolean hasRowsToMerge(RandomProposal proposal) {
        TableCase table = proposal.tables.get(new Random(proposal.seed).nextInt(2));
        return table.rows.size() >= 2 && !ByHand.linksTo(proposal, table).isEmpty();
    }

    @Test
    void a_renumbering_ends_as_the_same_done_in_sql() throws Exception {
        RandomCases cases = new RandomCases("renumberings", folder);
        try (RealServer server = new PostgresServer()) {
            cases.compare(CASES, MergeConformanceTest::hasRowToRenumber, drawn -> {
                Random random = new Random(drawn.seed());
                TableCase table = drawn.proposal().tables.get(random.nextInt(2));
                List<String> row = table.rows.get(random.nextInt(table.rows.size()));
                List<String> renumbered = new ArrayList<>(row);
                for (int column : table.primaryKey.columns()) {
                    boolean isText = table.columns.get(column).isText();
                    boolean isNew = random.nextInt(4) > 0;
                    renumbered.set(column, isNew ? isText ? "new" : "50" : row.get(column));
                }
                Change renumber =
                        new Change.Renumber(HERE, table.name, ByHand.key(table, row), ByHand.key(table, renumbered));
                return difference(cases, server, drawn, renumber, by -> by.renumber(table, row, renumbered));
            });
        }
        cases.requireSeen("accepted", "refused");
    }

    private static boolean hasRowToRenumber(RandomProposal proposal) {
        return !proposal.tables.get(new Random(proposal.seed).nextInt(2)).rows.isEmpty();
    }

    private static Map<String, Map<String, Combination>> combinations(RandomProposal proposal, Random random) {
        Map<String, Map<String, Combination>> all = new HashMap<>();
        for (TableCase table : proposal.tables) {
            Map<String, Combination> columns = new HashMap<>();
            for (ColumnCase column : table.columns) {
                boolean isOwn = column.name().equals("v") || column.name().equals("n");
                if (isOwn && random.nextInt(4) > 0) {
                    columns.put(
                            column.name(),
                            List.of(Combination.values()).get(random.nextInt(Combination.values().length)));
                }
            }
            all.put(table.name, columns);
        }
        return all;
    }

    private static Optional<String> difference(
            RandomCases cases, RealServer server, RandomCases.Drawn drawn, Change change, Series series)
            throws Exception {
        RandomProposal proposal = drawn.proposal();
        server.load(proposal);
        boolean isAccepted = isAccepted(cases, server, proposal, series);
        cases.note(isAccepted ? "accepted" : "refused");
        Map<String, List<String>> rows = server.rows(proposal);
        Proposal proposed = new Proposal(List.of(change), false, Proposal.Deferral.DECLARED, Rehearsals.NOW);
        RehearsalOptions options = new RehearsalOptions(Server.POSTGRESQL, 3, false, false, 0, false);
        try (Rehearsal rehearsal = Rehearsals.start(drawn.charter(), proposed, options)) {
            Map<String, List<String>> rehearsed = Rehearsals.rows(rehearsal, proposal);
            boolean isSame = rehearsal.result().isAccepted() == isAccepted && rehearsed.equals(rows);
            return isSame
                    ? Optional.empty()
                    : Optional.of(change + " by hand " + (isAccepted ? "accepted" : "refused") + " " + rows
                            + "\n rehearsed " + rehearsal.result().changes() + " " + rehearsed);
        }
    }

    private static boolean isAccepted(RandomCases cases, RealServer server, RandomProposal proposal, Series series)
            throws SQLException {
        server.execute("BEGIN");
        try (ByHand by = new ByHand(proposal, server.connection.createStatement())) {
            series.run(by);
            server.execute("COMMIT");
            if (by.merged > 0) {
                cases.note("accepted, children merged");
            }
            return true;
        } catch (Undecided e) {
            server.execute("ROLLBACK");
            cases.note("undecided");
            return false;
        } catch (SQLException e) {
            server.execute("ROLLBACK");
            server.ruleNamedBy(e);
            return false;
        }
    }

    /** Whoever does it statement by statement. */
    private static final class ByHand implements AutoCloseable {
        private final RandomProposal proposal;
        private final Statement sql;
        private final Set<String> underWay = new HashSet<>();
        private int merged;

        ByHand(RandomProposal proposal, Statement sql) {
            this.proposal = proposal;
            this.sql = sql;
        }

        static List<LinkCase> linksTo(RandomProposal proposal, TableCase table) {
            return proposal.links.stream()
                    .filter(link -> proposal.tables.get(link.parent()) == table)
                    .toList();
        }

        static List<String> key(TableCase table, List<String> row) {
            return table.primaryKey.columns().stream().map(row::get).toList();
        }

        private static String literal(ColumnCase column, String value) {
            return value == null ? "NULL" : column.isText() ? "'" + value + "'" : value;
        }

        private static String equal(TableCase table, List<Integer> columns, List<String> values, String between) {
            List<String> parts = new ArrayList<>();
            for (int i = 0; i < columns.size(); i++) {
                ColumnCase column = table.columns.get(columns.get(i));
                parts.add(column.name() + " = " + literal(column, values.get(i)));
            }
            return String.join(between, parts);
        }

        private static String named(TableCase table, List<String> row) {
            return equal(table, table.primaryKey.columns(), key(table, row), " AND ");
        }

        private List<List<String>> rows(TableCase table, String where) throws SQLException {
            List<List<String>> rows = new ArrayList<>();
            try (ResultSet found =
                    sql.executeQuery("SELECT * FROM " + table.name + " WHERE " + where + " ORDER BY ctid")) {
                while (found.next()) {
                    List<String> row = new ArrayList<>();
                    for (int i = 0; i < table.columns.size(); i++) {
                        row.add(found.getString(i + 1));
                    }
                    rows.add(row);
                }
            }
            return rows;
        }

        /** Children to the one that stays, those that would share a key with another merged; then the one that goes, goes. */
        void merge(
                TableCase table,
                List<String> goes,
                List<String> stays,
                Map<String, Combination> columns,
                Map<String, Map<String, Combination>> combine)
                throws SQLException, Undecided {
            underWay.add(named(table, goes) + table.name);
            for (LinkCase link : linksTo(proposal, table)) {
                point(link, goes, stays, combine);
            }
            underWay.remove(named(table, goes) + table.name);
            List<List<String>> going = rows(table, named(table, goes));
            if (going.isEmpty()) {
                return;
            }
            List<List<String>> staying = rows(table, named(table, stays));
            sql.executeUpdate("DELETE FROM " + table.name + " WHERE " + named(table, goes));
            List<String> sets = new ArrayList<>();
            if (staying.isEmpty()) {
                return;
            }
            columns.forEach((name, how) -> {
                int place =
                        table.columns.stream().map(ColumnCase::name).toList().indexOf(name);
                ColumnCase column = table.columns.get(place);
                String own = "cast(" + literal(column, staying.get(0).get(place)) + " as " + column.type() + ")";
                String other = "cast(" + literal(column, going.get(0).get(place)) + " as " + column.type() + ")";
                String value = switch (how) {
                    case SUM -> "coalesce(" + own + " + " + other + ", " + own + ", " + other + ")";
                    case LEAST -> "least(" + own + ", " + other + ")";
                    case GREATEST -> "greatest(" + own + ", " + other + ")";
                    case FIRST -> "coalesce(" + own + ", " + other + ")";
                    case STAYER -> own;
                };
                sets.add(name + " = " + value);
            });
            if (!sets.isEmpty()) {
                sql.executeUpdate(
                        "UPDATE " + table.name + " SET " + String.join(", ", sets) + " WHERE " + named(table, stays));
            }
        }

        private void point(
                LinkCase link, List<String> from, List<String> to, Map<String, Map<String, Combination>> combine)
                throws SQLException, Undecided {
            TableCase child = proposal.tables.get(link.child());
            List<String> oldKey = link.parentColumns().stream().map(from::get).toList();
            List<String> newKey = link.parentColumns().stream().map(to::get).toList();
            if (oldKey.contains(null)) {
                return;
            }
            List<String> free = new ArrayList<>();
            boolean isUndecided = false;
            for (List<String> row : rows(child, equal(child, link.columns(), oldKey, " AND "))) {
                List<String> pointed = new ArrayList<>(row);
                for (int i = 0; i < newKey.size(); i++) {
                    pointed.set(link.columns().get(i), newKey.get(i));
                }
                Optional<List<String>> twin = twin(child, row, pointed);
                if (twin.isEmpty()) {
                    free.add("(" + named(child, row) + ")");
                } else if (!combine.containsKey(child.name)
                        || underWay.contains(named(child, row) + child.name)
                        || underWay.contains(named(child, twin.get()) + child.name)) {
                    isUndecided = true;
                } else {
                    merged++;
                    merge(child, row, twin.get(), combine.get(child.name), combine);
                }
            }
            if (isUndecided) {
                throw new Undecided();
            }
            if (!free.isEmpty()) {
                String set = equal(child, link.columns(), newKey, ", ");
                sql.executeUpdate("UPDATE " + child.name + " SET " + set + " WHERE " + String.join(" OR ", free));
            }
        }

        /** Another row that has a key which a row is to get. */
        private Optional<List<String>> twin(TableCase table, List<String> row, List<String> pointed)
                throws SQLException {
            List<KeyCase> keys = new ArrayList<>(List.of(table.primaryKey));
            keys.addAll(table.uniqueKeys);
            for (KeyCase key : keys) {
                List<String> wanted = key.columns().stream().map(pointed::get).toList();
                boolean isSame =
                        wanted.equals(key.columns().stream().map(row::get).toList());
                if (!isSame && !wanted.contains(null)) {
                    for (List<String> other : rows(table, equal(table, key.columns(), wanted, " AND "))) {
                        if (!key(table, other).equals(key(table, row))) {
                            return Optional.of(other);
                        }
                    }
                }
            }
            return Optional.empty();
        }

        /** What the one that stays has empty; nothing is written where nothing is. */
        void fill(TableCase table, List<String> goes, List<String> stays) throws SQLException {
            List<String> sets = new ArrayList<>();
            List<List<String>> staying = rows(table, named(table, stays));
            for (int i = 0; i < table.columns.size() && !staying.isEmpty(); i++) {
                if (goes.get(i) != null && staying.get(0).get(i) == null) {
                    ColumnCase column = table.columns.get(i);
                    sets.add(column.name() + " = " + literal(column, goes.get(i)));
                }
            }
            if (!sets.isEmpty()) {
                sql.executeUpdate(
                        "UPDATE " + table.name + " SET " + String.join(", ", sets) + " WHERE " + named(table, stays));
            }
        }

        void renumber(TableCase table, List<String> row, List<String> renumbered) throws SQLException, Undecided {
            List<LinkCase> links = linksTo(proposal, table).stream()
                    .filter(LinkCase::isToPrimaryKey)
                    .toList();
            String newKey = equal(table, table.primaryKey.columns(), key(table, renumbered), ", ");
            if (links.stream().allMatch(link -> link.onUpdate().equals("cascade"))) {
                sql.executeUpdate("UPDATE " + table.name + " SET " + newKey + " WHERE " + named(table, row));
                return;
            }
            List<String> made = new ArrayList<>(renumbered);
            List<String> sets = new ArrayList<>();
            for (KeyCase key : table.uniqueKeys) {
                for (int column : key.columns()) {
                    if (!table.columns.get(column).isRequired()) {
                        made.set(column, null);
                        sets.add(table.columns.get(column).name() + " = "
                                + literal(table.columns.get(column), renumbered.get(column)));
                    }
                }
            }
            List<String> cells = new ArrayList<>();
            for (int i = 0; i < made.size(); i++) {
                cells.add(literal(table.columns.get(i), made.get(i)));
            }
            sql.executeUpdate("INSERT INTO " + table.name + " VALUES (" + String.join(", ", cells) + ")");
            for (LinkCase link : links) {
                point(link, row, renumbered, Map.of());
            }
            sql.executeUpdate("DELETE FROM " + table.name + " WHERE " + named(table, row));
            if (!sets.isEmpty() && !made.equals(renumbered)) {
                sql.executeUpdate("UPDATE " + table.name + " SET " + String.join(", ", sets) + " WHERE "
                        + named(table, renumbered));
            }
        }

        @Override
        public void close() throws SQLException {
            sql.close();
        }
    }
}
