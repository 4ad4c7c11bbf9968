package taxiomet.rehearse;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Collectors;
import taxiomet.charter.NearestWord;
import taxiomet.proposal.ProposalException;
import taxiomet.rehearse.reach.ListedCondition;
import taxiomet.rehearse.reach.ReachedTable;
import taxiomet.rows.RowBatch;
import taxiomet.rows.TableSource;

/** Looks through the keys of a table for one, and for those that it may have been meant for. */
final class KeySearch {
    private static final int MOST_NEAR = 3;

    private final TableSource source;
    private final ReachedTable table;

    /** A key that is like the one that is not there. */
    private record Near(String key, int differences) {}

    KeySearch(TableSource source, ReachedTable table) {
        this.source = source;
        this.table = table;
    }

    /**
     * Passes once over the keys.
     *
     * @param columns of the key
     * @param wanted the key as {@link ListedCondition#keyOfCells} makes it
     * @param written the same as texts
     * @throws ProposalException when no row has it
     */
    void require(int[] columns, Object wanted, List<String> written) {
        List<Near> near = new ArrayList<>();
        boolean[] isThere = {false};
        boolean isPersonal =
                Arrays.stream(columns).anyMatch(column -> table.column(column).isPersonal());
        String text = shown(written);
        source.read(columns, batch -> {
            for (int row = 0; row < batch.size() && !isThere[0]; row++) {
                List<String> cells = cells(batch, row);
                isThere[0] = wanted.equals(ListedCondition.keyOfCells(table, columns, cells));
                if (!isPersonal) {
                    note(near, shown(cells), text);
                }
            }
        });
        if (!isThere[0]) {
            String like = near.stream().map(Near::key).collect(Collectors.joining(", "));
            throw new ProposalException(
                    table.table().name() + " " + (isPersonal ? "with this key" : text),
                    "there is no such row",
                    like.isEmpty() ? "" : "did you mean " + like + "?");
        }
    }

    private static List<String> cells(RowBatch batch, int row) {
        List<String> cells = new ArrayList<>();
        for (int i = 0; i < batch.columnCount(); i++) {
            cells.add(batch.column(i).text(row));
        }
        return cells;
    }

    private static String shown(List<String> cells) {
        String joined = cells.stream().map(cell -> cell == null ? "null" : cell).collect(Collectors.joining(", "));
        return cells.size() == 1 ? joined : "(" + joined + ")";
    }

    private static void note(List<Near> near, String key, String wanted) {
        int differences = NearestWord.differences(wanted, key);
        int most = Math.max(1, wanted.length() / 3);
        boolean isKnown = near.stream().anyMatch(other -> other.key().equals(key));
        if (differences <= most && !isKnown) {
            near.add(new Near(key, differences));
            near.sort(Comparator.comparingInt(Near::differences));
            if (near.size() > MOST_NEAR) {
                near.remove(MOST_NEAR);
            }
        }
    }
}
