package taxiomet.charters.ddl;

import java.math.BigDecimal;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.Literal;
import taxiomet.charter.Expression.Type;
import taxiomet.charters.sql.ConstantReader;
import taxiomet.charters.sql.ExpressionException;
import taxiomet.charters.sql.SqlTokens.Kind;
import taxiomet.charters.sql.SqlTokens.Token;
import taxiomet.values.ValueWriter;

/** Makes of what stands behind DEFAULT what a charter declares: a constant, a word for the moment, or what only a server knows. */
final class DefaultReader {
    private static final Set<String> DATE_WORDS = Set.of("current_date", "curdate");
    private static final Set<String> TIME_WORDS = Set.of("current_time", "localtime", "curtime");
    private static final Set<String> MOMENT_WORDS = Set.of(
            "current_timestamp",
            "localtimestamp",
            "now",
            "getdate",
            "getutcdate",
            "sysdate",
            "systimestamp",
            "sysdatetime",
            "sysutcdatetime",
            "sysdatetimeoffset",
            "transaction_timestamp",
            "statement_timestamp",
            "clock_timestamp");

    /** What makes a value that nobody can foretell, or says who is at work: nothing in it was misunderstood. */
    private static final Set<String> SERVER_WORDS = Set.of(
            "gen_random_uuid",
            "uuid_generate_v1",
            "uuid_generate_v4",
            "uuid",
            "uuidv4",
            "uuidv7",
            "newid",
            "newsequentialid",
            "sys_guid",
            "rand",
            "random",
            "user",
            "current_user",
            "session_user",
            "current_role",
            "system_user",
            "suser_sname");

    private static final long MICROS_PER_DAY = 86_400_000_000L;

    private DefaultReader() {}

    /**
     * What a default comes to.
     *
     * @param constant the value as a cell has it, or a word for the moment; empty for NULL and for what the server works out
     * @param byServer an expression that the server alone works out
     * @param isNumbered whether it is the next number of a sequence
     * @param problem why it was not understood
     */
    record Read(Optional<String> constant, Optional<String> byServer, boolean isNumbered, Optional<String> problem) {
        static Read constant(String text) {
            return new Read(Optional.of(text), Optional.empty(), false, Optional.empty());
        }

        static Read byServer(String sql, Optional<String> problem) {
            return new Read(Optional.empty(), Optional.of(sql), false, problem);
        }
    }

    /** @param type of the column */
    static Read read(List<Token> written, ColumnType type) {
        List<Token> value = withoutParentheses(written);
        String word = value.get(0).text().toLowerCase(Locale.ROOT);
        boolean isWord = value.get(0).kind() == Kind.WORD;
        boolean isAlone = isWord && (value.size() == 1 || isCallWithoutValues(value));
        if (isAlone && word.equals("null")) {
            return new Read(Optional.empty(), Optional.empty(), false, Optional.empty());
        } else if (isNumbering(value)) {
            return new Read(Optional.empty(), Optional.empty(), true, Optional.empty());
        }
        Optional<String> clock = isAlone ? clock(word, type) : Optional.empty();
        if (clock.isPresent()) {
            return Read.constant(clock.get());
        }
        String sql = ConstantReader.written(value);
        if (isWord && SERVER_WORDS.contains(word) && (isAlone || value.get(1).isSymbol("("))) {
            return Read.byServer(sql, Optional.empty());
        }
        if (isTextOfOwnType(value)) {
            return Read.constant(value.get(0).text());
        }
        if (value.size() == 2 && value.get(0).is("b") && value.get(1).kind() == Kind.TEXT) {
            return Read.constant(value.get(1).text());
        }
        try {
            Expression constant = ConstantReader.read(value);
            return Read.constant(text((Literal) constant, type));
        } catch (ExpressionException e) {
            return Read.byServer(sql, Optional.of(e.words()));
        }
    }

    private static List<Token> withoutParentheses(List<Token> written) {
        List<Token> value = written;
        while (value.size() > 2 && value.get(0).isSymbol("(") && closes(value) == value.size() - 1) {
            value = value.subList(1, value.size() - 1);
        }
        return value;
    }

    /** Where the parenthesis that comes first is closed. */
    private static int closes(List<Token> value) {
        int depth = 0;
        for (int i = 0; i < value.size(); i++) {
            depth += value.get(i).isSymbol("(") ? 1 : value.get(i).isSymbol(")") ? -1 : 0;
            if (depth == 0) {
                return i;
            }
        }
        return -1;
    }

    /** Whether this is a word with empty parentheses behind it, or with nothing in them but digits of a second. */
    private static boolean isCallWithoutValues(List<Token> value) {
        boolean isCall = value.size() >= 3
                && value.get(1).isSymbol("(")
                && value.get(value.size() - 1).isSymbol(")");
        return isCall
                && (value.size() == 3 || (value.size() == 4 && value.get(2).kind() == Kind.NUMBER));
    }

    /** Whether the next number of a sequence is the whole default, and not a part of what is reckoned. */
    private static boolean isNumbering(List<Token> value) {
        Token first = value.get(0);
        Token last = value.get(value.size() - 1);
        long closed = value.stream().filter(token -> token.isSymbol(")")).count();
        return (first.is("nextval") && value.size() > 1 && last.isSymbol(")") && closed == 1)
                || (first.is("next") && value.size() > 1 && value.get(1).is("value"))
                || (value.size() > 2 && last.is("nextval"));
    }

    private static Optional<String> clock(String word, ColumnType type) {
        boolean isDate = DATE_WORDS.contains(word);
        boolean isTime = TIME_WORDS.contains(word);
        boolean isMoment = MOMENT_WORDS.contains(word);
        return switch (type.family()) {
            case MOMENT, INSTANT ->
                isDate ? Optional.of("current_date") : isMoment ? Optional.of("current_timestamp") : Optional.empty();
            case TIME -> isTime || isMoment ? Optional.of("current_time") : Optional.empty();
            default -> Optional.empty();
        };
    }

    private static String text(Literal constant, ColumnType type) {
        Object value = constant.value();
        if (value instanceof BigDecimal number) {
            return number.scale() < 0 ? number.setScale(0).toPlainString() : number.toPlainString();
        } else if (value instanceof Long micros) {
            return new ValueWriter(Column.of("default", moment(constant.type(), micros, type))).write(micros);
        }
        return String.valueOf(value);
    }

    private static ColumnType moment(Type constant, long micros, ColumnType column) {
        return ColumnType.of(
                switch (constant) {
                    case TIME -> ColumnType.Name.TIME;
                    case INSTANT -> ColumnType.Name.TIMESTAMP_WITH_TIME_ZONE;
                    default ->
                        column.name() == ColumnType.Name.DATE && Math.floorMod(micros, MICROS_PER_DAY) == 0
                                ? ColumnType.Name.DATE
                                : ColumnType.Name.TIMESTAMP;
                });
    }

    /** Whether this is a text, cast to a type that the script has declared itself. */
    private static boolean isTextOfOwnType(List<Token> value) {
        boolean isCast = value.size() > 2
                && value.get(0).kind() == Kind.TEXT
                && value.get(1).isSymbol("::");
        List<Token> type = isCast ? value.subList(2, value.size()) : List.of();
        return isCast
                && type.stream().allMatch(token -> token.isName() || token.isSymbol("."))
                && ColumnType.parse(
                                String.join(" ", type.stream().map(Token::text).toList()))
                        .isEmpty();
    }
}
