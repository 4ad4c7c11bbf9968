package taxiomet.reports.json;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.StreamWriteFeature;
import com.fasterxml.jackson.core.util.DefaultIndenter;
import com.fasterxml.jackson.core.util.DefaultPrettyPrinter;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import taxiomet.finding.ChildrenTally;
import taxiomet.reports.OutputException;
import taxiomet.vet.LinkGraph.ManyToMany;

/** JSON as all results are written: two blanks of indentation, a line end at the end. */
final class JsonOutput {
    private static final JsonFactory FACTORY =
            JsonFactory.builder().disable(StreamWriteFeature.AUTO_CLOSE_TARGET).build();

    private JsonOutput() {}

    /** Writes one document. */
    interface Content {
        void write(JsonGenerator json) throws IOException;
    }

    /** Writes to a stream, which stays open. */
    static void write(OutputStream out, Content content) throws IOException {
        DefaultIndenter indenter = new DefaultIndenter("  ", "\n");
        DefaultPrettyPrinter printer = new DefaultPrettyPrinter();
        printer.indentArraysWith(indenter);
        printer.indentObjectsWith(indenter);
        try (JsonGenerator generator = FACTORY.createGenerator(out)) {
            generator.setPrettyPrinter(printer);
            content.write(generator);
            generator.writeRaw('\n');
        }
    }

    /** @throws OutputException when the file cannot be written */
    static void write(Path file, Content content) {
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file))) {
            write(out, content);
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        }
    }

    static void writeTexts(JsonGenerator json, String name, List<String> texts) throws IOException {
        json.writeArrayFieldStart(name);
        for (String text : texts) {
            json.writeString(text);
        }
        json.writeEndArray();
    }

    /** Tables joined many to many. */
    static void writePairs(JsonGenerator json, List<ManyToMany> pairs) throws IOException {
        json.writeArrayFieldStart("many_to_many");
        for (ManyToMany pair : pairs) {
            json.writeStartObject();
            json.writeStringField("one", pair.one());
            json.writeStringField("other", pair.other());
            json.writeStringField("through", pair.through());
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    static void writeTally(JsonGenerator json, ChildrenTally tally) throws IOException {
        json.writeObjectFieldStart("children");
        json.writeNumberField("parents", tally.parents());
        json.writeNumberField("childless", tally.childless());
        json.writeNumberField("least", tally.least());
        json.writeNumberField("median", tally.median());
        json.writeNumberField("most", tally.most());
        json.writeNumberField("pairs", tally.pairs());
        json.writeEndObject();
    }
}
