package taxiomet.rows;

/** A source for somebody who closes what he reads, while its owner goes on: closing this closes nothing. */
public final class BorrowedSource extends ForwardingSource {
    /** @param owned is closed by its owner */
    public BorrowedSource(TableSource owned) {
        super(owned);
    }

    @Override
    public void close() {
        // Its owner does.
    }
}
