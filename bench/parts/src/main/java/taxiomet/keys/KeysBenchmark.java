package taxiomet.keys;


import java.util.HashSet;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OperationsPerInvocation;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import taxiomet.spill.MemoryBudget;

/** Look-ups among a million keys, in the form that each kind of key takes; nanoseconds a key. */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@OperationsPerInvocation(KeysBenchmark.PROBES)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
public class KeysBenchmark {
    static final int PROBES = 2_000;
    private static final int KEYS = 1_000_000;

    @Param({"dense", "sparse", "pairs", "fingerprints"})
    public String kind;

    private KeySet keys;
    private Set<Long> objects;
    private final long[][] highs = new long[64][PROBES];
    private final long[][] lows = new long[64][PROBES];
    private final long[] packed = new long[PROBES];
    private final int[] missing = new int[PROBES];
    private int turn;

    @Setup
    public void prepare() {
        Random random = new Random(1);
        boolean isPair = kind.equals("pairs");
        keys = new KeySet(isPair ? 2 : 1, new MemoryBudget(Long.MAX_VALUE), true);
        objects = new HashSet<>();
        long[] allHighs = new long[KEYS];
        long[] allLows = new long[KEYS];
        for (int i = 0; i < KEYS; i++) {
            allHighs[i] = isPair ? i / 4 : kind.equals("fingerprints") ? random.nextLong() | Long.MIN_VALUE : 0;
            allLows[i] = kind.equals("dense") ? i : isPair ? random.nextInt(10_000) : random.nextLong();
            keys.add(allHighs[i], allLows[i]);
            objects.add(allHighs[i] * 31 + allLows[i]);
        }
        keys.seal(true, (high, low) -> {});
        for (int batch = 0; batch < highs.length; batch++) {
            for (int i = 0; i < PROBES; i++) {
                int key = random.nextInt(KEYS);
                highs[batch][i] = allHighs[key];
                lows[batch][i] = allLows[key];
            }
        }
    }

    @Benchmark
    public int batch() {
        turn = turn + 1 & 63;
        return keys.findMissing(highs[turn], lows[turn], PROBES, packed, missing);
    }

    @Benchmark
    public int oneByOne() {
        turn = turn + 1 & 63;
        int found = 0;
        for (int i = 0; i < PROBES; i++) {
            found += keys.contains(highs[turn][i], lows[turn][i]) ? 1 : 0;
        }
        return found;
    }

    @Benchmark
    public int objects() {
        turn = turn + 1 & 63;
        int found = 0;
        for (int i = 0; i < PROBES; i++) {
            found += objects.contains(highs[turn][i] * 31 + lows[turn][i]) ? 1 : 0;
        }
        return found;
    }
}
