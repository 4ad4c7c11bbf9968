package taxiomet.sources.json;

import com.fasterxml.jackson.core.JsonPointer;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import taxiomet.charter.place.FieldPointer;

/** The way from a value to the rows in it, and from a row to the values of its columns. */
final class ItemWay {
    /** Each element of a list. */
    static final String EACH = "*";

    private ItemWay() {}

    /**
     * A value with those that it stands in.
     *
     * @param index its place in the list that it is an element of; -1 in an object
     * @param in null for the outermost that is known
     */
    record Node(Object value, int index, Node in) {
        /** So many steps out; null where no more is known. */
        Node up(int steps) {
            Node node = this;
            for (int i = 0; i < steps && node != null; i++) {
                node = node.in;
            }
            return node;
        }
    }

    /** The rows that steps lead to: the elements of the lists at their end; an object there is one row, and what is not there none. */
    static List<Node> rows(Node from, List<String> steps) {
        List<Node> rows = new ArrayList<>();
        addRows(from, steps, rows);
        return rows;
    }

    private static void addRows(Node from, List<String> steps, List<Node> rows) {
        if (steps.isEmpty()) {
            if (from.value instanceof List<?> list) {
                for (int i = 0; i < list.size(); i++) {
                    rows.add(new Node(list.get(i), i, from));
                }
            } else if (from.value != null) {
                rows.add(from);
            }
            return;
        }
        List<String> rest = steps.subList(1, steps.size());
        String step = steps.get(0);
        if (step.equals(EACH) && from.value instanceof List<?> list) {
            for (int i = 0; i < list.size(); i++) {
                addRows(new Node(list.get(i), i, from), rest, rows);
            }
        } else {
            Object inside = inside(from.value, step);
            if (inside != null) {
                addRows(new Node(inside, -1, from), rest, rows);
            }
        }
    }

    private static Object inside(Object value, String step) {
        if (value instanceof Map<?, ?> object) {
            return object.get(step);
        } else if (value instanceof List<?> list && step.matches("0|[1-9][0-9]{0,8}")) {
            int place = Integer.parseInt(step);
            return place < list.size() ? list.get(place) : null;
        }
        return null;
    }

    /**
     * Where the value of a column stands, seen from a row.
     *
     * @param up how many steps out
     * @param isPlace whether its place in its list is meant
     */
    record Field(int up, boolean isPlace, List<String> steps) {
        /** @throws IllegalArgumentException when it is no pointer */
        static Field parse(String pointer) {
            if (pointer.isEmpty() || pointer.startsWith("/")) {
                JsonPointer.compile(pointer);
                return new Field(0, false, FieldPointer.steps(pointer));
            }
            int digits = 0;
            while (digits < pointer.length() && Character.isDigit(pointer.charAt(digits))) {
                digits++;
            }
            int up = Integer.parseInt(pointer.substring(0, digits));
            String rest = pointer.substring(digits);
            boolean isPlace = rest.equals("#");
            return new Field(up, isPlace, isPlace ? List.of() : FieldPointer.steps(rest));
        }

        /** The value as the text of a cell; null for null and for what is not there. */
        String of(Node row) {
            Node from = row.up(up);
            if (isPlace) {
                return from.index < 0 ? null : String.valueOf(from.index);
            }
            Object value = from.value;
            for (String step : steps) {
                value = inside(value, step);
            }
            return JsonTree.text(value);
        }
    }
}
