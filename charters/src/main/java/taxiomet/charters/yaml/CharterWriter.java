package taxiomet.charters.yaml;

import com.fasterxml.jackson.core.io.JsonStringEncoder;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import taxiomet.charter.Accepted;
import taxiomet.charter.Alike;
import taxiomet.charter.Charter;
import taxiomet.charter.Charter.KeptRoster;
import taxiomet.charter.Column;
import taxiomet.charter.Column.Generated;
import taxiomet.charter.ColumnType;
import taxiomet.charter.Comparison;
import taxiomet.charter.Condition;
import taxiomet.charter.DefaultValue;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.ForeignKey.Deferrable;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.charter.Key;
import taxiomet.charter.NotRead;
import taxiomet.charter.Owner;
import taxiomet.charter.Rule;
import taxiomet.charter.Server;
import taxiomet.charter.Severity;
import taxiomet.charter.Table;
import taxiomet.charter.Total;
import taxiomet.charter.place.Database;
import taxiomet.charter.place.DatabaseRows;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.charter.place.FixedWidth;
import taxiomet.charter.place.JsonItems;
import taxiomet.charter.place.JsonLines;
import taxiomet.charter.place.ParquetRows;
import taxiomet.charter.place.RowsPlace;
import taxiomet.charter.place.SheetRows;
import taxiomet.charter.place.SqliteRows;

/**
 * Writes a charter as the YAML that {@link CharterReader} reads, in short forms where they say it all; in one file, since each kind of
 * declaration takes a few lines, and all share how texts and lists are written.
 */
public final class CharterWriter {
    /** Texts that YAML could take for nothing else. */
    private static final Pattern PLAIN = Pattern.compile("[\\p{L}_][\\p{L}\\p{N}_ ./@-]*(?:\\([0-9]+\\))?");

    private static final Pattern NUMBER = Pattern.compile("-?[0-9]{1,15}(?:\\.[0-9]{1,15})?");
    private static final int COMMENT_WIDTH = 110;

    private final Charter charter;
    private final StringBuilder out = new StringBuilder();
    private final Path folder;
    private final Map<List<String>, List<String>> comments;
    private final List<ForeignKey> perhaps;
    private List<String> sharedNullWords = List.of();

    private CharterWriter(
            Charter charter, Path folder, Map<List<String>, List<String>> comments, List<ForeignKey> perhaps) {
        this.perhaps = List.copyOf(perhaps);
        this.charter = charter;
        this.folder = folder;
        this.comments = Map.copyOf(comments);
    }

    /**
     * The charter as YAML.
     *
     * @param folder where the charter will stand: paths to rows are written from there
     * @param comments by the keys that lead to a declaration, what is to stand above it; that of no keys stands at the top
     */
    public static String write(Charter charter, Path folder, Map<List<String>, List<String>> comments) {
        return write(charter, folder, comments, List.of());
    }

    /**
     * The same with links that may be meant, each as a comment that is a declaration when its mark is taken away.
     *
     * @param perhaps those, of any tables of the charter
     */
    public static String write(
            Charter charter, Path folder, Map<List<String>, List<String>> comments, List<ForeignKey> perhaps) {
        CharterWriter writer =
                new CharterWriter(charter, folder.toAbsolutePath().normalize(), comments, perhaps);
        writer.write();
        return writer.out.toString();
    }

    private void line(int indent, String text) {
        out.append(" ".repeat(indent)).append(text).append('\n');
    }

    private void comment(int indent, String... path) {
        for (String comment : comments.getOrDefault(List.of(path), List.of())) {
            StringBuilder line = new StringBuilder();
            for (String word : comment.replaceAll("\\p{Cntrl}", " ").split(" ", -1)) {
                if (line.length() > 0 && indent + line.length() + word.length() > COMMENT_WIDTH) {
                    line(indent, "# " + line);
                    line.setLength(0);
                }
                line.append(line.length() == 0 ? "" : " ").append(word);
            }
            line(indent, "# " + line);
        }
    }

