package taxiomet.check;

import java.util.stream.IntStream;

/** What a check of keys reads beyond them: the columns of the condition that says for which rows it is declared. */
final class FilteredCheck {
    private FilteredCheck() {}

    /** Places of both, each once. */
    static int[] columns(int[] own, RowFilter filter) {
        return filter == null
                ? own
                : IntStream.concat(IntStream.of(own), IntStream.of(filter.columns()))
                        .distinct()
                        .toArray();
    }
}
