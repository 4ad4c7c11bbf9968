package taxiomet.check.pass;

import java.util.Arrays;

/** Rows of one batch at fault, until it is their turn to go into the log. */
public final class Faults {
    private final FaultLog log;
    private long[] refs = new long[8];
    private String[] reasons = new String[8];
    private int size;

    /** @param log gets the rows when it is their turn */
    public Faults(FaultLog log) {
        this.log = log;
    }

    /** Adds a row without more to say. */
    public void add(long ref) {
        add(ref, null);
    }

    /** @param reason as for {@link FaultLog#add(long, String)}; null for none */
    public void add(long ref, String reason) {
        if (size == refs.length) {
            refs = Arrays.copyOf(refs, size * 2);
            reasons = Arrays.copyOf(reasons, size * 2);
        }
        refs[size] = ref;
        reasons[size++] = reason;
    }

    /** It is the turn of this batch: its rows go into the log. */
    public void settle() {
        for (int i = 0; i < size; i++) {
            if (reasons[i] == null) {
                log.add(refs[i]);
            } else {
                log.add(refs[i], reasons[i]);
            }
        }
        size = 0;
    }
}
