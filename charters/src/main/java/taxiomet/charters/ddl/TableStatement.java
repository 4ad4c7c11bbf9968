package taxiomet.charters.ddl;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.ColumnType;
import taxiomet.charter.NotRead.What;
import taxiomet.charters.ddl.TableDraft.CheckDraft;
import taxiomet.charters.ddl.TableDraft.ColumnDraft;
import taxiomet.charters.ddl.TableDraft.KeyDraft;
import taxiomet.charters.ddl.TableDraft.LinkDraft;
import taxiomet.charters.sql.SqlTokens.Kind;
import taxiomet.charters.sql.SqlTokens.Token;
import taxiomet.charters.sql.TokenCursor;
import taxiomet.charters.sql.TokenCursor.Unreadable;

/**
 * Reads what the parentheses of CREATE TABLE hold, and the same elements behind ADD. What is no rule for rows (storage, indexes,
 * comments) is passed over by name; whatever else is not understood is noted as lost. The elements stand in one file, since each can come wherever another
 * can.
 */
final class TableStatement {
    /** Words that begin what is said about a column or constraint and is no rule for its rows. */
    private static final Set<String> IDLE = Set.of(
            ("invisible visible sparse rowguidcol persisted enable enabled disable stored virtual hidden materialized include with"
                            + " clustered nonclustered asc desc conflict rollback abort ignore replace fail rely norely validate"
                            + " novalidate validated first initially deferrable deferred immediate not for replication no inherit"
                            + " valid logged unlogged nologging parallel noparallel encrypt enforced distinct nulls")
                    .split(" "));

    /** The same of words behind which one name or value stands. */
    private static final Set<String> NAMING = Set.of(
            ("comment character charset storage compression using tablespace on encode column_format engine after statistics"
                            + " fillfactor index partition textimage_on filestream_on collate srid key_block_size parser")
                    .split(" "));

    /** Words behind a link that change nothing: it is held from then on, whatever was there before. */
    private static final String[] HOLDING = {
        "not for replication", "not valid", "novalidate", "validate", "enable", "enforced", "rely"
    };

    /** Words that end the value behind DEFAULT. */
    private static final Set<String> AFTER_DEFAULT = Set.of(
            ("not null primary unique references check constraint generated collate comment on key auto_increment identity"
                            + " invisible visible sparse rowguidcol persisted enable disable stored virtual deferrable initially"
                            + " storage compression match after first with")
                    .split(" "));

    private final TokenCursor statement;
    private final TableDraft table;
    private final TypeReader types;
    private final boolean nullsAreEqual;

    /** @param nullsAreEqual whether the script's dialect takes nulls in a unique key for equal ones */
    TableStatement(TokenCursor statement, TableDraft table, TypeReader types, boolean nullsAreEqual) {
        this.statement = statement;
        this.table = table;
        this.types = types;
        this.nullsAreEqual = nullsAreEqual;
    }

    /** All that stands in parentheses. */
    void readElements() throws Unreadable {
        statement.requireSymbol("(");
        do {
            readElement();
        } while (statement.takeSymbol(","));
        statement.requireSymbol(")");
    }

    /** A column, a constraint or an index, to its end. */
    void readElement() throws Unreadable {
        if (!readConstraint()) {
            readColumn();
        }
    }

    private boolean isAtElementsEnd() {
        return statement.isAtEnd()
                || statement.peek().isSymbol(",")
                || statement.peek().isSymbol(")");
    }

    /** Passes over what is no rule for rows; anything else in the rest of an element is lost, and noted. */
    private void passOverRest() throws Unreadable {
        while (!isAtElementsEnd()) {
            passOverOne();
        }
    }

    private void passOverOne() throws Unreadable {
        Token first = statement.peek();
        String word = first.text().toLowerCase(Locale.ROOT);
        if (first.isSymbol("(")) {
            statement.skipParentheses();
        } else if (first.kind() != Kind.WORD) {
            statement.next();
        } else if (IDLE.contains(word)) {
            statement.next();
        } else if (NAMING.contains(word)) {
            statement.next();
            statement.take("set");
            statement.takeSymbol("=");
            if (!isAtElementsEnd()) {
                statement.next();
            }
        } else {
            List<Token> declared = rest();
            table.lose(What.RULE, null, first, declared, "`" + first.text() + "` is not known here");
        }
    }

