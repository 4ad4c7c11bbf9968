package taxiomet.keys;

import com.dynatrace.hash4j.hashing.HashValue128;
import com.dynatrace.hash4j.hashing.Hasher128;
import com.dynatrace.hash4j.hashing.Hashing;
import it.unimi.dsi.fastutil.longs.LongOpenHashSet;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OperationsPerInvocation;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import org.roaringbitmap.longlong.Roaring64Bitmap;
import taxiomet.spill.MemoryBudget;
import taxiomet.work.Secret;

/** What is hand-written for keys beside libraries for the same; nanoseconds a key. */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@OperationsPerInvocation(LibrariesBenchmark.PROBES)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
public class LibrariesBenchmark {
    static final int PROBES = 2_000;
    private static final int KEYS = 1_000_000;
    private static final int TEXT = 18;

    private final LongTable table = new LongTable(new MemoryBudget(Long.MAX_VALUE));
    private final LongOpenHashSet hashSet = new LongOpenHashSet();
    private final PagedBits bits = new PagedBits(new MemoryBudget(Long.MAX_VALUE));
    private final Roaring64Bitmap bitmap = new Roaring64Bitmap();
    private final Fingerprint fingerprint = new Fingerprint(Secret.of(3, 5, 7, 11, 13, 17, 19, 23));
    private final Hasher128 hasher = Hashing.murmur3_128();
    private final Hasher128 xxh3 = Hashing.xxh3_128();
    private final long[][] sparse = new long[64][PROBES];
    private final long[][] dense = new long[64][PROBES];
    private final int[] missing = new int[PROBES];
    private byte[] texts;
    private int turn;

    @Setup
    public void prepare() {
        Random random = new Random(1);
        long[] all = new long[KEYS];
        bits.startRows(0, KEYS);
        for (int i = 0; i < KEYS; i++) {
            all[i] = random.nextLong() >>> 12;
            table.add(all[i]);
            hashSet.add(all[i]);
            bits.add(i);
            bitmap.addLong(i);
        }
        for (int batch = 0; batch < sparse.length; batch++) {
            for (int i = 0; i < PROBES; i++) {
                int key = random.nextInt(KEYS);
                sparse[batch][i] = all[key];
                dense[batch][i] = key;
            }
        }
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < PROBES; i++) {
            text.append(String.format("Supplier#%09d", i));
        }
        texts = Arrays.copyOf(text.toString().getBytes(StandardCharsets.UTF_8), PROBES * TEXT + 16);
    }

    @Benchmark
    public int sparseOwn() {
        turn = turn + 1 & 63;
        return table.findMissing(sparse[turn], PROBES, missing);
    }

    @Benchmark
    public int sparseFastutil() {
        turn = turn + 1 & 63;
        int found = 0;
        for (long key : sparse[turn]) {
            found += hashSet.contains(key) ? 1 : 0;
        }
        return found;
    }

    @Benchmark
    public int denseOwn() {
        turn = turn + 1 & 63;
        return bits.findMissing(dense[turn], PROBES, missing);
    }

    @Benchmark
    public int denseRoaring() {
        turn = turn + 1 & 63;
        int found = 0;
        for (long key : dense[turn]) {
            found += bitmap.contains(key) ? 1 : 0;
        }
        return found;
    }

    @Benchmark
    public long textOwn() {
        long sum = 0;
        for (int i = 0; i < PROBES; i++) {
            fingerprint.ofBytes(texts, i * TEXT, TEXT, 1);
            sum += fingerprint.high() ^ fingerprint.low();
        }
        return sum;
    }

    @Benchmark
    public long textMurmur3() {
        return textBy(hasher);
    }

    @Benchmark
    public long textXxh3() {
        return textBy(xxh3);
    }

    private long textBy(Hasher128 by) {
        long sum = 0;
        for (int i = 0; i < PROBES; i++) {
            HashValue128 value = by.hashBytesTo128Bits(texts, i * TEXT, TEXT);
            sum += value.getMostSignificantBits() ^ value.getLeastSignificantBits();
        }
        return sum;
    }
}
