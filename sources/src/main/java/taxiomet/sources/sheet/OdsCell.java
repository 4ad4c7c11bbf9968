package taxiomet.sources.sheet;

import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.LocalTime;
import taxiomet.values.ValueCells;

/**
 * A cell that is not empty.
 *
 * @param type of its value, as OpenDocument names it: float, percentage, currency, date, time, boolean, string
 * @param value as it is stored; the text that is shown where nothing else is
 */
record OdsCell(String type, String value) {
    /** The cell as text: a moment as SQL writes it. */
    String text() {
        return switch (type) {
            case "date" ->
                value.endsWith("T00:00:00") ? value.substring(0, value.indexOf('T')) : value.replace('T', ' ');
            case "time" -> time();
            case "float", "percentage", "currency" -> number() == null ? value : number().toPlainString();
            default -> value;
        };
    }

    /** Adds it to a column, and gives about how many bytes it takes. */
    long addTo(ValueCells into) {
        BigDecimal number = switch (type) {
            case "float", "percentage", "currency" -> number();
            default -> null;
        };
        if (number != null && number.scale() <= 0 && number.precision() - number.scale() <= 18) {
            into.add(number.longValueExact());
        } else if (number != null) {
            into.add(number);
        } else if (type.equals("boolean")) {
            into.add(value.equals("true"));
        } else {
            String text = text();
            into.add(text);
            return text.length();
        }
        return Long.BYTES;
    }

    private BigDecimal number() {
        try {
            BigDecimal number = new BigDecimal(value);
            // A number of so many places is none that anybody wrote, and would be as many digits here.
            return Math.abs((long) number.scale()) > 400 ? null : number.stripTrailingZeros();
        } catch (NumberFormatException e) {
            return null;
        }
    }

    /** A time of day is stored as a duration: PT13H05M09S. */
    private String time() {
        try {
            Duration since = Duration.parse(value);
            if (since.isNegative() || since.toDays() > 0) {
                return value;
            }
            LocalTime time = LocalTime.MIDNIGHT.plus(since);
            return time.getSecond() == 0 && time.getNano() == 0 ? time + ":00" : time.toString();
        } catch (DateTimeException | ArithmeticException e) {
            return value;
        }
    }
}
