package taxiomet.browse;

/**
 * How far a row's relatives are followed.
 *
 * @param up how many levels of parents; 0 for none
 * @param down how many levels of children; 0 for none
 * @param shown how many children of a row are shown over each link
 */
public record TraceOptions(int up, int down, int shown) {}
