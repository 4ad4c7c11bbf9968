/** Where the rows of a table live: a closed choice ({@link taxiomet.charter.place.RowsPlace}), one record for each kind of place. */
package taxiomet.charter.place;
