package taxiomet.charters.ddl;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import taxiomet.charter.NotRead.What;
import taxiomet.charters.sql.ConstantReader;
import taxiomet.charters.sql.SqlTokens.Kind;
import taxiomet.charters.sql.SqlTokens.Token;
import taxiomet.charters.sql.SqlWords;
import taxiomet.charters.yaml.DraftNode;

/** A table as far as the statements of a script have declared it. */
final class TableDraft {
    final Token name;
    final Map<String, ColumnDraft> columns = new LinkedHashMap<>();
    Token schema;
    List<Token> primaryKey = List.of();
    Token primaryKeyName;
    final List<KeyDraft> uniqueKeys = new ArrayList<>();
    final List<LinkDraft> links = new ArrayList<>();
    final List<CheckDraft> checks = new ArrayList<>();
    final List<LostDraft> lost = new ArrayList<>();

    /** What was declared about the table and could not be read; {@code name} is null where the script gives none. */
    record LostDraft(What what, Token name, String madeUp, Token place, String declared, String problem) {}

    void dropPrimaryKey() {
        primaryKey = List.of();
        primaryKeyName = null;
    }

    /** Notes what could not be read. */
    void lose(What what, Token name, Token place, List<Token> declared, String problem) {
        String madeUp = this.name.text() + "_" + what.word();
        lost.add(new LostDraft(what, name, madeUp, place, ConstantReader.written(declared), problem));
    }

    /** A column and what is declared about it. */
    static final class ColumnDraft {
        final Token name;
        final Token typePlace;
        private SqlTypes.Mapped type;
        DomainDraft domain;
        boolean isRequired;
        boolean hasOwnDefault;
        String defaultValue;
        boolean isDefaultByServer;
        Token defaultPlace;
        String generated;
        boolean ignoresCase;

        ColumnDraft(Token name, Token typePlace) {
            this.name = name;
            this.typePlace = typePlace;
        }

        SqlTypes.Mapped type() {
            return type;
        }

        void setType(SqlTypes.Mapped read) {
            type = read;
            generated = read.isNumbered() ? "by default" : generated;
            ignoresCase = read.isIgnoringCase();
        }

        boolean isRequired() {
            return isRequired || (domain != null && domain.isRequired());
        }
    }

    /**
     * @param name null where the script gives none
     * @param where the condition of a partial index; empty for none
     */
    record KeyDraft(Token name, List<Token> columns, boolean nullsAreEqual, List<Token> where) {}

    record CheckDraft(Token name, Token place, List<Token> condition) {}

    /** A link; its name is null where the script gives none, and the parent's columns are empty for its primary key. */
    static final class LinkDraft {
        Token name;
        List<Token> columns = List.of();
        int order;
        Token parent;
        List<Token> parentColumns = List.of();
        String match = "simple";
        String onDelete = "no action";
        List<Token> onDeleteColumns = List.of();
        String onUpdate = "no action";
        String deferrable = "no";
        boolean isEnforced = true;
        /** What the link is called in the charter, once it is in it. */
        String calledAs;
    }

    TableDraft(Token name) {
        this.name = name;
    }

    /** The table as the document of a charter has it; names are those that the tables and columns go by there. */
    DraftNode document(NameBook names, String rows) {
        DraftNode table = DraftNode.map(name.line(), name.column());
        if (schema != null) {
            putText(table, schema, "schema", schema.text());
        }
        table.put(name.line(), name.column(), "rows", rows);
        DraftNode columnNodes = DraftNode.map(name.line(), name.column());
        columns.values().forEach(column -> put(columnNodes, column.name, columnNode(column)));
        table.put(name.line(), name.column(), "columns", columnNodes);
        if (!primaryKey.isEmpty()) {
            Token first = primaryKey.get(0);
            table.put(first.line(), first.column(), "primary_key", primaryKey(names));
        }
        Set<String> taken = new HashSet<>();
        if (!uniqueKeys.isEmpty()) {
            DraftNode keys = DraftNode.map(name.line(), name.column());
            uniqueKeys.forEach(key -> putKey(keys, names, key, taken));
            table.put(name.line(), name.column(), "unique", keys);
        }
        if (!links.isEmpty()) {
            DraftNode linkNodes = DraftNode.map(name.line(), name.column());
            links.forEach(link -> putLink(linkNodes, names, link, taken));
            table.put(name.line(), name.column(), "foreign_keys", linkNodes);
        }
        List<CheckDraft> conditions = new ArrayList<>(checks);
        columns.values().stream()
                .filter(column -> column.domain != null)
                .forEach(column -> conditions.addAll(column.domain.checks(column.name)));
        if (!conditions.isEmpty()) {
            DraftNode rules = DraftNode.map(name.line(), name.column());
            conditions.forEach(check -> putRule(rules, names, check, taken));
            table.put(name.line(), name.column(), "rules", rules);
        }
        if (!lost.isEmpty()) {
            DraftNode nodes = DraftNode.map(name.line(), name.column());
            lost.forEach(each -> putLost(nodes, each, taken));
            table.put(name.line(), name.column(), "not_read", nodes);
        }
        return table;
    }

