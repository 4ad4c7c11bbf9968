/** Values of personal columns leave a run as pseudonyms alone: here results are told without them. */
package taxiomet.personal;
