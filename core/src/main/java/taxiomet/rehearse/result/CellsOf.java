package taxiomet.rehearse.result;

import java.util.LinkedHashMap;
import java.util.Map;
import taxiomet.finding.RehearsalResult.CellChanges;
import taxiomet.rehearse.reach.CellCodec;
import taxiomet.rehearse.reach.Effect;
import taxiomet.rehearse.reach.ReachedTable;

/** Writes out which cells an effect changes. */
public final class CellsOf {
    private CellsOf() {}

    public static final CellChanges NONE = new CellChanges(Map.of(), Map.of());

    /** What an effect does to the cells of its row. */
    public static CellChanges effect(Effect effect) {
        Map<String, String> before = new LinkedHashMap<>();
        Map<String, String> after = new LinkedHashMap<>();
        ReachedTable table = effect.row().table;
        for (int column : table.columnsKept()) {
            int slot = table.slotOf(column);
            boolean isBoth = effect.before() != null && effect.after() != null;
            if (isBoth && CellCodec.isSame(effect.before()[slot], effect.after()[slot])) {
                continue;
            }
            String name = table.column(column).name();
            if (effect.before() != null) {
                before.put(name, table.codec(column).write(effect.before()[slot]));
            }
            if (effect.after() != null) {
                after.put(name, table.codec(column).write(effect.after()[slot]));
            }
        }
        return new CellChanges(before, after);
    }
}
