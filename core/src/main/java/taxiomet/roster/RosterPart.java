package taxiomet.roster;

import taxiomet.finding.RosterResult;
import taxiomet.finding.RosterResult.Section;

/** One section of a roster, as a roster of its own. It is good until the next is handed over, and can be read as often as it is wanted. */
public interface RosterPart {
    /** What it is about. */
    Section section();

    /** What its heading is called; empty for the sections behind all headings. */
    String name();

    /** What it lists, as a whole. */
    RosterResult result();

    /** Hands over all of it. */
    void read(RosterResult.Reader reader);
}
