package taxiomet.cli.terminal;

import java.time.Instant;
import picocli.CommandLine.IVersionProvider;
import taxiomet.charter.place.DatabaseAddress;
import taxiomet.reports.json.Provenance;

/** Which version of the program this is. */
public final class Version implements IVersionProvider {
    public static String line() {
        String version = Version.class.getPackage().getImplementationVersion();
        return "taxiomet " + (version == null ? "(not built)" : version);
    }

    /** What a document says of where it comes from. */
    public static Provenance provenance(String charter) {
        return new Provenance(line(), Instant.now(), DatabaseAddress.masked(charter));
    }

    @Override
    public String[] getVersion() {
        return new String[] {line()};
    }
}
