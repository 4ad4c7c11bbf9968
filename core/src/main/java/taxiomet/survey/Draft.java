package taxiomet.survey;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.Comparison;
import taxiomet.charter.Expression;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.ForeignKey.Deferrable;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.charter.IntRange;
import taxiomet.charter.Key;
import taxiomet.charter.Rule;
import taxiomet.charter.Server;
import taxiomet.charter.Severity;
import taxiomet.charter.Table;

/** Makes charters of profiles: one to count candidates exactly, and one for the steward to begin with. */
final class Draft {
    private static final double LEAST_IF_DOUBTFUL = 0.3;
    private static final int MOST_DOUBTFUL = 4;
    private static final IntRange ANY = new IntRange(0, IntRange.NO_LIMIT);

    private Draft() {}

    /** The table with all its columns as texts, to be read for the first time. */
    static Table unknown(FoundTable found) {
        return table(
                found,
                found.columns().stream()
                        .map(name -> Column.of(name, ColumnType.of(ColumnType.Name.TEXT)))
                        .toList());
    }

    private static Table table(FoundTable found, List<Column> columns) {
        return new Table(
                found.name(),
                Optional.empty(),
                found.rows(),
                columns,
                Optional.empty(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                Optional.empty(),
                Optional.empty());
    }

    private static Table with(
            Table table, Optional<Key> primary, List<Key> unique, List<ForeignKey> links, List<Rule> rules) {
        return new Table(
                table.name(),
                table.schema(),
                table.rows(),
                table.columns(),
                primary,
                unique,
                links,
                rules,
                table.label(),
                table.totals(),
                table.area(),
                table.owner());
    }

    private static Column column(ColumnProfile profile, ColumnType type, boolean isRequired) {
        return new Column(
                profile.name(),
                type,
                isRequired,
                Optional.empty(),
                List.of(),
                Optional.empty(),
                Comparison.EXACT,
                profile.guess().format(),
                profile.guess().decimalComma(),
                Optional.empty(),
                Column.Generated.NEVER,
                type.name() == ColumnType.Name.INTEGER,
                false,
                Severity.ERROR);
    }

    static List<String> names(TableProfile table, int[] columns) {
        List<String> names = new ArrayList<>();
        for (int column : columns) {
            names.add(table.columns.get(column).name());
        }
        return names;
    }

    /** The name that the key of a place in the list of candidates has in the exam. */
    static String keyName(int place) {
        return "key" + place;
    }

    static String linkName(int place) {
        return "link" + place;
    }

    /** The table with its columns as they are guessed. */
    static Table typed(TableProfile profile) {
        return table(
                profile.table,
                profile.columns.stream()
                        .map(c -> column(c, c.guess().type(), false))
                        .toList());
    }

    /** A charter that has every candidate counted at once. */
    static Charter exam(List<TableProfile> profiles, Map<TableProfile, List<int[]>> keys, List<LinkFinder.Pair> pairs) {
        List<Table> tables = new ArrayList<>();
        for (TableProfile profile : profiles) {
            Table table = typed(profile);
            List<Key> unique = new ArrayList<>();
            List<Rule> rules = new ArrayList<>();
            for (int place = 0; place < keys.get(profile).size(); place++) {
                int[] key = keys.get(profile).get(place);
                unique.add(Key.of(keyName(place), names(profile, key), false));
                if (!isFullAndOfItsTypes(profile, key)) {
                    rules.add(new Rule(keyName(place), "no nulls", noNulls(table.columns(), key), Severity.ERROR));
                }
            }
            tables.add(with(table, Optional.empty(), unique, links(profile, pairs), rules));
        }
        return new Charter("survey", tables, Server.STANDARD);
    }

    private static List<ForeignKey> links(TableProfile child, List<LinkFinder.Pair> pairs) {
        List<ForeignKey> links = new ArrayList<>();
        for (int i = 0; i < pairs.size(); i++) {
            LinkFinder.Pair pair = pairs.get(i);
            if (pair.child().equals(child) && !pair.isEmpty()) {
                links.add(link(
                        linkName(i),
                        pair.child().name(),
                        names(pair.child(), pair.columns()),
                        pair.parent().name(),
                        names(pair.parent(), pair.key()),
                        Optional.of(ANY),
                        pair.isOfOneTable()));
            }
        }
        return links;
    }

    /** Whether the profile says already that no row lacks a value of the key: then there is nothing to count. */
    private static boolean isFullAndOfItsTypes(TableProfile profile, int[] key) {
        for (int column : key) {
            ColumnProfile own = profile.columns.get(column);
            if (own.nulls() > 0 || own.guess().misfits() > 0) {
                return false;
            }
        }
        return true;
    }

    private static Expression noNulls(List<Column> columns, int[] key) {
        List<Expression> all = new ArrayList<>();
        for (int column : key) {
            Expression value = new Expression.ColumnValue(
                    column, Expression.Type.of(columns.get(column).type()));
            all.add(new Expression.Not(new Expression.IsNull(value)));
        }
        return new Expression.And(all);
    }

    private static ForeignKey link(
            String name,
            String child,
            List<String> columns,
            String parent,
            List<String> parentColumns,
            Optional<IntRange> children,
            boolean isAcyclic) {
        return new ForeignKey(
                name,
                child,
                columns,
                parent,
                parentColumns,
                Match.SIMPLE,
                Action.NONE,
                Action.NONE,
                Deferrable.NO,
                true,
                Optional.empty(),
                children,
                isAcyclic,
                Severity.ERROR);
    }

    /** The first charter for a steward: what was chosen, with types that fit at both ends of a link. */
    static Charter charter(
            String title, List<TableProfile> profiles, List<CandidateKey> keys, List<CandidateLink> links) {
        Map<String, ColumnType> types = types(profiles, links);
        widenKeys(types, keys, links);
        List<Table> tables = new ArrayList<>();
        for (TableProfile profile : profiles) {
            List<Column> columns = profile.columns.stream()
                    .map(c -> column(c, types.get(place(profile.name(), c.name())), c.nulls() == 0 && c.values() > 0))
                    .toList();
            Optional<Key> primary = keys.stream()
                    .filter(key -> key.isPrimary() && key.table().equals(profile.name()))
                    .findFirst()
                    .map(key -> Key.of(Key.PRIMARY, key.columns(), true));
            List<Key> unique = keys.stream()
                    .filter(key ->
                            key.isChosen() && !key.isPrimary() && key.table().equals(profile.name()))
                    .map(key -> Key.of(profile.name() + "_" + String.join("_", key.columns()), key.columns(), false))
                    .toList();
            List<ForeignKey> chosen = new ArrayList<>();
            links.stream()
                    .filter(link -> link.isChosen() && link.counts().child().equals(profile.name()))
                    .forEach(link -> chosen.add(link(
                            freeName(chosen, link),
                            profile.name(),
                            link.counts().columns(),
                            link.counts().parent(),
                            link.counts().parentColumns(),
                            Optional.empty(),
                            false)));
            tables.add(with(table(profile.table, columns), primary, unique, chosen, List.of()));
        }
        return new Charter(title, tables, Server.STANDARD);
    }

    private static String freeName(List<ForeignKey> taken, CandidateLink link) {
        String wanted = link.counts().child() + "_" + link.counts().parent();
        String name = taken.stream().anyMatch(other -> other.name().equals(wanted))
                ? wanted + "_by_" + String.join("_", link.counts().columns())
                : wanted;
        return name;
    }

    private static String place(String table, String column) {
        return table + '\u0000' + column;
    }

    /** The types guessed; columns that links join have the wider of their types. */
    private static Map<String, ColumnType> types(List<TableProfile> profiles, List<CandidateLink> links) {
        Map<String, ColumnType> types = new LinkedHashMap<>();
        for (TableProfile profile : profiles) {
            for (int c = 0; c < profile.width(); c++) {
                types.put(place(profile.name(), profile.columns.get(c).name()), roomyType(profile, c));
            }
        }
        Map<String, ColumnType> before;
        do {
            before = new HashMap<>(types);
            for (CandidateLink link : links) {
                if (link.isChosen()) {
                    for (int i = 0; i < link.counts().columns().size(); i++) {
                        String from = place(
                                link.counts().child(), link.counts().columns().get(i));
                        String to = place(
                                link.counts().parent(),
                                link.counts().parentColumns().get(i));
                        boolean isEmpty = link.counts().judged() == 0;
                        ColumnType wider = isEmpty ? types.get(to) : wider(types.get(from), types.get(to));
                        types.put(from, wider);
                        types.put(to, wider);
                    }
                }
            }
        } while (!before.equals(types));
        return types;
    }

    private static ColumnType roomyType(TableProfile profile, int column) {
        ColumnProfile own = profile.columns.get(column);
        ColumnType type = own.guess().type();
        return type.isInteger()
                ? RoomyTypes.ofWhole(type, profile.leastWhole[column], profile.greatestWhole[column])
                : RoomyTypes.of(type, own);
    }

    /** Links that may be meant, as they would be declared, for a steward to decide: at most a few of each table. */
    static List<ForeignKey> perhaps(Charter draft, List<CandidateLink> links) {
        List<ForeignKey> perhaps = new ArrayList<>();
        Map<String, Integer> ofTable = new HashMap<>();
        for (CandidateLink link : links) {
            String child = link.counts().child();
            boolean isDoubtful =
                    !link.isChosen() && !isTaken(link, links) && (link.score() >= LEAST_IF_DOUBTFUL || link.isNamed());
            if (isDoubtful && ofTable.merge(child, 1, Integer::sum) <= MOST_DOUBTFUL) {
                List<ForeignKey> named = new ArrayList<>(draft.table(child).links());
                named.addAll(perhaps);
                perhaps.add(link(
                        freeName(named, link),
                        child,
                        link.counts().columns(),
                        link.counts().parent(),
                        link.counts().parentColumns(),
                        Optional.empty(),
                        false));
            }
        }
        return perhaps;
    }

    /** Whether a link that is chosen starts from the same columns, or from more. */
    private static boolean isTaken(CandidateLink link, List<CandidateLink> links) {
        return links.stream()
                .anyMatch(other -> other.isChosen()
                        && other.counts().child().equals(link.counts().child())
                        && other.counts().columns().containsAll(link.counts().columns()));
    }

    /** Keys grow: what is a smallint today need not be one next year. */
    private static void widenKeys(Map<String, ColumnType> types, List<CandidateKey> keys, List<CandidateLink> links) {
        keys.stream()
                .filter(CandidateKey::isChosen)
                .forEach(key -> key.columns().forEach(column -> widen(types, place(key.table(), column))));
        links.stream().filter(CandidateLink::isChosen).forEach(link -> {
            link.counts()
                    .columns()
                    .forEach(column -> widen(types, place(link.counts().child(), column)));
            link.counts()
                    .parentColumns()
                    .forEach(column -> widen(types, place(link.counts().parent(), column)));
        });
    }

    private static void widen(Map<String, ColumnType> types, String place) {
        types.computeIfPresent(
                place,
                (p, type) -> type.name() == ColumnType.Name.SMALLINT ? ColumnType.of(ColumnType.Name.INTEGER) : type);
    }

    private static ColumnType wider(ColumnType one, ColumnType other) {
        if (one.isText() && other.isText()) {
            return one.length() == ColumnType.UNBOUNDED
                            || (other.length() != ColumnType.UNBOUNDED && one.length() >= other.length())
                    ? one
                    : other;
        }
        if (one.name() == ColumnType.Name.NUMERIC && other.name() == ColumnType.Name.NUMERIC) {
            int scale = Math.max(one.scale(), other.scale());
            int wholes = Math.max(one.precision() - one.scale(), other.precision() - other.scale());
            return ColumnType.parse("numeric(" + (wholes + scale) + "," + scale + ")")
                    .orElse(one);
        }
        return one.name().compareTo(other.name()) >= 0 ? one : other;
    }
}
