package taxiomet.spill;

import it.unimi.dsi.fastutil.longs.LongArrays;
import java.util.Random;
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

/** Sorting pairs, ours beside a library's; nanoseconds a pair, with copying the unsorted ones. */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@OperationsPerInvocation(SortBenchmark.PAIRS)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
public class SortBenchmark {
    static final int PAIRS = 1 << 16;

    @Param({"random", "ascending"})
    public String order;

    private final long[] firsts = new long[PAIRS];
    private final long[] seconds = new long[PAIRS];
    private final long[] a = new long[PAIRS];
    private final long[] b = new long[PAIRS];

    @Setup
    public void prepare() {
        Random random = new Random(1);
        for (int i = 0; i < PAIRS; i++) {
            firsts[i] = order.equals("random") ? random.nextLong() : i / 3;
            seconds[i] = random.nextInt();
        }
    }

    private void copy() {
        System.arraycopy(firsts, 0, a, 0, PAIRS);
        System.arraycopy(seconds, 0, b, 0, PAIRS);
    }

    @Benchmark
    public long own() {
        copy();
        PairSort.sort(a, b, PAIRS);
        return a[7] + b[9];
    }

    @Benchmark
    public long fastutilQuick() {
        copy();
        it.unimi.dsi.fastutil.Arrays.quickSort(
                0,
                PAIRS,
                (x, y) -> a[x] == a[y] ? Long.compare(b[x], b[y]) : Long.compare(a[x], a[y]),
                (x, y) -> {
                    LongArrays.swap(a, x, y);
                    LongArrays.swap(b, x, y);
                });
        return a[7] + b[9];
    }

    @Benchmark
    public long fastutilRadix() {
        copy();
        LongArrays.radixSort(a, b, 0, PAIRS);
        return a[7] + b[9];
    }
}
