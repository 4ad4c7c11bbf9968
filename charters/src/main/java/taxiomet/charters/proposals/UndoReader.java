package taxiomet.charters.proposals;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.JsonToken;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import taxiomet.proposal.ProposalException;

/** Reads how to go back from the files that a rehearsal wrote (docs/formats/undo.schema.json). */
public final class UndoReader {
    private final Path file;
    private JsonParser json;

    /**
     * One file.
     *
     * @param place in the folder of the undo
     * @param edits in the order of their places
     */
    public record FileUndo(String place, List<Edit> edits, String copySha256, String originalSha256) {}

    /** At a place in the copy, so many bytes give way to what stood there. */
    @SuppressWarnings("ArrayRecordComponent")
    public record Edit(long at, long remove, byte[] put) {}

    public UndoReader(Path file) {
        this.file = file;
    }

    /** @throws ProposalException when the file is no such document */
    public List<FileUndo> read() {
        try (JsonParser parser = new JsonFactory().createParser(Files.newInputStream(file))) {
            json = parser;
            List<FileUndo> files = new ArrayList<>();
            boolean isUndo = false;
            boolean isListed = false;
            require(json.nextToken() == JsonToken.START_OBJECT);
            while (json.nextToken() == JsonToken.FIELD_NAME) {
                String name = json.currentName();
                JsonToken value = json.nextToken();
                if (name.equals("taxiomet")) {
                    isUndo = value == JsonToken.VALUE_STRING && json.getText().equals("undo");
                } else if (name.equals("version")) {
                    require(value == JsonToken.VALUE_NUMBER_INT && json.getIntValue() == 1);
                } else if (name.equals("files")) {
                    require(value == JsonToken.START_ARRAY);
                    isListed = true;
                    while (json.nextToken() != JsonToken.END_ARRAY) {
                        require(json.currentToken() == JsonToken.START_OBJECT);
                        files.add(file());
                    }
                } else {
                    json.skipChildren();
                }
            }
            require(isUndo && isListed);
            return files;
        } catch (NoSuchFileException e) {
            throw new ProposalException(file.toString(), "there is no such file", "check the path");
        } catch (JsonProcessingException | IllegalArgumentException e) {
            throw unfit();
        } catch (IOException e) {
            throw new ProposalException(file.toString(), "the file cannot be read (" + e.getMessage() + ")", "");
        }
    }

    private ProposalException unfit() {
        return new ProposalException(
                file.toString(),
                "this is no undo that a rehearsal wrote",
                "name the undo.json in the folder of --into");
    }

    private void require(boolean isMet) {
        if (!isMet) {
            throw unfit();
        }
    }

    private FileUndo file() throws IOException {
        String place = "";
        String copy = "";
        String original = "";
        List<Edit> edits = new ArrayList<>();
        while (json.nextToken() == JsonToken.FIELD_NAME) {
            String name = json.currentName();
            json.nextToken();
            switch (name) {
                case "file" -> place = text();
                case "copy" -> copy = sha256();
                case "original" -> original = sha256();
                case "edits" -> {
                    require(json.currentToken() == JsonToken.START_ARRAY);
                    while (json.nextToken() != JsonToken.END_ARRAY) {
                        require(json.currentToken() == JsonToken.START_OBJECT);
                        edits.add(edit());
                    }
                }
                default -> json.skipChildren();
            }
        }
        require(!place.isEmpty() && place.indexOf('\0') < 0 && !copy.isEmpty() && !original.isEmpty());
        return new FileUndo(place, edits, copy, original);
    }

    private String sha256() throws IOException {
        String digest = "";
        require(json.currentToken() == JsonToken.START_OBJECT);
        while (json.nextToken() == JsonToken.FIELD_NAME) {
            boolean isDigest = json.currentName().equals("sha256");
            json.nextToken();
            if (isDigest) {
                digest = text();
            } else {
                json.skipChildren();
            }
        }
        return digest;
    }

    private String text() throws IOException {
        require(json.currentToken() == JsonToken.VALUE_STRING);
        return json.getText();
    }

    private Edit edit() throws IOException {
        long at = -1;
        long remove = -1;
        byte[] put = new byte[0];
        while (json.nextToken() == JsonToken.FIELD_NAME) {
            String name = json.currentName();
            json.nextToken();
            switch (name) {
                case "at" -> at = json.getLongValue();
                case "remove" -> remove = json.getLongValue();
                case "put" -> put = text().getBytes(StandardCharsets.UTF_8);
                case "put_base64" -> put = Base64.getDecoder().decode(text());
                default -> json.skipChildren();
            }
        }
        require(at >= 0 && remove >= 0);
        return new Edit(at, remove, put);
    }
}
