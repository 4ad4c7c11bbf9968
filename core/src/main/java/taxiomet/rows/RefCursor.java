package taxiomet.rows;

/** Row references, ascending, one after the other. */
@FunctionalInterface
public interface RefCursor {
    /** What {@link #next} gives after the last reference. */
    long END = -1;

    long next();
}
