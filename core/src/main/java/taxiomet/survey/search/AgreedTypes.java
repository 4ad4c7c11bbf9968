package taxiomet.survey.search;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.ColumnType;
import taxiomet.charter.ColumnType.Family;
import taxiomet.survey.profile.ColumnProfile;
import taxiomet.survey.profile.TableProfile;
import taxiomet.survey.profile.TypeGuess;

/**
 * Types of columns that may point at a key: a column with many slips is of the type of the key whose values it shares, and its slips are that;
 * and digits that are codes or texts in the key are texts in what points at it.
 */
public final class AgreedTypes {
    /** The share of a column's values that a key must have. */
    private static final double LEAST_SHARED = 0.15;

    private final List<TableProfile> tables;
    private final Map<TableProfile, List<int[]>> keys;
    private final NameLikeness names;

    private AgreedTypes(List<TableProfile> tables, Map<TableProfile, List<int[]>> keys, NameLikeness names) {
        this.tables = tables;
        this.keys = keys;
        this.names = names;
    }

    /** @param keys the candidates of each table, as places of columns */
    public static void agree(List<TableProfile> tables, Map<TableProfile, List<int[]>> keys, NameLikeness names) {
        new AgreedTypes(tables, keys, names).agree();
    }

    private void agree() {
        for (TableProfile parent : tables) {
            int[] parts = keys.getOrDefault(parent, List.of()).stream()
                    .flatMapToInt(java.util.Arrays::stream)
                    .distinct()
                    .sorted()
                    .toArray();
            for (int part : parts) {
                tables.forEach(child -> agree(child, parent, part));
            }
        }
    }

    private void agree(TableProfile child, TableProfile parent, int part) {
        ColumnType key = parent.columns.get(part).guess().type();
        for (int column = 0; column < child.width(); column++) {
            ColumnProfile own = child.columns.get(column);
            if (own.guess().type().family() == key.family()
                    || own.values() == 0
                    || (child == parent && column == part)) {
                continue;
            }
            if (key.isText() && own.guess().type().isInteger()) {
                if (isShared(child, column, parent, part)) {
                    ColumnType text = TypeGuess.text(own.longest());
                    child.retype(
                            column,
                            new TypeGuess(
                                    text,
                                    Optional.empty(),
                                    false,
                                    0,
                                    List.of(),
                                    text,
                                    "digits, taken for texts as in " + name(parent, part)));
                }
            } else if (own.guess().type().isText() && !key.isText() && key.family() != Family.BOOLEAN) {
                Optional<TypeGuess> likeKey =
                        child.guessAs(column, parent.columns.get(part).guess());
                if (likeKey.isPresent() && isShared(child, column, parent, part)) {
                    child.retype(column, likeKey.get());
                }
            }
        }
    }

    private static String name(TableProfile table, int column) {
        return table.name() + "." + table.columns.get(column).name();
    }

    /** Whether a column shares values with a key, and is named for it or shares them by no accident. */
    private boolean isShared(TableProfile child, int column, TableProfile parent, int part) {
        SharedValues both = SharedValues.of(child, column, parent, part, SharedValues.SOME);
        double shared = both.ofValues().orElse(0);
        return Math.max(shared, both.ofRows().share()) >= LEAST_SHARED
                && (names.likeness(child, column, parent, part) >= LinkRanking.NAMED
                        || Surprise.ofAgreement(child, column, parent, part, shared) >= Surprise.SURE);
    }
}
