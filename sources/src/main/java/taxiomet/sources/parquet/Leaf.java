package taxiomet.sources.parquet;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.HexFormat;
import java.util.UUID;
import org.apache.parquet.column.ColumnDescriptor;
import org.apache.parquet.column.values.ValuesReader;
import org.apache.parquet.io.api.Binary;
import org.apache.parquet.schema.LogicalTypeAnnotation;
import org.apache.parquet.schema.LogicalTypeAnnotation.DateLogicalTypeAnnotation;
import org.apache.parquet.schema.LogicalTypeAnnotation.DecimalLogicalTypeAnnotation;
import org.apache.parquet.schema.LogicalTypeAnnotation.EnumLogicalTypeAnnotation;
import org.apache.parquet.schema.LogicalTypeAnnotation.IntLogicalTypeAnnotation;
import org.apache.parquet.schema.LogicalTypeAnnotation.JsonLogicalTypeAnnotation;
import org.apache.parquet.schema.LogicalTypeAnnotation.StringLogicalTypeAnnotation;
import org.apache.parquet.schema.LogicalTypeAnnotation.TimeLogicalTypeAnnotation;
import org.apache.parquet.schema.LogicalTypeAnnotation.TimeUnit;
import org.apache.parquet.schema.LogicalTypeAnnotation.TimestampLogicalTypeAnnotation;
import org.apache.parquet.schema.LogicalTypeAnnotation.UUIDLogicalTypeAnnotation;
import org.apache.parquet.schema.PrimitiveType;
import org.apache.parquet.schema.PrimitiveType.PrimitiveTypeName;
import taxiomet.sources.file.Utf8;
import taxiomet.values.ValueCells;
import taxiomet.values.ValueCells.Kind;

/** A column of single values, and what its values, as pages hold them, are as cells. */
final class Leaf {
    private static final long MICROS_PER_DAY = 86_400_000_000L;
    private static final int JULIAN_1970 = 2_440_588;
    private static final int NANOS = 1_000;

    private final ColumnDescriptor descriptor;
    private final PrimitiveTypeName type;
    private final LogicalTypeAnnotation meant;

    Leaf(ColumnDescriptor descriptor) {
        PrimitiveType primitive = descriptor.getPrimitiveType();
        this.descriptor = descriptor;
        this.type = primitive.getPrimitiveTypeName();
        this.meant = primitive.getLogicalTypeAnnotation();
    }

    ColumnDescriptor descriptor() {
        return descriptor;
    }

    /** Whether each value stands in a page as four or eight bytes: of a whole number, a moment or a double. */
    boolean areLongs() {
        return type == PrimitiveTypeName.INT32 || type == PrimitiveTypeName.INT64 || type == PrimitiveTypeName.DOUBLE;
    }

    /** How many bytes each value has where they {@link #areLongs are longs}. */
    int longBytes() {
        return type == PrimitiveTypeName.INT32 ? Integer.BYTES : Long.BYTES;
    }

    /** Whether values are texts: bytes that are UTF-8 are, whether it is said or not, since older writers left it out. */
    boolean areTexts() {
        return type == PrimitiveTypeName.BINARY
                && (meant == null
                        || meant instanceof StringLogicalTypeAnnotation
                        || meant instanceof EnumLogicalTypeAnnotation
                        || meant instanceof JsonLogicalTypeAnnotation);
    }

    /** Adds values that {@link #areLongs are longs}. */
    void add(long[] values, int from, int count, ValueCells into) {
        if (type == PrimitiveTypeName.DOUBLE) {
            into.add(Kind.DOUBLE, values, from, count, 0);
        } else if (meant instanceof DecimalLogicalTypeAnnotation decimal) {
            into.add(Kind.DECIMAL, values, from, count, decimal.getScale());
        } else if (meant == null || (meant instanceof IntLogicalTypeAnnotation whole && whole.isSigned())) {
            into.add(Kind.WHOLE, values, from, count, 0);
        } else {
            for (int i = from; i < from + count; i++) {
                add(values[i], into);
            }
        }
    }

