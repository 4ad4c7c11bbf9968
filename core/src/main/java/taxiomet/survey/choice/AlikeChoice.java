package taxiomet.survey.choice;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import taxiomet.charter.Alike;
import taxiomet.charter.ColumnType;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Table;
import taxiomet.rows.TableSource;
import taxiomet.survey.profile.ColumnProfile;
import taxiomet.survey.profile.TableProfile;
import taxiomet.survey.search.KeyRanking;
import taxiomet.work.Secret;

/**
 * When rows of a table are probably one thing entered twice, where nothing but a number tells them apart: which columns to compare, and how
 * many of them must agree.
 *
 * <p>A combination of columns tells rows apart when few rows share it; one that many share is that of a family, a house, a trade. Columns that
 * stand in no such combination tell apart what shares all else: of these, none may differ. A column in which rows differ that agree in
 * all that tells them apart (the day on which somebody wrote them) says nothing.
 */
public final class AlikeChoice {
    private static final int LEAST_ROWS = 30;
    private static final int LEAST_TEXTS = 2;
    /** As many values, about, as that are as common. */
    private static final double LEAST_BITS = 3;

    private static final double MOST_NULLS = 0.5;
    private static final int LONGEST = 80;
    private static final int LONGEST_CODE = 12;
    private static final double PROSE = 40;
    private static final int USUALLY_AGREE = 3;
    private static final int MOST_AGREE = 5;
    /** Beyond what tells one row from all others: pairs that agree by chance are then one in 4,000 rows, or in 500 with slips. */
    private static final double BITS_TO_SPARE = 11;
    /** Of rows that share a combination: more are no slips, but how such rows are. */
    private static final double MOST_SHARED = 0.2;

    private AlikeChoice() {}

    /**
     * A rule, and what it was made of.
     *
     * @param rows how many rows were looked at
     * @param alike how many of them share a combination that tells rows apart: entered twice, by all that can be seen
     */
    public record Proposed(Alike rule, long rows, long alike) {}

    /**
     * The rule for a table; empty where its rows are told apart by what they hold, or hold too little to be compared.
     *
     * @param draft with the keys and links chosen
     * @param open opens the rows of a table with all its declared columns
     */
    public static Optional<Proposed> of(Table draft, TableProfile profile, Function<Table, TableSource> open) {
        List<Integer> columns = usable(draft, profile);
        long texts = columns.stream()
                .filter(column -> draft.columns().get(column).type().isText())
                .count();
        if (profile.rows < LEAST_ROWS || texts < LEAST_TEXTS || !isOnlyNumbered(draft, profile)) {
            return Optional.empty();
        }
        LooseSample sample;
        try (TableSource source = open.apply(draft)) {
            sample = LooseSample.read(
                    draft, source, columns.stream().mapToInt(i -> i).toArray(), Secret.random());
        }
        return new AlikeChoice.Search(draft, profile, sample).find();
    }

    /** Whether no key, or a made-up one alone, tells rows apart. */
    private static boolean isOnlyNumbered(Table table, TableProfile profile) {
        return table.uniqueKeys().isEmpty()
                && table.primaryKey()
                        .map(key -> key.columns().size() == 1
                                && isMadeUp(profile.columns.get(
                                        table.indexOf(key.columns().get(0)))))
                        .orElse(true);
    }

    /** Whole numbers, uuids, and codes that are numbers but for letters that all have: K-001. */
    private static boolean isMadeUp(ColumnProfile key) {
        ColumnType type = key.guess().type();
        if (!type.isText()) {
            return type.isInteger() || type.name() == ColumnType.Name.UUID;
        }
        String least = key.least().orElse("").replaceAll("[0-9]+", "0");
        return key.shortest() == key.longest()
                && key.longest() <= LONGEST_CODE
                && least.endsWith("0")
                && least.equals(key.greatest().orElse("").replaceAll("[0-9]+", "0"));
    }

    private static List<Integer> usable(Table table, TableProfile profile) {
        List<String> linking = table.links().stream()
                .map(ForeignKey::columns)
                .flatMap(List::stream)
                .toList();
        List<Integer> usable = new ArrayList<>();
        for (int column = 0; column < profile.width(); column++) {
            ColumnProfile own = profile.columns.get(column);
            ColumnType type = table.columns().get(column).type();
            boolean isComparable = type.isText() || type.name() == ColumnType.Name.DATE || type.isInteger();
            boolean isShort = !type.isText() || (own.longest() <= LONGEST && profile.averageLengths[column] <= PROSE);
            boolean isOften = own.nulls() <= MOST_NULLS * Math.max(1, profile.rows);
            boolean repeats = own.distinct() < own.values();
            if (isComparable
                    && isShort
                    && isOften
                    && repeats
                    && !table.isOfPrimaryKey(own.name())
                    && (linking.contains(own.name()) || !KeyRanking.holdAmount(profile, new int[] {column}))) {
                usable.add(column);
            }
        }
        return usable;
    }

    /** Looks for the rule in a sample. */
    private static final class Search {
        private final Table table;
        private final TableProfile profile;
        private final LooseSample sample;
        private final double needed;
        private double leastShare;
        private BitSet sharedColumns;

