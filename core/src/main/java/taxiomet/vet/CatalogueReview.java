package taxiomet.vet;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.Condition;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.Key;
import taxiomet.charter.Rule;
import taxiomet.charter.Severity;
import taxiomet.charter.Table;
import taxiomet.vet.Judgement.Kind;

/**
 * What a charter declares beside what a database's catalogue declares: what is missing there, what is otherwise there, and what is there
 * alone. Names of keys and links need not be equal.
 */
public final class CatalogueReview {
    private final List<Judgement> judgements = new ArrayList<>();
    private final Set<List<String>> inPlace = new LinkedHashSet<>();

    private final Catalogue catalogue;

    /** Compares the two. */
    public CatalogueReview(Charter declared, Catalogue catalogue) {
        this.catalogue = catalogue;
        Charter there = catalogue.charter();
        for (Table table : declared.tables()) {
            Optional<Table> found = there.find(table.name());
            if (found.isEmpty()) {
                missing(path(table), "table `" + table.name() + "`", "make it: taxiomet ddl --tables");
            } else {
                inPlace.add(path(table));
                compare(table, found.get());
            }
        }
        there.tables().stream()
                .filter(table -> declared.find(table.name()).isEmpty())
                .forEach(table -> only(List.of("tables"), "table `" + table.name() + "`"));
    }

    /** What there is to say, in the order of the charter. */
    public List<Judgement> judgements() {
        return List.copyOf(judgements);
    }

    /** Paths to the declarations that are there as they are declared. */
    public Set<List<String>> inPlace() {
        return Set.copyOf(inPlace);
    }

    private static List<String> path(Table table, String... rest) {
        List<String> path = new ArrayList<>(List.of("tables", table.name()));
        path.addAll(List.of(rest));
        return path;
    }

    private void missing(List<String> path, String what, String remedy) {
        judgements.add(new Judgement(Kind.NOT_THERE, Severity.WARNING, path, what + " is not in the database", remedy));
    }

    private void otherwise(List<String> path, String what, String declaredAs, String is) {
        judgements.add(new Judgement(
                Kind.OTHERWISE_THERE,
                Severity.WARNING,
                path,
                what + " is declared as " + declaredAs + ", and in the database it is " + is,
                "change the one or the other"));
    }

    /** What is there as it is declared may not be held to by all rows. */
    private void unheld(List<String> path, String what, Table table, Catalogue.What kind, String name) {
        catalogue
                .unheld(table.name(), kind, name)
                .ifPresent(found -> judgements.add(new Judgement(
                        Kind.NOT_HELD_THERE,
                        Severity.WARNING,
                        path,
                        what + " is in the database, and rows may break it: " + found.why(),
                        found.remedy())));
    }

    private void only(List<String> path, String what) {
        judgements.add(new Judgement(
                Kind.ONLY_THERE,
                Severity.NOTE,
                path,
                what + " is in the database, and not declared",
                "declare it, or have it dropped"));
    }

    private void compare(Table table, Table found) {
        for (Column column : table.columns()) {
            compare(table, column, found);
        }
        found.columns().stream()
                .filter(column -> table.indexOf(column.name()) < 0)
                .forEach(column -> only(path(table), "column `" + column.name() + "` of `" + table.name() + "`"));
        compareKeys(table, found);
        compareLinks(table, found);
        compareRules(table, found);
    }

    private void compare(Table table, Column column, Table found) {
        List<String> path = path(table, "columns", column.name());
        if (found.indexOf(column.name()) < 0) {
            missing(path, "column `" + column.name() + "`", "add it there");
            return;
        }
        Column other = found.column(column.name());
        if (!other.type().sql().equals(column.type().sql())) {
            otherwise(
                    path,
                    "column `" + column.name() + "`",
                    column.type().sql(),
                    other.type().sql());
        }
        boolean isRequired = table.isRequired(column.name());
        boolean isRequiredThere = found.isRequired(column.name());
        if (isRequired && isRequiredThere) {
            inPlace.add(path(table, "columns", column.name(), "not_null"));
            unheld(path, "not null of column `" + column.name() + "`", table, Catalogue.What.NOT_NULL, column.name());
        } else if (isRequired) {
            missing(path, "not null of column `" + column.name() + "`", "put it in place: taxiomet ddl");
        } else if (isRequiredThere) {
            only(path, "not null of column `" + column.name() + "`");
        }
    }

    private static boolean isSame(Optional<Condition> one, Optional<Condition> other) {
        return one.map(Condition::value).equals(other.map(Condition::value));
    }

    private static boolean isSame(Key one, Key other) {
        return Set.copyOf(one.columns()).equals(Set.copyOf(other.columns()))
                && one.nullsAreEqual() == other.nullsAreEqual()
                && isSame(one.where(), other.where());
    }

