package taxiomet.sources.json;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParseException;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonPointer;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.core.StreamReadFeature;
import com.fasterxml.jackson.core.exc.StreamConstraintsException;
import com.fasterxml.jackson.core.io.JsonEOFException;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowBatch.MalformedRow;
import taxiomet.rows.RowRef;

/** Takes the objects of some lines apart, into the columns of a batch. It serves one thread. */
final class ObjectReader {
    /** A longer line ends the reading: most often it is no file of JSON lines. */
    static final int LONGEST_LINE = 64 << 20;

    private static final int DEEPEST = 200;
    private static final int LONGEST_NUMBER = 1_000;
    private static final int MOST_UNKNOWN = 1_000;
    static final JsonFactory JSON = JsonFactory.builder()
            .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
            .streamReadConstraints(StreamReadConstraints.builder()
                    .maxNestingDepth(DEEPEST)
                    .maxNumberLength(LONGEST_NUMBER)
                    .maxStringLength(LONGEST_LINE)
                    .build())
            .build();

    private final Map<String, Step> tops = new HashMap<>();
    private final String[] cells;
    private final Collection<String> unknown;
    private boolean hasHalfPair;

    /** What is wanted at one place in an object, and below it. */
    private static final class Step {
        /** The column whose value stands here; -1 for none. */
        private int column = -1;

        private final Map<String, Step> below = new HashMap<>();
    }

    /**
     * @param pointers for each column wanted, where its value stands
     * @param declared names of all fields at the top that some column is read from
     * @param unknown gets the names of other fields at the top; may be shared
     */
    ObjectReader(List<JsonPointer> pointers, Collection<String> unknown, Collection<String> declared) {
        this.cells = new String[pointers.size()];
        this.unknown = unknown;
        declared.forEach(name -> tops.computeIfAbsent(name, n -> new Step()));
        for (int column = 0; column < pointers.size(); column++) {
            JsonPointer pointer = pointers.get(column);
            Step step = tops.computeIfAbsent(pointer.getMatchingProperty(), name -> new Step());
            for (pointer = pointer.tail(); !pointer.matches(); pointer = pointer.tail()) {
                step = step.below.computeIfAbsent(pointer.getMatchingProperty(), name -> new Step());
            }
            step.column = column;
        }
    }

    /** What tells whether a row is wanted. */
    interface Wanted {
        boolean isWanted(long row);
    }

    /** Reads the rows of a run that are wanted into a batch. */
    void read(LineCursor.Run run, int part, Wanted wanted, RowBatch batch) {
        long row = run.row();
        long line = run.line();
        int start = 0;
        while (start < run.length()) {
            int end = start;
            boolean isEmpty = true;
            while (end < run.length() && run.bytes()[end] != '\n') {
                isEmpty &= LineCursor.isBlank(run.bytes()[end]);
                end++;
            }
            if (!isEmpty) {
                if (wanted.isWanted(row)) {
                    readLine(run.bytes(), start, end, part, row, line, batch);
                }
                row++;
            }
            line++;
            start = end + 1;
        }
    }

    private void readLine(byte[] bytes, int start, int end, int part, long row, long line, RowBatch batch) {
        long ref = RowRef.of(part, row);
        String problem = take(bytes, start, end);
        if (problem != null) {
            batch.addMalformed(new MalformedRow(ref, line, problem, raw(bytes, start, end)));
            return;
        }
        for (int i = 0; i < cells.length; i++) {
            if (cells[i] == null) {
                batch.column(i).addNull();
            } else {
                batch.column(i).add(cells[i]);
            }
            cells[i] = null;
        }
        batch.endRow(ref, line, end - start);
    }

