package taxiomet.settle.compare;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Key;
import taxiomet.charter.Severity;
import taxiomet.charter.Table;
import taxiomet.finding.settled.CharterComparison;
import taxiomet.finding.settled.CharterComparison.Change;
import taxiomet.finding.settled.CharterComparison.Fate;

/** Holds two charters against each other: tables, columns, keys, links and rules by their names, each as it is declared. */
public final class CharterComparing {
    private final Charter earlier;
    private final Charter later;
    private final List<Change> changes = new ArrayList<>();
    private final Set<String> touched = new LinkedHashSet<>();

    private CharterComparing(Charter earlier, Charter later) {
        this.earlier = earlier;
        this.later = later;
    }

    /** What is lost, gained and changed. */
    public static CharterComparison of(Charter earlier, Charter later) {
        CharterComparing comparing = new CharterComparing(earlier, later);
        comparing.compare();
        return new CharterComparison(later.name(), comparing.changes, List.copyOf(comparing.touched));
    }

    private void compare() {
        for (Table now : later.tables()) {
            Optional<Table> before = earlier.find(now.name());
            if (before.isEmpty()) {
                add(new Change(Fate.GAINED, "table", now.name(), now.name(), "", columnsOf(now)));
            }
            compare(now.name(), before, Optional.of(now));
        }
        for (Table before : earlier.tables()) {
            if (later.find(before.name()).isEmpty()) {
                add(new Change(Fate.LOST, "table", before.name(), before.name(), columnsOf(before), ""));
                compare(before.name(), Optional.of(before), Optional.empty());
            }
        }
    }

    private static String columnsOf(Table table) {
        return String.join(", ", table.columns().stream().map(Column::name).toList());
    }

    private void add(Change change) {
        changes.add(change);
        touched.add(change.table());
    }

    private void compare(String table, Optional<Table> before, Optional<Table> now) {
        if (before.isPresent() && now.isPresent()) {
            compare("column", table, columns(before), columns(now));
        }
        compare("key", table, keys(before), keys(now));
        compare("link", table, links(before), links(now));
        compare("rule", table, rules(before), rules(now));
        compare("alike", table, alike(before), alike(now));
    }

    private void compare(String what, String table, Map<String, String> before, Map<String, String> now) {
        Map<String, Change> found = new LinkedHashMap<>();
        now.forEach((name, declared) -> {
            String was = before.get(name);
            if (was == null) {
                found.put(name, new Change(Fate.GAINED, what, table, name, "", declared));
            } else if (!was.equals(declared)) {
                found.put(name, new Change(Fate.CHANGED, what, table, name, was, declared));
            }
        });
        before.forEach((name, declared) -> {
            if (!now.containsKey(name)) {
                found.put(name, new Change(Fate.LOST, what, table, name, declared, ""));
            }
        });
        found.values().forEach(change -> {
            add(change);
            if (what.equals("link")) {
                touchParent(earlier, table, change.name());
                touchParent(later, table, change.name());
            }
        });
    }

    private void touchParent(Charter charter, String table, String link) {
        charter.find(table)
                .flatMap(child -> child.link(link))
                .map(ForeignKey::parent)
                .ifPresent(touched::add);
    }

    private static Map<String, String> columns(Optional<Table> table) {
        Map<String, String> all = new LinkedHashMap<>();
        table.ifPresent(each -> each.columns().forEach(column -> all.put(column.name(), declared(column))));
        return all;
    }

    private static String declared(Column column) {
        List<String> parts = new ArrayList<>(List.of(column.type().toString()));
        if (column.isRequired()) {
            parts.add("not null");
        }
        if (!column.values().isEmpty()) {
            parts.add("one of " + String.join(", ", column.values()));
        }
        column.length().ifPresent(length -> parts.add("length " + length));
        column.pattern().ifPresent(pattern -> parts.add("pattern " + pattern));
        if (column.isPersonal()) {
            parts.add("personal");
        }
        parts.add("compare " + word(column.comparison()));
        addSeverity(parts, column.severity());
        return String.join("; ", parts);
    }

    private static String word(Enum<?> constant) {
        return constant.name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }

    private static void addSeverity(List<String> parts, Severity severity) {
        if (severity != Severity.ERROR) {
            parts.add(severity.word());
        }
    }

    private static Map<String, String> keys(Optional<Table> table) {
        Map<String, String> all = new LinkedHashMap<>();
        table.ifPresent(each -> each.keys().forEach(key -> all.put(key.name(), declared(key))));
        return all;
    }

    private static String declared(Key key) {
        List<String> parts = new ArrayList<>(List.of("(" + String.join(", ", key.columns()) + ")"));
        if (key.nullsAreEqual()) {
            parts.add("nulls equal");
        }
        key.where().ifPresent(where -> parts.add("where " + where.text()));
        addSeverity(parts, key.severity());
        return String.join("; ", parts);
    }

    private static Map<String, String> links(Optional<Table> table) {
        Map<String, String> all = new LinkedHashMap<>();
        table.ifPresent(each -> each.links().forEach(link -> all.put(link.name(), declared(link))));
        return all;
    }

    private static String declared(ForeignKey link) {
        List<String> parts = new ArrayList<>(List.of("(" + String.join(", ", link.columns()) + ") to " + link.parent()
                + " (" + String.join(", ", link.parentColumns()) + ")"));
        parts.add("match " + word(link.match()));
        parts.add("on delete " + link.onDelete().name().sql());
        parts.add("on update " + link.onUpdate().name().sql());
        if (!link.isEnforced()) {
            parts.add("not enforced");
        }
        if (link.deferrable() != ForeignKey.Deferrable.NO) {
            parts.add("deferrable " + word(link.deferrable()));
        }
        link.children().ifPresent(range -> parts.add("children " + range));
        link.where().ifPresent(where -> parts.add("where " + where.text()));
        if (link.isAcyclic()) {
            parts.add("acyclic");
        }
        addSeverity(parts, link.severity());
        return String.join("; ", parts);
    }

    private static Map<String, String> alike(Optional<Table> table) {
        Map<String, String> all = new LinkedHashMap<>();
        table.ifPresent(each -> each.alike()
                .forEach(rule ->
                        all.put(rule.name(), rule.clause() + (rule.severity() == Severity.NOTE ? "; note" : ""))));
        return all;
    }

    private static Map<String, String> rules(Optional<Table> table) {
        Map<String, String> all = new LinkedHashMap<>();
        table.ifPresent(each -> each.rules()
                .forEach(rule -> all.put(
                        rule.name(),
                        rule.text()
                                + (rule.severity() == Severity.ERROR
                                        ? ""
                                        : "; " + rule.severity().word()))));
        return all;
    }
}
