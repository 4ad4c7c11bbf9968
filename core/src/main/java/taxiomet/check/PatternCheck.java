package taxiomet.check;

import com.google.re2j.Pattern;
import taxiomet.rows.TypedColumn;

/** Texts that a pattern does not match as a whole; RE2 takes time linear in the text, whatever the pattern. */
final class PatternCheck extends ColumnCheck {
    private final Pattern pattern;

    PatternCheck(int column, String pattern, FaultLog faults) {
        super(column, faults);
        this.pattern = Pattern.compile(pattern);
    }

    @Override
    void find(TypedColumn values, TypedBatch batch, Faults faults) {
        for (int row = 0; row < batch.size(); row++) {
            if (values.isValue(row) && !pattern.matches(values.text(row))) {
                faults.add(batch.ref(row));
            }
        }
    }
}