    /** What is left of an element. */
    private List<Token> rest() throws Unreadable {
        int from = statement.place();
        while (!isAtElementsEnd()) {
            if (statement.peek().isSymbol("(")) {
                statement.skipParentheses();
            } else {
                statement.next();
            }
        }
        return statement.since(from);
    }

    /** A constraint of the table, or an index; false when a column comes next. */
    private boolean readConstraint() throws Unreadable {
        Token place = statement.peek();
        Token name = null;
        if (statement.take("constraint")) {
            boolean isNamed = !statement.isNext("primary", "key")
                    && !statement.isNext("foreign", "key")
                    && !isUnique()
                    && !isCheck();
            name = isNamed ? statement.name() : null;
        }
        if (statement.isNext("primary", "key")) {
            readPrimaryKey(name);
        } else if (isUnique()) {
            statement.next();
            readUnique(name);
        } else if (statement.take("foreign", "key")) {
            readForeignKey(name);
        } else if (isCheck()) {
            statement.next();
            statement.take("not", "for", "replication");
            table.checks.add(new CheckDraft(name, place, statement.skipParentheses()));
        } else if (isIndex()) {
            rest();
        } else if (isForeign()) {
            List<Token> declared = rest();
            boolean isCopy = declared.get(0).is("like");
            table.lose(
                    isCopy ? What.TABLE : What.RULE,
                    name,
                    place,
                    declared,
                    isCopy ? "columns that are those of another table are not read" : "such a constraint is not known");
        } else if (name != null) {
            throw statement.unexpected("PRIMARY KEY, UNIQUE, FOREIGN KEY or CHECK");
        } else {
            return false;
        }
        passOverRest();
        return true;
    }

    private void readPrimaryKey(Token name) throws Unreadable {
        int from = statement.place();
        Token place = statement.next();
        statement.next();
        while (!statement.isAtEnd() && !statement.peek().isSymbol("(")) {
            statement.next();
        }
        KeyColumns columns = KeyColumns.read(statement, false);
        setPrimaryKey(name, place, columns, from);
    }

    private void setPrimaryKey(Token name, Token place, KeyColumns columns, int from) throws Unreadable {
        if (!table.primaryKey.isEmpty()) {
            throw new Unreadable(place, "table `" + table.name.text() + "` has a primary key already");
        }
        if (isLost(columns, name, place, from)) {
            return;
        }
        table.primaryKey = columns.names();
        table.primaryKeyName = name;
    }

    /** Whether the columns of a key could not be read, which is noted. */
    private boolean isLost(KeyColumns columns, Token name, Token place, int from) {
        columns.problem().ifPresent(problem -> table.lose(What.KEY, name, place, statement.since(from), problem));
        return columns.problem().isPresent();
    }

    private boolean isUnique() {
        return statement.isNext("unique") && !isType(statement.peek(1));
    }

    /** Whether what follows a first word makes that word the name of a column. */
    private static boolean isType(Token token) {
        return Set.of("int", "integer", "varchar", "text", "numeric", "boolean", "date")
                .contains(token.text().toLowerCase(Locale.ROOT));
    }

    private boolean isCheck() {
        return statement.isNext("check")
                && (statement.peek(1).isSymbol("(") || statement.isNext("check", "not", "for", "replication"));
    }

    private boolean isIndex() {
        boolean isKey = (statement.isNext("key") || statement.isNext("index"))
                && (statement.peek(1).isSymbol("(")
                        || statement.peek(2).isSymbol("(")
                        || statement.peek(1).is("using")
                        || statement.peek(2).is("using"));
        boolean isSpecial = statement.isNext("fulltext") || statement.isNext("spatial");
        return isKey
                || (isSpecial
                        && (statement.peek(1).is("key") || statement.peek(1).is("index")));
    }

    /** Whether a constraint comes that is none of ours. */
    private boolean isForeign() {
        return (statement.isNext("exclude") || statement.isNext("period") || statement.isNext("like"))
                && !isType(statement.peek(1));
    }

    private void readUnique(Token given) throws Unreadable {
        int from = statement.place() - 1;
        Token place = statement.last();
        Token name = given;
        boolean equal = nullsAreEqual;
        while (!statement.isAtEnd() && !statement.peek().isSymbol("(")) {
            if (statement.take("nulls", "not", "distinct")) {
                equal = true;
            } else if (statement.take("nulls", "distinct")) {
                equal = false;
            } else if (statement.isNext("key")
                    || statement.isNext("index")
                    || statement.isNext("clustered")
                    || statement.isNext("nonclustered")) {
                statement.next();
            } else if (statement.take("using")) {
                statement.next();
            } else {
                Token word = statement.next();
                name = name == null ? word : name;
            }
        }
        KeyColumns columns = KeyColumns.read(statement, false);
        if (isLost(columns, name, place, from)) {
            return;
        }
        table.uniqueKeys.add(new KeyDraft(name, columns.names(), equal, List.of()));
    }

