package taxiomet.charter;

import java.util.Locale;
import java.util.Optional;

/** What an insert writes into a column that it leaves out. */
public sealed interface DefaultValue {
    /** As a charter or a schema writes it. */
    String text();

    /** The same value always, as a cell of the column has it. */
    record Constant(String text) implements DefaultValue {}

    /** The moment of the insert, in the word that asks for it. */
    record Clock(Word word) implements DefaultValue {
        @Override
        public String text() {
            return word.sql();
        }
    }

    /** What a database server works out, and nobody else can: an expression of SQL that is no constant. */
    record ByServer(String text) implements DefaultValue {}

    /** The words that ask for the current moment. */
    enum Word {
        CURRENT_DATE,
        CURRENT_TIME,
        CURRENT_TIMESTAMP;

        public String sql() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** The current moment, where a text asks for one and the column can hold it. */
    static Optional<DefaultValue> clock(String text, ColumnType type) {
        Optional<Word> word = switch (text.strip().toLowerCase(Locale.ROOT)) {
            case "current_date" -> Optional.of(Word.CURRENT_DATE);
            case "current_time", "localtime" -> Optional.of(Word.CURRENT_TIME);
            case "current_timestamp", "localtimestamp", "now()" -> Optional.of(Word.CURRENT_TIMESTAMP);
            default -> Optional.empty();
        };
        return word.filter(w -> switch (type.family()) {
                    case MOMENT, INSTANT -> w != Word.CURRENT_TIME;
                    case TIME -> w != Word.CURRENT_DATE;
                    default -> false;
                })
                .map(Clock::new);
    }
}
