package taxiomet.reports.json;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.util.MinimalPrettyPrinter;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.List;
import java.util.PrimitiveIterator;
import java.util.zip.GZIPOutputStream;
import taxiomet.finding.KeptResult;
import taxiomet.finding.KeptResult.KeptFinding;
import taxiomet.finding.KeptResult.KeptParents;
import taxiomet.finding.KeptResult.KeptRow;
import taxiomet.finding.KeptResult.KeptTable;
import taxiomet.reports.OutputException;

/**
 * What is kept of a check, as compressed JSON; docs/formats/kept.schema.json says what is in it. Keys of parents are written as the
 * differences from one to the next, ascending, seven bits a byte, the lowest first, the highest bit set where more follow.
 */
public final class KeptJson {
    /** What it is called in a folder of evidence. */
    public static final String FILE = "kept.json.gz";

    private static final int BITS = 7;

    private final KeptResult result;
    private final Provenance provenance;

    private KeptJson(KeptResult result, Provenance provenance) {
        this.result = result;
        this.provenance = provenance;
    }

    /** @throws OutputException when the file cannot be written */
    public static void write(KeptResult result, Provenance provenance, Path file) {
        try (JsonGenerator json =
                new JsonFactory().createGenerator(new GZIPOutputStream(Files.newOutputStream(file), 1 << 13))) {
            json.setPrettyPrinter(new MinimalPrettyPrinter("\n"));
            Provenance whenKept = new Provenance(provenance.program(), result.made(), provenance.charter());
            new KeptJson(result, whenKept).write(json);
            json.writeRaw('\n');
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        }
    }

    private void write(JsonGenerator json) throws IOException {
        provenance.begin(json, "kept", result.title());
        json.writeStringField("key_mark", result.keyMark());
        json.writeArrayFieldStart("tables");
        for (KeptTable table : result.tables()) {
            json.writeStartObject();
            json.writeStringField("table", table.name());
            json.writeNumberField("rows", table.rows());
            json.writeNumberField("faulty_rows", table.faultyRows());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeArrayFieldStart("findings");
        for (KeptFinding finding : result.findings()) {
            json.writeStartObject();
            json.writeStringField("finding", finding.kind().words());
            json.writeStringField("severity", finding.severity().word());
            json.writeStringField("table", finding.table());
            json.writeStringField("at", finding.at());
            json.writeNumberField("rows", finding.rows());
            json.writeNumberField("accepted", finding.accepted());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeArrayFieldStart("rows");
        writeRows(result.findings(), json);
        json.writeEndArray();
        json.writeArrayFieldStart("parents");
        for (KeptParents parents : result.parents()) {
            json.writeStartObject();
            json.writeStringField("child", parents.child());
            json.writeStringField("link", parents.link());
            json.writeNumberField("count", parents.size());
            json.writeStringField("keys", Base64.getEncoder().encodeToString(differences(parents)));
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private static void writeRows(List<KeptFinding> findings, JsonGenerator json) throws IOException {
        for (int i = 0; i < findings.size(); i++) {
            for (KeptRow row : findings.get(i).kept()) {
                json.writeStartObject();
                json.writeNumberField("finding", i);
                json.writeStringField("row", row.name());
                json.writeStringField("is", Long.toHexString(row.identity()));
                if (row.rest() != 0) {
                    json.writeStringField("holds", Long.toHexString(row.rest()));
                }
                if (row.pointsAt() != 0) {
                    json.writeStringField("points_at", Long.toHexString(row.pointsAt()));
                }
                if (row.isAccepted()) {
                    json.writeBooleanField("accepted", true);
                }
                json.writeEndObject();
            }
        }
    }

    private static byte[] differences(KeptParents parents) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        long before = 0;
        PrimitiveIterator.OfLong keys = parents.keys().iterator();
        while (keys.hasNext()) {
            long key = keys.nextLong();
            long left = key - before;
            while (left >>> BITS != 0) {
                bytes.write((int) (left & (1 << BITS) - 1) | 1 << BITS);
                left >>>= BITS;
            }
            bytes.write((int) left);
            before = key;
        }
        return bytes.toByteArray();
    }
}
