package taxiomet.settle.sift;

import java.util.Map;
import taxiomet.keys.RowSet;
import taxiomet.rows.RowEdits.RowEdit;
import taxiomet.rows.TableSource;

/** The rows of a table without those that are set aside. */
final class SoundRows extends PatchedRows {
    private static final RowEdit LEFT_OUT = new RowEdit(true, Map.of());

    private final RowSet aside;

    /** @param owned is closed by its owner */
    SoundRows(TableSource owned, RowSet aside) {
        super(owned);
        this.aside = aside;
    }

    @Override
    protected RowEdit editOf(long ref) {
        return aside.contains(ref) ? LEFT_OUT : null;
    }
}
