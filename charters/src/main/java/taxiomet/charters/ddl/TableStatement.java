package taxiomet.charters.ddl;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import taxiomet.charters.ddl.SqlTokens.Kind;
import taxiomet.charters.ddl.SqlTokens.Token;
import taxiomet.charters.ddl.Statement.Unreadable;
import taxiomet.charters.ddl.TableDraft.CheckDraft;
import taxiomet.charters.ddl.TableDraft.ColumnDraft;
import taxiomet.charters.ddl.TableDraft.KeyDraft;
import taxiomet.charters.ddl.TableDraft.LinkDraft;

/** Reads what CREATE TABLE and ALTER TABLE declare about one table. */
final class TableStatement {
    /** Words that end a type and begin what else is declared about a column. */
    private static final Set<String> AFTER_TYPE = Set.of(
            "not",
            "null",
            "default",
            "primary",
            "unique",
            "references",
            "check",
            "constraint",
            "generated",
            "as",
            "identity",
            "auto_increment",
            "autoincrement",
            "collate",
            "comment",
            "character",
            "charset",
            "on",
            "key",
            "unsigned",
            "signed",
            "zerofill",
            "with",
            "without",
            "invisible",
            "visible",
            "sparse",
            "rowguidcol",
            "persisted",
            "enable",
            "disable",
            "storage",
            "compression",
            "binary",
            "deferrable",
            "initially",
            "match",
            "stored",
            "virtual",
            "always",
            "format");

    /** Words that begin a change of ALTER TABLE. */
    private static final Set<String> CHANGES = Set.of(
            "add",
            "alter",
            "modify",
            "change",
            "drop",
            "rename",
            "enable",
            "disable",
            "owner",
            "set",
            "validate",
            "with",
            "algorithm",
            "lock",
            "engine",
            "comment",
            "convert",
            "order",
            "auto_increment",
            "default",
            "character");

    /** Words behind a link that change nothing: it is held from then on, whatever was there before. */
    private static final String[] HOLDING = {
        "not for replication", "not valid", "novalidate", "validate", "enable", "enforced", "rely"
    };

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

    private final Statement statement;
    private final TableDraft table;
    private final SqlTypes types;
    private final SchemaNotes notes;
    private final boolean nullsAreEqual;

    /** @param nullsAreEqual whether the script's dialect takes nulls in a unique key for equal ones */
    TableStatement(Statement statement, TableDraft table, SqlTypes types, SchemaNotes notes, boolean nullsAreEqual) {
        this.statement = statement;
        this.table = table;
        this.types = types;
        this.notes = notes;
        this.nullsAreEqual = nullsAreEqual;
    }

    /** All that stands in the parentheses of CREATE TABLE. */
    void readElements() throws Unreadable {
        statement.requireSymbol("(");
        do {
            readElement();
            // What is left of an element is none of ours: storage, ordering and the like.
            skipRest();
        } while (statement.takeSymbol(","));
        statement.requireSymbol(")");
    }

    private void skipRest() throws Unreadable {
        while (!statement.isAtEnd()
                && !statement.peek().isSymbol(",")
                && !statement.peek().isSymbol(")")) {
            if (statement.peek().isSymbol("(")) {
                statement.skipParentheses();
            } else {
                statement.next();
            }
        }
    }

    private void readElement() throws Unreadable {
        if (!readConstraint()) {
            readColumn();
        }
    }

    /** What stands behind ALTER TABLE and a name: one or several changes. */
    void readChanges() throws Unreadable {
        boolean isAdding = false;
        do {
            if (isAdding && !CHANGES.contains(statement.peek().text().toLowerCase(Locale.ROOT))) {
                // One ADD for several elements, as SQL Server has it.
                readElement();
                skipRest();
            } else {
                isAdding = statement.isNext("add")
                        || statement.isNext("with", "check")
                        || statement.isNext("with", "nocheck");
                readChange();
            }
        } while (statement.takeSymbol(","));
    }

    private void readChange() throws Unreadable {
        if (statement.take("with", "check") || statement.take("with", "nocheck")) {
            readChange();
        } else if (statement.take("add")) {
            if (statement.takeSymbol("(")) {
                do {
                    readElement();
                    skipRest();
                } while (statement.takeSymbol(","));
                statement.requireSymbol(")");
            } else if (!readConstraint()) {
                statement.take("column");
                takeIfNotExists();
                readColumn();
            }
            skipRest();
        } else if (statement.take("alter") || statement.take("modify") || statement.take("change")) {
            readAlteredColumn();
        } else {
            notes.passOver(
                    statement.peek(), "ALTER TABLE " + statement.peek().text().toUpperCase(Locale.ROOT));
            skipRest();
        }
    }

