package taxiomet.charters.ddl;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import taxiomet.charter.Problem;
import taxiomet.charter.Problem.Kind;
import taxiomet.charters.sql.SqlTokens.Token;

/** What is to be said about a script that can be used all the same. */
final class SchemaNotes {
    private final String file;
    private final List<Problem> notes = new ArrayList<>();
    private final Map<String, Integer> passedOver = new TreeMap<>();

    SchemaNotes(String file) {
        this.file = file;
    }

    void say(Token place, String note) {
        notes.add(new Problem(file, place.line(), place.column(), Kind.MEANING, note, ""));
    }

    /** Counts a statement that declares nothing of ours. */
    void passOver(Token place, String what) {
        passedOver.merge(what, 1, Integer::sum);
    }

    List<Problem> all() {
        List<Problem> all = new ArrayList<>(notes);
        if (!passedOver.isEmpty()) {
            int count = passedOver.values().stream().mapToInt(Integer::intValue).sum();
            String kinds = passedOver.entrySet().stream()
                    .map(e -> e.getKey() + " " + e.getValue())
                    .collect(Collectors.joining(", "));
            all.add(new Problem(
                    file,
                    0,
                    0,
                    Kind.MEANING,
                    count + (count == 1 ? " statement declares" : " statements declare") + " no table, and "
                            + (count == 1 ? "was" : "were") + " passed over: " + kinds,
                    ""));
        }
        return all;
    }
}
