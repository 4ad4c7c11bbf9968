package taxiomet.charters.sql;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** Takes SQL apart into tokens, in the manner of several dialects at once. */
public final class SqlTokens {
    private final String script;
    private final boolean isScript;
    private final List<Token> tokens = new ArrayList<>();
    private int at;
    private int line = 1;
    private int lineStart;
    private int depth;
    private boolean isInVersionComment;

    /** What a token is. */
    public enum Kind {
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
     * @param start where it begins in what was read, its quotes included
     * @param end behind its last character
     */
    public record Token(Kind kind, String text, int line, int column, int start, int end) {
        /** Whether this is an unquoted word, in any case. */
        public boolean is(String word) {
            return kind == Kind.WORD && text.equalsIgnoreCase(word);
        }

        public boolean isSymbol(String symbol) {
            return kind == Kind.SYMBOL && text.equals(symbol);
        }

        public boolean isName() {
            return kind == Kind.WORD || kind == Kind.QUOTED_NAME;
        }

        /** The token as standard SQL writes it. */
        public String sql() {
            return switch (kind) {
                case TEXT -> "'" + text.replace("'", "''") + "'";
                case QUOTED_NAME -> text.isEmpty() ? "[]" : '"' + text.replace("\"", "\"\"") + '"';
                default -> text;
            };
        }
    }

    /** A script that cannot be taken apart: a quote or comment is left open. */
    public static final class Unfinished extends Exception {
        private static final long serialVersionUID = 1;
        private final int line;
        private final int column;

        Unfinished(String message, int line, int column) {
            super(message);
            this.line = line;
            this.column = column;
        }

        public int line() {
            return line;
        }

        public int column() {
            return column;
        }
    }

    private SqlTokens(String script, boolean isScript) {
        this.script = script;
        this.isScript = isScript;
    }

    /**
     * The tokens of a schema's script, without comments. Statements end as several dialects end them, and what MySQL hides in a comment
     * from other servers is read.
     */
    public static List<Token> ofScript(String script) throws Unfinished {
        return tokens(script, true);
    }

    /** The tokens of an expression, or of statements that semicolons end. */
    public static List<Token> of(String sql) throws Unfinished {
        return tokens(sql, false);
    }

    /** The tokens up to each end, without those ends; none that is empty. */
    public static List<List<Token>> statements(List<Token> tokens) {
        List<List<Token>> statements = new ArrayList<>();
        List<Token> current = new ArrayList<>();
        for (Token token : tokens) {
            if (token.kind() != Kind.END) {
                current.add(token);
            } else if (!current.isEmpty()) {
                statements.add(current);
                current = new ArrayList<>();
            }
        }
        if (!current.isEmpty()) {
            statements.add(current);
        }
        return statements;
    }

    private static List<Token> tokens(String script, boolean isScript) throws Unfinished {
        if (script.indexOf('\0') >= 0) {
            throw new Unfinished("there is a NUL character in it, which no table can hold", lineOf(script), 1);
        }
        SqlTokens reader = new SqlTokens(script, isScript);
        while (reader.at < script.length()) {
            reader.next();
        }
        return reader.tokens;
    }

