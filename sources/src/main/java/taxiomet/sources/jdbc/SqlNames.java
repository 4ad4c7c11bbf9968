package taxiomet.sources.jdbc;

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
}