    /** Takes one object apart into {@link #cells}; what is wrong with it, as a clause, or null. */
    private String take(byte[] bytes, int start, int end) {
        try {
            StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes, start, end - start));
        } catch (CharacterCodingException e) {
            return "bytes that are not valid UTF-8";
        }
        Arrays.fill(cells, null);
        hasHalfPair = false;
        try (JsonParser parser = JSON.createParser(bytes, start, end - start)) {
            JsonToken first = parser.nextToken();
            if (first != JsonToken.START_OBJECT) {
                return "a JSON object is expected, not " + words(first);
            }
            takeObject(parser, tops, true);
            JsonToken more = parser.nextToken();
            if (hasHalfPair) {
                return "a text holds half of a surrogate pair, which is no character";
            }
            return more == null ? null : "more than one JSON value in the line";
        } catch (JsonEOFException e) {
            return "the JSON object does not end in its line";
        } catch (JsonParseException e) {
            return isDoubled(e)
                    ? said(e)
                    : "no JSON near character " + Math.max(1, e.getLocation().getColumnNr() - 1);
        } catch (StreamConstraintsException e) {
            return "JSON nested deeper than " + DEEPEST + " levels, or a number of more than " + LONGEST_NUMBER
                    + " digits";
        } catch (IOException e) {
            return "no JSON (" + e.getMessage() + ")";
        }
    }

    private static boolean isDoubled(JsonParseException e) {
        String said = e.getOriginalMessage();
        return said.startsWith("Duplicate field ") || said.startsWith("Duplicate Object property ");
    }

    /** What is wrong with JSON, as a clause. */
    static String said(JsonParseException e) {
        String said = e.getOriginalMessage();
        if (isDoubled(e)) {
            String name = said.substring(said.indexOf('\'') + 1, said.lastIndexOf('\''));
            return "the object names field `" + name + "` twice";
        }
        return said.replaceAll("\\s*\\([^()]*\\)$|[:;].*$", "").replaceFirst("^U", "u");
    }

    private static String words(JsonToken token) {
        return switch (token == null ? JsonToken.NOT_AVAILABLE : token) {
            case START_ARRAY -> "an array";
            case VALUE_STRING -> "a text";
            case VALUE_NUMBER_INT, VALUE_NUMBER_FLOAT -> "a number";
            case VALUE_NULL -> "null";
            case VALUE_TRUE, VALUE_FALSE -> "a truth value";
            default -> "nothing";
        };
    }

    private void takeObject(JsonParser parser, Map<String, Step> steps, boolean isTop) throws IOException {
        while (parser.nextToken() != JsonToken.END_OBJECT) {
            String name = parser.currentName();
            parser.nextToken();
            Step step = steps.get(name);
            if (step == null) {
                if (isTop && unknown.size() < MOST_UNKNOWN) {
                    unknown.add(name);
                }
                parser.skipChildren();
            } else {
                takeValue(parser, step);
            }
        }
    }

    private void takeArray(JsonParser parser, Map<String, Step> steps) throws IOException {
        for (int index = 0; parser.nextToken() != JsonToken.END_ARRAY; index++) {
            Step step = steps.get(String.valueOf(index));
            if (step == null) {
                parser.skipChildren();
            } else {
                takeValue(parser, step);
            }
        }
    }

    private void takeValue(JsonParser parser, Step step) throws IOException {
        JsonToken token = parser.currentToken();
        if (token.isScalarValue()) {
            if (step.column >= 0 && token != JsonToken.VALUE_NULL) {
                cells[step.column] = parser.getText();
                hasHalfPair |= token == JsonToken.VALUE_STRING && hasHalfPair(cells[step.column]);
            }
        } else if (step.column >= 0) {
            // A whole object or array is wanted as it is; what may be wanted of its inside has another pointer.
            String text = copied(parser);
            cells[step.column] = text;
            takeInside(text, step);
        } else if (token == JsonToken.START_OBJECT) {
            takeObject(parser, step.below, false);
        } else {
            takeArray(parser, step.below);
        }
    }

    static boolean hasHalfPair(String text) {
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (Character.isSurrogate(c)) {
                boolean isPair = Character.isHighSurrogate(c)
                        && i + 1 < text.length()
                        && Character.isLowSurrogate(text.charAt(i + 1));
                if (!isPair) {
                    return true;
                }
                i++;
            }
        }
        return false;
    }

    private static String copied(JsonParser parser) throws IOException {
        StringWriter text = new StringWriter();
        try (var generator = JSON.createGenerator(text)) {
            generator.copyCurrentStructure(parser);
        }
        return text.toString();
    }

    private void takeInside(String text, Step step) throws IOException {
        if (!step.below.isEmpty()) {
            try (JsonParser inside = JSON.createParser(text)) {
                Step whole = new Step();
                whole.below.putAll(step.below);
                inside.nextToken();
                takeValue(inside, whole);
            }
        }
    }

    private static String raw(byte[] bytes, int start, int end) {
        // Some four bytes a character are enough for the first of them.
        int length = Math.min(end - start, 4 * MalformedRow.MOST_RAW);
        String text = new String(bytes, start, length, StandardCharsets.UTF_8).stripTrailing();
        return text.length() <= MalformedRow.MOST_RAW ? text : text.substring(0, MalformedRow.MOST_RAW);
    }
}
