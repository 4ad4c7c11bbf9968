package taxiomet.reports.json;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import taxiomet.finding.settled.SiftResult;
import taxiomet.finding.settled.SiftResult.Aside;
import taxiomet.finding.settled.SiftResult.Reason;
import taxiomet.finding.settled.SiftResult.SiftedTable;

/** Which rows are sound together, as JSON; docs/formats/sift.schema.json says what is in it. */
public final class SiftJson {
    private final SiftResult result;
    private final Provenance provenance;

    public SiftJson(SiftResult result, Provenance provenance) {
        this.result = result;
        this.provenance = provenance;
    }

    /** Writes to a stream, which stays open. */
    public void write(OutputStream out) throws IOException {
        JsonOutput.write(out, this::write);
    }

    /** @throws taxiomet.reports.OutputException when the file cannot be written */
    public void write(Path file) {
        JsonOutput.write(file, this::write);
    }

    private void write(JsonGenerator json) throws IOException {
        provenance.begin(json, "sift", result.title());
        json.writeNumberField("rows", result.rows());
        json.writeNumberField("sound", result.rows() - result.aside());
        json.writeNumberField("aside", result.aside());
        json.writeNumberField("mended", result.mended());
        json.writeNumberField("not_read", result.unread());
        json.writeArrayFieldStart("tables");
        for (SiftedTable table : result.tables()) {
            json.writeStartObject();
            json.writeStringField("table", table.name());
            json.writeNumberField("rows", table.rows());
            json.writeNumberField("sound", table.sound());
            json.writeNumberField("aside", table.aside());
            json.writeArrayFieldStart("reasons");
            for (Aside aside : table.reasons()) {
                write(aside, json);
            }
            json.writeEndArray();
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private static void write(Aside aside, JsonGenerator json) throws IOException {
        Reason reason = aside.reason();
        json.writeStartObject();
        json.writeStringField("why", reason.why().word());
        if (reason.finding().isPresent()) {
            json.writeStringField("finding", reason.finding().get().words());
        }
        json.writeStringField("at", reason.at());
        if (reason.causeTable().isPresent()) {
            json.writeStringField("cause_table", reason.causeTable().get());
        }
        json.writeNumberField("rows", aside.rows());
        json.writeEndObject();
    }
}
