package taxiomet.sources.sheet;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.CellType;
import taxiomet.values.ValueCells;

/** Cells of a sheet as values: as they are stored, whatever is shown (ECMA-376, 18.3.1.4 and 18.8.30). */
final class XlsxCells {
    private static final BigDecimal MILLIS_PER_DAY = BigDecimal.valueOf(86_400_000);
    private static final int FIRST_DATE = 14;
    private static final int LAST_DATE = 22;
    private static final int FIRST_DURATION = 45;
    private static final int LAST_DURATION = 47;
    /** Before this day number the sheet's calendar is a day off: it takes 1900 for a leap year. */
    private static final long FIRST_SOUND_DAY = 60;

    private static final DateTimeFormatter MOMENT = DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm:ss.SSS", Locale.ROOT);
    private static final DateTimeFormatter SECOND = DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm:ss", Locale.ROOT);
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm:ss", Locale.ROOT);

    private final boolean begins1904;

    XlsxCells(boolean begins1904) {
        this.begins1904 = begins1904;
    }

    /** Adds a cell to a column, and gives about how many bytes it takes; an empty one is a null. */
    long add(Cell cell, ValueCells into) {
        if (cell == null || cell.getType() == CellType.EMPTY) {
            into.addNull();
            return 1;
        }
        BigDecimal number = numberOf(cell);
        if (number != null && isMoment(cell)) {
            return add(moment(number), into);
        } else if (number != null) {
            BigDecimal plain = number.stripTrailingZeros();
            if (plain.scale() <= 0 && plain.precision() - plain.scale() <= 18) {
                into.add(plain.longValueExact());
            } else {
                into.add(plain);
            }
            return Long.BYTES;
        } else if (cell.getType() == CellType.BOOLEAN) {
            into.add(cell.asBoolean());
            return 1;
        }
        return add(text(cell), into);
    }

    private static long add(String text, ValueCells into) {
        into.add(text);
        return text.length();
    }

    private static BigDecimal numberOf(Cell cell) {
        if (cell.getType() == CellType.NUMBER) {
            return cell.asNumber();
        }
        // A formula has the value that it came to last.
        return cell.getType() == CellType.FORMULA && cell.getValue() instanceof BigDecimal number ? number : null;
    }

    /** The cell as a text. */
    static String text(Cell cell) {
        if (cell.getType() == CellType.STRING) {
            return cell.asString();
        }
        String raw = cell.getType() == CellType.FORMULA && cell.getValue() != null
                ? String.valueOf(cell.getValue())
                : cell.getRawValue();
        return raw == null ? "" : raw;
    }

    private static boolean isMoment(Cell cell) {
        Integer id = cell.getDataFormatId();
        if (id != null && ((id >= FIRST_DATE && id <= LAST_DATE) || (id >= FIRST_DURATION && id <= LAST_DURATION))) {
            return true;
        }
        String format = cell.getDataFormatString();
        // Letters of dates outside quoted words, escaped letters, colours and conditions.
        return format != null
                && format.toLowerCase(Locale.ROOT)
                        .replaceAll("\"[^\"]*\"|\\\\.|\\[(?![hms]+\\])[^\\]]*\\]|_.|general", "")
                        .matches("(?s).*[dmyhs].*");
    }

    private String moment(BigDecimal number) {
        long millis = number.multiply(MILLIS_PER_DAY)
                .setScale(0, RoundingMode.HALF_UP)
                .longValue();
        long perDay = MILLIS_PER_DAY.longValue();
        long day = Math.floorDiv(millis, perDay);
        long inDay = Math.floorMod(millis, perDay);
        LocalTime time = LocalTime.ofNanoOfDay(inDay * 1_000_000);
        if (day == 0 && !begins1904) {
            return time.format(TIME);
        }
        LocalDateTime first = begins1904
                ? LocalDateTime.of(1904, 1, 1, 0, 0)
                : LocalDateTime.of(1899, 12, day < FIRST_SOUND_DAY ? 31 : 30, 0, 0);
        LocalDateTime at = first.plusDays(day).with(time);
        if (inDay == 0) {
            return at.toLocalDate().toString();
        }
        return at.format(inDay % 1_000 == 0 ? SECOND : MOMENT);
    }
}
