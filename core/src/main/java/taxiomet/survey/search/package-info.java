/** Looks on samples for what could identify a row and what could point where, and says how likely each is meant. */
package taxiomet.survey.search;
