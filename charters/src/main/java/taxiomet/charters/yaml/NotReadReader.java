package taxiomet.charters.yaml;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import taxiomet.charter.NotRead;
import taxiomet.charter.NotRead.What;
import taxiomet.charter.Severity;
import taxiomet.charters.yaml.Node.Entry;
import taxiomet.charters.yaml.Node.MapNode;

/** Reads what a schema declared and could not be read as a rule of a charter. */
final class NotReadReader {
    private final Problems problems;

    NotReadReader(Problems problems) {
        this.problems = problems;
    }

    /** The `not_read` of a table, or of the charter where it belongs to none. */
    List<NotRead> read(Fields owner, Optional<String> table) {
        List<NotRead> all = new ArrayList<>();
        for (Entry entry : owner.named("not_read")) {
            if (entry.value() instanceof MapNode map) {
                all.add(one(entry, map, table));
            } else {
                problems.form(
                        entry.value(),
                        "`" + entry.key().text() + "` in `not_read` is a mapping, not "
                                + entry.value().words(),
                        "give it `what`, `declared` and `problem`");
            }
        }
        return all;
    }

    private NotRead one(Entry entry, MapNode map, Optional<String> table) {
        Fields fields = new Fields(
                problems,
                map,
                "`" + entry.key().text() + "` in `not_read`",
                List.of("what", "declared", "problem", "severity"),
                List.of());
        fields.require("declared");
        String[] words = Arrays.stream(What.values()).map(What::word).toArray(String[]::new);
        return new NotRead(
                What.valueOf(fields.word("what", words).toUpperCase(Locale.ROOT)),
                table,
                entry.key().text(),
                fields.text("declared").orElse(""),
                fields.text("problem").orElse(""),
                problems.place(entry.key()),
                Severity.valueOf(
                        fields.word("severity", "error", "warning", "note").toUpperCase(Locale.ROOT)));
    }
}
