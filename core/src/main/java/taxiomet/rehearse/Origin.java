package taxiomet.rehearse;

/**
 * Where a change was proposed.
 *
 * @param words the change as it was written, shortened; for a person
 * @param place the file and line, or the option
 */
public record Origin(String words, String place) {}