    private void readForeignKey(Token given) throws Unreadable {
        LinkDraft link = new LinkDraft();
        statement.take("if", "not", "exists");
        link.name = given;
        if (statement.peek().isName()) {
            Token index = statement.next();
            link.name = given == null ? index : given;
        }
        link.columns = statement.names();
        statement.require("references");
        readReference(link);
        table.links.add(link);
    }

    private void readReference(LinkDraft link) throws Unreadable {
        link.parent = statement.name();
        if (statement.peek().isSymbol("(")) {
            link.parentColumns = statement.names();
        }
        while (true) {
            if (statement.take("match")) {
                link.match = statement.next().text().toLowerCase(Locale.ROOT);
            } else if (statement.take("on", "delete")) {
                link.onDelete = action();
                if (statement.peek().isSymbol("(") && link.onDelete.startsWith("set")) {
                    link.onDeleteColumns = statement.names();
                }
            } else if (statement.take("on", "update")) {
                link.onUpdate = action();
            } else if (statement.take("not", "deferrable")) {
                link.deferrable = "no";
            } else if (statement.take("deferrable")) {
                link.deferrable = link.deferrable.equals("deferred") ? "deferred" : "immediate";
            } else if (statement.take("initially", "deferred")) {
                link.deferrable = "deferred";
            } else if (statement.take("initially", "immediate")) {
                link.deferrable = link.deferrable.equals("no") ? "no" : "immediate";
            } else if (statement.take("disable") || statement.take("not", "enforced")) {
                link.isEnforced = false;
            } else if (!statement.takeOne(HOLDING)) {
                return;
            }
        }
    }

    private String action() throws Unreadable {
        for (String action : List.of("no action", "restrict", "cascade", "set null", "set default")) {
            if (statement.take(action.split(" ", -1))) {
                return action;
            }
        }
        throw statement.unexpected("NO ACTION, RESTRICT, CASCADE, SET NULL or SET DEFAULT");
    }

    /** A column that was not there before. */
    void readColumn() throws Unreadable {
        if (!statement.peek().isName()) {
            throw statement.unexpected("a column or a constraint");
        }
        Token name = statement.next();
        Token typePlace = statement.peek();
        if (statement.isNext("as") && statement.peek(1).isSymbol("(")) {
            typePlace = name;
        }
        ColumnDraft column = new ColumnDraft(name, typePlace.line() == 0 ? name : typePlace);
        if (table.columns.putIfAbsent(name.text(), column) != null) {
            throw new Unreadable(name, "table `" + table.name.text() + "` has a column `" + name.text() + "` already");
        }
        readType(column);
        readColumnConstraints(column);
    }

    /** The type that a column has from now on. */
    void readType(ColumnDraft column) throws Unreadable {
        Token first = statement.peek();
        int place = statement.place();
        TypeReader.Read read = types.read(statement);
        column.setType(read.type());
        if (!read.type().isKnown()) {
            List<Token> declared = new ArrayList<>(List.of(column.name));
            declared.addAll(statement.since(place));
            table.lose(
                    What.TYPE,
                    column.name,
                    first,
                    declared,
                    "there is no type `" + read.words() + "` here; values of `" + column.name.text()
                            + "` are read as texts");
        }
        column.domain = read.domain();
        if (!column.hasOwnDefault) {
            takeDefaultOfDomain(column);
        }
        if (column.domain != null) {
            for (List<Token> lost : column.domain.lost()) {
                table.lose(What.RULE, null, lost.get(0), lost, "this part of a domain is not known here");
            }
        }
    }

    /** The default that a column has without one of its own. */
    void takeDefaultOfDomain(ColumnDraft column) {
        column.hasOwnDefault = false;
        if (column.domain != null && !column.domain.defaultValue().isEmpty()) {
            setDefault(column, column.domain.defaultValue());
        } else {
            clearDefault(column);
        }
    }