    private DraftNode primaryKey(NameBook names) {
        if (primaryKeyName == null) {
            return list(names, primaryKey);
        }
        DraftNode node = DraftNode.map(primaryKeyName.line(), primaryKeyName.column());
        putText(node, primaryKeyName, "name", primaryKeyName.text());
        node.put(primaryKeyName.line(), primaryKeyName.column(), "columns", list(names, primaryKey));
        return node;
    }

    private static void putLost(DraftNode nodes, LostDraft lost, Set<String> taken) {
        Token place = lost.place();
        DraftNode node = DraftNode.map(place.line(), place.column());
        putText(node, place, "what", lost.what().word());
        putText(node, place, "declared", lost.declared());
        putText(node, place, "problem", lost.problem());
        nodes.put(place.line(), place.column(), free(lost.name(), lost.madeUp(), taken), node);
    }

    private static void put(DraftNode map, Token key, DraftNode value) {
        map.put(key.line(), key.column(), key.text(), value);
    }

    private static DraftNode columnNode(ColumnDraft column) {
        DraftNode node = DraftNode.map(column.typePlace.line(), column.typePlace.column());
        putText(node, column.typePlace, "type", column.type().type());
        if (column.isRequired()) {
            putText(node, column.name, "not_null", "yes");
        }
        if (!column.type().values().isEmpty()) {
            DraftNode values = DraftNode.list(column.typePlace.line(), column.typePlace.column());
            column.type()
                    .values()
                    .forEach(value -> values.add(column.typePlace.line(), column.typePlace.column(), value));
            node.put(column.typePlace.line(), column.typePlace.column(), "values", values);
        }
        if (column.ignoresCase) {
            putText(node, column.typePlace, "compare", "ignore case");
        }
        if (column.defaultValue != null && column.isDefaultByServer) {
            Token place = column.defaultPlace;
            DraftNode byServer = DraftNode.map(place.line(), place.column());
            putText(byServer, place, "sql", column.defaultValue);
            node.put(place.line(), place.column(), "default", byServer);
        } else if (column.defaultValue != null) {
            putText(node, column.defaultPlace, "default", column.defaultValue);
        }
        if (column.generated != null) {
            putText(node, column.name, "generated", column.generated);
        }
        return node;
    }

    private static void putText(DraftNode node, Token place, String key, String value) {
        node.put(place.line(), place.column(), key, value);
    }

    private DraftNode list(NameBook names, List<Token> columns) {
        DraftNode list = DraftNode.list(columns.get(0).line(), columns.get(0).column());
        columns.forEach(column -> list.add(column.line(), column.column(), names.column(name.text(), column)));
        return list;
    }

    private void putKey(DraftNode keys, NameBook names, KeyDraft key, Set<String> taken) {
        Token first = key.columns().get(0);
        Token place = key.name() == null ? first : key.name();
        String called = free(key.name(), joined(names, key.columns()), taken);
        if (!key.nullsAreEqual() && key.where().isEmpty()) {
            keys.put(place.line(), place.column(), called, list(names, key.columns()));
            return;
        }
        DraftNode node = DraftNode.map(place.line(), place.column());
        node.put(place.line(), place.column(), "columns", list(names, key.columns()));
        if (key.nullsAreEqual()) {
            putText(node, place, "nulls", "equal");
        }
        if (!key.where().isEmpty()) {
            putText(node, key.where().get(0), "where", condition(names, key.where()));
        }
        keys.put(place.line(), place.column(), called, node);
    }

