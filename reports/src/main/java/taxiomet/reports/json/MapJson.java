package taxiomet.reports.json;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.Optional;
import taxiomet.finding.MapResult;
import taxiomet.finding.MapResult.Health;
import taxiomet.finding.MapResult.MapColumn;
import taxiomet.finding.MapResult.MapLink;
import taxiomet.finding.MapResult.MapTable;

/** The map as JSON. */
public final class MapJson {
    private final JsonGenerator json;

    private MapJson(JsonGenerator json) {
        this.json = json;
    }

    /** Writes a map; the stream stays open. */
    public static void write(MapResult map, Provenance provenance, OutputStream out) throws IOException {
        JsonOutput.write(out, json -> new MapJson(json).write(map, provenance));
    }

    /** @throws taxiomet.reports.OutputException when the file cannot be written */
    public static void write(MapResult map, Provenance provenance, Path file) {
        JsonOutput.write(file, json -> new MapJson(json).write(map, provenance));
    }

    private void write(MapResult map, Provenance provenance) throws IOException {
        provenance.begin(json, "map", map.title());
        json.writeNumberField("left_out", map.left());
        json.writeArrayFieldStart("tables");
        for (MapTable table : map.tables()) {
            json.writeStartObject();
            json.writeStringField("table", table.name());
            if (table.area().isPresent()) {
                json.writeStringField("area", table.area().get());
            }
            JsonOutput.writeTexts(json, "label_columns", table.label());
            if (table.rows().isPresent()) {
                json.writeNumberField("rows", table.rows().getAsLong());
            }
            json.writeArrayFieldStart("columns");
            for (MapColumn column : table.columns()) {
                json.writeStartObject();
                json.writeStringField("column", column.name());
                json.writeStringField("type", column.type());
                json.writeBooleanField("primary_key", column.isOfPrimaryKey());
                JsonOutput.writeTexts(json, "unique", column.keys());
                json.writeBooleanField("not_null", column.isRequired());
                json.writeEndObject();
            }
            json.writeEndArray();
            write(table.health());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeArrayFieldStart("links");
        for (MapLink link : map.links()) {
            json.writeStartObject();
            json.writeStringField("link", link.name());
            json.writeStringField("child", link.child());
            JsonOutput.writeTexts(json, "columns", link.columns());
            json.writeStringField("parent", link.parent());
            JsonOutput.writeTexts(json, "parent_columns", link.parentColumns());
            json.writeStringField("parents", link.parents());
            json.writeStringField("children", link.children());
            json.writeStringField("on_delete", link.onDelete());
            json.writeBooleanField("enforced", link.isEnforced());
            json.writeStringField("sentence", link.sentence());
            write(link.health());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private void write(Optional<Health> health) throws IOException {
        if (health.isEmpty()) {
            return;
        }
        json.writeObjectFieldStart("health");
        json.writeNumberField("rows", health.get().rows());
        json.writeNumberField("faulty_rows", health.get().faulty());
        JsonOutput.writeTexts(json, "findings", health.get().findings());
        json.writeEndObject();
    }
}
