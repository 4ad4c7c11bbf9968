package taxiomet.charters.ddl;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** Takes a SQL script apart into tokens, in the manner of several dialects at once. */
final class SqlTokens {
    private final String script;
    private final List<Token> tokens = new ArrayList<>();
    private int at;
    private int line = 1;
    private int lineStart;

    /** What a token is. */
    enum Kind {
        WORD,
        /** A name in double quotes, backticks or brackets; the text is the name without them. */
        QUOTED_NAME,
        NUMBER,
        /** A text in single quotes or between dollar signs; the text is without them. */
        TEXT,
        SYMBOL,
        /** The end of a statement: a semicolon, or GO or a slash alone in a line. */
        END
    }

    /**
     * @param text without quotes
     * @param line from 1
     * @param column from 1
     */
    record Token(Kind kind, String text, int line, int column) {
        /** Whether this is an unquoted word, given in capitals. */
        boolean is(String word) {
            return kind == Kind.WORD && text.equalsIgnoreCase(word);
        }

        boolean isSymbol(String symbol) {
            return kind == Kind.SYMBOL && text.equals(symbol);
        }

        boolean isName() {
            return kind == Kind.WORD || kind == Kind.QUOTED_NAME;
        }

        /** The token as standard SQL writes it. */
        String sql() {
            return switch (kind) {
                case TEXT -> "'" + text.replace("'", "''") + "'";
                case QUOTED_NAME -> '"' + text.replace("\"", "\"\"") + '"';
                default -> text;
            };
        }
    }

    /** A script that cannot be taken apart: a quote or comment is left open. */
    static final class Unfinished extends Exception {
        private static final long serialVersionUID = 1;
        private final int line;
        private final int column;

        Unfinished(String message, int line, int column) {
            super(message);
            this.line = line;
            this.column = column;
        }

        int line() {
            return line;
        }

        int column() {
            return column;
        }
    }

    private SqlTokens(String script) {
        this.script = script;
    }

    /** The tokens of a script, without comments. */
    static List<Token> of(String script) throws Unfinished {
        SqlTokens reader = new SqlTokens(script);
        while (reader.at < script.length()) {
            reader.next();
        }
        return reader.tokens;
    }

    private char peek(int ahead) {
        return at + ahead < script.length() ? script.charAt(at + ahead) : '\0';
    }

    private void next() throws Unfinished {
        char c = peek(0);
        if (c == '\n') {
            at++;
            line++;
            lineStart = at;
        } else if (Character.isWhitespace(c) || c == '\uFEFF') {
            at++;
        } else if ((c == '-' && peek(1) == '-') || (c == '#' && !Character.isLetterOrDigit(peek(1)))) {
            skipLine();
        } else if (c == '/' && peek(1) == '*') {
            skipComment();
        } else if (c == '\'' || (isNational(c) && peek(1) == '\'')) {
            if (c != '\'') {
                at++;
            }
            quoted(Kind.TEXT, '\'', c == 'E' || c == 'e');
        } else if (c == '"') {
            quoted(Kind.QUOTED_NAME, '"', false);
        } else if (c == '`') {
            quoted(Kind.QUOTED_NAME, '`', false);
        } else if (c == '[') {
            quoted(Kind.QUOTED_NAME, ']', false);
        } else if (c == '$' && isDollarQuote()) {
            dollarQuoted();
        } else if (Character.isDigit(c) || (c == '.' && Character.isDigit(peek(1)))) {
            number();
        } else if (Character.isLetter(c) || c == '_' || c == '@') {
            word();
        } else {
            symbol();
        }
    }

    private static boolean isNational(char c) {
        return c == 'N' || c == 'n' || c == 'E' || c == 'e';
    }

    private void skipLine() {
        while (at < script.length() && script.charAt(at) != '\n') {
            at++;
        }
    }

    private void skipComment() throws Unfinished {
        int end = script.indexOf("*/", at + 2);
        if (end < 0) {
            throw new Unfinished("a comment is left open", line, at - lineStart + 1);
        }
        advanceTo(end + 2);
    }

    /** Moves on over text that may hold line breaks. */
    private void advanceTo(int end) {
        for (; at < end; at++) {
            if (script.charAt(at) == '\n') {
                line++;
                lineStart = at + 1;
            }
        }
    }

    private void add(Kind kind, String text, int atLine, int atColumn) {
        tokens.add(new Token(kind, text, atLine, atColumn));
    }

    private void quoted(Kind kind, char close, boolean hasBackslashes) throws Unfinished {
        int startLine = line;
        int startColumn = at - lineStart + 1;
        StringBuilder text = new StringBuilder();
        int i = at + 1;
        while (true) {
            if (i >= script.length()) {
                throw new Unfinished("a quote is left open", startLine, startColumn);
            }
            char c = script.charAt(i);
            if (c == '\\' && hasBackslashes && i + 1 < script.length()) {
                text.append(script.charAt(i + 1));
                i += 2;
            } else if (c == close && i + 1 < script.length() && script.charAt(i + 1) == close) {
                text.append(close);
                i += 2;
            } else if (c == close) {
                break;
            } else {
                text.append(c);
                i++;
            }
        }
        advanceTo(i + 1);
        add(kind, text.toString(), startLine, startColumn);
    }

    private boolean isDollarQuote() {
        int i = at + 1;
        while (i < script.length() && (Character.isLetterOrDigit(script.charAt(i)) || script.charAt(i) == '_')) {
            i++;
        }
        return i < script.length() && script.charAt(i) == '$';
    }

    private void dollarQuoted() throws Unfinished {
        int startLine = line;
        int startColumn = at - lineStart + 1;
        String mark = script.substring(at, script.indexOf('$', at + 1) + 1);
        int end = script.indexOf(mark, at + mark.length());
        if (end < 0) {
            throw new Unfinished("a text between " + mark + " is left open", startLine, startColumn);
        }
        String text = script.substring(at + mark.length(), end);
        advanceTo(end + mark.length());
        add(Kind.TEXT, text, startLine, startColumn);
    }

    private void number() {
        int start = at;
        while (Character.isLetterOrDigit(peek(0))
                || peek(0) == '.'
                || ((peek(0) == '+' || peek(0) == '-') && "eE".indexOf(peek(-1)) >= 0)) {
            at++;
        }
        add(Kind.NUMBER, script.substring(start, at), line, start - lineStart + 1);
    }

    private void word() {
        int start = at;
        while (Character.isLetterOrDigit(peek(0)) || "_$#@".indexOf(peek(0)) >= 0 && peek(0) != '\0') {
            at++;
        }
        String word = script.substring(start, at);
        boolean endsBatch = word.toUpperCase(Locale.ROOT).equals("GO") && isAloneInLine(start);
        add(endsBatch ? Kind.END : Kind.WORD, word, line, start - lineStart + 1);
    }

    private boolean isAloneInLine(int start) {
        int end = script.indexOf('\n', at);
        String behind = script.substring(at, end < 0 ? script.length() : end);
        return script.substring(lineStart, start).isBlank() && behind.isBlank();
    }

    private void symbol() {
        int start = at;
        String two = script.substring(at, Math.min(script.length(), at + 2));
        boolean isDouble = List.of("::", "<=", ">=", "<>", "!=", "||").contains(two);
        at += isDouble ? 2 : 1;
        String text = script.substring(start, at);
        boolean endsStatement = text.equals(";") || (text.equals("/") && isAloneInLine(start));
        add(endsStatement ? Kind.END : Kind.SYMBOL, text, line, start - lineStart + 1);
    }
}
