/** The words of help, and what each kind of finding and refusal means. */
package taxiomet.cli.help;
