/** All that commands write: the answer, documents, reports, folders and scripts, each whole or not at all. */
package taxiomet.cli.output;
