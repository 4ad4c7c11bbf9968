/**
 * Results as pages that stand in one file and ask no network for anything: {@link taxiomet.reports.html.CheckHtml}. Templates stand in
 * {@code src/main/jte}; what they put in is escaped for where it stands. A page's own style and script are known to the browser by their
 * hashes, and no other is run ({@link taxiomet.reports.html.Shell}). Words come from {@code taxiomet.reports.text}.
 */
package taxiomet.reports.html;
