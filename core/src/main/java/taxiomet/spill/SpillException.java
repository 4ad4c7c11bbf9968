package taxiomet.spill;

import java.io.IOException;
import java.nio.file.Path;

/** Temporary files that cannot be written or read back, most often because the disk is full. */
public final class SpillException extends RuntimeException {
    private static final long serialVersionUID = 1;

    /** @param folder that could not be written to */
    public SpillException(Path folder, IOException cause) {
        super(
                "temporary files in " + folder + " cannot be written or read (" + cause.getMessage()
                        + "); free some space there, or name another folder in the environment variable TMPDIR",
                cause);
    }
}