    private void write() {
        comment(0);
        line(0, "charter: 1");
        line(0, "title: " + text(charter.name()));
        writeDefaults();
        writeDatabase();
        line(0, "");
        line(0, "tables:");
        boolean isFirst = true;
        for (Table table : charter.tables()) {
            if (!isFirst) {
                line(0, "");
            }
            isFirst = false;
            writeTable(table);
            writeNotRead(4, Optional.of(table.name()));
        }
        writeRosters();
        writeNotRead(0, Optional.empty());
        if (!charter.accepted().isEmpty()) {
            line(0, "");
            line(0, "accept:");
            charter.accepted().forEach(each -> line(2, "- " + accepted(each)));
        }
        if (!charter.linkOrder().isEmpty()) {
            line(0, "");
            line(0, "link_order: " + list(charter.linkOrder()));
        }
    }

    private void writeRosters() {
        if (charter.rosters().isEmpty()) {
            return;
        }
        line(0, "");
        line(0, "rosters:");
        for (KeptRoster roster : charter.rosters()) {
            line(2, text(roster.name()) + ":");
            line(4, "table: " + text(roster.table()));
            writeTexts("through", roster.through());
            writeTexts("columns", roster.columns());
            writeTexts("sort", roster.sort());
            roster.where().ifPresent(where -> line(4, "where: " + quoted(where)));
            roster.whereChild().ifPresent(where -> line(4, "where_child: " + quoted(where)));
            roster.childless().ifPresent(word -> line(4, "childless: " + word));
        }
    }

    private static String accepted(Accepted accepted) {
        List<String> parts = new ArrayList<>();
        parts.add("finding: " + accepted.finding());
        parts.add("at: " + text(accepted.table() + "." + accepted.at()));
        if (!accepted.rows().isEmpty()) {
            parts.add("rows: ["
                    + accepted.rows().stream()
                            .map(row -> row.holds().isEmpty()
                                    ? cells(row.key())
                                    : "{key: " + cells(row.key()) + ", holds: "
                                            + cells(row.holds().get()) + "}")
                            .collect(Collectors.joining(", "))
                    + "]");
        }
        if (!accepted.values().isEmpty()) {
            parts.add("values: ["
                    + accepted.values().stream().map(CharterWriter::cells).collect(Collectors.joining(", ")) + "]");
        }
        parts.add("reason: " + quoted(accepted.reason()));
        accepted.until().ifPresent(day -> parts.add("until: " + day));
        return "{" + String.join(", ", parts) + "}";
    }

    private static String cells(List<String> cells) {
        String listed =
                cells.stream().map(cell -> cell == null ? "null" : quoted(cell)).collect(Collectors.joining(", "));
        return cells.size() == 1 ? listed : "[" + listed + "]";
    }

    private void writeTexts(String key, List<String> texts) {
        if (!texts.isEmpty()) {
            line(4, key + ": " + list(texts));
        }
    }

    private void writeNotRead(int indent, Optional<String> table) {
        List<NotRead> lost = charter.notRead().stream()
                .filter(each -> each.table().equals(table))
                .toList();
        if (!lost.isEmpty()) {
            line(indent, "not_read:");
            for (NotRead each : lost) {
                line(
                        indent + 2,
                        text(each.name()) + ": {what: " + each.what().word() + ", declared: " + quoted(each.declared())
                                + ", problem: " + quoted(each.problem())
                                + (each.severity() == Severity.ERROR
                                        ? ""
                                        : ", severity: " + each.severity().word()) + "}");
            }
        }
    }

    private void writeDefaults() {
        List<List<String>> nullWords = charter.tables().stream()
                .map(Table::rows)
                .filter(DelimitedFiles.class::isInstance)
                .map(rows -> ((DelimitedFiles) rows).nullWords())
                .distinct()
                .toList();
        sharedNullWords = nullWords.size() == 1 ? nullWords.get(0) : List.of();
        List<String> defaults = new ArrayList<>();
        if (!sharedNullWords.isEmpty()) {
            defaults.add("files: {null_words: " + list(sharedNullWords) + "}");
        }
        if (charter.behavesAs() != Server.STANDARD) {
            defaults.add("server: " + charter.behavesAs().name().toLowerCase(Locale.ROOT));
        }
        if (!defaults.isEmpty()) {
            line(0, "defaults:");
            defaults.forEach(each -> line(2, each));
        }
    }

