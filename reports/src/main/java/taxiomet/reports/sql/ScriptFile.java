package taxiomet.reports.sql;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import taxiomet.reports.OutputException;

/** A script of one transaction with guards: one that does not hold breaks a rule of a temporary table, and nothing is done. */
final class ScriptFile {
    private final Dialect dialect;
    private final String what;
    private List<String> before;
    private List<String> after = List.of();
    private List<String> remarks = List.of();

    /** @param what what the script does, as the end of a sentence */
    ScriptFile(Dialect dialect, String what) {
        this.dialect = dialect;
        this.what = what;
        this.before = dialect.begin();
    }

    /** The script works outside the rules of the tables. */
    ScriptFile withoutRules() {
        before = dialect.beginWithoutRules();
        after = dialect.afterWithoutRules();
        remarks = dialect.remarksWithoutRules();
        return this;
    }

    /** What a change was, as a comment before its statements. */
    static String comment(String words) {
        return "\n-- " + words.replaceAll("\\p{Cntrl}", " ") + "\n";
    }

    void write(List<String> script, Path file) {
        List<String> all = new ArrayList<>(before);
        all.add("CREATE TEMPORARY TABLE " + Dialect.GUARD + " (holds integer NOT NULL CHECK (holds = 1))");
        all.addAll(script);
        all.add(dialect.dropTemporary() + " " + Dialect.GUARD);
        all.add("COMMIT");
        all.addAll(after);
        try (Writer out = Files.newBufferedWriter(file, StandardCharsets.UTF_8)) {
            out.write("-- Written by a rehearsal for " + dialect.name().toLowerCase(Locale.ROOT) + ": " + what + ".\n");
            out.write(
                    "-- When the rows are not as the rehearsal saw them, it ends with an error and nothing is done.\n");
            for (String remark : remarks) {
                out.write("-- " + remark + "\n");
            }
            for (String statement : all) {
                out.write(statement + ";\n");
            }
        } catch (UncheckedIOException e) {
            throw OutputException.of(file.toString(), e.getCause());
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        }
    }
}
