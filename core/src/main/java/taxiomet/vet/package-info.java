/**
 * The review of declarations, before any row is read. {@link taxiomet.vet.Review} asks one small class for each kind of
 * declaration; {@link taxiomet.vet.LinkGraph} knows how tables hang together; {@link taxiomet.vet.VetResult} holds what came of
 * it, with what each link means in a sentence.
 *
 * <p>It stands apart from {@link taxiomet.charter}, since it reads defaults as values of their types ({@link taxiomet.values}).
 */
package taxiomet.vet;
