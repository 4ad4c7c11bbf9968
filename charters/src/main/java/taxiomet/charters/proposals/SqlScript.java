package taxiomet.charters.proposals;

import java.util.ArrayList;
import java.util.List;
import taxiomet.rehearse.ProposalException;

/** Takes a SQL script apart into statements, each with the line that it begins in. */
final class SqlScript {
    private final String script;
    private final String file;
    private final List<Statement> statements = new ArrayList<>();
    private int at;
    private int line = 1;
    private int start = -1;
    private int startLine;

    /** One statement, without the semicolon behind it; {@code line} from 1. */
    record Statement(String sql, int line) {}

    private SqlScript(String script, String file) {
        this.script = script;
        this.file = file;
    }

    /** @throws ProposalException when a quote or comment is left open */
    static List<Statement> statements(String script, String file) {
        SqlScript reader = new SqlScript(script, file);
        reader.read();
        return reader.statements;
    }

    private void read() {
        while (at < script.length()) {
            char c = script.charAt(at);
            if (c == ';') {
                end();
                at++;
            } else if (script.startsWith("--", at)) {
                skipTo("\n", false);
            } else if (script.startsWith("/*", at)) {
                skipTo("*/", true);
            } else if (c == '\'' || c == '"' || c == '`') {
                begin();
                skipQuoted(c);
            } else {
                if (!Character.isWhitespace(c) && c != '\uFEFF') {
                    begin();
                }
                step();
            }
        }
        end();
    }

    private void step() {
        if (script.charAt(at) == '\n') {
            line++;
        }
        at++;
    }

    private void begin() {
        if (start < 0) {
            start = at;
            startLine = line;
        }
    }

    private void end() {
        if (start >= 0) {
            statements.add(new Statement(script.substring(start, at).strip(), startLine));
        }
        start = -1;
    }

    private void skipTo(String mark, boolean isNeeded) {
        int opened = line;
        int end = script.indexOf(mark, at + 2);
        if (end < 0 && isNeeded) {
            throw new ProposalException(file + ":" + opened, "this comment is never closed", "close it with " + mark);
        }
        int to = end < 0 ? script.length() : end + mark.length();
        while (at < to) {
            step();
        }
    }

    private void skipQuoted(char quote) {
        int opened = line;
        step();
        while (at < script.length()) {
            if (script.charAt(at) == quote) {
                step();
                if (at >= script.length() || script.charAt(at) != quote) {
                    return;
                }
            }
            step();
        }
        throw new ProposalException(file + ":" + opened, "this quote is never closed", "close it with " + quote);
    }
}
