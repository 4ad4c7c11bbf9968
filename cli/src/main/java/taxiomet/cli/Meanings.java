package taxiomet.cli;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import taxiomet.finding.FindingKind;

/** What each kind of finding means and what to do about it, as written in {@code meanings.txt}. */
final class Meanings {
    private static final String FILE = "meanings.txt";
    private static final String HEADING = "# ";

    private final Map<FindingKind, List<String>> paragraphs = new EnumMap<>(FindingKind.class);

    Meanings() {
        try (InputStream in = Meanings.class.getResourceAsStream(FILE)) {
            String text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
            List<String> current = new ArrayList<>();
            for (String line : text.lines().filter(l -> !l.isBlank()).toList()) {
                if (line.startsWith(HEADING)) {
                    current = new ArrayList<>();
                    String kind = line.substring(HEADING.length());
                    paragraphs.put(FindingKind.parse(kind).orElseThrow(() -> new IllegalStateException(kind)), current);
                } else {
                    current.add(line);
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** What a kind of finding is, in one line. */
    String summary(FindingKind kind) {
        return paragraphs.get(kind).get(0);
    }

    /** All there is to say about a kind; the first paragraph is its summary. */
    List<String> of(FindingKind kind) {
        return List.copyOf(paragraphs.get(kind));
    }
}
