package taxiomet.keys;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.function.LongUnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import taxiomet.spill.MemoryBudget;

/** A set of keys answers like a plain one, whatever form it takes and however often it changes. */
class KeySetTest {
    private static final long SEED = 20_261_125L;

    private record Key(long high, long low) {}

    /** How many parts a key has, and what they are like. */
    @Retention(RetentionPolicy.RUNTIME)
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "1 | dense",
                "1 | sparse",
                "1 | first dense, then far apart",
                "1 | shuffled over a wide range",
                "2 | pairs with a small second part",
                "2 | pairs that grow",
                "2 | pairs too wide",
                "2 | fingerprints",
                "1 | values and fingerprints"
            })
    private @interface EachKindOfKey {}

    private static Key key(String kind, Random random, int i) {
        LongUnaryOperator below = bound -> Math.floorMod(random.nextLong(), bound);
        return switch (kind) {
            case "dense" -> new Key(0, below.applyAsLong(300_000) - 150_000);
            case "sparse" -> new Key(0, random.nextLong());
            case "first dense, then far apart" -> new Key(0, i < 50_000 ? i : random.nextLong());
            case "shuffled over a wide range" -> new Key(0, i * 7_919L % 40_000_003L);
            case "pairs with a small second part" -> new Key(i / 5, below.applyAsLong(7));
            case "pairs that grow" -> new Key(below.applyAsLong(1L << i / 4_000), below.applyAsLong(1L << i / 3_000));
            case "pairs too wide" -> new Key(below.applyAsLong(1L << 61), random.nextLong());
            case "fingerprints" -> new Key(random.nextInt() | Long.MIN_VALUE, random.nextInt(500));
            case "values and fingerprints" ->
                random.nextBoolean() ? new Key(0, i) : new Key(Long.MIN_VALUE | i, below.applyAsLong(3));
            default -> throw new IllegalArgumentException(kind);
        };
    }

    @EachKindOfKey
    void it_answers_like_a_plain_set(int parts, String kind) {
        Random random = new Random(SEED);
        KeySet keys = new KeySet(parts, new MemoryBudget(Long.MAX_VALUE));
        Set<Key> plain = new HashSet<>();
        for (int i = 0; i < 60_000; i++) {
            Key key = key(kind, random, i);
            if (i % 100 == 0) {
                keys.startRows(i, i + 99);
            }
            assertThat(keys.add(key.high(), key.low()))
                    .as("%s, seed %d, key %d", kind, SEED, i)
                    .isEqualTo(plain.add(key) ? KeySet.ADDED : KeySet.PRESENT);
            Key other = key(kind, random, i);
            assertThat(keys.contains(other.high(), other.low())).isEqualTo(plain.contains(other));
        }
        assertThat(keys.size()).isEqualTo(plain.size());
        Set<Key> given = new HashSet<>();
        keys.forEach((high, low) -> given.add(new Key(high, low)));
        assertThat(given).isEqualTo(plain);
    }

    @ParameterizedTest
    @CsvSource({"1,sparse", "1,dense", "2,pairs that grow", "2,fingerprints"})
    void a_key_without_room_is_not_added_and_none_is_lost(int parts, String kind) {
        for (long budget : new long[] {0, 10_000, 60_000, 300_000}) {
            Random random = new Random(SEED);
            KeySet keys = new KeySet(parts, new MemoryBudget(budget));
            Set<Key> plain = new HashSet<>();
            for (int i = 0; i < 60_000; i++) {
                Key key = key(kind, random, i);
                if (keys.add(key.high(), key.low()) == KeySet.FULL) {
                    break;
                }
                plain.add(key);
            }
            Set<Key> given = new HashSet<>();
            int[] count = new int[1];
            keys.forEach((high, low) -> {
                given.add(new Key(high, low));
                count[0]++;
            });
            assertThat(given).as("%s within %d", kind, budget).isEqualTo(plain);
            assertThat(count[0]).isEqualTo(plain.size());
        }
    }

    @EachKindOfKey
    void added_in_batches_and_answered_late_it_tells_the_same(int parts, String kind) {
        for (long budget : new long[] {Long.MAX_VALUE, 3_000_000, 500_000}) {
            Batches batches = new Batches(parts, budget);
            Random random = new Random(SEED);
            boolean isAllAdded = true;
            for (int batch = 0; isAllAdded && batch < 400; batch++) {
                for (int i = 0; i < Batches.SIZE; i++) {
                    batches.set(i, key(kind, random, batch * Batches.SIZE + i));
                }
                isAllAdded = batches.add(batch);
            }
            Set<Key> given = new HashSet<>();
            batches.keys.forEach((high, low) -> given.add(new Key(high, low)));
            assertThat(given).as("%s within %d", kind, budget).isEqualTo(batches.plain.keySet());
            boolean isSealed = isAllAdded && batches.keys.seal(true, batches::repeat);
            if (isSealed) {
                assertThat(batches.repeated)
                        .as("%s within %d", kind, budget)
                        .isEqualTo(batches.plain.entrySet().stream()
                                .filter(entry -> entry.getValue() > 1)
                                .collect(Collectors.toMap(Map.Entry::getKey, entry -> entry.getValue() - 1)));
                for (int round = 0; round < 20; round++) {
                    for (int i = 0; i < Batches.SIZE; i++) {
                        batches.set(i, key(kind, random, round * 3_000 + i / 2 * 2));
                    }
                    batches.assertFindsMissing();
                }
            }
            assertThat(isSealed || budget < Long.MAX_VALUE).isTrue();
        }
    }

    /** Keys as an index gets them: many at once, and those that come again counted. */
    private static final class Batches {
        private static final int SIZE = 500;

        private final KeySet keys;
        private final Map<Key, Integer> plain = new HashMap<>();
        private final Map<Key, Integer> repeated = new HashMap<>();
        private final long[] highs = new long[SIZE];
        private final long[] lows = new long[SIZE];

        Batches(int parts, long budget) {
            keys = new KeySet(parts, new MemoryBudget(budget), true);
        }

        void set(int i, Key key) {
            highs[i] = key.high();
            lows[i] = key.low();
        }

        void repeat(long high, long low) {
            repeated.merge(new Key(high, low), 1, Integer::sum);
        }

        /** Adds all; false when there is no room for one of them, which then is the last. */
        boolean add(int number) {
            keys.startRows((long) number * SIZE, (long) number * SIZE + SIZE - 1);
            int added = keys.addFirst(highs, lows, SIZE, new long[SIZE]);
            for (int i = 0; i < SIZE; i++) {
                if (i >= added) {
                    int answer = keys.add(highs[i], lows[i]);
                    if (answer == KeySet.FULL) {
                        return false;
                    }
                    if (answer == KeySet.PRESENT) {
                        repeat(highs[i], lows[i]);
                    }
                }
                plain.merge(new Key(highs[i], lows[i]), 1, Integer::sum);
            }
            return true;
        }

        void assertFindsMissing() {
            int[] missing = new int[SIZE];
            int count = keys.findMissing(highs, lows, SIZE, new long[SIZE], missing);
            assertThat(IntStream.of(missing).limit(count))
                    .containsExactlyElementsOf(IntStream.range(0, SIZE)
                            .filter(i -> !plain.containsKey(new Key(highs[i], lows[i])))
                            .boxed()
                            .toList());
        }
    }
}
