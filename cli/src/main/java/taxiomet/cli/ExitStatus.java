package taxiomet.cli;

/** What the program says to the shell when it ends; 130 is given by the system when it is interrupted. */
final class ExitStatus {
    static final int SOUND = 0;
    static final int FINDINGS = 1;
    static final int WRONG_USAGE = 2;
    static final int UNREADABLE = 3;

    private ExitStatus() {}
}
