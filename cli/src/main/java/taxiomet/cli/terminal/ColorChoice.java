package taxiomet.cli.terminal;

import java.util.Locale;

/** Whether text is coloured. */
public enum ColorChoice {
    AUTO,
    ALWAYS,
    NEVER;

    /** The word as users type it. */
    @Override
    public String toString() {
        return name().toLowerCase(Locale.ROOT);
    }
}
