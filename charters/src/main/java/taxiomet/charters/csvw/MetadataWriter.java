package taxiomet.charters.csvw;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.util.DefaultIndenter;
import com.fasterxml.jackson.core.util.DefaultPrettyPrinter;
import com.google.re2j.Pattern;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType.Family;
import taxiomet.charter.ColumnType.Name;
import taxiomet.charter.Comparison;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.IntRange;
import taxiomet.charter.Key;
import taxiomet.charter.Server;
import taxiomet.charter.Table;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.charters.yaml.CharterWriter;

/** Writes a charter as the W3C's metadata of delimited text, as far as its words go; what they do not hold is told. */
public final class MetadataWriter {
    private static final int WHOLE_DIGITS = 38;

    private final Charter charter;
    private final Path folder;
    private final StringWriter text = new StringWriter();
    private final JsonGenerator json;
    /** What is left out, and where: by its name, in the order met. */
    private final Map<String, List<String>> leftOut = new LinkedHashMap<>();

    private MetadataWriter(Charter charter, Path folder) throws IOException {
        this.charter = charter;
        this.folder = folder.toAbsolutePath().normalize();
        DefaultPrettyPrinter printer = new DefaultPrettyPrinter();
        printer.indentArraysWith(DefaultIndenter.SYSTEM_LINEFEED_INSTANCE);
        this.json = new JsonFactory().createGenerator(text).setPrettyPrinter(printer);
    }

    /**
     * Metadata, and what a charter says that is not in it.
     *
     * @param leftOut each a clause
     */
    public record Metadata(String text, List<String> leftOut) {
        public Metadata {
            leftOut = List.copyOf(leftOut);
        }
    }

