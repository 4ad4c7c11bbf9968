/** Options that several commands share, and what users type turned into what core takes: tables, keys, servers, proposals. */
package taxiomet.cli.option;
