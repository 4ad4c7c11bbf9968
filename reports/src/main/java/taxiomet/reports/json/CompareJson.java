package taxiomet.reports.json;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.time.temporal.ChronoUnit;
import java.util.List;
import taxiomet.finding.FindingShift;
import taxiomet.finding.ResultComparison;
import taxiomet.finding.ResultComparison.Standing;

/** What is new and gone between results, as JSON; docs/formats/compare.schema.json says what is in it. */
public final class CompareJson {
    private final List<ResultComparison> steps;
    private final Provenance provenance;

    /** @param steps from each result to the next, at least one */
    public CompareJson(List<ResultComparison> steps, Provenance provenance) {
        this.steps = List.copyOf(steps);
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
        provenance.begin(json, "compare", steps.get(steps.size() - 1).title());
        json.writeArrayFieldStart("steps");
        for (ResultComparison step : steps) {
            write(step, json);
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    /** One step, as an object. */
    static void write(ResultComparison step, JsonGenerator json) throws IOException {
        json.writeStartObject();
        write("earlier", step.earlier(), json);
        write("later", step.later(), json);
        json.writeBooleanField("rows_compared", step.areRowsKnown());
        json.writeNumberField("new_faults", step.newFaults());
        json.writeNumberField("gone_faults", step.goneFaults());
        json.writeNumberField("still", step.still());
        json.writeArrayFieldStart("changes");
        for (FindingShift shift : step.shifts()) {
            write(shift, json);
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private static void write(String name, Standing standing, JsonGenerator json) throws IOException {
        json.writeObjectFieldStart(name);
        json.writeStringField(
                "made", standing.made().truncatedTo(ChronoUnit.SECONDS).toString());
        json.writeNumberField("errors", standing.errors());
        json.writeNumberField("warnings", standing.warnings());
        json.writeNumberField("notes", standing.notes());
        json.writeNumberField("rows", standing.rows());
        json.writeNumberField("faulty_rows", standing.faultyRows());
        json.writeNumberField("accepted", standing.accepted());
        json.writeEndObject();
    }

    private static void write(FindingShift shift, JsonGenerator json) throws IOException {
        json.writeStartObject();
        json.writeStringField("finding", shift.kind().words());
        json.writeStringField("severity", shift.severity().word());
        json.writeStringField("table", shift.table());
        json.writeStringField("at", shift.at());
        json.writeNumberField("before", shift.before());
        json.writeNumberField("now", shift.now());
        json.writeBooleanField("rows_compared", shift.areRowsKnown());
        JsonOutput.writeTexts(json, "new", shift.newRows());
        JsonOutput.writeTexts(json, "gone", shift.goneRows());
        json.writeArrayFieldStart("renumbered");
        for (FindingShift.Renumbered row : shift.renumbered()) {
            json.writeStartObject();
            json.writeStringField("before", row.before());
            json.writeStringField("now", row.now());
            json.writeEndObject();
        }
        json.writeEndArray();
        JsonOutput.writeTexts(json, "accepted_no_more", shift.acceptedAgain());
        json.writeNumberField("newly_accepted", shift.newlyAccepted());
        JsonOutput.writeTexts(json, "parent_was_there", shift.lostParents());
        json.writeEndObject();
    }
}
