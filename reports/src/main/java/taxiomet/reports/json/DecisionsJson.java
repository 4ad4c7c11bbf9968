package taxiomet.reports.json;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import taxiomet.finding.settled.DocketDecisions;

/** What became of the decisions in filled dockets, as part of a rehearsal. */
final class DecisionsJson {
    private DecisionsJson() {}

    /** Writes it as a field. */
    static void write(DocketDecisions decisions, JsonGenerator json) throws IOException {
        json.writeObjectFieldStart("docket");
        json.writeNumberField("rows", decisions.items());
        json.writeNumberField("decided", decisions.decided());
        json.writeNumberField("borne", decisions.borne());
        json.writeNumberField("elsewhere", decisions.elsewhere());
        json.writeNumberField("not_in_docket", decisions.notInDocket());
        JsonOutput.writeTexts(json, "open", decisions.open());
        json.writeArrayFieldStart("left_out");
        for (DocketDecisions.Remark remark : decisions.remarks()) {
            json.writeStartObject();
            json.writeStringField("why", remark.why().word());
            json.writeStringField("place", remark.place());
            json.writeStringField("words", remark.words());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeEndObject();
    }
}
