package taxiomet.survey.search;

import java.util.List;
import java.util.regex.Pattern;
import taxiomet.charter.ColumnType;
import taxiomet.survey.profile.ColumnProfile;
import taxiomet.survey.profile.TableProfile;

/** How likely a person would declare some columns a key: short, early, like a number, named like a key. */
public final class KeyRanking {
    private static final Pattern GLUED = Pattern.compile(
            ".*\\p{Ll}{2}(?:nr|nummer|number|code|key)|.*(?:[a-z]Id|[a-z]ID|[a-z]No)|\\p{Lu}{2,}(?:ID|NO|CD|NR)");
    private static final double WIDTH_COSTS = 0.12;
    private static final double AMOUNT_COSTS = 0.25;
    private static final double PROSE = 40;

    private KeyRanking() {}

    static boolean isNamedLikeKey(String column) {
        List<String> words = NameWords.of(column);
        return NameWords.nameKey(words) || GLUED.matcher(column).matches();
    }

    /** How much one column looks like part of a key, 0 to 1. */
    static double likeness(TableProfile table, int column) {
        ColumnProfile profile = table.columns.get(column);
        double score = 0.32;
        score += 0.22 * (1 - (double) column / Math.max(1, table.width()));
        score += isNamedLikeKey(profile.name()) ? 0.2 : 0;
        ColumnType type = profile.guess().type();
        score += switch (type.family()) {
            case EXACT_NUMBER -> type.isInteger() ? 0.2 : -0.22;
            case UUID -> 0.2;
            case TEXT ->
                table.averageLengths[column] <= 12
                        ? 0.12
                        : table.averageLengths[column] <= 24
                                ? -0.02
                                : table.averageLengths[column] <= PROSE ? -0.18 : -0.35;
            case MOMENT -> type.name() == ColumnType.Name.DATE ? 0.02 : -0.12;
            case APPROXIMATE_NUMBER -> -0.3;
            case BOOLEAN -> -0.15;
            default -> -0.1;
        };
        score += hasFixedLength(profile) && type.isText() ? 0.06 : 0;
        return Math.max(0, Math.min(1, score));
    }

    /** Whether one of the columns is named for something counted or paid, which tells rows apart by accident. */
    public static boolean holdAmount(TableProfile table, int[] columns) {
        for (int column : columns) {
            if (NameWords.isAmount(NameWords.of(table.columns.get(column).name()))) {
                return true;
            }
        }
        return false;
    }

    private static boolean hasFixedLength(ColumnProfile profile) {
        return profile.shortest() == profile.longest();
    }

    /** The score of a candidate, 0 to 1, whose reasons are added. */
    public static double score(TableProfile table, int[] columns, List<String> reasons) {
        double sum = 0;
        int named = 0;
        for (int column : columns) {
            sum += likeness(table, column);
            named += isNamedLikeKey(table.columns.get(column).name()) ? 1 : 0;
        }
        double score = sum / columns.length - WIDTH_COSTS * (columns.length - 1);
        score -= holdAmount(table, columns) ? AMOUNT_COSTS : 0;
        if (columns.length == 1 && columns[0] == 0) {
            reasons.add("the first column");
        }
        if (named == columns.length) {
            reasons.add("named like a key");
        }
        if (columns.length == 1) {
            score += singleBonus(table, columns[0], reasons);
        } else if (isFirstColumns(columns)) {
            score += 0.1;
            reasons.add("the first columns");
        }
        return Math.max(0, Math.min(1, score));
    }

    private static double singleBonus(TableProfile table, int column, List<String> reasons) {
        double bonus = 0;
        ColumnProfile profile = table.columns.get(column);
        if (profile.guess().type().isInteger()) {
            long span = table.greatestWhole[column] - table.leastWhole[column] + 1;
            boolean isDense = span > 0 && span <= table.rows * 1.05 + 2;
            bonus += isDense ? 0.08 : 0;
            reasons.add(isDense ? "whole numbers without gaps" : "whole numbers");
        }
        if (table.isAscending[column]) {
            bonus += 0.06;
            reasons.add("ascending");
        }
        return bonus;
    }

    private static boolean isFirstColumns(int[] columns) {
        for (int i = 0; i < columns.length; i++) {
            if (columns[i] != i) {
                return false;
            }
        }
        return true;
    }
}
