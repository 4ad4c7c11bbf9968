/** The terminal and the process: where text goes, how wide and in what colours, progress, exit statuses, wrong usage. */
package taxiomet.cli.terminal;
