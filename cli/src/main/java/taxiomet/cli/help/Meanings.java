package taxiomet.cli.help;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import taxiomet.finding.FindingKind;
import taxiomet.finding.RefusalKind;

/** What each kind of finding and of refusal means and what to do about it, as written in {@code meanings.txt}. */
public final class Meanings {
    private static final String FILE = "meanings.txt";
    private static final String HEADING = "# ";

    private final Map<String, List<String>> paragraphs = new LinkedHashMap<>();

    public Meanings() {
        try (InputStream in = Meanings.class.getResourceAsStream(FILE)) {
            String text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
            List<String> current = new ArrayList<>();
            for (String line : text.lines().filter(l -> !l.isBlank()).toList()) {
                if (line.startsWith(HEADING)) {
                    current = new ArrayList<>();
                    paragraphs.put(line.substring(HEADING.length()), current);
                } else {
                    current.add(line);
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The kinds of finding, in the order in which a steward mends them. */
    public static List<String> findings() {
        return Arrays.stream(FindingKind.values()).map(FindingKind::words).toList();
    }

    /** The kinds of refusal that are no kinds of finding as well. */
    public static List<String> refusals() {
        return Arrays.stream(RefusalKind.values())
                .map(RefusalKind::words)
                .filter(words -> !findings().contains(words))
                .toList();
    }

    /** All kinds, those of findings first. */
    public static List<String> kinds() {
        List<String> kinds = new ArrayList<>(findings());
        kinds.addAll(refusals());
        return kinds;
    }

    /** A kind by its words, with blanks, hyphens or underscores between them. */
    public static Optional<String> find(String text) {
        String wanted = plain(text);
        return kinds().stream().filter(kind -> plain(kind).equals(wanted)).findFirst();
    }

    private static String plain(String text) {
        return text.strip().toLowerCase(Locale.ROOT).replace('_', ' ').replace('-', ' ');
    }

    /** A kind as one word, for a command line. */
    public static String asWord(String kind) {
        return kind.replace(' ', '-');
    }

    /** What a kind is, in one line. */
    public String summary(String kind) {
        return of(kind).get(0);
    }

    /** All there is to say about a kind; the first paragraph is its summary. */
    public List<String> of(String kind) {
        return List.copyOf(paragraphs.get(kind));
    }
}
