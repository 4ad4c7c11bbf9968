package taxiomet.proposal;

/**
 * Where a change was proposed.
 *
 * @param words the change as it was written, in one line
 * @param place the file and line, or the option
 */
public record Origin(String words, String place) {}
