package taxiomet.reports.json;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.util.Locale;
import taxiomet.finding.LoadResult;
import taxiomet.finding.LoadResult.LoadRefusal;
import taxiomet.finding.LoadResult.LoadedTable;

/** What a load would come to, as part of a check's document. */
final class LoadJson {
    private LoadJson() {}

    static void write(LoadResult load, JsonGenerator json) throws IOException {
        json.writeObjectFieldStart("load");
        json.writeNumberField("rows", load.rows());
        json.writeNumberField("loaded", load.loaded());
        json.writeArrayFieldStart("tables");
        for (LoadedTable table : load.tables()) {
            json.writeStartObject();
            json.writeStringField("table", table.name());
            json.writeNumberField("rows", table.rows());
            json.writeNumberField("loaded", table.loaded());
            json.writeArrayFieldStart("refused");
            for (LoadRefusal refusal : table.refusals()) {
                json.writeStartObject();
                json.writeStringField(
                        "why", refusal.why().name().toLowerCase(Locale.ROOT).replace('_', ' '));
                if (refusal.finding().isPresent()) {
                    json.writeStringField("finding", refusal.finding().get().words());
                }
                json.writeStringField("at", refusal.at());
                json.writeNumberField("rows", refusal.rows());
                json.writeStringField("first_file", refusal.part());
                json.writeNumberField("first_row", refusal.first());
                json.writeEndObject();
            }
            json.writeEndArray();
            json.writeEndObject();
        }
        json.writeEndArray();
        JsonOutput.writeTexts(json, "not_enforced", load.notHeld());
        JsonOutput.writeTexts(json, "in_circle", load.inCircle());
        json.writeEndObject();
    }
}