    private void readAlteredColumn() throws Unreadable {
        statement.take("column");
        Token name = statement.name();
        ColumnDraft column = table.columns.values().stream()
                .filter(c -> c.name.text().equalsIgnoreCase(name.text()))
                .findFirst()
                .orElseThrow(() ->
                        new Unreadable(name, "table `" + table.name.text() + "` has no column `" + name.text() + "`"));
        if (statement.take("set", "not", "null")) {
            column.isRequired = true;
        } else if (statement.take("set", "default")) {
            readDefault(column);
        } else if (statement.take("drop", "not", "null")) {
            column.isRequired = false;
        } else if (statement.take("add", "generated")) {
            readGenerated(column);
        } else {
            notes.passOver(name, "ALTER TABLE ... ALTER COLUMN");
        }
        skipRest();
    }

    private void takeIfNotExists() {
        statement.take("if", "not", "exists");
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
        if (statement.take("primary", "key")) {
            skipWordsBeforeParenthesis();
            table.primaryKey = statement.names();
        } else if (isUnique()) {
            statement.next();
            readUnique(name);
        } else if (statement.take("foreign", "key")) {
            readForeignKey(name);
        } else if (isCheck()) {
            statement.next();
            statement.take("not", "for", "replication");
            table.checks.add(new CheckDraft(name, place, statement.skipParentheses()));
            statement.skip("no inherit", "not valid", "enable", "enforced");
        } else if (isIndex()) {
            skipRest();
        } else if (name != null) {
            throw statement.unexpected("PRIMARY KEY, UNIQUE, FOREIGN KEY or CHECK");
        } else {
            return false;
        }
        return true;
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
                        || statement.peek(1).is("using"));
        boolean isSpecial = statement.isNext("fulltext") || statement.isNext("spatial");
        boolean isOther = (statement.isNext("exclude") || statement.isNext("period") || statement.isNext("like"))
                && !isType(statement.peek(1));
        return isKey
                || (isSpecial
                        && (statement.peek(1).is("key") || statement.peek(1).is("index")))
                || isOther;
    }

    private void skipWordsBeforeParenthesis() {
        while (!statement.isAtEnd() && !statement.peek().isSymbol("(")) {
            statement.next();
        }
    }

    private void readUnique(Token given) throws Unreadable {
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
            } else {
                Token word = statement.next();
                name = name == null ? word : name;
            }
        }
        table.uniqueKeys.add(new KeyDraft(name, statement.names(), equal));
    }

    private void readForeignKey(Token given) throws Unreadable {
        LinkDraft link = new LinkDraft();
        takeIfNotExists();
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
                link.deferrable = "immediate";
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

    private void readColumn() throws Unreadable {
        if (!statement.peek().isName()) {
            throw statement.unexpected("a column or a constraint");
        }
        Token name = statement.next();
        Token typePlace = statement.peek();
        if (statement.isNext("as") && statement.peek(1).isSymbol("(")) {
            typePlace = name;
        }
        ColumnDraft column = new ColumnDraft(name, typePlace.line() == 0 ? name : typePlace, readType(name));
        if (table.columns.putIfAbsent(name.text(), column) != null) {
            throw new Unreadable(name, "table `" + table.name.text() + "` has a column `" + name.text() + "` already");
        }
        readColumnConstraints(column);
    }

    private SqlTypes.Mapped readType(Token column) throws Unreadable {
        StringBuilder words = new StringBuilder();
        Token first = statement.peek();
        boolean isUnsigned = statement.isNext("unsigned", "big") && statement.take("unsigned");
        while (statement.peek().isName()
                && (words.length() == 0
                        ? !endsType()
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
        List<String> sizes = statement.peek().isSymbol("(") ? sizes() : List.of();
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
        SqlTypes.Mapped type = isArray
                ? new SqlTypes.Mapped("text", List.of(), false, false, false)
                : types.map(words.toString(), sizes, isUnsigned, isZoned);
        if (!type.isKnown()) {
            notes.say(
                    first,
                    "the type `" + words + (isArray ? "[]" : "") + "` of `" + column.text() + "` is read as text");
        }
        return type;
    }

    private boolean endsType() {
        return statement.peek().kind() == Kind.WORD
                && AFTER_TYPE.contains(statement.peek().text().toLowerCase(Locale.ROOT))
                && !statement.peek().is("character");
    }

    private List<String> sizes() throws Unreadable {
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

    private void readColumnConstraints(ColumnDraft column) throws Unreadable {
        Token name = null;
        while (!statement.isAtEnd()
                && !statement.peek().isSymbol(",")
                && !statement.peek().isSymbol(")")) {
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
                table.primaryKey = List.of(column.name);
            } else if (statement.take("unique")) {
                boolean equal = statement.take("nulls", "not", "distinct") || nullsAreEqual;
                statement.take("key");
                table.uniqueKeys.add(new KeyDraft(name, List.of(column.name), equal));
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
            } else if (statement.take("generated")) {
                readGenerated(column);
            } else if (statement.take("auto_increment") || statement.take("autoincrement")) {
                column.generated = "by default";
            } else if (statement.take("identity")) {
                column.generated = "always";
                if (statement.peek().isSymbol("(")) {
                    statement.skipParentheses();
                }
            } else if (statement.take("collate")) {
                column.ignoresCase |= statement.name().text().equalsIgnoreCase("nocase");
            } else if (statement.take("on", "update")) {
                // MySQL's own clock for a column; nothing that a row can break.
                statement.next();
            } else if (statement.peek().isSymbol("(")) {
                statement.skipParentheses();
            } else {
                statement.next();
            }
            name = null;
        }
    }

    private void readGenerated(ColumnDraft column) throws Unreadable {
        boolean isAlways = statement.take("always");
        if (!isAlways) {
            statement.take("by", "default");
            statement.take("on", "null");
        }
        statement.require("as");
        if (statement.take("identity")) {
            column.generated = isAlways ? "always" : "by default";
        }
        if (statement.peek().isSymbol("(")) {
            statement.skipParentheses();
        }
    }

    /** A constant, a function or an expression; what is no constant is kept only where a charter knows it. */
    private void readDefault(ColumnDraft column) throws Unreadable {
        Token place = statement.peek();
        List<Token> value = new ArrayList<>();
        if (statement.peek().isSymbol("(")) {
            value.addAll(statement.skipParentheses());
            while (value.size() > 2
                    && value.get(0).isSymbol("(")
                    && value.get(value.size() - 1).isSymbol(")")) {
                value = value.subList(1, value.size() - 1);
            }
        } else {
            if (statement.peek().isSymbol("-") || statement.peek().isSymbol("+")) {
                value.add(statement.next());
            }
            value.add(statement.next());
            if (statement.peek().isSymbol("(")) {
                value.add(statement.peek());
                value.addAll(statement.skipParentheses());
            }
            while (statement.takeSymbol("::")) {
                readType(column.name);
            }
        }
        setDefault(column, place, value);
    }

    private void setDefault(ColumnDraft column, Token place, List<Token> value) {
        Token last = value.get(value.size() - 1);
        String constant = null;
        String word = value.get(0).text().toLowerCase(Locale.ROOT);
        if (value.size() == 1 && (last.kind() == Kind.TEXT || last.kind() == Kind.NUMBER)) {
            constant = last.text();
        } else if (value.size() == 2 && last.kind() == Kind.NUMBER) {
            constant = (value.get(0).isSymbol("-") ? "-" : "") + last.text();
        } else if (value.size() == 1 && (word.equals("true") || word.equals("false"))) {
            constant = word;
        } else if (value.size() == 1 && word.equals("null")) {
            return;
        } else if (Set.of(
                        "current_date",
                        "current_timestamp",
                        "current_time",
                        "localtimestamp",
                        "now",
                        "getdate",
                        "sysdate",
                        "systimestamp",
                        "sysdatetime",
                        "curdate")
                .contains(word)) {
            constant = word.equals("current_date") || word.equals("curdate")
                    ? "current_date"
                    : word.equals("current_time") ? "current_time" : "current_timestamp";
        } else if (word.equals("nextval") || word.equals("next")) {
            column.generated = "by default";
            return;
        }
        if (constant == null) {
            notes.say(place, "the default of `" + column.name.text() + "` is no constant, and is left out");
            return;
        }
        column.defaultValue = constant;
        column.defaultPlace = place;
    }
}
