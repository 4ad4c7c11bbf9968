/** Results for build servers. */
package taxiomet.reports.xml;
