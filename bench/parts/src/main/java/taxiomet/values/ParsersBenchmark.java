package taxiomet.values;


import java.util.Locale;
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
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;

/** Columns read at once, as words, against cells read one by one, byte by byte; nanoseconds a cell. */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@OperationsPerInvocation(ParsersBenchmark.CELLS)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
public class ParsersBenchmark {
    static final int CELLS = 2_000;

    @Param({"integer", "numeric(15,2)", "date", "timestamp", "double precision", "boolean", "uuid", "varchar(30)"})
    public String type;

    private CellColumn cells;
    private TypedColumn valued;
    private TypedColumn bare;
    private TypedColumn oneByOne;
    private ValueReader reader;

    @Setup
    public void prepare() {
        Random random = new Random(1);
        Column column = Column.of("c", ColumnType.parse(type).orElseThrow());
        cells = new CellColumn(CELLS);
        for (int i = 0; i < CELLS; i++) {
            cells.add(cell(random));
        }
        valued = new TypedColumn(column);
        bare = new TypedColumn(column, false);
        oneByOne = new TypedColumn(column);
        oneByOne.read(cells);
        reader = ValueReader.of(column);
    }

    private String cell(Random random) {
        return switch (type) {
            case "integer" -> Integer.toString(random.nextInt(6_000_000));
            case "date" -> String.format(
                    Locale.ROOT, "19%02d-%02d-%02d", 92 + random.nextInt(7), 1 + random.nextInt(12), 1 + random.nextInt(28));
            case "timestamp" -> String.format(
                    Locale.ROOT, "19%02d-%02d-%02d 1%d:3%d:0%d", 92 + random.nextInt(7), 1 + random.nextInt(12),
                    1 + random.nextInt(28), random.nextInt(10), random.nextInt(10), random.nextInt(10));
            case "boolean" -> random.nextBoolean() ? "true" : "f";
            case "uuid" -> new java.util.UUID(random.nextLong(), random.nextLong()).toString();
            case "varchar(30)" -> "x".repeat(random.nextInt(30));
            default -> String.format(Locale.ROOT, "%.2f", random.nextInt(10_000_000) / 100.0);
        };
    }

    @Benchmark
    public TypedColumn atOnceWithValues() {
        valued.read(cells);
        return valued;
    }

    @Benchmark
    public TypedColumn atOnceWithoutValues() {
        bare.read(cells);
        return bare;
    }

    @Benchmark
    public int oneByOne() {
        int sum = 0;
        byte[] bytes = cells.bytes();
        for (int row = 0; row < CELLS; row++) {
            sum += oneByOne.readOne(reader, bytes, row, cells.start(row), cells.length(row));
        }
        return sum;
    }
}