    private String joined(NameBook names, List<Token> columns) {
        return columns.stream().map(column -> names.column(name.text(), column)).collect(Collectors.joining("_"));
    }

    private void putLink(DraftNode nodes, NameBook names, LinkDraft link, Set<String> taken) {
        Token first = link.columns.get(0);
        Token place = link.name == null ? first : link.name;
        DraftNode node = DraftNode.map(place.line(), place.column());
        node.put(first.line(), first.column(), "columns", list(names, link.columns));
        String parent = names.table(link.parent);
        if (link.parentColumns.isEmpty()) {
            putText(node, link.parent, "references", parent);
        } else {
            DraftNode columns = DraftNode.list(link.parent.line(), link.parent.column());
            link.parentColumns.forEach(c -> columns.add(c.line(), c.column(), names.column(parent, c)));
            DraftNode references = DraftNode.map(link.parent.line(), link.parent.column());
            references.put(link.parent.line(), link.parent.column(), parent, columns);
            node.put(link.parent.line(), link.parent.column(), "references", references);
        }
        putWord(node, place, "match", link.match, "simple");
        if (link.onDeleteColumns.isEmpty()) {
            putWord(node, place, "on_delete", link.onDelete, "no action");
        } else {
            DraftNode action = DraftNode.map(place.line(), place.column());
            action.put(place.line(), place.column(), link.onDelete, list(names, link.onDeleteColumns));
            node.put(place.line(), place.column(), "on_delete", action);
        }
        putWord(node, place, "on_update", link.onUpdate, "no action");
        putWord(node, place, "deferrable", link.deferrable, "no");
        if (!link.isEnforced) {
            putText(node, place, "enforced", "no");
        }
        link.calledAs = free(link.name, name.text() + "_" + joined(names, link.columns), taken);
        nodes.put(place.line(), place.column(), link.calledAs, node);
    }

    private static void putWord(DraftNode node, Token place, String key, String word, String usual) {
        if (!word.equals(usual)) {
            putText(node, place, key, word);
        }
    }

    private void putRule(DraftNode rules, NameBook names, CheckDraft check, Set<String> taken) {
        String called = free(check.name(), name.text() + "_check", taken);
        rules.put(check.place().line(), check.place().column(), called, condition(names, check.condition()));
    }

    /** A condition as a charter has it: columns by the names that they go by there. */
    private String condition(NameBook names, List<Token> written) {
        StringBuilder condition = new StringBuilder();
        for (int i = 0; i < written.size(); i++) {
            Token token = written.get(i);
            boolean isCalled = i + 1 < written.size() && written.get(i + 1).isSymbol("(");
            boolean isColumn = token.isName()
                    && !(token.kind() == Kind.WORD && (isCalled || SqlWords.isSpeaking(token.text())))
                    && names.hasColumn(name.text(), token);
            String text = isColumn ? quoted(names.column(name.text(), token), token) : token.sql();
            boolean joins = condition.length() == 0
                    || text.equals(")")
                    || text.equals(",")
                    || text.equals(".")
                    || text.equals("::")
                    || text.equals("]")
                    || "(.:[".indexOf(condition.charAt(condition.length() - 1)) >= 0;
            condition.append(joins ? "" : " ").append(text);
        }
        return condition.toString();
    }

    private static String quoted(String column, Token token) {
        boolean isQuoted = token.kind() == Kind.QUOTED_NAME && !column.matches("[a-z_][a-z0-9_]*");
        return isQuoted || SqlWords.isReserved(column) ? '"' + column.replace("\"", "\"\"") + '"' : column;
    }

    /** The name given, or else one made up; with a number behind it where it is taken already. */
    private static String free(Token given, String madeUp, Set<String> taken) {
        String wanted = given == null ? madeUp : given.text();
        String name = wanted;
        for (int i = 2; !taken.add(name); i++) {
            name = wanted + "_" + i;
        }
        return name;
    }
}
