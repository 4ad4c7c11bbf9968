package taxiomet.reports.sql;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.finding.PlannedStatement.PlannedRow;

/** Statements that change named rows. */
class RowSqlTest {
    private static final Table TABLE = new Table(
            "t",
            Optional.empty(),
            new DelimitedFiles(Path.of(""), "t.csv", ',', '"', "UTF-8", true, Optional.empty(), List.of()),
            List.of(
                    Column.of("id", ColumnType.parse("integer").orElseThrow()),
                    Column.of("v", ColumnType.parse("integer").orElseThrow())),
            Optional.of(Key.of(Key.PRIMARY, List.of("id"), true)),
            List.of(),
            List.of(),
            List.of(),
            List.of(),
            List.of(),
            Optional.empty(),
            Optional.empty());

    private static PlannedRow row(String id, String newId) {
        return new PlannedRow("t", Arrays.asList(id, "1"), Arrays.asList(newId, "1"), Arrays.asList(newId, "1"));
    }

    @Test
    void keys_that_are_free_only_after_other_rows_are_set_in_that_order_where_rows_are_judged_one_by_one() {
        List<PlannedRow> rows = List.of(row("5", "6"), row("4", "5"));
        String sets = " SET `id` = CASE WHEN `id` = 5 THEN 6 WHEN `id` = 4 THEN 5 ELSE `id` END WHERE ";
        assertThat(new RowSql(Dialect.MARIADB).update(TABLE, List.of("id"), rows, true))
                .isEqualTo("UPDATE `t`" + sets + "(`id` = 5)\n    OR (`id` = 4)\n"
                        + "  ORDER BY CASE WHEN `id` = 5 THEN 1 WHEN `id` = 4 THEN 2 END");
        assertThat(new RowSql(Dialect.POSTGRESQL).update(TABLE, List.of("id"), rows, true))
                .doesNotContain("ORDER BY");
        assertThat(new RowSql(Dialect.MARIADB).update(TABLE, List.of("v"), rows, true))
                .doesNotContain("ORDER BY");
    }
}
