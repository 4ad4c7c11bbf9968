/** What every reader of rules and proposals shares: the text of a file or of standard input, and where in it something stands. */
package taxiomet.charters.input;
