package taxiomet.reports.json;

import java.io.IOException;
import java.io.OutputStream;
import taxiomet.finding.settled.CharterComparison;
import taxiomet.finding.settled.CharterComparison.Change;

/** What is different between two charters, as JSON; docs/formats/compare.schema.json says what is in it. */
public final class CharterComparisonJson {
    private final CharterComparison comparison;
    private final Provenance provenance;

    public CharterComparisonJson(CharterComparison comparison, Provenance provenance) {
        this.comparison = comparison;
        this.provenance = provenance;
    }

    /** Writes to a stream, which stays open. */
    public void write(OutputStream out) throws IOException {
        JsonOutput.write(out, json -> {
            provenance.begin(json, "compare", comparison.title());
            json.writeArrayFieldStart("declarations");
            for (Change change : comparison.changes()) {
                json.writeStartObject();
                json.writeStringField("fate", change.fate().word());
                json.writeStringField("what", change.what());
                json.writeStringField("table", change.table());
                json.writeStringField("name", change.name());
                json.writeStringField("before", change.before());
                json.writeStringField("now", change.now());
                json.writeEndObject();
            }
            json.writeEndArray();
            JsonOutput.writeTexts(json, "touched", comparison.touched());
            json.writeEndObject();
        });
    }
}
