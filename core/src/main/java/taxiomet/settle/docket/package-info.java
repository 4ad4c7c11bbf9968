/**
 * Faulty rows laid out for people to decide on, and their decisions read back. {@link taxiomet.settle.docket.DocketMaker} makes a docket of a
 * check; {@link taxiomet.settle.docket.Choices} says what can be decided about a row; {@link taxiomet.settle.docket.Deciding} takes the
 * decisions in: it makes the docket anew, so that nothing in the filled one is believed but which choice was made for which fault.
 */
package taxiomet.settle.docket;
