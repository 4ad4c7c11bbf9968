package taxiomet.sources.jdbc;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import taxiomet.charter.Server;

/** Names as statements write them: always quoted, so that none is ever read as anything else. */
final class SqlNames {
    private final char open;
    private final char close;

    private SqlNames(char open, char close) {
        this.open = open;
        this.close = close;
    }

    static SqlNames of(Server server) {
        return switch (server) {
            case MARIADB -> new SqlNames('`', '`');
            case SQLSERVER -> new SqlNames('[', ']');
            default -> new SqlNames('"', '"');
        };
    }

    String quoted(String name) {
        return open + name.replace(String.valueOf(close), String.valueOf(close) + close) + close;
    }

    String quoted(List<String> names) {
        return names.stream().map(this::quoted).collect(Collectors.joining(", "));
    }

    /** The parts of a name with dots between them; a part that holds a dot stands in double quotes. */
    static List<String> parts(String name) {
        List<String> parts = new ArrayList<>();
        StringBuilder part = new StringBuilder();
        boolean isQuoted = false;
        for (int i = 0; i < name.length(); i++) {
            char c = name.charAt(i);
            if (c == '"') {
                if (isQuoted && i + 1 < name.length() && name.charAt(i + 1) == '"') {
                    part.append(c);
                    i++;
                } else {
                    isQuoted = !isQuoted;
                }
            } else if (c == '.' && !isQuoted) {
                parts.add(part.toString());
                part.setLength(0);
            } else {
                part.append(c);
            }
        }
        parts.add(part.toString());
        return parts;
    }
}
