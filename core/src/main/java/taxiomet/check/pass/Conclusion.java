package taxiomet.check.pass;

/** What is worked out when all tables have been read. */
public interface Conclusion extends AutoCloseable {
    /** Works it out; called once, after the keys of all tables are known. */
    void resolve();

    /** Lets go of what only {@link #resolve} needed. */
    @Override
    void close();
}
