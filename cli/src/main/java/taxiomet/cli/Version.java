package taxiomet.cli;

import picocli.CommandLine.IVersionProvider;

/** Which version of the program this is. */
final class Version implements IVersionProvider {
    static String line() {
        String version = Version.class.getPackage().getImplementationVersion();
        return "taxiomet " + (version == null ? "(not built)" : version);
    }

    @Override
    public String[] getVersion() {
        return new String[] {line()};
    }
}
