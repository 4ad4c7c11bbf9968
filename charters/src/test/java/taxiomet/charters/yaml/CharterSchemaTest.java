package taxiomet.charters.yaml;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.dataformat.yaml.YAMLFactory;
import com.networknt.schema.JsonSchema;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion.VersionFlag;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import taxiomet.charter.CharterException;
import taxiomet.charter.Problem;

/** The JSON Schema and the reader accept and refuse the same documents, as far as their form goes. */
class CharterSchemaTest {
    private static final Path ROOT = Path.of("..");
    private static final int MUTATIONS = 2_000;
    private static final long SEED = 20_261_124L;

    private static final List<String> STRAYS = List.of(
            "\"x\"",
            "7",
            "true",
            "null",
            "[]",
            "{}",
            "[\"a\", \"b\"]",
            "{\"a\": \"b\"}",
            "\"integer\"",
            "\"1..4\"",
            "\"4..1\"",
            "\"cascade\"",
            "\"yes\"",
            "false",
            "\";\"",
            "\"\"",
            "[1, null]",
            "\"set null\"",
            "{\"set null\": [\"a\"]}",
            "\"numeric(3)\"",
            "\"VARCHAR ( 12 )\"",
            "\"varchar(0)\"",
            "\"double precision(3)\"",
            "\"timestamp(3) with time zone\"",
            "\"time with time zone\"",
            "\"utf8\"",
            "1.5",
            "\"tab\"",
            "\"equal\"",
            "\"warning\"",
            "\"deferred\"",
            "\"ignore case\"",
            "\"by default\"");

    private final ObjectMapper json = new ObjectMapper();
    private final JsonSchema schema;

    CharterSchemaTest() throws IOException {
        schema = JsonSchemaFactory.getInstance(VersionFlag.V202012)
                .getSchema(Files.readString(ROOT.resolve("docs/formats/charter.schema.json")));
    }

    /** The problems that a schema can see. */
    private static List<String> problemsOfForm(String document) {
        try {
            CharterReader.read(Path.of("charter.json"), document.getBytes(StandardCharsets.UTF_8));
            return List.of();
        } catch (CharterException e) {
            return e.problems().stream()
                    .filter(p -> p.kind() != Problem.Kind.MEANING)
                    .map(Problem::toString)
                    .toList();
        }
    }

    private JsonNode demo() throws IOException {
        return new ObjectMapper(new YAMLFactory())
                .readTree(ROOT.resolve("demo/charter.yaml").toFile());
    }

    @Test
    void the_demo_fits_the_schema() throws IOException {
        assertThat(schema.validate(demo())).isEmpty();
        assertThat(problemsOfForm(demo().toString())).isEmpty();
    }

    @Test
    void changed_documents_are_accepted_and_refused_alike() throws IOException {
        Random random = new Random(SEED);
        int refused = 0;
        for (int i = 0; i < MUTATIONS; i++) {
            JsonNode document = demo().deepCopy();
            change(document, random);
            boolean isAcceptedBySchema = schema.validate(document).isEmpty();
            List<String> problems = problemsOfForm(document.toString());
            assertThat(problems.isEmpty())
                    .as("seed %d, document %d: schema %s, reader %s", SEED, i, schema.validate(document), problems)
                    .isEqualTo(isAcceptedBySchema);
            refused += isAcceptedBySchema ? 0 : 1;
        }
        assertThat(refused).isBetween(MUTATIONS / 3, MUTATIONS * 9 / 10);
    }

    /** Takes a key away, gives it another name, or puts something else in its place. */
    private void change(JsonNode document, Random random) throws IOException {
        List<ObjectNode> objects = new ArrayList<>();
        collect(document, objects);
        ObjectNode object = objects.get(random.nextInt(objects.size()));
        List<String> names = new ArrayList<>();
        object.fieldNames().forEachRemaining(names::add);
        if (names.isEmpty()) {
            object.set("x", JsonNodeFactory.instance.textNode("y"));
            return;
        }
        String name = names.get(random.nextInt(names.size()));
        switch (random.nextInt(6)) {
            case 0 -> object.remove(name);
            case 1 -> object.set(name + "s", object.remove(name));
            default -> object.set(name, json.readTree(STRAYS.get(random.nextInt(STRAYS.size()))));
        }
    }

    private static void collect(JsonNode node, List<ObjectNode> objects) {
        if (node instanceof ObjectNode object) {
            objects.add(object);
        }
        if (node instanceof ObjectNode || node instanceof ArrayNode) {
            node.forEach(child -> collect(child, objects));
        }
    }
}
