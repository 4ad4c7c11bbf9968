/** Results as Markdown, to be put into a page or a message: the words of {@code taxiomet.reports.text}, and no text of the data is markup. */
package taxiomet.reports.markdown;
