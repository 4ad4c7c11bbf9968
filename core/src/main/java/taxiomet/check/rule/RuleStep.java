package taxiomet.check.rule;

import java.util.ArrayList;
import java.util.List;
import taxiomet.charter.Charter;
import taxiomet.charter.Expression.ChildrenValue;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Table;
import taxiomet.expression.RowFilter;
import taxiomet.expression.StoredValues;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyForm;
import taxiomet.keys.KeyTable;
import taxiomet.keys.TypedBatch;
import taxiomet.spill.Partitions;
import taxiomet.spill.SpillFolder;
import taxiomet.work.Secret;

/** One link, up to a parent or down to the children. */
final class RuleStep {
    /** The step whose parent this link starts from; -1 for the row itself. */
    final int from;

    final Table other;
    /** Of the row that the link starts from, and of the other table's rows. */
    final KeyEncoder near;

    final KeyEncoder far;
    /** The rows of the other table that count; null for all. */
    final RowFilter filter;

    final List<Integer> columns = new ArrayList<>();
    /** What is made of children; none on the way up. */
    final List<ChildrenValue> figures = new ArrayList<>();

    final Partitions others;

    RuleStep(ForeignKey link, Charter charter, int from, boolean isUp, SpillFolder spill, Secret secret) {
        this.from = from;
        this.others = new Partitions(spill);
        Table child = charter.table(link.child());
        Table parent = charter.table(link.parent());
        List<KeyForm> forms = KeyForm.of(child, parent, link);
        KeyEncoder ofChild = new KeyEncoder(child.indexesOf(link.columns()), forms, secret);
        KeyEncoder ofParent = new KeyEncoder(parent.indexesOf(link.parentColumns()), forms, secret);
        this.other = isUp ? parent : child;
        this.near = isUp ? ofChild : ofParent;
        this.far = isUp ? ofParent : ofChild;
        this.filter = isUp ? null : RowFilter.of(link.where());
    }

    /** Begins the record of a row of the other table with its key, which is complete. */
    void startRecord(int row, StoredValues record) {
        far.encode(row);
        record.clear();
        record.add(far.high());
        record.add(far.low());
    }

    /** Ends the record of a row of the other table with its values, and keeps it. */
    void keep(TypedBatch batch, int row, StoredValues record) {
        for (int column : columns) {
            record.addCell(batch.column(column), row);
        }
        others.addRecord(Partitions.of(KeyTable.hash(far.high(), far.low())), record.longs(), record.size());
    }

    /** Which of {@link #columns} a figure is made of, by its place; -1 where it counts rows. */
    int columnOfFigure(int figure) {
        return figures.get(figure).column().map(columns::indexOf).orElse(-1);
    }

    boolean isDown() {
        return !figures.isEmpty();
    }
}
