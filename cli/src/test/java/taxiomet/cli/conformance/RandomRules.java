package taxiomet.cli.conformance;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.TreeSet;
import taxiomet.cli.conformance.RandomCase.ColumnCase;
import taxiomet.cli.conformance.RandomCase.RuleCase;
import taxiomet.cli.conformance.RandomCase.TableCase;

/** Random conditions, each in the charter's words and in those of the database, over the typed values v0, v1 ... */
final class RandomRules {
    private final Random random;
    private final TableCase table;
    private TreeSet<Integer> used = new TreeSet<>();

    /** The same in both tongues. */
    private record Both(String text, String sql) {
        Both join(String between, Both other) {
            return new Both(
                    "(" + text + " " + between + " " + other.text + ")",
                    "(" + sql + " " + between + " " + other.sql + ")");
        }
    }

    RandomRules(Random random, TableCase table) {
        this.random = random;
        this.table = table;
    }

    void add(int count) {
        for (int i = 0; i < count; i++) {
            used = new TreeSet<>();
            List<Integer> wholes = wholes();
            Both condition = !wholes.isEmpty() && random.nextInt(5) == 0 ? divided(wholes) : condition(2);
            table.rules.add(new RuleCase("r" + i, condition.text(), condition.sql(), new ArrayList<>(used)));
        }
    }

    private <T> T any(List<T> list) {
        return list.get(random.nextInt(list.size()));
    }

    private Both condition(int depth) {
        int kind = depth == 0 ? 3 : random.nextInt(6);
        return switch (kind) {
            case 0 -> condition(depth - 1).join("and", condition(depth - 1));
            case 1 -> condition(depth - 1).join("or", condition(depth - 1));
            case 2 -> {
                Both inner = condition(depth - 1);
                yield new Both("not " + inner.text(), "not " + inner.sql());
            }
            default -> leaf();
        };
    }

    private Both leaf() {
        int place = random.nextInt(table.columns.size());
        ColumnCase column = table.columns.get(place);
        Both value = use(place);
        if (random.nextInt(6) == 0) {
            String not = any(List.of("is null", "is not null"));
            return new Both(value.text() + " " + not, "(" + value.sql() + " " + not + ")");
        }
        return switch (column.family()) {
            case "EXACT" -> number(column, value);
            case "APPROXIMATE" -> same(value, any(List.of("< 1.75", ">= 0", "<> 2", "between 0.25 and 1.5")));
            case "TEXT" -> text(column, value);
            case "BOOLEAN" -> random.nextBoolean() ? value : same(value, "= true");
            case "MOMENT" ->
                new Both(value.text() + " >= DATE '2023-06-01'", "(" + value.sql() + " >= 1685577600000000)");
            case "TIME" -> new Both(value.text() + " < '09:45'", "(" + value.sql() + " < 35100000000)");
            default -> new Both(value.text() + " is not null", "(" + value.sql() + " is not null)");
        };
    }

    private Both use(int place) {
        used.add(place);
        return new Both(table.columns.get(place).name(), "v" + place);
    }

    private static Both same(Both value, String rest) {
        return new Both(value.text() + " " + rest, "(" + value.sql() + " " + rest + ")");
    }

    private Both number(ColumnCase column, Both value) {
        boolean isWhole = !column.type().startsWith("numeric");
        return switch (random.nextInt(6)) {
            case 0 -> same(value, any(List.of("> 2", "<= 7", "= 7", "<> 1.5", "in (1, 7, null)", "not in (1, 2.5)")));
            case 1 -> same(value, any(List.of("between 1 and 7", "not between 2 and 10")));
            case 2 ->
                new Both(
                        value.text() + " * 2 - 1 >= 3 + " + value.text(),
                        "(" + value.sql() + " * 2 - 1 >= 3 + " + value.sql() + ")");
            case 3 -> new Both("coalesce(" + value.text() + ", 0) > -1", "(coalesce(" + value.sql() + ", 0) > -1)");
            case 4 ->
                new Both(
                        value.text() + " / 2 < 3",
                        "(" + (isWhole ? "trunc(" + value.sql() + " / 2)" : value.sql() + " / 2") + " < 3)");
            default -> same(value, "+ 1 < 8");
        };
    }

    /** The columns of whole numbers. */
    private List<Integer> wholes() {
        List<Integer> wholes = new ArrayList<>();
        for (int i = 0; i < table.columns.size(); i++) {
            ColumnCase column = table.columns.get(i);
            if (column.family().equals("EXACT") && !column.type().startsWith("numeric")) {
                wholes.add(i);
            }
        }
        return wholes;
    }

    /** In the database a division by zero is an error: there the broken row is made out without dividing. */
    private Both divided(List<Integer> wholes) {
        Both value = use(any(wholes));
        Both divisor = use(any(wholes));
        return new Both(
                value.text() + " / " + divisor.text() + " >= 1",
                "(case when " + value.sql() + " is not null and " + divisor.sql() + " = 0 then false else trunc("
                        + value.sql() + " / nullif(" + divisor.sql() + ", 0)) >= 1 end)");
    }

    private Both text(ColumnCase column, Both value) {
        boolean isPadded = column.type().startsWith("char");
        return switch (random.nextInt(6)) {
            case 0 -> same(value, any(List.of("like 'a%'", "like '_b'", "not like '%b%'", "like '%!%%' escape '!'")));
            case 1 ->
                new Both(
                        "length(" + value.text() + ") <= 2",
                        "(char_length(regexp_replace(" + value.sql() + ", '[\\x{10000}-\\x{10FFFF}]', 'x')) <= 2)");
            case 2 -> new Both("lower(" + value.text() + ") = 'ab'", "(lower(" + value.sql() + ") = 'ab')");
            case 3 -> new Both("trim(upper(" + value.text() + ")) <> 'A'", "(trim(upper(" + value.sql() + ")) <> 'A')");
            case 4 -> same(value, isPadded ? "= 'a'" : any(List.of("= 'a '", "in ('a', 'b')", "> 'ab'")));
            default ->
                new Both("coalesce(" + value.text() + ", 'z') < 'b'", "(coalesce(" + value.sql() + ", 'z') < 'b')");
        };
    }
}
