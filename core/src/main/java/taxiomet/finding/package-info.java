/**
 * What a check found, as plain data that every report reads. A report picks and lays out; it computes nothing.
 *
 * <p>Counts are exact. Examples are few; {@link taxiomet.finding.EvidenceRows} hands over every row of a finding.
 */
package taxiomet.finding;
