/** Adapters from results: text for a terminal, JSON, and CSV. A report picks and lays out; it computes nothing. */
package taxiomet.reports;