    /** What is declared about a column behind its type. */
    void readColumnConstraints(ColumnDraft column) throws Unreadable {
        Token name = null;
        while (!isAtElementsEnd()) {
            Token place = statement.peek();
            if (statement.take("constraint")) {
                name = statement.name();
                continue;
            }
            if (statement.take("not", "null")) {
                column.isRequired = true;
            } else if (statement.take("null")) {
                column.isRequired = false;
            } else if (statement.take("default")) {
                readDefault(column);
            } else if (statement.take("primary", "key") || (statement.isNext("key") && statement.take("key"))) {
                setPrimaryKey(name, place, new KeyColumns(List.of(column.name), Optional.empty()), statement.place());
            } else if (statement.take("unique")) {
                boolean equal = statement.take("nulls", "not", "distinct") || nullsAreEqual;
                statement.take("key");
                table.uniqueKeys.add(new KeyDraft(name, List.of(column.name), equal, List.of()));
            } else if (statement.take("references")) {
                LinkDraft link = new LinkDraft();
                link.name = name;
                link.columns = List.of(column.name);
                readReference(link);
                table.links.add(link);
            } else if (isCheck()) {
                statement.next();
                statement.take("not", "for", "replication");
                table.checks.add(new CheckDraft(name, place, statement.skipParentheses()));
            } else if (statement.isNext("generated")
                    || (statement.isNext("as") && statement.peek(1).isSymbol("("))) {
                readGenerated(column);
            } else if (statement.take("auto_increment") || statement.take("autoincrement")) {
                column.generated = "by default";
            } else if (statement.take("identity")) {
                column.generated = "always";
                if (statement.peek().isSymbol("(")) {
                    statement.skipParentheses();
                }
            } else if (statement.take("collate")) {
                column.ignoresCase |= ignoresCase(statement.name().text());
            } else if (statement.take("on", "update")) {
                // MySQL's own clock for a column; nothing that a row can break.
                statement.next();
            } else {
                passOverOne();
            }
            name = null;
        }
    }

    /** Whether a collation says in its name that case does not count. */
    private static boolean ignoresCase(String collation) {
        String name = collation.toLowerCase(Locale.ROOT);
        return name.equals("nocase") || name.endsWith("_ci") || name.contains("_ci_");
    }

    /** Numbers that the database gives, or a column that it works out of others. */
    void readGenerated(ColumnDraft column) throws Unreadable {
        Token place = statement.peek();
        int from = statement.place();
        statement.take("generated");
        boolean isAlways = statement.take("always");
        if (!isAlways) {
            statement.take("by", "default");
            statement.take("on", "null");
        }
        statement.require("as");
        if (statement.take("identity")) {
            column.generated = isAlways ? "always" : "by default";
            if (statement.peek().isSymbol("(")) {
                statement.skipParentheses();
            }
        } else if (statement.peek().isSymbol("(")) {
            statement.skipParentheses();
            table.lose(
                    What.RULE,
                    null,
                    place,
                    statement.since(from),
                    "`" + column.name.text() + "` is worked out of other columns, which is not checked");
        }
    }

    private boolean endsDefault() {
        return statement.peek().kind() == Kind.WORD
                && AFTER_DEFAULT.contains(statement.peek().text().toLowerCase(Locale.ROOT))
                && !statement.isNext("with", "time");
    }

    private void clearDefault(ColumnDraft column) {
        column.defaultValue = null;
        column.isDefaultByServer = false;
        table.lost.removeIf(lost -> lost.what() == What.DEFAULT && Objects.equals(lost.name(), column.name));
    }

    /** The value behind DEFAULT, up to the next thing that is declared. */
    void readDefault(ColumnDraft column) throws Unreadable {
        if (isAtElementsEnd()) {
            throw statement.unexpected("a value");
        }
        List<Token> value = statement.value(() -> isAtElementsEnd() || endsDefault());
        column.hasOwnDefault = true;
        setDefault(column, value);
    }

    private void setDefault(ColumnDraft column, List<Token> value) {
        clearDefault(column);
        Token place = value.get(0);
        DefaultReader.Read read =
                DefaultReader.read(value, ColumnType.parse(column.type().type()).orElseThrow());
        column.defaultPlace = place;
        column.defaultValue = read.constant().or(read::byServer).orElse(null);
        column.isDefaultByServer = read.byServer().isPresent();
        column.generated = read.isNumbered() ? "by default" : column.generated;
        read.problem()
                .ifPresent(problem -> table.lose(
                        What.DEFAULT,
                        column.name,
                        place,
                        value,
                        "the default of `" + column.name.text() + "`: " + problem));
    }
}