    /** @param folder where the metadata will stand: paths to rows are written from there */
    public static Metadata write(Charter charter, Path folder) {
        try {
            MetadataWriter writer = new MetadataWriter(charter, folder);
            writer.write();
            return new Metadata(
                    writer.text + "\n",
                    writer.leftOut.entrySet().stream()
                            .map(each -> each.getKey() + " (" + String.join(", ", each.getValue()) + ")")
                            .toList());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void leaveOut(String what, String where) {
        leftOut.computeIfAbsent(what, w -> new ArrayList<>()).add(where);
    }

    private void write() throws IOException {
        json.writeStartObject();
        json.writeStringField("@context", Words.CONTEXT);
        json.writeStringField("dc:title", charter.name());
        json.writeArrayFieldStart("tables");
        for (Table table : charter.tables()) {
            if (isDescribed(table)) {
                writeTable(table, (DelimitedFiles) table.rows());
            } else {
                leaveOut("tables that are no single file of delimited text", table.name());
            }
        }
        json.writeEndArray();
        json.writeEndObject();
        json.close();
        if (charter.behavesAs() != Server.STANDARD) {
            leaveOut("the server whose behaviour is meant", charter.behavesAs().word());
        }
    }

    private static boolean isDescribed(Table table) {
        return table.rows() instanceof DelimitedFiles && !table.rows().path().matches(".*[*?\\[{].*");
    }

    private String urlOf(Table table) {
        return CharterWriter.wayTo(folder, table.rows());
    }

    private void writeTable(Table table, DelimitedFiles rows) throws IOException {
        json.writeStartObject();
        json.writeStringField("url", urlOf(table));
        writeDialect(rows);
        if (!rows.nullWords().isEmpty()) {
            json.writeArrayFieldStart("null");
            json.writeString("");
            for (String word : rows.nullWords()) {
                json.writeString(word);
            }
            json.writeEndArray();
        }
        Bounds bounds = new Bounds(table);
        table.rules().stream()
                .filter(rule -> !bounds.take(rule))
                .forEach(rule -> leaveOut("rules", table.name() + "." + rule.name()));
        json.writeObjectFieldStart("tableSchema");
        json.writeArrayFieldStart("columns");
        for (Column column : table.columns()) {
            writeColumn(table, column, bounds.of(column));
        }
        json.writeEndArray();
        if (table.primaryKey().isPresent()) {
            writeNames("primaryKey", table.primaryKey().get().columns());
        }
        writeLinks(table);
        json.writeEndObject();
        json.writeEndObject();
        leaveOutOf(table);
    }

    private void leaveOutOf(Table table) {
        List<List<String>> pointedAt = charter.links().stream()
                .filter(link -> link.parent().equals(table.name()))
                .map(ForeignKey::parentColumns)
                .toList();
        for (Key key : table.uniqueKeys()) {
            if (!pointedAt.contains(key.columns()) || key.where().isPresent() || key.nullsAreEqual()) {
                leaveOut("unique keys", table.name() + "." + key.name());
            }
        }
        boolean saysMore = !table.label().isEmpty()
                || !table.totals().isEmpty()
                || table.area().isPresent()
                || table.owner().isPresent();
        if (saysMore) {
            leaveOut("labels, totals, areas and owners", table.name());
        }
    }

    private void writeDialect(DelimitedFiles rows) throws IOException {
        boolean isUsual = rows.delimiter() == ','
                && rows.quote() == '"'
                && rows.encoding().equals("UTF-8")
                && rows.hasHeader();
        if (isUsual) {
            return;
        }
        json.writeObjectFieldStart("dialect");
        json.writeStringField("delimiter", String.valueOf(rows.delimiter()));
        json.writeStringField("quoteChar", String.valueOf(rows.quote()));
        json.writeStringField("encoding", rows.encoding());
        json.writeBooleanField("header", rows.hasHeader());
        json.writeEndObject();
    }

    private void writeNames(String field, List<String> columns) throws IOException {
        json.writeArrayFieldStart(field);
        for (String column : columns) {
            json.writeString(nameOf(column));
        }
        json.writeEndArray();
    }

    /** A name as the vocabulary wants it: letters, digits, and others escaped; an underscore in front is its own. */
    private static String nameOf(String column) {
        String escaped = URLEncoder.encode(column, StandardCharsets.UTF_8)
                .replace("+", "%20")
                .replace("*", "%2A")
                .replace("-", "%2D");
        return escaped.startsWith("_") ? "%5F" + escaped.substring(1) : escaped;
    }

    private void writeColumn(Table table, Column column, Map<String, String> bounds) throws IOException {
        String place = table.name() + "." + column.name();
        json.writeStartObject();
        json.writeStringField("name", nameOf(column.name()));
        json.writeStringField("titles", column.name());
        writeDatatype(column, bounds);
        if (table.isRequired(column.name())) {
            json.writeBooleanField("required", true);
        }
        json.writeEndObject();
        if (column.comparison() != Comparison.EXACT) {
            leaveOut("comparisons other than by code point", place);
        }
        if (column.defaultValue().isPresent() || column.generated() != Column.Generated.NEVER) {
            leaveOut("defaults and numbering of inserted rows", place);
        }
        if (!column.values().isEmpty() && !column.type().isText()) {
            leaveOut("lists of values that are no texts", place);
        }
        if (column.type().name() == Name.UUID) {
            leaveOut("that texts are uuids", place);
        }
        if (column.isPersonal()) {
            leaveOut("that values are personal", place);
        }
    }

    private void writeDatatype(Column column, Map<String, String> bounds) throws IOException {
        String base = baseOf(column);
        Map<String, Object> facets = new LinkedHashMap<>();
        if (column.type().isText()) {
            column.pattern().ifPresent(pattern -> facets.put("format", pattern));
            if (!column.values().isEmpty() && column.pattern().isEmpty()) {
                facets.put(
                        "format", column.values().stream().map(Pattern::quote).collect(Collectors.joining("|")));
            }
            IntRange length = column.length().orElse(new IntRange(0, IntRange.NO_LIMIT));
            long most = column.type().length() > 0
                    ? Math.min(length.most(), column.type().length())
                    : length.most();
            if (length.least() > 0) {
                facets.put("minLength", length.least());
            }
            if (most != IntRange.NO_LIMIT) {
                facets.put("maxLength", most);
            }
        }
        column.format().ifPresent(format -> facets.put("format", format));
        if (column.decimalComma()) {
            facets.put("format", Map.of("decimalChar", ","));
        }
        bounds.entrySet().stream()
                .sorted(Map.Entry.comparingByKey())
                .forEach(bound -> facets.put(bound.getKey(), bound.getValue()));
        if (facets.isEmpty()) {
            json.writeStringField("datatype", base);
            return;
        }
        json.writeObjectFieldStart("datatype");
        json.writeStringField("base", base);
        for (Map.Entry<String, Object> facet : facets.entrySet()) {
            if (facet.getValue() instanceof Long number) {
                json.writeNumberField(facet.getKey(), number);
            } else if (facet.getValue() instanceof String word) {
                json.writeStringField(facet.getKey(), word);
            } else {
                json.writeObjectFieldStart(facet.getKey());
                json.writeStringField("decimalChar", ",");
                json.writeEndObject();
            }
        }
        json.writeEndObject();
    }

    private static String baseOf(Column column) {
        Name name = column.type().name();
        if (column.type().family() == Family.TEXT || name == Name.UUID) {
            return "string";
        }
        return switch (name) {
            case SMALLINT -> "short";
            case INTEGER -> "int";
            case BIGINT -> "long";
            case REAL -> "float";
            case DOUBLE -> "double";
            case BOOLEAN -> "boolean";
            case DATE -> "date";
            case TIME -> "time";
            case TIMESTAMP -> "dateTime";
            case TIMESTAMP_WITH_TIME_ZONE -> "dateTimeStamp";
            default ->
                column.type().scale() == 0
                                && column.type().precision() >= 1
                                && column.type().precision() <= WHOLE_DIGITS
                        ? "integer"
                        : "decimal";
        };
    }

    private void writeLinks(Table table) throws IOException {
        List<ForeignKey> links = table.links().stream()
                .filter(link -> isDescribed(charter.table(link.parent())))
                .toList();
        if (links.isEmpty()) {
            return;
        }
        json.writeArrayFieldStart("foreignKeys");
        for (ForeignKey link : links) {
            json.writeStartObject();
            writeNames("columnReference", link.columns());
            json.writeObjectFieldStart("reference");
            json.writeStringField("resource", urlOf(charter.table(link.parent())));
            writeNames("columnReference", link.parentColumns());
            json.writeEndObject();
            json.writeEndObject();
            leaveOutOf(link);
        }
        json.writeEndArray();
    }

    private void leaveOutOf(ForeignKey link) {
        String place = link.child() + "." + link.name();
        boolean acts = link.onDelete().name() != ForeignKey.ActionName.NO_ACTION
                || link.onUpdate().name() != ForeignKey.ActionName.NO_ACTION;
        if (acts) {
            leaveOut("what becomes of children", place);
        }
        if (link.match() != ForeignKey.Match.SIMPLE) {
            leaveOut("match types", place);
        }
        if (link.where().isPresent() || link.children().isPresent() || link.isAcyclic()) {
            leaveOut("conditions of links", place);
        }
    }
}
