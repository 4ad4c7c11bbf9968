package taxiomet.cli.rehearsal;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.Server;
import taxiomet.charter.Table;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.charters.proposals.ProposalReader;
import taxiomet.charters.sql.ExpressionException;
import taxiomet.charters.sql.ExpressionReader;
import taxiomet.proposal.ProposalException;

/** Every word that PostgreSQL knows, as a table, as a column and in conditions: what it takes without quotes, we take. */
final class KeywordsTest {
    private static final List<String> CONDITIONS =
            List.of("%s >= 1990", "1 < %s", "%s BETWEEN 1 AND 2", "%s IS NULL OR NOT %s = 1", "(%s) IN (1, %s)");

    private static Table table(String name, String column) {
        DelimitedFiles rows = new DelimitedFiles(
                java.nio.file.Path.of("."), "t.csv", ',', '"', "UTF-8", true, Optional.empty(), List.of());
        return new Table(
                name,
                Optional.empty(),
                rows,
                List.of(Column.of(column, ColumnType.of(ColumnType.Name.INTEGER))),
                Optional.empty(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                Optional.empty(),
                Optional.empty());
    }

    private static List<String> words(Statement sql) throws SQLException {
        List<String> words = new ArrayList<>();
        try (ResultSet found = sql.executeQuery("SELECT word FROM pg_get_keywords() ORDER BY word")) {
            while (found.next()) {
                words.add(found.getString(1));
            }
        }
        return words;
    }

    private static boolean takes(Statement sql, String statement) {
        try {
            sql.execute(statement);
            return true;
        } catch (SQLException e) {
            return false;
        }
    }

    private static boolean isRead(Table table, String statement) {
        try {
            new ProposalReader(new Charter("c", List.of(table), Server.STANDARD), Instant.EPOCH).sql(statement, "test");
            return true;
        } catch (ProposalException e) {
            return false;
        }
    }

    private static boolean isRule(Table table, String condition) {
        try {
            new ExpressionReader(table.name(), new LinkedHashMap<>(Map.of(table.name(), table)), Set.of())
                    .readCondition(condition);
            return true;
        } catch (ExpressionException e) {
            return false;
        }
    }

    @Test
    void what_postgresql_takes_without_quotes_is_a_name_here() throws Exception {
        List<String> differences = new ArrayList<>();
        int taken = 0;
        try (PostgresServer server = new PostgresServer();
                Statement sql = server.connection.createStatement()) {
            List<String> words = words(sql);
            assertThat(words).hasSizeGreaterThan(450);
            for (String word : words) {
                for (String written : List.of(word, '"' + word + '"')) {
                    Table table = table(word, "x");
                    boolean isTable = takes(sql, "CREATE TEMPORARY TABLE " + written + " (x integer)")
                            && takes(sql, "DELETE FROM " + written + " WHERE x = 1");
                    takes(sql, "DROP TABLE pg_temp.\"" + word + '"');
                    if (isTable && !isRead(table, "DELETE FROM " + written + " WHERE x = 1")) {
                        differences.add("table " + written);
                    }
                    taken += isTable ? 1 : 0;
                    differences.addAll(inConditions(sql, word, written));
                }
            }
        }
        System.out.println("keywords: " + taken + " taken as tables, quoted or not");
        assertThat(differences).isEmpty();
        assertThat(taken).isGreaterThan(800);
    }

    private static List<String> inConditions(Statement sql, String word, String written) {
        List<String> differences = new ArrayList<>();
        takes(sql, "CREATE TEMPORARY TABLE holder (\"" + word + "\" integer)");
        Table table = table("holder", word);
        for (String pattern : CONDITIONS) {
            String condition = pattern.replace("%s", written);
            if (takes(sql, "DELETE FROM holder WHERE " + condition)) {
                if (!isRead(table, "DELETE FROM holder WHERE " + condition) || !isRule(table, condition)) {
                    differences.add("condition " + condition);
                }
            }
        }
        if (takes(sql, "UPDATE holder SET " + written + " = 1")
                && !isRead(table, "UPDATE holder SET " + written + " = 1")) {
            differences.add("set " + written);
        }
        takes(sql, "DROP TABLE holder");
        return differences;
    }
}
