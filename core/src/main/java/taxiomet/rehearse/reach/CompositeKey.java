package taxiomet.rehearse.reach;

import java.util.Arrays;

/** The values of a key of several columns, as they are compared. */
final class CompositeKey {
    private final Object[] parts;
    private final int hash;

    CompositeKey(Object[] parts) {
        this.parts = parts;
        this.hash = Arrays.hashCode(parts);
    }

    /** The value of one of the columns. */
    Object part(int place) {
        return parts[place];
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof CompositeKey key && hash == key.hash && Arrays.equals(parts, key.parts);
    }

    @Override
    public int hashCode() {
        return hash;
    }

    @Override
    public String toString() {
        return Arrays.toString(parts);
    }
}
