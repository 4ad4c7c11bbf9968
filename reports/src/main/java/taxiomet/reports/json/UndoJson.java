package taxiomet.reports.json;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.util.MinimalPrettyPrinter;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;

/** Writes how to go back from the files of a rehearsal to those that were read; docs/formats/undo.schema.json says what is in it. */
public final class UndoJson implements AutoCloseable {
    private final JsonGenerator json;

    public UndoJson(Path file, Provenance provenance, String title) throws IOException {
        json = new JsonFactory().createGenerator(new BufferedOutputStream(Files.newOutputStream(file)));
        json.setPrettyPrinter(new MinimalPrettyPrinter("\n"));
        provenance.begin(json, "undo", title);
        json.writeArrayFieldStart("files");
    }

    /** Begins a file, by its place in the folder. */
    public void begin(String place) throws IOException {
        json.writeStartObject();
        json.writeStringField("file", place);
        json.writeArrayFieldStart("edits");
    }

    /** One edit of the file begun: at a place in the copy, so many bytes give way to what stood there. */
    public void edit(long at, long remove, byte[] put) throws IOException {
        json.writeStartObject();
        json.writeNumberField("at", at);
        json.writeNumberField("remove", remove);
        try {
            json.writeStringField(
                    "put",
                    StandardCharsets.UTF_8
                            .newDecoder()
                            .decode(ByteBuffer.wrap(put))
                            .toString());
        } catch (CharacterCodingException e) {
            json.writeStringField("put_base64", Base64.getEncoder().encodeToString(put));
        }
        json.writeEndObject();
    }

    /** Ends the file begun: how many bytes the copy and the original hold before any compression, and their digests. */
    public void end(long copyBytes, String copySha256, long originalBytes, String originalSha256) throws IOException {
        json.writeEndArray();
        write("copy", copyBytes, copySha256);
        write("original", originalBytes, originalSha256);
        json.writeEndObject();
    }

    private void write(String name, long bytes, String sha256) throws IOException {
        json.writeObjectFieldStart(name);
        json.writeNumberField("bytes", bytes);
        json.writeStringField("sha256", sha256);
        json.writeEndObject();
    }

    @Override
    public void close() throws IOException {
        json.writeEndArray();
        json.writeEndObject();
        json.writeRaw('\n');
        json.close();
    }
}
