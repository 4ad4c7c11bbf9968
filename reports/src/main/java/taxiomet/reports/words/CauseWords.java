package taxiomet.reports.words;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import taxiomet.finding.Cause;
import taxiomet.finding.Cause.Cure;
import taxiomet.finding.Cause.What;
import taxiomet.finding.FindingKind;
import taxiomet.finding.Hint;
import taxiomet.personal.Pseudonyms;

/** What is to be mended, in words, and the command that goes on from there. */
public final class CauseWords {
    private static final int FEW_COLUMNS = 3;

    private CauseWords() {}

    /** What is to be done, as the beginning of a sentence. */
    public static String toDo(Cause cause) {
        String columns = String.join(", ", cause.columns());
        String place = cause.table() + (cause.columns().isEmpty() ? "" : " (" + columns + ")");
        return switch (cause.what()) {
            case ENTER_PARENT ->
                cause.count() > 1
                        ? "enter " + Counted.of(cause.count(), "row") + " of " + cause.table() + " (" + columns
                                + "), or see whether all of its rows were read"
                        : "enter " + cause.table() + " " + written(cause.values()) + " (" + columns + ")";
            case RESPELL -> respelled(cause, place);
            case EMPTY -> emptied(cause, place);
            case MEND_ROW ->
                "mend row " + place(cause.place().orElseThrow(), cause.table()) + " ("
                        + cause.finding().words() + ")";
            case KEEP_ONE ->
                "keep one of " + cause.count() + " rows of " + cause.table() + " with " + columns + " "
                        + written(cause.values()) + differing(cause.differsIn());
            case MEND_EACH ->
                cause.finding() == FindingKind.LIKELY_DOUBLE
                        ? "decide which rows of " + cause.table() + " are one thing (" + cause.at() + ")"
                        : cause.finding() == FindingKind.ORPHAN
                                ? "find parents for the other values of " + cause.table() + "." + cause.at()
                                : "mend " + cause.table() + (cause.at().equals(cause.table()) ? "" : "." + cause.at())
                                        + " (" + cause.finding().words() + ")";
        };
    }

    private static String place(Cause.Place place, String table) {
        return place.row() + " of " + (place.isInParts() ? place.part() : table);
    }

    private static String respelled(Cause cause, String place) {
        if (cause.hint().equals(Optional.of(Hint.Kind.STANDS_FOR_NOTHING))) {
            return "write keys of " + cause.parent() + " in " + place + " for "
                    + (cause.count() == 1 ? written(cause.values()) : cause.count() + " values")
                    + ", which may not be left empty and seem" + (cause.count() == 1 ? "s" : "")
                    + " to stand for nothing";
        }
        Hint.Kind hint = cause.hint().orElseThrow();
        String how = (hint == Hint.Kind.ONE_EDIT ? "" : "the same ") + hint.words();
        if (cause.count() == 1 && !cause.meant().isEmpty()) {
            return "write " + written(cause.meant()) + " for " + written(cause.values()) + " in " + place + ", " + how;
        }
        return "write " + cause.count() + " values of " + place + " as keys of " + cause.parent() + ", " + how
                + comparison(cause);
    }

    private static String comparison(Cause cause) {
        return switch (cause.hint().orElse(Hint.Kind.ONE_EDIT)) {
            case OTHER_CASE -> ", or declare `compare: ignore case` there";
            case TRIMMED -> ", or declare `compare: trimmed` there";
            default -> "";
        };
    }

    private static String emptied(Cause cause, String place) {
        return cause.count() == 1
                ? "leave " + place + " empty in place of " + written(cause.values())
                        + ", which seems to stand for nothing"
                : "leave " + place + " empty where " + cause.count() + " values seem to stand for nothing";
    }

    private static String differing(List<String> columns) {
        if (columns.isEmpty()) {
            return ", which are the same";
        }
        List<String> few = new ArrayList<>(columns.subList(0, Math.min(FEW_COLUMNS, columns.size())));
        return ", which differ in " + String.join(", ", few)
                + (columns.size() > FEW_COLUMNS ? " and " + (columns.size() - FEW_COLUMNS) + " more" : "");
    }

    private static String written(List<String> key) {
        List<String> cells = key.stream().map(CauseWords::quoted).toList();
        return cells.size() == 1 ? cells.get(0) : "(" + String.join(", ", cells) + ")";
    }

    /** Blanks at an end are to be seen. */
    private static String quoted(String cell) {
        return cell.isEmpty() || !cell.strip().equals(cell) ? "\"" + cell + "\"" : cell;
    }

