package taxiomet.survey;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import taxiomet.charter.Charter;
import taxiomet.charter.NearestWord;
import taxiomet.charter.Table;
import taxiomet.finding.CheckResult;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;
import taxiomet.rows.TableSource;
import taxiomet.survey.count.Exam;
import taxiomet.survey.profile.Declarations;
import taxiomet.survey.profile.FoundTable;
import taxiomet.survey.profile.SampleSizes;
import taxiomet.survey.profile.TableProfile;
import taxiomet.survey.profile.TableProfiler;
import taxiomet.survey.search.Pair;

/**
 * One key or link to be tried by hand.
 *
 * @param words what is tried, as it was written
 * @param charter declares it and nothing else
 * @param link name of the link tried; empty for a key
 */
public record Trial(String words, Charter charter, Optional<String> link) {
    private static final Pattern KEY = Pattern.compile("(.+?)=(.+)");
    private static final Pattern LINK = Pattern.compile("([^.=]+)\\.([^=]+)=([^.=]+)\\.(.+)");

    /**
     * A key, written TABLE=a,b.
     *
     * @throws IllegalArgumentException when it is written otherwise, or names what is not there
     */
    public static Trial ofKey(List<FoundTable> found, String words, Function<Table, TableSource> open) {
        Matcher parts = KEY.matcher(words);
        if (!parts.matches()) {
            throw new IllegalArgumentException("--key " + words + ": write TABLE=COLUMN,COLUMN");
        }
        FoundTable table = table(found, parts.group(1));
        TableProfile profile = profile(table, open);
        int[] key = columns(table, parts.group(2));
        Charter charter = Exam.exam(List.of(profile), java.util.Map.of(profile, List.of(key)), List.of());
        return new Trial(words, charter, Optional.empty());
    }

    /**
     * A link, written TABLE.a,b=OTHER.c,d.
     *
     * @throws IllegalArgumentException when it is written otherwise, or names what is not there or cannot be equal
     */
    public static Trial ofLink(List<FoundTable> found, String words, Function<Table, TableSource> open) {
        Matcher parts = LINK.matcher(words);
        if (!parts.matches()) {
            throw new IllegalArgumentException("--link " + words + ": write TABLE.COLUMN=OTHER.COLUMN");
        }
        FoundTable child = table(found, parts.group(1));
        FoundTable parent = table(found, parts.group(3));
        int[] columns = columns(child, parts.group(2));
        int[] key = columns(parent, parts.group(4));
        if (columns.length != key.length) {
            throw new IllegalArgumentException("--link " + words + ": both ends need as many columns");
        }
        TableProfile from = profile(child, open);
        TableProfile to = parent.equals(child) ? from : profile(parent, open);
        for (int i = 0; i < columns.length; i++) {
            var one = from.columns.get(columns[i]).guess().type();
            var other = to.columns.get(key[i]).guess().type();
            if (!one.family().isComparableWith(other.family())) {
                throw new IllegalArgumentException(
                        "--link " + words + ": `" + child.columns().get(columns[i]) + "` holds " + one + " and `"
                                + parent.columns().get(key[i]) + "` holds " + other + ", which can never be equal");
            }
        }
        List<TableProfile> profiles = new ArrayList<>(List.of(from));
        if (!parent.equals(child)) {
            profiles.add(to);
        }
        java.util.Map<TableProfile, List<int[]>> keys = new java.util.HashMap<>();
        profiles.forEach(profile -> keys.put(profile, List.of()));
        Charter charter = Exam.exam(profiles, keys, List.of(new Pair(from, columns, to, key)));
        return new Trial(words, charter, Optional.of(Exam.linkName(0)));
    }

    /** What is at fault with the key or link, by a check of its charter; nothing where it holds. */
    public static List<Finding> faults(CheckResult result) {
        return result.findings().stream()
                .filter(f -> f.kind() == FindingKind.DUPLICATE
                        || f.kind() == FindingKind.ORPHAN
                        || f.kind() == FindingKind.BROKEN_RULE)
                .toList();
    }

    private static TableProfile profile(FoundTable table, Function<Table, TableSource> open) {
        try (TableSource source = open.apply(Declarations.unknown(table))) {
            return TableProfiler.profile(table, source, SampleSizes.of(List.of(table)), 1);
        }
    }

    private static FoundTable table(List<FoundTable> found, String name) {
        return found.stream()
                .filter(table -> table.name().equals(name))
                .findFirst()
                .orElseThrow(() -> unknown(
                        "table", name, found.stream().map(FoundTable::name).toList()));
    }

    private static int[] columns(FoundTable table, String names) {
        return Arrays.stream(names.split(",", -1))
                .mapToInt(name -> {
                    int place = table.columns().indexOf(name);
                    if (place < 0) {
                        throw unknown("column", name, table.columns());
                    }
                    return place;
                })
                .toArray();
    }

    private static IllegalArgumentException unknown(String kind, String name, List<String> known) {
        return new IllegalArgumentException("there is no " + kind + " `" + name + "`; "
                + NearestWord.of(name, known)
                        .map(near -> "did you mean `" + near + "`?")
                        .orElse("there are " + String.join(", ", known)));
    }
}
