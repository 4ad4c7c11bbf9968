package taxiomet.survey;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Table;
import taxiomet.finding.ChildrenTally;
import taxiomet.survey.choice.AlikeChoice;
import taxiomet.survey.choice.CandidateKey;
import taxiomet.survey.choice.CandidateLink;
import taxiomet.survey.profile.ColumnProfile;
import taxiomet.survey.profile.TableProfile;

/** Why each line of a draft is there, and what was nearly so. */
final class Comments {
    private static final int MOST_OTHERS = 4;

    private final Map<List<String>, List<String>> comments = new LinkedHashMap<>();

    private Comments() {}

    static Map<List<String>, List<String>> of(
            Charter draft,
            List<ForeignKey> perhaps,
            List<TableProfile> profiles,
            List<CandidateKey> keys,
            List<CandidateLink> links,
            Map<String, AlikeChoice.Proposed> alike) {
        Comments comments = new Comments();
        comments.add(
                "A first draft, made from the rows alone. Read every line: what holds for the rows at hand may hold by accident.");
        for (TableProfile profile : profiles) {
            comments.comment(draft.table(profile.name()), profile, keys, links);
        }
        perhaps.forEach(link -> comments.comment(link, links, false));
        alike.forEach((table, proposed) -> comments.add(
                "nothing but a number tells rows apart; of " + proposed.rows() + " rows looked at "
                        + (proposed.alike() == 0
                                ? "none seems"
                                : "at least " + proposed.alike() + (proposed.alike() == 1 ? " seems" : " seem"))
                        + " to have been entered before",
                "tables",
                table,
                "alike"));
        return comments.comments;
    }

    private void add(String comment, String... path) {
        comments.computeIfAbsent(List.of(path), p -> new ArrayList<>()).add(comment);
    }

    private void comment(Table table, TableProfile profile, List<CandidateKey> keys, List<CandidateLink> links) {
        String name = table.name();
        add(
                (profile.isSampled ? "the first " : "") + profile.rows + " rows"
                        + (profile.malformed > 0 ? ", " + profile.malformed + " of them malformed" : ""),
                "tables",
                name);
        profile.table.remarks().forEach(remark -> add(remark, "tables", name, "rows"));
        for (ColumnProfile column : profile.columns) {
            String words = words(column);
            if (!words.isEmpty()) {
                add(words, "tables", name, "columns", column.name());
            }
        }
        List<CandidateKey> own =
                keys.stream().filter(key -> key.table().equals(name)).toList();
        if (own.stream().noneMatch(CandidateKey::isPrimary)) {
            add("no column or combination of columns identifies a row", "tables", name, "primary_key");
        }
        int others = 0;
        for (CandidateKey key : own) {
            if (key.isPrimary()) {
                String reasons = key.reasons().isEmpty() ? "identifies a row" : String.join(", ", key.reasons());
                add(reasons + faults(key), "tables", name, "primary_key");
            } else if (!key.isChosen() && others++ < MOST_OTHERS) {
                add(
                        "(" + String.join(", ", key.columns()) + ") would identify a row too" + faults(key),
                        "tables",
                        name,
                        "unique");
            } else if (key.isChosen()) {
                add(
                        "a link points at it" + faults(key),
                        "tables",
                        name,
                        "unique",
                        name + "_" + String.join("_", key.columns()));
            }
        }
        table.links().forEach(link -> comment(link, links, true));
    }

    static String faults(CandidateKey key) {
        List<String> faults = new ArrayList<>();
        if (key.excess() > 0) {
            faults.add("but for " + key.excess() + (key.excess() == 1 ? " row" : " rows") + " too many");
        }
        if (key.nulls() > 0) {
            faults.add(key.nulls() + (key.nulls() == 1 ? " row has" : " rows have") + " a null in it");
        }
        if (key.illTyped()) {
            faults.add("some values are not of their type");
        }
        return faults.isEmpty() ? "" : ", " + String.join("; ", faults);
    }

    private static String words(ColumnProfile column) {
        List<String> words = new ArrayList<>();
        if (column.guess().misfits() > 0) {
            words.add(column.guess().type() + " but for " + column.guess().misfits()
                    + (column.guess().misfits() == 1 ? " value" : " values") + " ("
                    + String.join(", ", column.guess().examples()) + ")");
        }
        words.addAll(column.remarks());
        return String.join("; ", words);
    }

    private void comment(ForeignKey link, List<CandidateLink> links, boolean isChosen) {
        links.stream()
                .filter(l -> l.isChosen() == isChosen
                        && l.counts().child().equals(link.child())
                        && l.counts().columns().equals(link.columns())
                        && l.counts().parent().equals(link.parent())
                        && l.counts().parentColumns().equals(link.parentColumns()))
                .findFirst()
                .ifPresent(l -> add(
                        (isChosen ? "" : "perhaps, without the #: ") + words(l),
                        "tables",
                        link.child(),
                        "foreign_keys",
                        link.name()));
    }

    static String words(CandidateLink link) {
        List<String> words = new ArrayList<>();
        words.add(
                link.counts().judged() == 0
                        ? "no row has a value yet"
                        : link.counts().orphans() == 0
                                ? "every row has its parent"
                                : String.format(
                                        Locale.ROOT,
                                        "%.1f%% covered: %s",
                                        100 * link.coverage(),
                                        orphans(link.counts().orphans())));
        if (link.counts().nulls() + link.counts().halfNulls() > 0) {
            words.add("optional");
        }
        ChildrenTally tally = link.counts().children().orElseThrow();
        words.add(tally.least() + " to " + tally.most() + " children, median " + tally.median());
        link.reasons().stream().filter(reason -> !words.contains(reason)).forEach(words::add);
        return String.join("; ", words);
    }

    private static String orphans(long count) {
        return count + (count == 1 ? " orphan" : " orphans");
    }
}
