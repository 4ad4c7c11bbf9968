/** The command line: parses, calls core, and hands the result to a report. */
package taxiomet.cli;
