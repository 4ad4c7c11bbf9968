/** Conditions over a row: over its own columns alone, and over those of its parents too. */
package taxiomet.check.rule;
