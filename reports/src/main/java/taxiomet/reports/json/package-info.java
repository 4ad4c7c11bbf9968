/** Results as JSON; schema in docs/formats/result.schema.json. */
package taxiomet.reports.json;