    /** What that cures, as the end of the sentence. */
    public static String cures(Cause cause) {
        if (cause.cures().isEmpty()) {
            return "nothing can be said of its rows before";
        }
        Cure first = cause.cures().get(0);
        boolean isOfItself = cause.what() == What.MEND_EACH || cause.what() == What.MEND_ROW;
        if (isOfItself
                && cause.cures().size() == 1
                && first.kind() == cause.finding()
                && first.table().equals(cause.table())) {
            return "cures " + Counted.of(first.rows(), "row");
        }
        List<String> all = cause.cures().stream().map(CauseWords::cure).toList();
        return "cures " + Counted.listed(all);
    }

    private static String cure(Cure cure) {
        return switch (cure.kind()) {
            case ORPHAN -> Counted.of(cure.rows(), "orphan") + " of " + cure.table();
            case DUPLICATE -> Counted.of(cure.rows(), "duplicate") + " of " + cure.table();
            default ->
                Counted.of(cure.rows(), "row") + " of " + cure.table() + " ("
                        + cure.kind().words() + ")";
        };
    }

    /**
     * The command that goes on from there.
     *
     * @param charter as it was named
     */
    public static String command(Cause cause, String charter) {
        String named = charter.equals("charter.yaml") ? "" : charter + " ";
        if (cause.what() == What.MEND_ROW && cause.place().isPresent()) {
            Cause.Place place = cause.place().get();
            String file = place.isInParts() ? quotedForShell(place.part()) + ":" : "";
            return "taxiomet trace " + named + quotedForShell(cause.table()) + " --row " + file + place.row();
        }
        if (cause.finding() == FindingKind.LIKELY_DOUBLE) {
            String table = quotedForShell(cause.table());
            return "taxiomet docket " + named + "--only " + table + " --report " + table + ".xlsx";
        }
        return change(cause)
                .map(sql -> "taxiomet rehearse " + named + "-e \"" + sql + "\"")
                .orElse("taxiomet meaning " + cause.finding().words().replace(' ', '-'));
    }

    /** A word of a command, in quotes where a shell would take it apart. */
    private static String quotedForShell(String word) {
        return word.matches("[\\p{L}\\p{N}_./-]+") ? word : "'" + word.replace("'", "'\\''") + "'";
    }

    /** The change as SQL, where it can be told. */
    private static Optional<String> change(Cause cause) {
        boolean isPersonal = cause.values().stream().anyMatch(Pseudonyms::isOne)
                || cause.meant().stream().anyMatch(Pseudonyms::isOne);
        if (isPersonal || !arePlain(cause.values()) || !arePlain(cause.meant())) {
            return Optional.empty();
        }
        String table = name(cause.table());
        if (cause.what() == What.ENTER_PARENT && !cause.values().isEmpty()) {
            return Optional.of("INSERT INTO " + table + " ("
                    + cause.columns().stream().map(CauseWords::name).collect(Collectors.joining(", ")) + ") VALUES ("
                    + cause.values().stream().map(CauseWords::literal).collect(Collectors.joining(", ")) + ")");
        }
        if (cause.what() == What.RESPELL && cause.count() == 1 && !cause.meant().isEmpty()) {
            return Optional.of("UPDATE " + table + " SET " + equal(cause.columns(), cause.meant(), ", ") + " WHERE "
                    + equal(cause.columns(), cause.values(), " AND "));
        }
        if (cause.what() == What.EMPTY && cause.count() == 1 && cause.columns().size() == 1) {
            return Optional.of(
                    "UPDATE " + table + " SET " + name(cause.columns().get(0)) + " = NULL WHERE "
                            + equal(cause.columns(), cause.values(), " AND "));
        }
        if (cause.what() == What.KEEP_ONE && cause.place().isPresent()) {
            return Optional.of("DELETE FROM " + table + " WHERE @file = "
                    + literal(cause.place().get().part()) + " AND @row = "
                    + cause.place().get().row());
        }
        return Optional.empty();
    }

    /** Whether values can stand in a shell between double quotes as they are. */
    private static boolean arePlain(List<String> values) {
        return values.stream()
                .allMatch(value -> value.chars().allMatch(c -> c >= ' ' && c != 0x7F && "\"\\$`!".indexOf(c) < 0));
    }

    private static String equal(List<String> columns, List<String> values, String between) {
        List<String> all = new ArrayList<>();
        for (int i = 0; i < columns.size(); i++) {
            all.add(name(columns.get(i)) + " = " + literal(values.get(i)));
        }
        return String.join(between, all);
    }

    private static String literal(String value) {
        return value.matches("-?[1-9][0-9]{0,17}|0") ? value : "'" + value.replace("'", "''") + "'";
    }

    /** A name as SQL takes it without quotes, or with backslashes before these for the shell. */
    private static String name(String name) {
        return name.matches("[a-z_][a-z0-9_]*") ? name : "\\\"" + name + "\\\"";
    }
}
