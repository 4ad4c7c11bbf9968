/** What one run may use, how its threads work together, and whom it tells how far it has come. */
package taxiomet.work;
