/**
 * The rows that obey the charter together, and those that are set aside. {@link taxiomet.settle.sift.Sift} says in which order rows are
 * judged. What is set aside is known row by row ({@link taxiomet.settle.sift.AsideRows}); {@link taxiomet.settle.sift.Doubles} decides
 * which row of several with one key stays; {@link taxiomet.settle.sift.ParentsLost} finds the children of rows that are set aside, by
 * reading the children's links once more, and {@link taxiomet.settle.sift.Kinship} finds them where links lead in a circle.
 */
package taxiomet.settle.sift;
