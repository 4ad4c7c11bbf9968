/**
 * What a file from elsewhere may make this machine do, where that is up to the person at it: {@link taxiomet.cli.trust.AllowedDatabases} says
 * which addresses are connected to and which drivers are loaded, {@link taxiomet.cli.trust.Settings} where answers are kept, {@link
 * taxiomet.cli.trust.TypedSecrets} keeps passwords that were typed. docs/trust.md says it all.
 */
package taxiomet.cli.trust;
