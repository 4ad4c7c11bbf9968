/** Adapters to rules: {@link taxiomet.charters.Charters} reads whatever a charter may stand in. */
package taxiomet.charters;
