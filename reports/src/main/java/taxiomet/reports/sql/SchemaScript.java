package taxiomet.reports.sql;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import taxiomet.reports.sql.SchemaStep.LeftOut;

/** The rules of a charter as a script for a server, with what each step touches; or the rows in the way; or the way back. */
public final class SchemaScript {
    /** What a script is for. */
    public enum Part {
        /** Puts the rules in place. */
        RULES,
        /** Lists the rows that stand in the way, rule by rule. */
        QUERIES,
        /** Takes the rules away again, the last first. */
        BACK
    }

    private SchemaScript() {}

    /**
     * A script.
     *
     * @param title what the charter is called
     */
    public static String of(SchemaPlan plan, Part part, String title) {
        List<String> lines = new ArrayList<>();
        lines.add("-- " + plain(title) + ": "
                + switch (part) {
                    case RULES -> "its rules, for ";
                    case QUERIES -> "rows that stand in the way of its rules, for ";
                    case BACK -> "the way back from its rules, for ";
                }
                + plan.server().title());
        if (part == Part.RULES) {
            lines.add("-- Each statement stands for itself: one that is refused leaves those before it in place.");
            for (LeftOut left : plan.left()) {
                lines.add("-- not put in place: " + plain(left.what()) + " (" + plain(left.why()) + ")");
            }
        }
        List<SchemaStep> steps = new ArrayList<>(plan.steps());
        if (part == Part.BACK) {
            Collections.reverse(steps);
        }
        for (SchemaStep step : steps) {
            List<String> statements = switch (part) {
                case RULES -> step.statements();
                case QUERIES -> step.query().stream().toList();
                case BACK -> step.back();
            };
            if (!statements.isEmpty()) {
                lines.add("");
                lines.add("-- " + plain(step.what()) + (part == Part.RULES ? ": " + plain(step.touches()) : ""));
                statements.forEach(statement -> lines.add(statement + ";"));
            }
        }
        return String.join("\n", lines) + "\n";
    }

    private static String plain(String words) {
        return words.replaceAll("\\p{Cntrl}", " ");
    }
}
