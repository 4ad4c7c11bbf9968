package taxiomet.reports.json;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.JsonToken;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import taxiomet.finding.FindingKind;
import taxiomet.finding.MapHealth;

/** Reads from the document of a check how it stood with tables and links. */
public final class HealthReader {
    private final JsonParser json;
    private final List<Map<String, String>> tables = new ArrayList<>();
    private final List<Map<String, String>> links = new ArrayList<>();
    private final List<Map<String, String>> findings = new ArrayList<>();
    private String document = "";

    private HealthReader(JsonParser json) {
        this.json = json;
    }

    /** A file that is no document of a check. */
    public static final class NoResult extends Exception {
        private static final long serialVersionUID = 1;

        NoResult(String message) {
            super(message);
        }
    }

    /**
     * Reads a document.
     *
     * @throws NoResult when the file cannot be read, or is another document
     */
    public static MapHealth read(Path file) throws NoResult {
        try (JsonParser parser = new JsonFactory().createParser(Files.newInputStream(file))) {
            return new HealthReader(parser).read();
        } catch (JsonProcessingException e) {
            throw new NoResult("it is no JSON");
        } catch (IOException | NumberFormatException e) {
            throw new NoResult("it cannot be read (" + e.getMessage() + ")");
        }
    }

    private MapHealth read() throws IOException, NoResult {
        if (json.nextToken() != JsonToken.START_OBJECT) {
            throw new NoResult("it is no result of a check");
        }
        while (json.nextToken() == JsonToken.FIELD_NAME) {
            String name = json.currentName();
            json.nextToken();
            switch (name) {
                case "taxiomet" -> document = json.getText();
                case "tables" -> readAll(tables);
                case "links" -> readAll(links);
                case "findings" -> readAll(findings);
                default -> json.skipChildren();
            }
        }
        if (!document.equals("check")) {
            throw new NoResult("it is no result of a check");
        }
        return health();
    }

    private MapHealth health() {
        MapHealth health = MapHealth.unknown();
        tables.forEach(
                table -> health.addTable(table.get("table"), number(table, "rows"), number(table, "faulty_rows")));
        links.forEach(link ->
                health.addLink(link.get("child"), link.get("link"), number(link, "judged"), number(link, "orphans")));
        findings.stream()
                .filter(finding -> !"note".equals(finding.get("severity")))
                .forEach(finding -> Arrays.stream(FindingKind.values())
                        .filter(kind -> kind.words().equals(finding.get("finding")) && !kind.hasNoRows())
                        .forEach(kind -> health.addFinding(
                                kind,
                                finding.get("table"),
                                finding.getOrDefault("child", finding.get("table")),
                                finding.get("at"),
                                number(finding, "rows"))));
        return health;
    }

    private static long number(Map<String, String> of, String name) {
        return Long.parseLong(of.getOrDefault(name, "0"));
    }

    /** Objects in an array, each with its plain fields. */
    private void readAll(List<Map<String, String>> into) throws IOException {
        while (json.nextToken() == JsonToken.START_OBJECT) {
            into.add(fields(json));
        }
    }

    /** The plain fields of the object that a parser stands at the beginning of. */
    static Map<String, String> fields(JsonParser json) throws IOException {
        Map<String, String> fields = new HashMap<>();
        while (json.nextToken() == JsonToken.FIELD_NAME) {
            String name = json.currentName();
            JsonToken value = json.nextToken();
            if (value.isScalarValue()) {
                fields.put(name, json.getText());
            } else {
                json.skipChildren();
            }
        }
        return fields;
    }
}
