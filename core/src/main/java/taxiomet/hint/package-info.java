/**
 * The parent that was meant: {@link taxiomet.hint.Likeness} says how two values are alike, {@link taxiomet.hint.HintFinder} looks through
 * the parents for those that are most like the values of orphans, and {@link taxiomet.hint.HintSieve} keeps it from looking closely at
 * all of them.
 */
package taxiomet.hint;
