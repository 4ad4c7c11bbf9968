package taxiomet.charter;

import java.util.Locale;

/** How much a finding weighs; the worst first. */
public enum Severity {
    ERROR,
    WARNING,
    NOTE;

    /** The word for it in charters, options and results. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** Whether it is as grave as another, or graver. */
    public boolean isAtLeast(Severity other) {
        return compareTo(other) <= 0;
    }
}
