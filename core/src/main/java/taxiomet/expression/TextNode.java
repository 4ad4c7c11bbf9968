package taxiomet.expression;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Locale;
import taxiomet.keys.TypedBatch;
import taxiomet.values.CellColumn;
import taxiomet.values.TypedColumn;

/** A text as a span over UTF-8 bytes, whose order is that of the code points. */
abstract class TextNode extends Node {
    byte[] bytes = new byte[0];
    int start;
    /** In bytes. */
    int length;

    TextNode(Node... operands) {
        super(operands);
    }

    final void set(byte[] from, int at, int count) {
        bytes = from;
        start = at;
        length = count;
    }

    final String text() {
        return new String(bytes, start, length, StandardCharsets.UTF_8);
    }

    static int compare(TextNode a, TextNode b) {
        return Arrays.compareUnsigned(a.bytes, a.start, a.start + a.length, b.bytes, b.start, b.start + b.length);
    }

    /** Whether a byte goes on with a code point that began before it. */
    static boolean isContinuation(byte b) {
        return (b & 0xC0) == 0x80;
    }

    static final class Column extends TextNode {
        private final int place;
        private TypedColumn column;
        private CellColumn cells;

        Column(int place) {
            this.place = place;
        }

        @Override
        void start(TypedBatch batch) {
            column = batch.column(place);
            cells = column.cells();
        }

        @Override
        void evaluate(int row) {
            isNull = !column.isValue(row);
            if (!isNull) {
                set(cells.bytes(), cells.start(row), (int) column.low(row));
            }
        }
    }

    static final class Constant extends TextNode {
        Constant(String text) {
            byte[] utf8 = text.getBytes(StandardCharsets.UTF_8);
            set(utf8, 0, utf8.length);
        }

        @Override
        void evaluate(int row) {
            // It is always the same.
        }
    }

    /** Without the blanks at its ends. */
    static final class Trimmed extends TextNode {
        private final TextNode operand;

        Trimmed(TextNode operand) {
            super(operand);
            this.operand = operand;
        }

        @Override
        void evaluate(int row) {
            operand.evaluate(row);
            isNull = operand.isNull;
            if (!isNull) {
                int from = operand.start;
                int to = from + operand.length;
                while (from < to && operand.bytes[from] == ' ') {
                    from++;
                }
                while (to > from && operand.bytes[to - 1] == ' ') {
                    to--;
                }
                set(operand.bytes, from, to - from);
            }
        }
    }

    /** In capitals, or without any. */
    static final class Cased extends TextNode {
        private final TextNode operand;
        private final boolean isUpper;
        private byte[] own = new byte[32];

        Cased(TextNode operand, boolean isUpper) {
            super(operand);
            this.operand = operand;
            this.isUpper = isUpper;
        }

        @Override
        void evaluate(int row) {
            operand.evaluate(row);
            isNull = operand.isNull;
            if (isNull) {
                return;
            }
            if (own.length < operand.length) {
                own = new byte[operand.length * 2];
            }
            for (int i = 0; i < operand.length; i++) {
                byte b = operand.bytes[operand.start + i];
                if (b < 0) {
                    setByString();
                    return;
                }
                boolean turns = isUpper ? b >= 'a' && b <= 'z' : b >= 'A' && b <= 'Z';
                own[i] = turns ? (byte) (b ^ 0x20) : b;
            }
            set(own, 0, operand.length);
        }

        private void setByString() {
            String text = operand.text();
            byte[] utf8 = (isUpper ? text.toUpperCase(Locale.ROOT) : text.toLowerCase(Locale.ROOT))
                    .getBytes(StandardCharsets.UTF_8);
            set(utf8, 0, utf8.length);
        }
    }

    /** Texts one behind the other; null when one of them is. */
    static final class Joined extends TextNode {
        private final TextNode[] parts;
        private byte[] own = new byte[64];

        Joined(TextNode... parts) {
            super(parts);
            this.parts = parts.clone();
        }

        @Override
        void evaluate(int row) {
            int size = 0;
            for (TextNode part : parts) {
                part.evaluate(row);
                isNull = part.isNull;
                if (isNull) {
                    return;
                }
                if (own.length < size + part.length) {
                    own = Arrays.copyOf(own, (size + part.length) * 2);
                }
                System.arraycopy(part.bytes, part.start, own, size, part.length);
                size += part.length;
            }
            set(own, 0, size);
        }
    }

    /** The first of some that is not null. */
    static final class FirstOf extends TextNode {
        FirstOf(Node... some) {
            super(some);
        }

        @Override
        void evaluate(int row) {
            Node first = firstNotNull(row);
            isNull = first.isNull;
            if (!isNull) {
                TextNode text = (TextNode) first;
                set(text.bytes, text.start, text.length);
            }
        }
    }
}