    private void writeDatabase() {
        Optional<Database> database = charter.tables().stream()
                .map(Table::rows)
                .filter(DatabaseRows.class::isInstance)
                .map(rows -> ((DatabaseRows) rows).database())
                .findFirst();
        database.ifPresent(each -> {
            line(0, "database:");
            line(2, "url: " + quoted(each.address().written()));
            each.user().ifPresent(user -> line(2, "user: " + quoted(user)));
            if (each.hasPlainPassword()) {
                line(2, "password: \"${TAXIOMET_PASSWORD}\"   # written out where this comes from, and not here");
            } else {
                each.password().ifPresent(password -> line(2, "password: " + quoted(password)));
            }
            each.passwordFile().ifPresent(file -> line(2, "password_file: " + quoted(file)));
            if (each.mayBeProvedIn()) {
                line(2, "prove: yes");
            }
        });
    }

    private void writeTable(Table table) {
        String name = table.name();
        comment(2, "tables", name);
        line(2, text(name) + ":");
        table.schema().ifPresent(schema -> line(4, "schema: " + text(schema)));
        comment(4, "tables", name, "rows");
        line(4, "rows: " + rows(table.rows()));
        line(4, "columns:");
        for (Column column : table.columns()) {
            comment(6, "tables", name, "columns", column.name());
            line(6, text(column.name()) + ": " + column(column));
        }
        comment(4, "tables", name, "primary_key");
        table.primaryKey().ifPresent(key -> line(4, "primary_key: " + keyOf(key)));
        if (!table.uniqueKeys().isEmpty() || hasComment("tables", name, "unique")) {
            comment(4, "tables", name, "unique");
        }
        if (!table.uniqueKeys().isEmpty()) {
            line(4, "unique:");
            for (Key key : table.uniqueKeys()) {
                comment(6, "tables", name, "unique", key.name());
                line(6, text(key.name()) + ": " + keyOf(key));
            }
        }
        comment(4, "tables", name, "foreign_keys");
        if (!table.links().isEmpty()) {
            line(4, "foreign_keys:");
            for (ForeignKey link : table.links()) {
                comment(6, "tables", name, "foreign_keys", link.name());
                line(6, text(link.name()) + ": " + link(link));
            }
        }
        writePerhaps(table);
        if (!table.rules().isEmpty()) {
            line(4, "rules:");
            for (Rule rule : table.rules()) {
                line(
                        6,
                        text(rule.name()) + ": "
                                + (rule.severity() == Severity.ERROR
                                        ? text(rule.text())
                                        : "{condition: " + text(rule.text()) + ", severity: "
                                                + rule.severity().word() + "}"));
            }
        }
        comment(4, "tables", name, "alike");
        if (!table.alike().isEmpty()) {
            line(4, "alike:");
            for (Alike rule : table.alike()) {
                line(6, text(rule.name()) + ": " + alike(rule));
            }
        }
        writeRest(table);
    }

    private static String alike(Alike rule) {
        boolean areAll = rule.agree() == rule.columns().size();
        if (areAll && rule.neverDiffer().isEmpty() && rule.severity() == Severity.WARNING) {
            return listOrOne(rule.columns());
        }
        return "{columns: " + listOrOne(rule.columns())
                + (areAll ? "" : ", agree: " + rule.agree())
                + (rule.neverDiffer().isEmpty() ? "" : ", never_differ: " + listOrOne(rule.neverDiffer()))
                + (rule.severity() == Severity.WARNING
                        ? ""
                        : ", severity: " + rule.severity().word()) + "}";
    }

    private void writePerhaps(Table table) {
        List<ForeignKey> own = perhaps.stream()
                .filter(link -> link.child().equals(table.name()))
                .toList();
        if (!own.isEmpty() && table.links().isEmpty()) {
            line(4, "# foreign_keys:");
        }
        for (ForeignKey link : own) {
            comment(6, "tables", table.name(), "foreign_keys", link.name());
            line(6, "# " + text(link.name()) + ": " + link(link));
        }
    }

    private boolean hasComment(String... path) {
        return comments.containsKey(List.of(path));
    }

    private void writeRest(Table table) {
        if (!table.label().isEmpty()) {
            line(4, "label: " + listOrOne(table.label()));
        }
        if (!table.totals().isEmpty()) {
            line(
                    4,
                    "totals: "
                            + listOrOne(table.totals().stream().map(Total::text).toList()));
        }
        table.area().ifPresent(area -> line(4, "area: " + text(area)));
        table.owner()
                .ifPresent(owner -> line(
                        4,
                        "owner: "
                                + (owner instanceof Owner.InColumn in
                                        ? text(in.column())
                                        : "{text: " + text(((Owner.Named) owner).name()) + "}")));
    }

