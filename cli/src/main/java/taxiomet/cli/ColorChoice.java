package taxiomet.cli;

/** Whether text is coloured. */
enum ColorChoice {
    AUTO,
    ALWAYS,
    NEVER
}
