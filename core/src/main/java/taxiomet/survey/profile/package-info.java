/** What rows say of themselves: samples, counts and types of columns, in bounded room, from parts that can be brought together. */
package taxiomet.survey.profile;
