package taxiomet.reports.json;

import java.io.IOException;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.List;
import taxiomet.finding.CheckResult;
import taxiomet.survey.Trial;

/** What became of keys and links that were tried by hand, as JSON; docs/formats/trials.schema.json says what is in it. */
public final class TrialsJson {
    private final Provenance provenance;
    private final List<Trial> trials = new ArrayList<>();
    private final List<CheckResult> results = new ArrayList<>();

    public TrialsJson(Provenance provenance) {
        this.provenance = provenance;
    }

    /** Adds one with the result of a check of its charter. */
    public void add(Trial trial, CheckResult result) {
        trials.add(trial);
        results.add(result);
    }

    /** Writes to a stream, which stays open. */
    public void write(OutputStream out) throws IOException {
        JsonOutput.write(out, json -> {
            provenance.begin(json, "trials", "");
            json.writeArrayFieldStart("trials");
            for (int i = 0; i < trials.size(); i++) {
                json.writeStartObject();
                json.writeStringField("tried", trials.get(i).words());
                json.writeStringField("what", trials.get(i).link().isPresent() ? "link" : "key");
                json.writeBooleanField("holds", Trial.faults(results.get(i)).isEmpty());
                json.writeFieldName("result");
                CheckJson.writeTo(json, results.get(i), provenance);
                json.writeEndObject();
            }
            json.writeEndArray();
            json.writeEndObject();
        });
    }
}
