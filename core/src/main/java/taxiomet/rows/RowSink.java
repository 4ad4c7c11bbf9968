package taxiomet.rows;

/** Takes rows from a source. */
@FunctionalInterface
public interface RowSink {
    /** @param batch valid until this method returns */
    void accept(RowBatch batch);
}
