package taxiomet.reports.html;

import gg.jte.ContentType;
import gg.jte.TemplateEngine;
import gg.jte.TemplateException;
import gg.jte.output.WriterOutput;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStreamWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import taxiomet.reports.OutputException;

/** Writes a template with what stands in it into a file. */
final class Page {
    private static final String TEMPLATES = "taxiomet.reports.html.templates";

    private Page() {}

    /**
     * Writes a page.
     *
     * @param template its name
     * @param parameters of the template
     * @throws OutputException when the file cannot be written
     */
    static void write(String template, Map<String, Object> parameters, Path file) {
        TemplateEngine engine =
                TemplateEngine.createPrecompiled(null, ContentType.Html, Page.class.getClassLoader(), TEMPLATES);
        // A half of a character that a cell may hold becomes a question mark; nothing else is lost.
        try (BufferedWriter writer =
                new BufferedWriter(new OutputStreamWriter(Files.newOutputStream(file), StandardCharsets.UTF_8))) {
            engine.render(template, parameters, new WriterOutput(writer));
        } catch (TemplateException e) {
            throw OutputException.of(file.toString(), writeFailure(e));
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        }
    }

    /** What kept a template from being written; anything else that goes wrong in one is our own fault. */
    private static IOException writeFailure(TemplateException failure) {
        for (Throwable cause = failure; cause != null; cause = cause.getCause()) {
            if (cause instanceof IOException written) {
                return written;
            }
        }
        throw failure;
    }
}
