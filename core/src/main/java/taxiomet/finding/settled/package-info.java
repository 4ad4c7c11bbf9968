/** Results of what comes behind a check: dockets and the decisions in them, rows that are sifted, charters that are compared. */
package taxiomet.finding.settled;
