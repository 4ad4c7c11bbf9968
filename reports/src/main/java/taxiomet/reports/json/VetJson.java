package taxiomet.reports.json;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.List;
import taxiomet.charter.Problem;
import taxiomet.charter.Severity;
import taxiomet.vet.Judgement;
import taxiomet.vet.VetResult;
import taxiomet.vet.VetResult.LinkMeaning;
import taxiomet.vet.VetResult.Neighbour;

/** The result of vet as JSON. */
public final class VetJson {
    private final VetResult result;
    private final Provenance provenance;
    private final PlaceNames places;

    /** Where declarations stand. */
    public interface PlaceNames {
        /** The place of a declaration, written as file, line and column with colons between them. */
        String of(List<String> path);
    }

    public VetJson(VetResult result, Provenance provenance, PlaceNames places) {
        this.result = result;
        this.provenance = provenance;
        this.places = places;
    }

    /** Writes the result; the stream stays open. */
    public void write(OutputStream out) throws IOException {
        JsonOutput.write(out, this::write);
    }

    /** @throws taxiomet.reports.OutputException when the file cannot be written */
    public void write(Path file) {
        JsonOutput.write(file, this::write);
    }

    private void write(JsonGenerator json) throws IOException {
        provenance.begin(json, "vet", result.title());
        json.writeStringField("answer", result.answer());
        json.writeObjectFieldStart("counts");
        json.writeNumberField(
                "findings", result.judgements().size() + result.remarks().size());
        json.writeNumberField("errors", result.count(Severity.ERROR));
        json.writeNumberField("warnings", result.count(Severity.WARNING));
        json.writeNumberField("notes", result.count(Severity.NOTE));
        json.writeNumberField("tables", result.tables());
        json.writeNumberField("links", result.links().size());
        json.writeEndObject();
        json.writeArrayFieldStart("findings");
        for (Judgement judgement : result.judgements()) {
            writeFinding(
                    json,
                    judgement.kind(),
                    judgement.severity(),
                    places.of(judgement.path()),
                    judgement.path(),
                    judgement.problem(),
                    judgement.remedy());
        }
        for (Problem remark : result.remarks()) {
            writeFinding(
                    json,
                    Judgement.Kind.REMARK,
                    Severity.NOTE,
                    remark.place(),
                    List.of(),
                    remark.problem(),
                    remark.remedy());
        }
        json.writeEndArray();
        json.writeArrayFieldStart("links");
        for (LinkMeaning link : result.links()) {
            json.writeStartObject();
            json.writeStringField("link", link.link());
            json.writeStringField("child", link.child());
            json.writeStringField("parent", link.parent());
            json.writeStringField("meaning", link.sentence());
            json.writeEndObject();
        }
        json.writeEndArray();
        JsonOutput.writePairs(json, result.pairs());
        json.writeArrayFieldStart("load_order");
        for (List<String> step : result.loadOrder()) {
            json.writeStartArray();
            for (String table : step) {
                json.writeString(table);
            }
            json.writeEndArray();
        }
        json.writeEndArray();
        if (result.around().isPresent()) {
            VetResult.Around around = result.around().get();
            json.writeObjectFieldStart("around");
            json.writeStringField("table", around.table());
            writeNeighbours(json, "dependants", around.dependants());
            writeNeighbours(json, "supports", around.supports());
            writeNeighbours(json, "deletable", around.deletable());
            json.writeEndObject();
        }
        json.writeEndObject();
    }

    private static void writeFinding(
            JsonGenerator json,
            Judgement.Kind kind,
            Severity severity,
            String place,
            List<String> path,
            String problem,
            String remedy)
            throws IOException {
        json.writeStartObject();
        json.writeStringField("finding", kind.words());
        json.writeStringField("severity", severity.word());
        json.writeStringField("place", place);
        JsonOutput.writeTexts(json, "path", path);
        json.writeStringField("problem", problem);
        json.writeStringField("remedy", remedy);
        json.writeEndObject();
    }

    private static void writeNeighbours(JsonGenerator json, String name, List<Neighbour> neighbours)
            throws IOException {
        json.writeArrayFieldStart(name);
        for (Neighbour neighbour : neighbours) {
            json.writeStartObject();
            json.writeStringField("table", neighbour.table());
            json.writeNumberField("steps", neighbour.steps());
            json.writeEndObject();
        }
        json.writeEndArray();
    }
}