    private void add(long value, ValueCells into) {
        if (meant instanceof DateLogicalTypeAnnotation) {
            into.add(Kind.DATE, Math.multiplyExact(value, MICROS_PER_DAY), 0);
        } else if (meant instanceof TimeLogicalTypeAnnotation time) {
            addMicros(into, Kind.TIME, value, time.getUnit());
        } else if (meant instanceof TimestampLogicalTypeAnnotation moment) {
            addMicros(into, moment.isAdjustedToUTC() ? Kind.INSTANT : Kind.TIMESTAMP, value, moment.getUnit());
        } else {
            long mask = type == PrimitiveTypeName.INT64 ? -1 : 0xFFFFFFFFL;
            addUnsigned(into, value & mask);
        }
    }

    private static void addUnsigned(ValueCells into, long bits) {
        if (bits < 0) {
            into.add(Long.toUnsignedString(bits));
        } else {
            into.add(bits);
        }
    }

    private static void addMicros(ValueCells into, Kind kind, long count, TimeUnit unit) {
        if (unit == TimeUnit.NANOS && count % NANOS != 0) {
            into.add(printed(kind, count));
            return;
        }
        into.add(
                kind,
                switch (unit) {
                    case MILLIS -> Math.multiplyExact(count, 1_000L);
                    case MICROS -> count;
                    case NANOS -> count / NANOS;
                },
                0);
    }

    /** What is finer than a microsecond has no value here: it is told as it is. */
    private static String printed(Kind kind, long nanos) {
        Instant instant = Instant.EPOCH.plus(nanos, ChronoUnit.NANOS);
        LocalDateTime local = LocalDateTime.ofInstant(instant, ZoneOffset.UTC);
        return switch (kind) {
            case INSTANT -> instant.toString();
            case TIMESTAMP -> local.toString();
            default -> local.toLocalTime().toString();
        };
    }

    /** Adds the next value of those that the library takes apart, and gives about how many bytes it takes. */
    long add(ValuesReader values, ValueCells into) {
        switch (type) {
            case BOOLEAN -> into.add(values.readBoolean());
            case INT32 -> add(new long[] {values.readInteger()}, 0, 1, into);
            case INT64 -> add(new long[] {values.readLong()}, 0, 1, into);
            // The shortest decimal that is this float: as a double it would have digits that nobody wrote.
            case FLOAT -> into.add(Double.parseDouble(Float.toString(values.readFloat())));
            case DOUBLE -> into.add(values.readDouble());
            case INT96 -> addMoment(values.readBytes(), into);
            case BINARY, FIXED_LEN_BYTE_ARRAY -> {
                return addBytes(values.readBytes(), into);
            }
        }
        return Long.BYTES;
    }

    /** The form of older writers: nanoseconds of a day, and its number in the Julian count. */
    private static void addMoment(Binary value, ValueCells into) {
        ByteBuffer parts = ByteBuffer.wrap(value.getBytesUnsafe()).order(ByteOrder.LITTLE_ENDIAN);
        long nanos = parts.getLong();
        long day = parts.getInt() - (long) JULIAN_1970;
        into.add(Kind.TIMESTAMP, Math.addExact(Math.multiplyExact(day, MICROS_PER_DAY), nanos / NANOS), 0);
    }

    private long addBytes(Binary value, ValueCells into) {
        byte[] bytes = value.getBytesUnsafe();
        if (meant instanceof DecimalLogicalTypeAnnotation decimal) {
            into.add(new BigDecimal(new BigInteger(bytes), decimal.getScale()));
        } else if (meant instanceof UUIDLogicalTypeAnnotation) {
            ByteBuffer halves = ByteBuffer.wrap(bytes);
            into.add(new UUID(halves.getLong(), halves.getLong()));
        } else if (areTexts() && Utf8.isValid(bytes, 0, bytes.length)) {
            into.add(bytes, 0, bytes.length);
        } else {
            into.add(HexFormat.of().formatHex(bytes));
        }
        return bytes.length;
    }
}
