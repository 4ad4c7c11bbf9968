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
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Key;
import taxiomet.charter.Server;
import taxiomet.charter.Table;
import taxiomet.survey.choice.CandidateKey;
import taxiomet.survey.choice.CandidateLink;
import taxiomet.survey.profile.ColumnProfile;
import taxiomet.survey.profile.Declarations;
import taxiomet.survey.profile.TableProfile;

/** The first charter of tables, for a steward to begin with. */
final class Draft {
    private static final double LEAST_IF_DOUBTFUL = 0.3;
    private static final int MOST_DOUBTFUL = 4;

    private Draft() {}

    /** The first charter for a steward: what was chosen, with types that fit at both ends of a link. */
    static Charter charter(
            String title, List<TableProfile> profiles, List<CandidateKey> keys, List<CandidateLink> links) {
        Map<String, ColumnType> types = types(profiles, links);
        widenKeys(types, keys, links);
        List<Table> tables = new ArrayList<>();
        for (TableProfile profile : profiles) {
            List<Column> columns = profile.columns.stream()
                    .map(c -> Declarations.column(
                            c, types.get(place(profile.name(), c.name())), c.nulls() == 0 && c.values() > 0))
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
                    .forEach(link -> chosen.add(Declarations.link(
                            freeName(chosen, link),
                            profile.name(),
                            link.counts().columns(),
                            link.counts().parent(),
                            link.counts().parentColumns(),
                            Optional.empty(),
                            false)));
            tables.add(
                    Declarations.with(Declarations.table(profile.table, columns), primary, unique, chosen, List.of()));
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

    /** The types guessed; columns that links join, or perhaps do, have the wider of their types. */
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
                if (link.isChosen() || isDoubtful(link, links)) {
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
                    !link.isChosen() && !link.isTaken(links) && (link.score() >= LEAST_IF_DOUBTFUL || link.isNamed());
            if (isDoubtful && ofTable.merge(child, 1, Integer::sum) <= MOST_DOUBTFUL) {
                List<ForeignKey> named = new ArrayList<>(draft.table(child).links());
                named.addAll(perhaps);
                perhaps.add(Declarations.link(
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

    private static boolean isDoubtful(CandidateLink link, List<CandidateLink> links) {
        return !link.isChosen() && !link.isTaken(links) && (link.score() >= LEAST_IF_DOUBTFUL || link.isNamed());
    }

    /** Keys grow: what is a smallint today need not be one next year. */
    private static void widenKeys(Map<String, ColumnType> types, List<CandidateKey> keys, List<CandidateLink> links) {
        keys.stream()
                .filter(CandidateKey::isChosen)
                .forEach(key -> key.columns().forEach(column -> widen(types, place(key.table(), column))));
        links.stream()
                .filter(link -> link.isChosen() || isDoubtful(link, links))
                .forEach(link -> {
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
