package taxiomet.reports.json;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import taxiomet.finding.Hint;
import taxiomet.finding.TraceResult;
import taxiomet.finding.TraceResult.Below;
import taxiomet.finding.TraceResult.Children;
import taxiomet.finding.TraceResult.Parent;
import taxiomet.finding.TraceResult.RowFault;
import taxiomet.finding.TraceResult.Sum;
import taxiomet.finding.TraceResult.TracedRow;
import taxiomet.finding.TraceResult.Twin;

/** A row among its relatives as JSON. */
public final class TraceJson {
    private final JsonGenerator json;

    private TraceJson(JsonGenerator json) {
        this.json = json;
    }

    /** Writes a result; the stream stays open. */
    public static void write(TraceResult result, Provenance provenance, OutputStream out) throws IOException {
        JsonOutput.write(out, json -> new TraceJson(json).write(result, provenance));
    }

    /** @throws taxiomet.reports.OutputException when the file cannot be written */
    public static void write(TraceResult result, Provenance provenance, Path file) {
        JsonOutput.write(file, json -> new TraceJson(json).write(result, provenance));
    }

    private void write(TraceResult result, Provenance provenance) throws IOException {
        provenance.begin(json, "trace", result.title());
        json.writeStringField("table", result.table());
        json.writeNumberField("found", result.found());
        if (result.near().isPresent()) {
            writeHint("near", result.near().get());
        }
        json.writeArrayFieldStart("rows");
        for (TracedRow row : result.rows()) {
            writeRow(row);
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private void writeHint(String name, Hint hint) throws IOException {
        json.writeObjectFieldStart(name);
        json.writeStringField("words", hint.words());
        json.writeArrayFieldStart("keys");
        for (List<String> key : hint.parents()) {
            json.writeArray(key.toArray(new String[0]), 0, key.size());
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private void writeRow(TracedRow row) throws IOException {
        json.writeStartObject();
        json.writeStringField("table", row.table());
        json.writeStringField("file", row.part());
        json.writeNumberField("row", row.row());
        json.writeNumberField("line", row.line());
        JsonOutput.writeTexts(json, "key_columns", row.key());
        json.writeStringField("label", row.label());
        if (row.values().isEmpty()) {
            json.writeStringField("raw", row.raw());
        } else {
            json.writeObjectFieldStart("values");
            for (String column : row.columns()) {
                json.writeStringField(column, row.value(column));
            }
            json.writeEndObject();
        }
        writeFaults(row);
        json.writeArrayFieldStart("twins");
        for (Twin twin : row.twins()) {
            json.writeStartObject();
            json.writeStringField("at", twin.at());
            JsonOutput.writeTexts(json, "columns", twin.columns());
            json.writeNumberField("others", twin.others());
            writeRows("first", twin.first());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeArrayFieldStart("parents");
        for (Parent parent : row.parents()) {
            writeParent(parent);
        }
        json.writeEndArray();
        json.writeArrayFieldStart("children");
        for (Children children : row.children()) {
            writeChildren(children);
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private void writeRows(String name, List<TracedRow> rows) throws IOException {
        json.writeArrayFieldStart(name);
        for (TracedRow row : rows) {
            writeRow(row);
        }
        json.writeEndArray();
    }

    private void writeFaults(TracedRow row) throws IOException {
        json.writeArrayFieldStart("faults");
        for (RowFault fault : row.faults()) {
            json.writeStartObject();
            json.writeStringField("finding", fault.kind().words());
            json.writeStringField("severity", fault.severity().word());
            json.writeStringField("at", fault.at());
            JsonOutput.writeTexts(json, "columns", fault.columns());
            json.writeStringField("problem", fault.problem());
            json.writeEndObject();
        }
        json.writeEndArray();
        if (!row.notJudged().isEmpty()) {
            json.writeStringField("not_judged", row.notJudged());
        }
    }

    private void writeParent(Parent parent) throws IOException {
        json.writeStartObject();
        json.writeStringField("link", parent.link());
        JsonOutput.writeTexts(json, "columns", parent.columns());
        json.writeStringField("table", parent.table());
        JsonOutput.writeTexts(json, "parent_columns", parent.parentColumns());
        json.writeStringField(
                "state", parent.state().name().toLowerCase(Locale.ROOT).replace('_', ' '));
        json.writeNumberField("rows", parent.parents());
        if (parent.hint().isPresent()) {
            writeHint("hint", parent.hint().get());
        }
        if (parent.parent().isPresent()) {
            json.writeFieldName("parent");
            writeRow(parent.parent().get());
        }
        json.writeEndObject();
    }

    private void writeChildren(Children children) throws IOException {
        json.writeStartObject();
        json.writeStringField("link", children.link());
        json.writeStringField("table", children.table());
        JsonOutput.writeTexts(json, "columns", children.columns());
        json.writeNumberField("rows", children.rows());
        writeSums(children.totals());
        writeRows("first", children.first());
        json.writeArrayFieldStart("below");
        for (Below below : children.below()) {
            json.writeStartObject();
            JsonOutput.writeTexts(json, "links", below.links());
            json.writeStringField("table", below.table());
            json.writeNumberField("rows", below.rows());
            writeSums(below.totals());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private void writeSums(List<Sum> sums) throws IOException {
        json.writeArrayFieldStart("totals");
        for (Sum sum : sums) {
            json.writeStartObject();
            json.writeStringField("total", sum.text());
            json.writeNumberField("sum", sum.sum());
            json.writeEndObject();
        }
        json.writeEndArray();
    }
}
