package taxiomet.reports.json;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.time.Instant;
import java.time.temporal.ChronoUnit;

/**
 * Where a document comes from: every document says it at its beginning.
 *
 * @param program the program and its version
 * @param made when
 * @param charter the path of the charter as it was named; empty where there is none
 */
public record Provenance(String program, Instant made, String charter) {
    /** The version of all documents; it grows when a reader of the former one could go wrong. */
    private static final int VERSION = 1;

    /** The same in a line, for the foot of a page. */
    public String line() {
        return program + ", " + made.truncatedTo(ChronoUnit.SECONDS) + (charter.isEmpty() ? "" : ", of " + charter);
    }

    /**
     * Begins a document.
     *
     * @param document which it is, as docs/formats names them
     * @param title what the charter is called; empty where there is none
     */
    void begin(JsonGenerator json, String document, String title) throws IOException {
        json.writeStartObject();
        json.writeStringField("taxiomet", document);
        json.writeNumberField("version", VERSION);
        json.writeStringField("program", program);
        json.writeStringField("made", made.truncatedTo(ChronoUnit.SECONDS).toString());
        if (!charter.isEmpty()) {
            json.writeStringField("charter", charter);
        }
        if (!title.isEmpty()) {
            json.writeStringField("title", title);
        }
    }
}