    private static int lineOf(String script) {
        String before = script.substring(0, script.indexOf('\0'));
        return 1 + (int) before.chars().filter(c -> c == '\n').count();
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
        } else if ((c == '-' && peek(1) == '-') || (c == '#' && isHashComment())) {
            skipLine();
        } else if (isScript && c == '/' && peek(1) == '*' && peek(2) == '!') {
            enterVersionComment();
        } else if (isInVersionComment && c == '*' && peek(1) == '/') {
            isInVersionComment = false;
            at += 2;
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
        } else if (c == '[' && !isBehindArray()) {
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

    /** In some dialects this sign begins a comment, in others it reckons with bits, inside parentheses of a condition. */
    private boolean isHashComment() {
        return isScript && depth <= 1 && !Character.isLetterOrDigit(peek(1));
    }

    private void enterVersionComment() {
        isInVersionComment = true;
        at += 3;
        while (Character.isDigit(peek(0))) {
            at++;
        }
    }

    private boolean isBehindArray() {
        return !tokens.isEmpty() && tokens.get(tokens.size() - 1).is("array");
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
        if (peek(2) == '!') {
            throw new Unfinished(
                    "a comment that some servers read as part of the statement is not read", line, at - lineStart + 1);
        }
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

    private void add(Kind kind, String text, int atLine, int atColumn, int start) {
        tokens.add(new Token(kind, text, atLine, atColumn, start, at));
    }

    private void quoted(Kind kind, char close, boolean hasBackslashes) throws Unfinished {
        int startLine = line;
        int startColumn = at - lineStart + 1;
        int start = at;
        StringBuilder text = new StringBuilder();
        int i = at + 1;
        while (true) {
            if (i >= script.length()) {
                throw new Unfinished("a quote is left open", startLine, startColumn);
            }
            char c = script.charAt(i);
            if (c == '\\' && hasBackslashes && i + 1 < script.length()) {
                i = escaped(i + 1, text);
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
        add(kind, text.toString(), startLine, startColumn, start);
    }

    /** What stands for a character behind a backslash, as PostgreSQL has it (4.1.2.2); returns where it ends. */
    private int escaped(int i, StringBuilder text) throws Unfinished {
        char c = script.charAt(i);
        int simple = "bfnrt".indexOf(c);
        if (simple >= 0) {
            text.append("\b\f\n\r\t".charAt(simple));
            return i + 1;
        }
        boolean isOctal = c >= '0' && c <= '7';
        if (!isOctal && c != 'x' && c != 'u' && c != 'U') {
            text.append(c);
            return i + 1;
        }
        int from = isOctal ? i : i + 1;
        int most = isOctal ? 3 : c == 'x' ? 2 : c == 'u' ? 4 : 8;
        int radix = isOctal ? 8 : 16;
        int to = from;
        while (to < script.length() && to < from + most && Character.digit(script.charAt(to), radix) >= 0) {
            to++;
        }
        boolean isWhole = c == 'u' || c == 'U' ? to == from + most : to > from;
        int codePoint = isWhole ? Integer.parseUnsignedInt(script.substring(from, to), radix) : -1;
        boolean isByte = isOctal || c == 'x';
        if (!Character.isValidCodePoint(codePoint) || codePoint == 0 || (isByte && codePoint > 127)) {
            throw new Unfinished(
                    "the escape `\\" + script.substring(i, Math.min(script.length(), Math.max(to, i + 1)))
                            + "` in a text is not read",
                    line,
                    at - lineStart + 1);
        }
        text.appendCodePoint(codePoint);
        return to;
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
        int start = at;
        String mark = script.substring(at, script.indexOf('$', at + 1) + 1);
        int end = script.indexOf(mark, at + mark.length());
        if (end < 0) {
            throw new Unfinished("a text between " + mark + " is left open", startLine, startColumn);
        }
        String text = script.substring(at + mark.length(), end);
        advanceTo(end + mark.length());
        add(Kind.TEXT, text, startLine, startColumn, start);
    }

    private void number() {
        int start = at;
        while (Character.isLetterOrDigit(peek(0))
                || peek(0) == '.'
                || ((peek(0) == '+' || peek(0) == '-') && "eE".indexOf(peek(-1)) >= 0)) {
            at++;
        }
        add(Kind.NUMBER, script.substring(start, at), line, start - lineStart + 1, start);
    }

    private void word() {
        int start = at;
        while (Character.isLetterOrDigit(peek(0)) || "_$#@".indexOf(peek(0)) >= 0 && peek(0) != '\0') {
            at++;
        }
        String word = script.substring(start, at);
        boolean endsBatch = isScript && word.toUpperCase(Locale.ROOT).equals("GO") && isAloneInLine(start);
        add(endsBatch ? Kind.END : Kind.WORD, word, line, start - lineStart + 1, start);
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
        boolean endsStatement = text.equals(";") || (isScript && text.equals("/") && isAloneInLine(start));
        depth = endsStatement ? 0 : depth + (text.equals("(") ? 1 : text.equals(")") ? -1 : 0);
        add(endsStatement ? Kind.END : Kind.SYMBOL, text, line, start - lineStart + 1, start);
    }
}