        Search(Table table, TableProfile profile, LooseSample sample) {
            this.table = table;
            this.profile = profile;
            this.sample = sample;
            this.needed = Math.log((double) profile.rows) / Math.log(2) + BITS_TO_SPARE;
        }

        Optional<Proposed> find() {
            List<Integer> telling = new ArrayList<>();
            for (int i = 0; i < sample.columns(); i++) {
                if (sample.bits(i) >= LEAST_BITS) {
                    telling.add(i);
                }
            }
            telling.sort(Comparator.comparingDouble(sample::bits).reversed());
            List<Integer> columns = new ArrayList<>(telling.subList(0, Math.min(Alike.MOST_COLUMNS, telling.size())));
            if (columns.size() < LEAST_TEXTS) {
                return Optional.empty();
            }
            dropWhatDiffers(columns);
            for (int agree = Math.min(USUALLY_AGREE, columns.size()); agree <= MOST_AGREE; agree++) {
                if (tells(columns, agree)) {
                    dropWhatTellsLittle(columns, agree);
                    return tells(columns, agree) ? Optional.of(proposed(columns, agree)) : Optional.empty();
                }
            }
            return Optional.empty();
        }

        /** Whether some combination tells rows apart; notes how many rows share the best one, and what stands in those that many share. */
        private boolean tells(List<Integer> columns, int agree) {
            leastShare = Double.MAX_VALUE;
            if (columns.size() < agree || agree < 2) {
                return false;
            }
            List<int[]> all = combinations(columns, agree);
            for (int[] some : all) {
                if (bits(some) >= needed) {
                    leastShare = Math.min(leastShare, sample.sharedBy(some));
                }
            }
            if (leastShare > MOST_SHARED) {
                return false;
            }
            sharedColumns = new BitSet();
            for (int[] some : all) {
                if (isShared(some)) {
                    for (int column : some) {
                        sharedColumns.set(column);
                    }
                }
            }
            return columns.stream().anyMatch(column -> !sharedColumns.get(column)) || sharedColumns.isEmpty();
        }

        /** Whether rows of different things share a combination: half as many again as share the one that tells best, and not by chance. */
        private boolean isShared(int[] some) {
            double byChance = sample.rows() * Math.pow(2, -bits(some));
            return sample.sharedBy(some) > 1.5 * leastShare + 0.005 + 2 * byChance;
        }

        /** Columns in which rows differ whatever else they share. */
        private void dropWhatDiffers(List<Integer> columns) {
            boolean[] agrees = new boolean[sample.columns()];
            for (int[] some : combinations(columns, Math.min(USUALLY_AGREE, columns.size() - 1))) {
                sample.noteAgreement(some, agrees);
            }
            columns.removeIf(column -> !agrees[column]);
        }

        /** Columns that would let rows agree by chance, those that tell least first, as long as enough are left. */
        private void dropWhatTellsLittle(List<Integer> columns, int agree) {
            while (columns.size() > agree) {
                boolean isByChance = combinations(columns, agree).stream()
                        .anyMatch(some -> !isShared(some) && bits(some) + bitsOfDiffering(columns, some) < needed);
                if (!isByChance) {
                    return;
                }
                columns.remove(columns.size() - 1);
            }
        }

        /** How much less likely it is that rows agree by chance in these columns alone: in one that never differs a value has to be missing. */
        private double bitsOfDiffering(List<Integer> columns, int[] some) {
            BitSet own = new BitSet();
            for (int column : some) {
                own.set(column);
            }
            double bits = 0;
            for (int column : neverDiffer(columns)) {
                bits += own.get(column) ? 0 : sample.bitsOfMissing(column);
            }
            return bits;
        }

        private List<Integer> neverDiffer(List<Integer> columns) {
            return sharedColumns.isEmpty()
                    ? List.of()
                    : columns.stream()
                            .filter(column -> !sharedColumns.get(column))
                            .toList();
        }

        private double bits(int[] some) {
            double bits = 0;
            for (int column : some) {
                bits += sample.bits(column);
            }
            return bits;
        }

        private Proposed proposed(List<Integer> columns, int agree) {
            List<Integer> ordered = columns.stream().sorted().toList();
            Alike rule = Alike.of(
                    "same_" + table.name(),
                    ordered.stream().map(this::name).toList(),
                    agree,
                    neverDiffer(ordered).stream().map(this::name).toArray(String[]::new));
            long alike = combinations(columns, agree).stream()
                    .filter(some -> bits(some) >= needed && !isShared(some))
                    .mapToLong(sample::repeatedBy)
                    .max()
                    .orElse(0);
            return new Proposed(rule, sample.rows(), alike);
        }

        private String name(int column) {
            return profile.columns.get(sample.place(column)).name();
        }
    }

    /** All combinations of so many columns. */
    private static List<int[]> combinations(List<Integer> columns, int size) {
        List<int[]> all = new ArrayList<>();
        addCombinations(columns, new int[size], 0, 0, all);
        return all;
    }

    private static void addCombinations(List<Integer> columns, int[] some, int filled, int from, List<int[]> all) {
        if (filled == some.length) {
            all.add(some.clone());
            return;
        }
        for (int i = from; i < columns.size(); i++) {
            some[filled] = columns.get(i);
            addCombinations(columns, some, filled + 1, i + 1, all);
        }
    }
}