    private String rows(RowsPlace rows) {
        if (rows instanceof DatabaseRows database) {
            return "{" + (database.isQuery() ? "query: " : "table: ") + quoted(database.relation()) + "}";
        }
        String path = wayTo(folder, rows);
        List<String> parts = new ArrayList<>(List.of("file: " + text(path)));
        if (rows instanceof DelimitedFiles files) {
            addDialect(files, parts);
        } else if (rows instanceof FixedWidth fixed) {
            addFixed(fixed, parts);
        } else if (rows instanceof JsonLines lines) {
            addFields(lines.fields(), parts);
        } else if (rows instanceof JsonItems items) {
            if (!items.items().isEmpty()) {
                parts.add("items: " + text(items.items()));
            }
            addFields(items.fields(), parts);
        } else if (rows instanceof ParquetRows parquet) {
            addFields(parquet.fields(), parts);
        } else if (rows instanceof SheetRows sheet) {
            sheet.sheet().ifPresent(name -> parts.add("sheet: " + quoted(name)));
            sheet.range().ifPresent(range -> parts.add("range: " + quoted(range)));
        } else if (rows instanceof SqliteRows database) {
            parts.add("table: " + text(database.table()));
        }
        return parts.size() == 1 ? text(path) : "{" + String.join(", ", parts) + "}";
    }

    private void addFixed(FixedWidth fixed, List<String> parts) {
        if (!fixed.encoding().equals("UTF-8")) {
            parts.add("encoding: " + text(fixed.encoding()));
        }
        if (fixed.hasHeader()) {
            parts.add("header: yes");
        }
        if (!fixed.nullWords().isEmpty()) {
            parts.add("null_words: " + list(fixed.nullWords()));
        }
        List<String> positions = new ArrayList<>();
        fixed.positions().forEach((column, at) -> positions.add(text(column) + ": " + quoted(at.toString())));
        parts.add("positions: {" + String.join(", ", positions) + "}");
    }

    private static void addFields(Map<String, String> pointers, List<String> parts) {
        List<String> fields = new ArrayList<>();
        pointers.forEach((column, pointer) -> fields.add(text(column) + ": " + text(pointer)));
        if (!fields.isEmpty()) {
            parts.add("fields: {" + String.join(", ", fields) + "}");
        }
    }

    /** The path of rows from the folder in which what names them will stand. */
    public static String wayTo(Path folder, RowsPlace rows) {
        if (rows.path().equals("-")) {
            return rows.path();
        }
        Path file = rows.folder().toAbsolutePath().normalize();
        try {
            String way = folder.relativize(file).toString();
            return way.isEmpty() || Path.of(rows.path()).isAbsolute()
                    ? rows.path()
                    : way.replace('\\', '/') + "/" + rows.path();
        } catch (IllegalArgumentException e) {
            // Another drive: no way leads there from here.
            return file + "/" + rows.path();
        }
    }

    private void addDialect(DelimitedFiles rows, List<String> parts) {
        if (rows.delimiter() != ',') {
            parts.add("delimiter: " + (rows.delimiter() == '\t' ? "tab" : quoted(String.valueOf(rows.delimiter()))));
        }
        if (rows.quote() != '"') {
            parts.add("quote: " + quoted(String.valueOf(rows.quote())));
        }
        if (!rows.encoding().equals("UTF-8")) {
            parts.add("encoding: " + text(rows.encoding()));
        }
        if (rows.header().isPresent()) {
            parts.add("header: " + list(rows.header().get()));
        } else if (!rows.hasHeader()) {
            parts.add("header: no");
        }
        if (!rows.nullWords().equals(sharedNullWords)) {
            parts.add("null_words: " + list(rows.nullWords()));
        }
    }

