package taxiomet.charters;

import taxiomet.charter.Charter;

/** A charter, and where its declarations stand. */
public record ReadCharter(Charter charter, Places places) {}
