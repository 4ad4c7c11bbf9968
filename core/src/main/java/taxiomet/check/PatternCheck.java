package taxiomet.check;

import com.google.re2j.Pattern;
import taxiomet.rows.TypedColumn;

/** Texts that a pattern does not match as a whole; RE2 takes time linear in the text, whatever the pattern. */
final class PatternCheck implements RowCheck {
    private final int column;
    private final Pattern pattern;
    private final FaultLog faults;

    PatternCheck(int column, String pattern, FaultLog faults) {
        this.column = column;
        this.pattern = Pattern.compile(pattern);
        this.faults = faults;
    }

    @Override
    public int[] columns() {
        return new int[] {column};
    }

    @Override
    public void check(TypedBatch batch) {
        TypedColumn typed = batch.column(column);
        for (int row = 0; row < batch.size(); row++) {
            if (typed.isValue(row) && !pattern.matches(typed.text(row))) {
                faults.add(batch.ref(row));
            }
        }
    }
}
