package taxiomet.cli.terminal;

/** What the program says to the shell when it ends; 130 is given by the system when it is interrupted. */
public final class ExitStatus {
    public static final int SOUND = 0;
    public static final int FINDINGS = 1;
    public static final int WRONG_USAGE = 2;
    public static final int UNREADABLE = 3;

    private ExitStatus() {}
}