    private void compareKeys(Table table, Table found) {
        table.primaryKey().ifPresent(key -> {
            List<String> path = path(table, "primary_key");
            if (found.primaryKey().isEmpty()) {
                missing(path, "the primary key of `" + table.name() + "`", "put it in place: taxiomet ddl");
            } else if (isSame(key, found.primaryKey().get())) {
                inPlace.add(path);
            } else {
                otherwise(
                        path,
                        "the primary key of `" + table.name() + "`",
                        String.join(", ", key.columns()),
                        String.join(", ", found.primaryKey().get().columns()));
            }
        });
        if (table.primaryKey().isEmpty() && found.primaryKey().isPresent()) {
            only(path(table), "the primary key of `" + table.name() + "`");
        }
        for (Key key : table.uniqueKeys()) {
            List<String> path = path(table, "unique", key.name());
            Optional<Key> same =
                    found.keys().stream().filter(other -> isSame(key, other)).findFirst();
            if (same.isPresent()) {
                inPlace.add(path);
                unheld(
                        path,
                        "unique key `" + key.name() + "`",
                        table,
                        Catalogue.What.CONSTRAINT,
                        same.get().name());
            } else {
                missing(path, "unique key `" + key.name() + "`", "put it in place: taxiomet ddl");
            }
        }
        found.uniqueKeys().stream()
                .filter(key -> table.keys().stream().noneMatch(other -> isSame(key, other)))
                .forEach(key -> only(path(table), "unique key `" + key.name() + "` of `" + table.name() + "`"));
    }

    private static boolean joinsTheSame(ForeignKey one, ForeignKey other) {
        return one.columns().equals(other.columns())
                && one.parent().equals(other.parent())
                && one.parentColumns().equals(other.parentColumns());
    }

    private void compareLinks(Table table, Table found) {
        for (ForeignKey link : table.links()) {
            List<String> path = path(table, "foreign_keys", link.name());
            Optional<ForeignKey> other = found.links().stream()
                    .filter(each -> joinsTheSame(link, each))
                    .findFirst();
            String what = "link `" + link.name() + "`";
            if (other.isEmpty() && link.isEnforced()) {
                missing(path, what, "put it in place: taxiomet ddl; or say `enforced: no`");
            } else if (other.isPresent()) {
                inPlace.add(path);
                if (!link.isEnforced() && other.get().isEnforced()) {
                    otherwise(path, what, "not enforced", "enforced");
                } else if (link.isEnforced() && !other.get().isEnforced()) {
                    otherwise(path, what, "enforced", "disabled");
                } else if (!told(link).equals(told(other.get()))) {
                    otherwise(path, what, told(link), told(other.get()));
                }
                if (link.isEnforced() && other.get().isEnforced()) {
                    unheld(
                            path,
                            what,
                            table,
                            Catalogue.What.CONSTRAINT,
                            other.get().name());
                }
            }
        }
        found.links().stream()
                .filter(link -> table.links().stream().noneMatch(other -> joinsTheSame(link, other)))
                .forEach(link -> only(path(table), "link `" + link.name() + "` of `" + table.name() + "`"));
    }

    private static String told(ForeignKey link) {
        return "on delete " + told(link.onDelete()) + ", on update " + told(link.onUpdate())
                + (link.columns().size() > 1 ? ", match " + link.match().name().toLowerCase(Locale.ROOT) : "")
                + switch (link.deferrable()) {
                    case NO -> "";
                    case IMMEDIATE -> ", deferrable";
                    case DEFERRED -> ", deferred";
                };
    }

    private static String told(Action action) {
        return action.name().sql()
                + (action.columns().isEmpty() ? "" : " (" + String.join(", ", action.columns()) + ")");
    }

    private void compareRules(Table table, Table found) {
        for (Rule rule : table.rules()) {
            List<String> path = path(table, "rules", rule.name());
            Optional<Rule> same = found.rules().stream()
                    .filter(other -> other.condition().equals(rule.condition()))
                    .findFirst();
            boolean hasName =
                    found.rules().stream().anyMatch(other -> other.name().equals(rule.name()));
            String name = same.map(Rule::name).orElse(rule.name());
            if (same.isPresent()) {
                inPlace.add(path);
                unheld(path, "rule `" + rule.name() + "`", table, Catalogue.What.CONSTRAINT, name);
            } else if (hasName) {
                // Servers write conditions in words of their own: which of both is meant cannot be told.
                inPlace.add(path);
                unheld(path, "rule `" + rule.name() + "`", table, Catalogue.What.CONSTRAINT, name);
            } else if (!rule.condition().readsRelatives()) {
                missing(path, "rule `" + rule.name() + "`", "put it in place: taxiomet ddl");
            }
        }
        Set<String> ofColumns = new LinkedHashSet<>();
        for (Column column : table.columns()) {
            for (String section : List.of("values", "length")) {
                String name = table.name() + "_" + column.name() + "_" + section;
                boolean isDeclared = section.equals("values")
                        ? !column.values().isEmpty()
                        : column.length().isPresent();
                if (isDeclared
                        && found.rules().stream().anyMatch(rule -> rule.name().equals(name))) {
                    ofColumns.add(name);
                    inPlace.add(path(table, "columns", column.name(), section));
                }
            }
        }
        found.rules().stream()
                .filter(rule -> !ofColumns.contains(rule.name()))
                .filter(rule -> table.rules().stream()
                        .noneMatch(other -> other.name().equals(rule.name())
                                || other.condition().equals(rule.condition())))
                .forEach(rule -> only(path(table), "rule `" + rule.name() + "` of `" + table.name() + "`"));
    }
}
