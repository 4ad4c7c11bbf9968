/** Results as text for people, fitted to the width of a terminal. */
package taxiomet.reports.text;
