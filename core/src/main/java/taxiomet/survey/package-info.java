/**
 * Looks at tables of which nothing is declared: profiles of columns, candidate keys, candidate links.
 *
 * <p>{@link taxiomet.survey.TableProfiler} reads each table once. It counts what each column holds, keeps hashes of some of
 * its values, chosen by the hash so that the same values are kept everywhere, and all rows that have one of them. On these
 * samples {@link taxiomet.survey.KeyFinder} and {@link taxiomet.survey.LinkFinder} rule out what cannot be a key or a link;
 * what is left goes into a draft charter, and {@link taxiomet.check.CheckRun} counts exactly. {@link
 * taxiomet.survey.KeyRanking} and {@link taxiomet.survey.LinkRanking} then tell those that a person would declare from those
 * that hold by accident.
 */
package taxiomet.survey;
