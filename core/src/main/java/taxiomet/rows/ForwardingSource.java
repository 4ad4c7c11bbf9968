package taxiomet.rows;

import java.util.List;
import java.util.Optional;

/** A source that hands on to another whatever it does not do itself. */
public abstract class ForwardingSource implements TableSource {
    private final TableSource owned;

    /** @param owned to which it hands on */
    protected ForwardingSource(TableSource owned) {
        this.owned = owned;
    }

    /** To which it hands on. */
    protected final TableSource owned() {
        return owned;
    }

    @Override
    public Optional<String> mergedCells() {
        return owned.mergedCells();
    }

    @Override
    public List<String> columns() {
        return owned.columns();
    }

    @Override
    public String partName(int part) {
        return owned.partName(part);
    }

    @Override
    public int partCount() {
        return owned.partCount();
    }

    @Override
    public Optional<ColumnFacts> facts(int column) {
        return owned.facts(column);
    }

    @Override
    public Undeclared undeclared() {
        return owned.undeclared();
    }

    @Override
    public long bytes() {
        return owned.bytes();
    }

    @Override
    public Scan scan(int[] columns, RefRanges rows) {
        return owned.scan(columns, rows);
    }

    @Override
    public void fetch(RefCursor refs, int[] columns, RowSink sink) {
        owned.fetch(refs, columns, sink);
    }

    @Override
    public List<String> likelyCells(long ref, String raw) {
        return owned.likelyCells(ref, raw);
    }

    @Override
    public long bytesRead() {
        return owned.bytesRead();
    }

    @Override
    public long emptyLines() {
        return owned.emptyLines();
    }

    @Override
    public void close() {
        owned.close();
    }
}
