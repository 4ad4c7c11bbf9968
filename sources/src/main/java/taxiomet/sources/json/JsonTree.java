package taxiomet.sources.json;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import java.io.IOException;
import java.io.StringWriter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Values of JSON as a whole: maps, lists, texts, {@link Plain} for numbers and truth values as they are spelled, null. */
final class JsonTree {
    private static final JsonFactory WRITER = new JsonFactory();

    /** A number or a truth value, as it is spelled. */
    record Plain(String text) {}

    private JsonTree() {}

    /**
     * Reads the value that a parser stands at.
     *
     * @param most how many bytes it may take
     */
    static Object read(JsonParser parser, long most) throws IOException {
        return read(parser, parser.currentLocation().getByteOffset() + most, most);
    }

    private static Object read(JsonParser parser, long end, long most) throws IOException {
        if (parser.currentLocation().getByteOffset() > end) {
            throw new IOException("one element of the list has more than " + (most >> 20) + " MB");
        }
        JsonToken token = parser.currentToken();
        switch (token) {
            case START_OBJECT -> {
                Map<String, Object> object = new LinkedHashMap<>();
                while (parser.nextToken() != JsonToken.END_OBJECT) {
                    String name = parser.currentName();
                    parser.nextToken();
                    object.put(name, read(parser, end, most));
                }
                return object;
            }
            case START_ARRAY -> {
                List<Object> list = new ArrayList<>();
                while (parser.nextToken() != JsonToken.END_ARRAY) {
                    list.add(read(parser, end, most));
                }
                return list;
            }
            case VALUE_NULL -> {
                return null;
            }
            case VALUE_STRING -> {
                return parser.getText();
            }
            default -> {
                return new Plain(parser.getText());
            }
        }
    }

    /** A value as the text of a cell: objects and lists as JSON; null for null. */
    static String text(Object value) {
        if (value == null || value instanceof String) {
            return (String) value;
        } else if (value instanceof Plain plain) {
            return plain.text();
        }
        StringWriter text = new StringWriter();
        try (JsonGenerator json = WRITER.createGenerator(text)) {
            write(value, json);
        } catch (IOException e) {
            throw new IllegalStateException("a text in memory cannot be written", e);
        }
        return text.toString();
    }

    private static void write(Object value, JsonGenerator json) throws IOException {
        if (value == null) {
            json.writeNull();
        } else if (value instanceof Map<?, ?> object) {
            json.writeStartObject();
            for (Map.Entry<?, ?> field : object.entrySet()) {
                json.writeFieldName((String) field.getKey());
                write(field.getValue(), json);
            }
            json.writeEndObject();
        } else if (value instanceof List<?> list) {
            json.writeStartArray();
            for (Object element : list) {
                write(element, json);
            }
            json.writeEndArray();
        } else if (value instanceof Plain plain) {
            json.writeRawValue(plain.text());
        } else {
            json.writeString((String) value);
        }
    }

    /** What a value is, in words. */
    static String words(Object value) {
        if (value == null) {
            return "null";
        } else if (value instanceof Map) {
            return "an object";
        } else if (value instanceof List) {
            return "a list";
        }
        return value instanceof String ? "a text" : "a number or a truth value";
    }
}
