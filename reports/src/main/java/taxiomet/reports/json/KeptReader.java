package taxiomet.reports.json;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.core.StreamReadConstraints;
import java.io.EOFException;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.GZIPInputStream;
import taxiomet.charter.Severity;
import taxiomet.finding.FindingKind;
import taxiomet.finding.KeptResult;
import taxiomet.finding.KeptResult.KeptFinding;
import taxiomet.finding.KeptResult.KeptParents;
import taxiomet.finding.KeptResult.KeptRow;
import taxiomet.finding.KeptResult.KeptTable;
import taxiomet.reports.json.HealthReader.NoResult;

/** Reads what {@link KeptJson} writes. */
public final class KeptReader {
    private static final int BITS = 7;
    /** Keys that stand for rows hardly get smaller when they are packed. */
    private static final int MOST_TIMES = 50;

    private static final int SMALL = 1 << 20;
    /** A key of parents takes about four bytes: so many are a hundred million of them. */
    private static final int LONGEST_TEXT = 600_000_000;

    private final JsonParser json;
    private final Map<String, String> head = new HashMap<>();
    private final List<KeptTable> tables = new ArrayList<>();
    private final List<Map<String, String>> findings = new ArrayList<>();
    private final List<List<KeptRow>> rows = new ArrayList<>();
    private final List<KeptParents> parents = new ArrayList<>();

    private KeptReader(JsonParser json) {
        this.json = json;
    }

    /**
     * Reads a document.
     *
     * @throws NoResult when the file cannot be read, or is another document
     */
    public static KeptResult read(Path file) throws NoResult {
        JsonFactory factory = JsonFactory.builder()
                .streamReadConstraints(StreamReadConstraints.builder()
                        .maxStringLength(LONGEST_TEXT)
                        .build())
                .build();
        try (InputStream packed = Files.newInputStream(file);
                JsonParser parser = factory.createParser(
                        new Bounded(new GZIPInputStream(packed, 1 << 13), MOST_TIMES * Files.size(file) + SMALL))) {
            return new KeptReader(parser).read();
        } catch (JsonProcessingException e) {
            throw new NoResult("it is no JSON");
        } catch (IOException | IllegalArgumentException | DateTimeException e) {
            throw new NoResult(
                    e instanceof EOFException
                            ? "it is empty, or cut off"
                            : "it cannot be read (" + e.getMessage() + ")");
        }
    }

    /** Ends what unpacks to more than is sound. */
    private static final class Bounded extends FilterInputStream {
        private long left;

        Bounded(InputStream in, long most) {
            super(in);
            left = most;
        }

        @Override
        public int read() throws IOException {
            byte[] one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xFF;
        }

        @Override
        public int read(byte[] target, int offset, int length) throws IOException {
            int count = in.read(target, offset, length);
            left -= Math.max(0, count);
            if (left < 0) {
                throw new IOException("it unpacks to more than " + MOST_TIMES + " times its size");
            }
            return count;
        }
    }

    private KeptResult read() throws IOException, NoResult {
        if (json.nextToken() != JsonToken.START_OBJECT) {
            throw none();
        }
        while (json.nextToken() == JsonToken.FIELD_NAME) {
            String name = json.currentName();
            JsonToken value = json.nextToken();
            switch (name) {
                case "tables" ->
                    each(table -> tables.add(
                            new KeptTable(text(table, "table"), number(table, "rows"), number(table, "faulty_rows"))));
                case "findings" ->
                    each(finding -> {
                        findings.add(finding);
                        rows.add(new ArrayList<>());
                    });
                case "rows" -> each(row -> rowsOf(number(row, "finding")).add(row(row)));
                case "parents" -> each(each -> parents.add(parents(each)));
                default -> {
                    if (value.isScalarValue()) {
                        head.put(name, json.getText());
                    } else {
                        json.skipChildren();
                    }
                }
            }
        }
        if (!"kept".equals(head.get("taxiomet"))) {
            throw none();
        }
        if (!"1".equals(head.get("version"))) {
            throw new NoResult("it is of version " + head.get("version") + ", which this program does not know");
        }
        List<KeptFinding> all = new ArrayList<>();
        for (int i = 0; i < findings.size(); i++) {
            all.add(finding(findings.get(i), rows.get(i)));
        }
        return new KeptResult(
                Instant.parse(text(head, "made")),
                head.getOrDefault("title", ""),
                text(head, "key_mark"),
                tables,
                all,
                parents);
    }

    private List<KeptRow> rowsOf(long finding) throws NoResult {
        if (finding < 0 || finding >= rows.size()) {
            throw new NoResult("it cannot be read (a row of a finding that is not there)");
        }
        return rows.get((int) finding);
    }

    private static NoResult none() {
        return new NoResult("it is nothing that was kept of a check");
    }

    private static KeptFinding finding(Map<String, String> finding, List<KeptRow> rows) throws NoResult {
        String words = text(finding, "finding");
        FindingKind kind = Arrays.stream(FindingKind.values())
                .filter(each -> each.words().equals(words))
                .findFirst()
                .orElseThrow(() -> new NoResult("it has a finding that this program does not know, " + words));
        Severity severity = Arrays.stream(Severity.values())
                .filter(each -> each.word().equals(finding.get("severity")))
                .findFirst()
                .orElseThrow(() -> new NoResult("it has a finding without a severity"));
        return new KeptFinding(
                kind,
                severity,
                text(finding, "table"),
                text(finding, "at"),
                number(finding, "rows"),
                number(finding, "accepted"),
                rows);
    }

    private static KeptRow row(Map<String, String> row) throws NoResult {
        return new KeptRow(
                mark(text(row, "is")),
                mark(row.getOrDefault("holds", "0")),
                mark(row.getOrDefault("points_at", "0")),
                text(row, "row"),
                "true".equals(row.get("accepted")));
    }

    private static long mark(String digits) {
        return Long.parseUnsignedLong(digits, 16);
    }

    private static KeptParents parents(Map<String, String> each) throws NoResult {
        byte[] bytes = Base64.getDecoder().decode(text(each, "keys"));
        long count = number(each, "count");
        if (count > bytes.length) {
            throw new NoResult("it has fewer keys than it says");
        }
        long[] keys = new long[(int) count];
        int at = 0;
        long before = 0;
        for (int i = 0; i < keys.length; i++) {
            long difference = 0;
            int shift = 0;
            boolean hasMore = true;
            while (hasMore) {
                if (at == bytes.length) {
                    throw new NoResult("it has fewer keys than it says");
                }
                difference |= (long) (bytes[at] & (1 << BITS) - 1) << shift;
                hasMore = bytes[at++] < 0;
                shift += BITS;
            }
            before += difference;
            keys[i] = before;
        }
        return new KeptParents(text(each, "child"), text(each, "link"), keys);
    }

    private static String text(Map<String, String> of, String name) throws NoResult {
        String text = of.get(name);
        if (text == null) {
            throw new NoResult("it lacks `" + name + "`");
        }
        return text;
    }

    private static long number(Map<String, String> of, String name) {
        return Long.parseLong(of.getOrDefault(name, "0"));
    }

    private interface Sink {
        void take(Map<String, String> fields) throws NoResult;
    }

    /** Objects in an array, each with its plain fields. */
    private void each(Sink sink) throws IOException, NoResult {
        if (json.currentToken() != JsonToken.START_ARRAY) {
            throw none();
        }
        while (json.nextToken() == JsonToken.START_OBJECT) {
            sink.take(HealthReader.fields(json));
        }
    }
}
