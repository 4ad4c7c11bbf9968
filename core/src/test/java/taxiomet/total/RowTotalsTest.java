package taxiomet.total;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static taxiomet.testing.Expressions.number;
import static taxiomet.testing.Expressions.parent;
import static taxiomet.testing.Expressions.reckoned;
import static taxiomet.testing.Expressions.whole;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Charter;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.Operator;
import taxiomet.charter.Expression.ParentValue;
import taxiomet.charter.Expression.Type;
import taxiomet.charter.Table;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.SourceException;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;
import taxiomet.work.RunContext;

class RowTotalsTest {
    @TempDir
    private Path folder;

    private static TestTable currency() {
        return table("currency", "code varchar(3)", "rate numeric(8,4)")
                .key("code")
                .rows("EUR|1", "GBP|1.25", "GBP|9", "XAU|x");
    }

    private static TestTable fare() {
        return table("fare", "no integer", "currency varchar(3)", "price numeric(6,2)")
                .key("no")
                .link("fare_currency", "currency -> currency(code)")
                .rows("1|EUR|2.50", "2|GBP|4", "3|QQQ|7", "4|NULL|1", "5|XAU|1");
    }

    private static TestTable ticket(String... rows) {
        return table("ticket", "no integer", "fare integer", "persons integer")
                .link("ticket_fare", "fare -> fare(no)")
                .rows(rows);
    }

    private static Expression times(Expression left, Expression right) {
        return reckoned(left, Operator.TIMES, right, Type.DECIMAL);
    }

    private static Expression price() {
        return parent("ticket_fare", 2, Type.DECIMAL);
    }

    private static Expression rate() {
        return new ParentValue(List.of("ticket_fare", "fare_currency"), 1, Type.DECIMAL);
    }

    /** Of each ticket, what its totals come to. */
    private List<List<String>> totals(TestTables tables, Charter charter) {
        Table ticket = charter.table("ticket");
        RunContext context = tables.context();
        List<List<String>> all = new ArrayList<>();
        try (RowTotals totals = new RowTotals(ticket, charter, context)) {
            totals.read((table, reading) ->
                    reading.accept(tables.table(table.name()).source()));
            RowTotals.OnThread sums = totals.onThread();
            int[] columns = totals.columns();
            TypedBatch batch = TypedBatch.ofValues(ticket, columns, context.secret());
            tables.table("ticket").source().read(columns, rows -> {
                batch.read(rows);
                sums.start(batch);
                for (int row = 0; row < batch.size(); row++) {
                    sums.look(row);
                    all.add(IntStream.range(0, totals.size())
                            .mapToObj(i -> sums.of(i).toPlainString())
                            .toList());
                }
            });
        }
        return all;
    }

    @Test
    void values_of_parents_and_of_their_parents_are_reckoned_with() {
        TestTables tables = TestTables.of(
                folder,
                currency(),
                fare(),
                ticket("1|1|3", "2|2|2", "3|1|1")
                        .total("persons", whole(2))
                        .total("price", times(whole(2), price()))
                        .total("exchanged", times(times(whole(2), price()), rate())));

        assertThat(totals(tables, tables.charter()))
                .containsExactly(List.of("3", "7.5", "7.5"), List.of("2", "8", "10.00"), List.of("1", "2.5", "2.5"));
    }

    @Test
    void without_a_parent_or_with_a_value_that_is_not_of_its_type_it_comes_to_nothing() {
        TestTables tables = TestTables.of(
                folder,
                currency(),
                fare(),
                ticket("1|9|3", "2|NULL|3", "3|x|3", "4|3|3", "5|4|3", "6|5|3", "7|1|x")
                        .total("exchanged", times(whole(2), rate())));

        assertThat(totals(tables, tables.charter()))
                .as(
                        "no such fare, none, ill-typed; fare without currency, of none, of one without a rate; persons ill-typed")
                .hasSize(7)
                .containsOnly(List.of("0"));
    }

    @Test
    void many_parents_stand_on_disk_and_are_found_there() {
        String[] fares = IntStream.range(0, 30_000)
                .mapToObj(i -> i + "|EUR|" + i % 1000 + ".5")
                .toArray(String[]::new);
        TestTables tables = TestTables.of(
                folder,
                table("fare", "no integer", "currency varchar(3)", "price numeric(6,2)")
                        .key("no")
                        .rows(fares)
                        .inBatchesOf(1000),
                ticket("1|29999|1", "2|0|1", "3|29999|2", "4|12345|1").total("price", times(whole(2), price())));

        assertThat(totals(tables, tables.charter()))
                .containsExactly(List.of("999.5"), List.of("0.5"), List.of("1999.0"), List.of("345.5"));
    }

    @Test
    void keys_of_parents_that_do_not_fit_into_memory_are_said() {
        String[] fares = IntStream.range(0, 5_000).mapToObj(i -> i + "|EUR|1").toArray(String[]::new);
        TestTables tables = TestTables.of(
                        folder,
                        table("fare", "no integer", "currency varchar(3)", "price numeric(6,2)")
                                .key("no")
                                .rows(fares),
                        ticket("1|1|1").total("price", price()))
                .withMemory(1 << 15);

        assertThatThrownBy(() -> totals(tables, tables.charter()))
                .isInstanceOf(SourceException.class)
                .hasMessageContaining("do not fit into memory");
    }

    @Test
    void totals_over_personal_columns_of_a_row_or_of_a_parent_are_not_added_up() {
        TestTables tables = TestTables.of(
                folder,
                currency(),
                fare(),
                ticket("1|1|3")
                        .total("persons", whole(2))
                        .total("price", price())
                        .total("twice", reckoned(whole(0), Operator.TIMES, number("2"), Type.INTEGER)));
        Charter told = tables.charter()
                .withPersonal((table, column) -> column.equals("price") || (table + column).equals("ticketno"));

        assertThat(totals(tables, told)).containsExactly(List.of("3"));
        try (RowTotals totals = new RowTotals(told.table("ticket"), told, tables.context())) {
            assertThat(totals.hidden()).containsExactly("price", "twice");
        }
    }
}
