package taxiomet.sources.csv;

import taxiomet.sources.file.Utf8;

import java.nio.charset.StandardCharsets;
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
import taxiomet.values.CellColumn;

/** Marks found eight bytes at a time against one by one, and UTF-8 validated; nanoseconds a byte. */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@OperationsPerInvocation(MarksBenchmark.BYTES)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
public class MarksBenchmark {
    static final int BYTES = 1 << 18;

    private final byte[] bytes = new byte[BYTES + CellColumn.PADDING];
    private final Marks marks = new Marks((byte) ',', (byte) '"');
    private final int[] places = new int[BYTES];
    private final boolean[] isMark = new boolean[256];

    @Setup
    public void prepare() {
        Random random = new Random(1);
        StringBuilder text = new StringBuilder();
        while (text.length() < BYTES) {
            text.append(random.nextInt(6_000_000)).append(',').append(random.nextInt(200_000)).append(',')
                    .append(random.nextInt(10_000)).append(",17,21168.23,0.04,0.02,N,O,1996-03-13,1996-02-12,1996-03-22,")
                    .append("DELIVER IN PERSON,TRUCK,egular courts above the\n");
        }
        System.arraycopy(text.toString().getBytes(StandardCharsets.UTF_8), 0, bytes, 0, BYTES);
        for (int b = 0; b < 128; b++) {
            isMark[b] = b < ' ' || b == ',' || b == '"';
        }
    }

    @Benchmark
    public int byWords() {
        marks.clear();
        marks.find(bytes, 0, BYTES);
        return marks.count();
    }

    @Benchmark
    public int byBytes() {
        int count = 0;
        for (int at = 0; at < BYTES; at++) {
            if (isMark[bytes[at] & 0xFF]) {
                places[count++] = at;
            }
        }
        return count;
    }

    @Benchmark
    public boolean utf8() {
        return Utf8.isValid(bytes, 0, BYTES);
    }
}
