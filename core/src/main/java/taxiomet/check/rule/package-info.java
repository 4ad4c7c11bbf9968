/** Conditions over a row: over its own columns alone, over those of its parents, and over what its children come to. */
package taxiomet.check.rule;
