package taxiomet.check.column;

import com.google.re2j.Pattern;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.Faults;
import taxiomet.keys.TypedBatch;
import taxiomet.values.TypedColumn;

/** Texts that a pattern does not match as a whole; RE2 takes time linear in the text, whatever the pattern. */
public final class PatternCheck extends ColumnCheck {
    private final Pattern pattern;

    /** @param pattern in RE2 syntax, which the whole text must match */
    public PatternCheck(int column, String pattern, FaultLog faults) {
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
