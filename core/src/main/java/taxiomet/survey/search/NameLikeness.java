package taxiomet.survey.search;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import taxiomet.survey.profile.ColumnProfile;
import taxiomet.survey.profile.TableProfile;

/** How much the name of a child's column speaks for a parent: it names the parent's column, or its table, or a role there. */
public final class NameLikeness {
    private static final double SAME_OF_TABLE = 1;
    private static final double SAME_OF_TABLE_IN_PART = 0.96;
    private static final double SAME = 0.93;
    private static final double TABLE = 0.95;
    private static final double TABLE_OR_KEY = 0.9;
    private static final double WITH_TABLE = 0.8;
    private static final double WITH_KEY = 0.75;
    private static final double SHORT_FORM = 0.75;
    private static final double ROLE = 0.72;
    private static final double PERHAPS_ROLE = 0.5;
    private static final double KINSHIP = 0.85;
    private static final double IN_PART = 0.5;
    private static final double INSIDE = 0.45;
    private static final double KEY_OF_ITS_OWN = 0.4;
    private static final int LEAST_LETTERS = 4;

    private final Map<String, Boolean> keys = new HashMap<>();
    private final Map<TableProfile, String[]> bare = new HashMap<>();
    private final Map<TableProfile, Boolean> people = new HashMap<>();

    /** Without a short prefix that all columns of the table have, such as o_ in o_custkey. */
    private String bare(TableProfile table, int column) {
        return bare.computeIfAbsent(table, NameLikeness::withoutPrefix)[column];
    }

    private static String[] withoutPrefix(TableProfile table) {
        String[] names = table.columns.stream().map(ColumnProfile::name).toArray(String[]::new);
        int cut = names.length < 2 ? -1 : names[0].indexOf('_');
        if (cut < 1 || cut > 3) {
            return names;
        }
        String prefix = names[0].substring(0, cut + 1);
        for (String name : names) {
            if (!name.startsWith(prefix) || name.length() == prefix.length()) {
                return names;
            }
        }
        for (int i = 0; i < names.length; i++) {
            names[i] = names[i].substring(prefix.length());
        }
        return names;
    }

    private boolean isOfPeople(TableProfile table) {
        return people.computeIfAbsent(
                table,
                t -> NameWords.isOfPeople(
                        NameWords.of(t.name()),
                        t.columns.stream().map(c -> NameWords.of(c.name())).toList()));
    }

    /** Whether a column is named for something counted or weighed. */
    boolean isMeasure(TableProfile table, int column) {
        return NameWords.isMeasure(NameWords.of(bare(table, column)));
    }

    /** A column that points into its own table: its words say in which part, since the table's name says nothing. */
    private static double ownLikeness(List<String> from) {
        boolean isKin = from.stream().anyMatch(NameWords::isOfKinship);
        boolean endsLikeKey = NameWords.isOfKeys(from.get(from.size() - 1)) && from.size() > 1;
        return isKin ? KINSHIP : endsLikeKey ? KEY_OF_ITS_OWN : 0;
    }

    private static boolean holds(List<String> words, String word) {
        return words.stream().anyMatch(w -> NameWords.areOne(w, word));
    }

    private static boolean holdsAll(List<String> words, List<String> some) {
        return some.stream().allMatch(word -> holds(words, word));
    }

    /** The same for one of several columns: what is called no in both is the same there. */
    double likenessOfPart(TableProfile child, int column, TableProfile parent, int key) {
        boolean isSame = NameWords.of(bare(child, column)).equals(NameWords.of(bare(parent, key)));
        return Math.max(isSame ? SAME : 0, likeness(child, column, parent, key));
    }

    /** Whether a column is named as the key is, but for nothing of the table: then both may only count their own rows. */
    boolean isOnlyTheSame(TableProfile child, int column, TableProfile parent, int key) {
        return likeness(child, column, parent, key) == SAME;
    }

    /**
     * What a name says beyond that of the column it may point at: from in from_region, for region.
     *
     * @return words, sorted
     */
    List<String> beyond(TableProfile child, int column, TableProfile parent, int key) {
        List<String> to = NameWords.of(bare(parent, key));
        return NameWords.of(bare(child, column)).stream()
                .filter(word -> !holds(to, word))
                .sorted()
                .toList();
    }

