package taxiomet.survey.profile;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import taxiomet.values.CellColumn;

/** The first few different values of each class in a column, in the order of the rows. */
public final class ClassExamples {
    private static final int MOST = 5;
    private static final int LONGEST = 60;

    private final Map<ValueClass, List<Example>> examples = new EnumMap<>(ValueClass.class);
    /** So many bits of an order are the place in a run of rows. */
    private static final int BITS_OF_ROW = 24;

    private record Example(long order, long hash, String text) {}

    /**
     * Takes a value, if it is among the first few.
     *
     * @param run the number of the run of rows
     */
    void add(ValueClass found, long hash, CellColumn cells, int row, long run) {
        List<Example> some = examples.get(found);
        if (some == null) {
            some = new ArrayList<>();
            examples.put(found, some);
        }
        if (some.size() == MOST) {
            return;
        }
        for (int i = 0; i < some.size(); i++) {
            if (some.get(i).hash == hash) {
                return;
            }
        }
        String text = cells.text(row);
        some.add(new Example(
                run << BITS_OF_ROW | row, hash, text.length() > LONGEST ? text.substring(0, LONGEST) : text));
    }

    void merge(ClassExamples other) {
        other.examples.forEach((found, theirs) -> {
            List<Example> all = new ArrayList<>(examples.getOrDefault(found, List.of()));
            all.addAll(theirs);
            all.sort(Comparator.comparingLong(Example::order));
            Set<Long> seen = new HashSet<>();
            all.removeIf(example -> !seen.add(example.hash()));
            examples.put(found, new ArrayList<>(all.subList(0, Math.min(MOST, all.size()))));
        });
    }

    /** Texts of all classes but some. */
    List<String> ofOthers(Collection<ValueClass> fitting) {
        List<String> texts = new ArrayList<>();
        examples.forEach((found, some) -> {
            if (!fitting.contains(found)) {
                some.forEach(example -> texts.add(example.text()));
            }
        });
        return texts.stream().distinct().toList();
    }
}
