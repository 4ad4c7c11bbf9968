/** Chooses among candidates that were counted. */
package taxiomet.survey.choice;
