package taxiomet.rehearse;

/** The value of a cell that is not of its column's type: it equals nothing, and no rule reads it. */
record Unread(String text) {}
