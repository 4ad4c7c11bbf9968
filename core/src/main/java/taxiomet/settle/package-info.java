/** What came of findings from one result to the next: {@link taxiomet.settle.FaultsSeen}. */
package taxiomet.settle;
