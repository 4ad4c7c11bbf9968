package taxiomet.rows;

import java.util.PrimitiveIterator;

/** Row references, ascending, one after the other. */
@FunctionalInterface
public interface RefCursor {
    /** What {@link #next} gives after the last reference. */
    long END = -1;

    long next();

    /** The references that an iterator has left. */
    static RefCursor of(PrimitiveIterator.OfLong refs) {
        return () -> refs.hasNext() ? refs.nextLong() : END;
    }
}
