package taxiomet.charters.ddl;

import java.util.ArrayList;
import java.util.List;
import taxiomet.charters.ddl.TableDraft.CheckDraft;
import taxiomet.charters.sql.SqlTokens.Token;
import taxiomet.charters.sql.TokenCursor;
import taxiomet.charters.sql.TokenCursor.Unreadable;

/** A type that the script itself declares over another one, as far as CREATE DOMAIN and ALTER DOMAIN have declared it. */
final class DomainDraft {
    private List<Token> type = List.of();
    private boolean isRequired;
    private List<Token> defaultValue = List.of();
    private final List<CheckDraft> checks = new ArrayList<>();
    private final List<List<Token>> lost = new ArrayList<>();

    /** The tokens of the type beneath it. */
    List<Token> type() {
        return type;
    }

    boolean isRequired() {
        return isRequired;
    }

    /** What stands behind DEFAULT; empty for none. */
    List<Token> defaultValue() {
        return defaultValue;
    }

    /** What was declared about it and not understood. */
    List<List<Token>> lost() {
        return List.copyOf(lost);
    }

    /** Its conditions for a column, which stands where they say VALUE. */
    List<CheckDraft> checks(Token column) {
        return checks.stream()
                .map(check -> new CheckDraft(
                        null,
                        check.place(),
                        check.condition().stream()
                                .map(token -> token.is("value") ? column : token)
                                .toList()))
                .toList();
    }

    /** Reads what stands behind CREATE DOMAIN and its name. */
    static DomainDraft create(TokenCursor statement) throws Unreadable {
        DomainDraft domain = new DomainDraft();
        statement.take("as");
        int from = statement.place();
        while (!statement.isAtEnd() && !domain.isConstraintNext(statement)) {
            statement.next();
        }
        domain.type = statement.since(from);
        if (domain.type.isEmpty()) {
            throw statement.unexpected("a type");
        }
        domain.readConstraints(statement);
        return domain;
    }

    /** Reads what stands behind ALTER DOMAIN and its name. */
    void alter(TokenCursor statement) throws Unreadable {
        if (statement.take("set", "not", "null")) {
            isRequired = true;
        } else if (statement.take("drop", "not", "null")) {
            isRequired = false;
        } else if (statement.take("drop", "default")) {
            defaultValue = List.of();
        } else if (statement.take("drop", "constraint")) {
            statement.take("if", "exists");
            Token name = statement.name();
            checks.removeIf(check -> check.name() != null && check.name().text().equalsIgnoreCase(name.text()));
        } else if (statement.isNext("set", "default") || statement.isNext("add")) {
            statement.next();
            readConstraints(statement);
        } else if (!statement.isNext("owner") && !statement.isNext("validate") && !statement.isNext("set", "schema")) {
            lost.add(rest(statement));
        }
    }

    private boolean isConstraintNext(TokenCursor statement) {
        return List.of("constraint", "default", "not", "null", "check", "collate").stream()
                .anyMatch(statement::isNext);
    }

    private void readConstraints(TokenCursor statement) throws Unreadable {
        Token name = null;
        while (!statement.isAtEnd()) {
            Token place = statement.peek();
            if (statement.take("constraint")) {
                name = statement.name();
                continue;
            }
            if (statement.take("not", "null")) {
                isRequired = true;
            } else if (statement.take("default")) {
                defaultValue = statement.value(() -> isConstraintNext(statement));
            } else if (statement.take("check")) {
                checks.add(new CheckDraft(name, place, statement.skipParentheses()));
            } else if (statement.take("collate")) {
                statement.path();
            } else if (!statement.takeOne("null", "not valid")) {
                lost.add(rest(statement));
            }
            name = null;
        }
    }

    private static List<Token> rest(TokenCursor statement) {
        int from = statement.place();
        while (!statement.isAtEnd()) {
            statement.next();
        }
        return statement.since(from);
    }
}
