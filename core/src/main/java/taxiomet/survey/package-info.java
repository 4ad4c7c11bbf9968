/**
 * Looks at tables of which nothing is declared, and writes a first charter.
 *
 * <p>{@link taxiomet.survey.profile} reads each table once: what each column holds, and samples chosen by the hash of a value, so that the
 * same values are kept everywhere. On these {@link taxiomet.survey.search} rules out what cannot be a key or a link; what is left {@link
 * taxiomet.survey.count} counts exactly, and {@link taxiomet.survey.choice} tells those that a person would declare from those that hold by
 * accident. {@link taxiomet.survey.Survey} leads through all of it.
 */
package taxiomet.survey;
