package taxiomet.cli;

import java.time.Instant;
import picocli.CommandLine.IVersionProvider;
import taxiomet.reports.json.Provenance;

/** Which version of the program this is. */
final class Version implements IVersionProvider {
    static String line() {
        String version = Version.class.getPackage().getImplementationVersion();
        return "taxiomet " + (version == null ? "(not built)" : version);
    }

    /** What a document says of where it comes from. */
    static Provenance provenance(String charter) {
        return new Provenance(line(), Instant.now(), charter);
    }

    @Override
    public String[] getVersion() {
        return new String[] {line()};
    }
}
