package taxiomet.charters.ddl;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import taxiomet.charters.sql.SqlTokens.Kind;
import taxiomet.charters.sql.SqlTokens.Token;
import taxiomet.charters.sql.TokenCursor;
import taxiomet.charters.sql.TokenCursor.Unreadable;

/** Reads the type of a column. */
final class TypeReader {
    /** Words that end a type and begin what else is declared about a column. */
    private static final Set<String> AFTER_TYPE =
            Set.of(("not null default primary unique references check constraint generated as identity auto_increment"
                            + " autoincrement collate comment character charset on key unsigned signed zerofill with without"
                            + " invisible visible sparse rowguidcol persisted enable disable storage compression binary"
                            + " deferrable initially match stored virtual always format")
                    .split(" "));

    private static final Set<String> TWO_WORD_TYPES = Set.of(
            "double precision",
            "character varying",
            "char varying",
            "national character",
            "national varchar",
            "character large",
            "national character varying",
            "character large object",
            "long varchar",
            "long raw",
            "varying character",
            "native character",
            "big int",
            "bit varying");

    private final SqlTypes types;
    private final Map<String, DomainDraft> domains;

    /**
     * A type as it was read.
     *
     * @param words as written, for a message
     * @param domain the declared type that it is; null for none
     */
    record Read(SqlTypes.Mapped type, String words, DomainDraft domain) {}

    /** @param domains types that the script itself declares, by their names in lower case */
    TypeReader(SqlTypes types, Map<String, DomainDraft> domains) {
        this.types = types;
        this.domains = Map.copyOf(domains);
    }

    /** The type that comes next. */
    Read read(TokenCursor statement) throws Unreadable {
        StringBuilder words = new StringBuilder();
        boolean isUnsigned = statement.isNext("unsigned", "big") && statement.take("unsigned");
        while (statement.peek().isName()
                && (words.length() == 0
                        ? !endsType(statement)
                        : TWO_WORD_TYPES.contains(
                                words + " " + statement.peek().text().toLowerCase(Locale.ROOT)))) {
            words.append(words.length() == 0 ? "" : " ")
                    .append(statement.next().text().toLowerCase(Locale.ROOT));
            while (statement.peek().isSymbol(".") && statement.peek(1).isName()) {
                statement.next();
                words.setLength(0);
                words.append(statement.next().text().toLowerCase(Locale.ROOT));
            }
        }
        List<String> sizes = statement.peek().isSymbol("(") ? sizes(statement) : List.of();
        boolean isZoned = false;
        boolean isArray = false;
        while (true) {
            statement.skip("signed", "zerofill", "without time zone", "binary");
            if (statement.take("unsigned")) {
                isUnsigned = true;
            } else if (statement.takeOne("with local time zone", "with time zone")) {
                isZoned = true;
            } else if (statement.peek().kind() == Kind.QUOTED_NAME
                            && statement.peek().text().matches("[0-9]*")
                    || statement.isNext("array")) {
                isArray = true;
                statement.next();
            } else {
                break;
            }
        }
        DomainDraft domain = isArray ? null : domains.get(words.toString());
        if (domain != null) {
            return new Read(read(new TokenCursor(domain.type())).type(), words.toString(), domain);
        }
        SqlTypes.Mapped type = isArray
                ? new SqlTypes.Mapped("text", List.of(), false, false, false)
                : types.map(words.toString(), sizes, isUnsigned, isZoned);
        return new Read(type, words + (isArray ? "[]" : ""), null);
    }

    private static boolean endsType(TokenCursor statement) {
        return statement.peek().kind() == Kind.WORD
                && AFTER_TYPE.contains(statement.peek().text().toLowerCase(Locale.ROOT))
                && !statement.peek().is("character");
    }

    private static List<String> sizes(TokenCursor statement) throws Unreadable {
        List<String> sizes = new ArrayList<>();
        StringBuilder size = new StringBuilder();
        for (Token token : statement.skipParentheses()) {
            if (token.isSymbol(",")) {
                sizes.add(size.toString());
                size.setLength(0);
            } else {
                size.append(size.length() == 0 ? "" : " ").append(token.text());
            }
        }
        sizes.add(size.toString());
        return sizes;
    }
}