    /** 0 to 1. */
    double likeness(TableProfile child, int column, TableProfile parent, int key) {
        List<String> from = NameWords.of(bare(child, column));
        List<String> to = NameWords.of(bare(parent, key));
        List<String> table = NameWords.of(parent.name());
        if (from.isEmpty()) {
            return 0;
        }
        if (from.equals(to)) {
            boolean isBareKeyWord = from.size() == 1 && NameWords.isOfKeys(from.get(0));
            boolean isOfTable = from.stream().anyMatch(word -> holds(table, word));
            return isBareKeyWord ? 0 : isOfTable ? holdsAll(from, table) ? SAME_OF_TABLE : SAME_OF_TABLE_IN_PART : SAME;
        }
        List<String> meaning =
                from.stream().filter(word -> !NameWords.isOfKeys(word)).toList();
        if (child == parent) {
            double own = ownLikeness(from);
            return own == 0 && isOfPeople(parent) ? ofRole(meaning) : own;
        }
        boolean isNamedLikeKey = keys.computeIfAbsent(bare(child, column), KeyRanking::isNamedLikeKey);
        List<String> own = NameWords.of(child.name());
        if (!meaning.isEmpty() && isNamedLikeKey && holdsAll(own, meaning) && holdsAll(meaning, own)) {
            // It counts the rows of its own table.
            return 0;
        }
        double likeness = ofMeaning(from, meaning, isNamedLikeKey, to, table);
        List<String> unglued = meaning.stream().map(NameWords::withoutGluedKey).toList();
        if (!unglued.equals(meaning)) {
            likeness = Math.max(likeness, ofMeaning(from, unglued, true, to, table));
        }
        return Math.max(likeness, isOfPeople(parent) ? ofRole(meaning) : 0);
    }

    private static double ofRole(List<String> meaning) {
        if (meaning.isEmpty()) {
            return 0;
        }
        String last = meaning.get(meaning.size() - 1);
        return NameWords.isOfRoles(last) || NameWords.sayByWhom(meaning)
                ? ROLE
                : NameWords.mayBeOfRoles(last) ? PERHAPS_ROLE : 0;
    }

    /** @param meaning the words of the child's column that are not only words for keys */
    private static double ofMeaning(
            List<String> from, List<String> meaning, boolean isNamedLikeKey, List<String> to, List<String> table) {
        List<String> target = new ArrayList<>(table);
        to.stream().filter(word -> !NameWords.isOfKeys(word)).forEach(target::add);
        List<String> core =
                meaning.stream().filter(word -> !NameWords.saysWhich(word)).toList();
        if (core.isEmpty()) {
            core = meaning;
        }
        if (!table.isEmpty() && String.join("", from).equals(String.join("", table))) {
            return TABLE;
        }
        if (!core.isEmpty() && holdsAll(target, core)) {
            return TABLE_OR_KEY;
        }
        if (!table.isEmpty() && holdsAll(from, table)) {
            return WITH_TABLE;
        }
        boolean isOnlyOfKeys = to.stream().allMatch(NameWords::isOfKeys);
        if (!to.isEmpty() && from.size() > to.size() && holdsAll(from, to) && !isOnlyOfKeys) {
            return WITH_KEY;
        }
        if (core.size() == 1 && isShortForm(core.get(0), target)) {
            return isNamedLikeKey ? SHORT_FORM : IN_PART;
        }
        return inPart(core, target);
    }

    private static boolean isShortForm(String word, List<String> target) {
        return target.stream().anyMatch(whole -> NameWords.isShortFor(word, whole));
    }

    private static double inPart(List<String> meaning, List<String> target) {
        double most = 0;
        for (String word : meaning) {
            for (String other : target) {
                if (word.length() >= LEAST_LETTERS && NameWords.areOne(word, other)) {
                    return IN_PART;
                }
                boolean isInside = word.length() >= LEAST_LETTERS
                        && other.length() >= LEAST_LETTERS
                        && (word.startsWith(other) || word.endsWith(other) || other.startsWith(word));
                most = isInside ? INSIDE : most;
            }
        }
        return most;
    }
}
