package taxiomet.survey.count;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.Expression;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.IntRange;
import taxiomet.charter.Key;
import taxiomet.charter.Rule;
import taxiomet.charter.Server;
import taxiomet.charter.Severity;
import taxiomet.charter.Table;
import taxiomet.survey.profile.ColumnProfile;
import taxiomet.survey.profile.Declarations;
import taxiomet.survey.profile.TableProfile;
import taxiomet.survey.search.Pair;

/** A charter that has a check count candidates, which are named by their places. */
public final class Exam {
    private static final IntRange ANY = new IntRange(0, IntRange.NO_LIMIT);

    private Exam() {}

    /** The name that the key of a place in the list of candidates has in the exam. */
    static String keyName(int place) {
        return "key" + place;
    }

    public static String linkName(int place) {
        return "link" + place;
    }

    /** A charter that has every candidate counted at once. */
    public static Charter exam(List<TableProfile> profiles, Map<TableProfile, List<int[]>> keys, List<Pair> pairs) {
        List<Table> tables = new ArrayList<>();
        for (TableProfile profile : profiles) {
            Table table = Declarations.typed(profile);
            List<Key> unique = new ArrayList<>();
            List<Rule> rules = new ArrayList<>();
            for (int place = 0; place < keys.get(profile).size(); place++) {
                int[] key = keys.get(profile).get(place);
                unique.add(Key.of(keyName(place), Declarations.names(profile, key), false));
                if (!isFullAndOfItsTypes(profile, key)) {
                    rules.add(new Rule(keyName(place), "no nulls", noNulls(table.columns(), key), Severity.ERROR));
                }
            }
            tables.add(Declarations.with(table, Optional.empty(), unique, links(profile, pairs), rules));
        }
        return new Charter("survey", tables, Server.STANDARD);
    }

    private static List<ForeignKey> links(TableProfile child, List<Pair> pairs) {
        List<ForeignKey> links = new ArrayList<>();
        for (int i = 0; i < pairs.size(); i++) {
            Pair pair = pairs.get(i);
            if (pair.child().equals(child) && !pair.isEmpty()) {
                links.add(Declarations.link(
                        linkName(i),
                        pair.child().name(),
                        Declarations.names(pair.child(), pair.columns()),
                        pair.parent().name(),
                        Declarations.names(pair.parent(), pair.key()),
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
}
