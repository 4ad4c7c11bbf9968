package taxiomet.reports.html;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Base64;

/**
 * What all pages have around them: one style, perhaps a script, and a policy by which the browser runs these and nothing else.
 *
 * @param style of all pages
 * @param script of the page; empty for none
 * @param made when the page was made, and of what
 */
public record Shell(String style, String script, String made) {
    /**
     * The shell of a page.
     *
     * @param script the name of its script; empty for none
     * @param made when it was made, and of what
     */
    static Shell of(String script, String made) {
        return new Shell(resource("page.css"), script.isEmpty() ? "" : resource(script), made);
    }

    /** The same with more style. */
    Shell withStyle(String name) {
        return new Shell(style + resource(name), script, made);
    }

    public boolean hasScript() {
        return !script.isEmpty();
    }

    /** Nothing is loaded; the style and the script are those that stand in the page. */
    public String policy() {
        return "default-src 'none'; base-uri 'none'; form-action 'none'; style-src '" + hash(style) + "'"
                + (script.isEmpty() ? "" : "; script-src '" + hash(script) + "'");
    }

    private static String hash(String text) {
        try {
            byte[] digest = MessageDigest.getInstance("SHA-256").digest(text.getBytes(StandardCharsets.UTF_8));
            return "sha256-" + Base64.getEncoder().encodeToString(digest);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    private static String resource(String name) {
        try (InputStream in = Shell.class.getResourceAsStream(name)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new IllegalStateException("a resource of this program cannot be read: " + name, e);
        }
    }
}
