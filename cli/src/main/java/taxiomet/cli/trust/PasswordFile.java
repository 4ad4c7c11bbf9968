package taxiomet.cli.trust;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import taxiomet.cli.terminal.UsageException;
import taxiomet.sources.jdbc.Login;

/** The file that {@code --password-file} names: read once, since it may be a pipe, into which perhaps nobody ever writes. */
public final class PasswordFile {
    private static final int SECONDS = 10;

    private PasswordFile() {}

    /**
     * Its first line.
     *
     * @throws UsageException when there is none within 10 seconds
     * @throws taxiomet.rows.SourceException when it is longer than any password
     */
    public static String read(Path file) {
        CompletableFuture<String> line = new CompletableFuture<>();
        Thread reader = new Thread(() -> {
            try (InputStream in = Files.newInputStream(file)) {
                line.complete(Login.firstLine(in, file));
            } catch (IOException | RuntimeException e) {
                line.completeExceptionally(e);
            }
        });
        // A pipe whose other end nobody opens cannot be left: the program ends all the same.
        reader.setDaemon(true);
        reader.start();
        try {
            String password = line.get(SECONDS, TimeUnit.SECONDS);
            if (password.isEmpty()) {
                throw refused(file, "its first line is empty");
            }
            return password;
        } catch (TimeoutException e) {
            throw refused(file, "nobody wrote into it for " + SECONDS + " seconds");
        } catch (ExecutionException e) {
            if (e.getCause() instanceof RuntimeException known) {
                throw known;
            }
            throw refused(file, Files.exists(file) ? "it cannot be read" : "there is no such file");
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw refused(file, "the reading of it was interrupted");
        }
    }

    private static UsageException refused(Path file, String problem) {
        return new UsageException(
                "--password-file " + file + ": " + problem + "; name a file whose first line is the password");
    }
}