    private static String column(Column column) {
        List<String> parts = new ArrayList<>();
        parts.add("type: " + type(column));
        if (column.isRequired()) {
            parts.add("not_null: yes");
        }
        column.length().ifPresent(length -> parts.add("length: " + length));
        if (!column.values().isEmpty()) {
            parts.add("values: " + list(column.values()));
        }
        column.pattern().ifPresent(pattern -> parts.add("pattern: " + quoted(pattern)));
        if (column.comparison() != Comparison.EXACT) {
            parts.add("compare: " + column.comparison().word());
        }
        column.format().ifPresent(format -> parts.add("format: " + quoted(format)));
        if (column.decimalComma()) {
            parts.add("decimal: \",\"");
        }
        column.defaultValue()
                .ifPresent(value -> parts.add("default: "
                        + (value instanceof DefaultValue.ByServer
                                ? "{sql: " + quoted(value.text()) + "}"
                                : text(value.text()))));
        if (column.generated() != Generated.NEVER) {
            parts.add("generated: " + (column.generated() == Generated.ALWAYS ? "always" : "by default"));
        }
        if (column.isPersonal()) {
            parts.add("personal: yes");
        }
        if (column.notesGaps()) {
            parts.add("gaps: note");
        }
        if (column.severity() != Severity.ERROR) {
            parts.add("severity: " + column.severity().word());
        }
        return parts.size() == 1 ? spelled(column) : "{" + String.join(", ", parts) + "}";
    }

    private static String type(Column column) {
        String sql = spelled(column);
        return sql.indexOf(',') >= 0 ? quoted(sql) : sql;
    }

    private static String spelled(Column column) {
        boolean isOtherInteger = column.type().name() == ColumnType.Name.INTEGER && !column.isWordInteger();
        return isOtherInteger ? "int" : column.type().sql();
    }

    private static String keyOf(Key key) {
        boolean isPlain = !key.nullsAreEqual()
                && key.severity() == Severity.ERROR
                && key.where().isEmpty()
                && key.declaredName().isEmpty();
        if (isPlain) {
            return listOrOne(key.columns());
        }
        return "{columns: " + listOrOne(key.columns())
                + key.declaredName().map(name -> ", name: " + text(name)).orElse("")
                + (key.nullsAreEqual() ? ", nulls: equal" : "")
                + key.where().map(CharterWriter::where).orElse("")
                + (key.severity() == Severity.ERROR
                        ? ""
                        : ", severity: " + key.severity().word()) + "}";
    }

    private static String where(Condition where) {
        return ", where: " + quoted(where.text());
    }

    private static String link(ForeignKey link) {
        List<String> parts = new ArrayList<>();
        parts.add("columns: " + listOrOne(link.columns()));
        parts.add("references: {" + text(link.parent()) + ": " + listOrOne(link.parentColumns()) + "}");
        if (link.match() != Match.SIMPLE) {
            parts.add("match: " + link.match().name().toLowerCase(Locale.ROOT));
        }
        action(link.onDelete()).ifPresent(action -> parts.add("on_delete: " + action));
        action(link.onUpdate()).ifPresent(action -> parts.add("on_update: " + action));
        if (link.deferrable() != Deferrable.NO) {
            parts.add("deferrable: " + link.deferrable().name().toLowerCase(Locale.ROOT));
        }
        if (!link.isEnforced()) {
            parts.add("enforced: no");
        }
        link.where().ifPresent(where -> parts.add(where(where).substring(2)));
        link.children().ifPresent(children -> parts.add("children: " + children));
        if (link.isAcyclic()) {
            parts.add("acyclic: yes");
        }
        if (link.severity() != Severity.ERROR) {
            parts.add("severity: " + link.severity().word());
        }
        return "{" + String.join(", ", parts) + "}";
    }

    private static Optional<String> action(Action action) {
        if (action.name() == ActionName.NO_ACTION) {
            return Optional.empty();
        }
        return Optional.of(
                action.columns().isEmpty()
                        ? action.name().sql()
                        : "{" + action.name().sql() + ": " + list(action.columns()) + "}");
    }

    private static String listOrOne(List<String> texts) {
        return texts.size() == 1 ? text(texts.get(0)) : list(texts);
    }

    private static String list(List<String> texts) {
        return "[" + texts.stream().map(CharterWriter::text).collect(Collectors.joining(", ")) + "]";
    }

    /** A text, in quotes where YAML needs them or a reader could take it for something else. */
    private static String text(String text) {
        boolean isPlain = (PLAIN.matcher(text).matches() && !text.endsWith(" "))
                || NUMBER.matcher(text).matches();
        boolean isWord = List.of("null", "true", "false", "yes", "no", "on", "off", "y", "n")
                .contains(text.toLowerCase(Locale.ROOT));
        return isPlain && !isWord ? text : quoted(text);
    }

    private static String quoted(String text) {
        return '"' + new String(JsonStringEncoder.getInstance().quoteAsString(text)) + '"';
    }
}
