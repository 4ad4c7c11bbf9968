package taxiomet.survey;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/** How much the name of a child's column speaks for a parent: it names the parent's column, or its table. */
final class NameLikeness {
    private static final Set<String> KEY_WORDS =
            Set.of("id", "key", "no", "nr", "num", "number", "code", "uuid", "guid", "ref", "fk");

    private static final Set<String> KINSHIP = Set.of(
            "parent",
            "mother",
            "father",
            "boss",
            "manager",
            "super",
            "supervisor",
            "chief",
            "leader",
            "previous",
            "prev",
            "next",
            "before",
            "after",
            "root",
            "origin",
            "original",
            "replaces",
            "successor",
            "predecessor",
            "upper",
            "main",
            "sponsor",
            "referrer",
            "ancestor");

    /** Words of a name: keeper_id, keeperId and KEEPER-ID are keeper and id. */
    private static List<String> words(String name) {
        String parted = name.replaceAll("([a-z0-9])([A-Z])", "$1_$2").toLowerCase(Locale.ROOT);
        List<String> words = new ArrayList<>();
        for (String word : parted.split("[^\\p{L}\\p{N}]+", -1)) {
            if (!word.isEmpty()) {
                words.add(singular(word));
            }
        }
        return words;
    }

    private static String singular(String word) {
        if (word.endsWith("ies") && word.length() > 4) {
            return word.substring(0, word.length() - 3) + "y";
        }
        boolean isPlural = word.length() > 3
                && word.endsWith("s")
                && !word.endsWith("ss")
                && !word.endsWith("us")
                && !word.endsWith("is");
        return isPlural ? word.substring(0, word.length() - 1) : word;
    }

    /** Without a short prefix that all columns of the table have, such as o_ in o_custkey. */
    private static String bare(TableProfile table, int column) {
        String name = table.columns.get(column).name();
        int cut = name.indexOf('_');
        if (cut < 1 || cut > 3) {
            return name;
        }
        String prefix = name.substring(0, cut + 1);
        boolean isShared = table.width() > 1
                && table.columns.stream()
                        .allMatch(c -> c.name().startsWith(prefix) && c.name().length() > prefix.length());
        return isShared ? name.substring(cut + 1) : name;
    }

    /** A column that points into its own table: its words say in which part, since the table's name says nothing. */
    private static double ownLikeness(List<String> words) {
        boolean isRank = words.stream().anyMatch(KINSHIP::contains);
        boolean endsLikeKey = KEY_WORDS.contains(words.get(words.size() - 1)) && words.size() > 1;
        return isRank ? 0.85 : endsLikeKey ? 0.4 : 0;
    }

    private static boolean isOwn(TableProfile table, List<String> meaning) {
        List<String> own = words(table.name());
        return own.containsAll(meaning) && meaning.containsAll(own);
    }

    /** 0 to 1. */
    double likeness(TableProfile child, int column, TableProfile parent, int key) {
        String from = bare(child, column);
        String to = bare(parent, key);
        List<String> fromWords = words(from);
        List<String> toWords = words(to);
        List<String> tableWords = words(parent.name());
        if (fromWords.isEmpty()) {
            return 0;
        }
        boolean isBareKeyWord = fromWords.size() == 1 && KEY_WORDS.contains(fromWords.get(0));
        if (fromWords.equals(toWords)) {
            boolean isOfTable = tableWords.stream().anyMatch(fromWords::contains);
            return isBareKeyWord ? 0 : isOfTable ? 1 : 0.93;
        }
        if (child == parent) {
            return ownLikeness(fromWords);
        }
        List<String> meaning =
                fromWords.stream().filter(w -> !KEY_WORDS.contains(w)).toList();
        if (!meaning.isEmpty() && KeyRanking.isNamedLikeKey(from) && isOwn(child, meaning)) {
            // It counts the rows of its own table.
            return 0;
        }
        Set<String> target = new HashSet<>(tableWords);
        toWords.stream().filter(w -> !KEY_WORDS.contains(w)).forEach(target::add);
        String joined = String.join("", fromWords);
        String wantedByTable = String.join("", tableWords);
        if (!wantedByTable.isEmpty() && joined.equals(wantedByTable)) {
            return 0.95;
        }
        if (!meaning.isEmpty() && target.containsAll(meaning)) {
            return 0.9;
        }
        if (tableWords.size() >= 1 && fromWords.containsAll(tableWords)) {
            return 0.8;
        }
        if (toWords.size() >= 1
                && fromWords.size() > toWords.size()
                && fromWords.containsAll(toWords)
                && !KEY_WORDS.containsAll(toWords)) {
            return 0.75;
        }
        for (String word : meaning) {
            if (word.length() > 3 && target.contains(word)) {
                return 0.5;
            }
            for (String t : target) {
                boolean isInside = word.length() > 3
                        && t.length() > 3
                        && (word.startsWith(t) || word.endsWith(t) || t.startsWith(word));
                if (isInside) {
                    return 0.45;
                }
            }
        }
        return 0;
    }
}
