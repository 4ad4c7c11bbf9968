/** Counts candidates exactly. */
package taxiomet.survey.count;
