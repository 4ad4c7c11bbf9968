package taxiomet.cli.option;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.NearestWord;
import taxiomet.cli.terminal.UsageException;
import taxiomet.rehearse.LinkTrial;

/** Reads what {@code --try} says about links. */
public final class LinkTrials {
    private static final Pattern FORM = Pattern.compile("(.+)\\.(on_delete|on_update|enforced)\\s*=\\s*(.+)");
    private static final Pattern COLUMNS = Pattern.compile("(set null|set default)\\s*\\((.+)\\)");

    private LinkTrials() {}

    /** A trial such as {@code hive_queen.on_delete=set null}. */
    static LinkTrial read(Charter charter, String text) {
        Matcher form = FORM.matcher(text.strip());
        if (!form.matches()) {
            throw new UsageException(
                    "--try " + text + ": write LINK.on_delete=ACTION, LINK.on_update=ACTION or LINK.enforced=no");
        }
        ForeignKey link = link(charter, form.group(1), "--try");
        String value = form.group(3).strip().toLowerCase(Locale.ROOT);
        return switch (form.group(2)) {
            case "on_delete" ->
                new LinkTrial(
                        link.child(),
                        link.name(),
                        Optional.of(action(link, text, value)),
                        Optional.empty(),
                        Optional.empty());
            case "on_update" ->
                new LinkTrial(
                        link.child(),
                        link.name(),
                        Optional.empty(),
                        Optional.of(action(link, text, value)),
                        Optional.empty());
            default ->
                new LinkTrial(
                        link.child(), link.name(), Optional.empty(), Optional.empty(), Optional.of(truth(text, value)));
        };
    }

    private static boolean truth(String text, String value) {
        if (!value.equals("yes") && !value.equals("no")) {
            throw new UsageException("--try " + text + ": enforced is yes or no");
        }
        return value.equals("yes");
    }

    private static Action action(ForeignKey link, String text, String value) {
        Matcher columns = COLUMNS.matcher(value);
        String words = columns.matches() ? columns.group(1) : value.replaceAll("[\\s_]+", " ");
        List<String> some = columns.matches() ? List.of(columns.group(2).strip().split("\\s*,\\s*")) : List.of();
        for (String column : some) {
            if (!link.columns().contains(column)) {
                throw new UsageException("--try " + text + ": `" + column + "` is no column of the link; it has "
                        + String.join(", ", link.columns()));
            }
        }
        for (ActionName name : ActionName.values()) {
            if (name.sql().equals(words)) {
                return new Action(name, some);
            }
        }
        throw new UsageException(
                "--try " + text + ": the actions are no action, restrict, cascade, set null, set default");
    }

    /** A link by its name, or by its table and its name. */
    public static ForeignKey link(Charter charter, String name, String option) {
        List<ForeignKey> found = charter.links().stream()
                .filter(link -> link.name().equals(name) || (link.child() + "." + link.name()).equals(name))
                .toList();
        if (found.size() > 1) {
            throw new UsageException(option + ": several tables have a link `" + name + "`; write "
                    + found.stream()
                            .map(link -> link.child() + "." + link.name())
                            .collect(Collectors.joining(" or ")));
        }
        if (found.isEmpty()) {
            List<String> names = charter.links().stream().map(ForeignKey::name).toList();
            throw new UsageException(option + ": there is no link `" + name + "`; "
                    + NearestWord.of(name, names)
                            .map(near -> "did you mean `" + near + "`?")
                            .orElse("there are " + String.join(", ", names)));
        }
        return found.get(0);
    }
}
