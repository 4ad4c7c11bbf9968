/** What goes on from one run to another: results that were kept, the key they are kept under, and dockets that come back filled in. */
package taxiomet.cli.settle;
