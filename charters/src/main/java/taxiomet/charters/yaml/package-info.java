/**
 * Charters in YAML or JSON (docs/charter.md; schema in docs/formats/charter.schema.json).
 *
 * <p>{@link taxiomet.charters.yaml.NodeReader} makes a tree of {@link taxiomet.charters.yaml.Node}s, each with its place in
 * the file; {@link taxiomet.charters.yaml.CharterReader} and its helpers make a charter of the tree and note every {@link
 * taxiomet.charter.Problem} on the way, so that one run shows them all.
 */
package taxiomet.charters.yaml;
