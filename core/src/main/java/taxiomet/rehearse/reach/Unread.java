package taxiomet.rehearse.reach;

/** The value of a cell that is not of its column's type: it equals nothing, and no rule reads it. */
public record Unread(String text) {}
