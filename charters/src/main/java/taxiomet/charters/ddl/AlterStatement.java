package taxiomet.charters.ddl;

import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import taxiomet.charter.NotRead.What;
import taxiomet.charters.ddl.TableDraft.ColumnDraft;
import taxiomet.charters.sql.SqlTokens.Token;
import taxiomet.charters.sql.TokenCursor;
import taxiomet.charters.sql.TokenCursor.Unreadable;

/** Reads what ALTER TABLE changes about one table; what could change its rules and is not followed is noted as lost. */
final class AlterStatement {
    /** Words that begin a change. */
    private static final Set<String> CHANGES = Set.of(
            ("add alter modify change drop rename enable disable owner set validate with algorithm lock engine comment convert"
                            + " order auto_increment default character check nocheck")
                    .split(" "));

    /** Changes that leave the rules for rows as they are. */
    private static final Set<String> IDLE = Set.of(
            ("owner validate algorithm lock engine comment convert order auto_increment default character check enable set"
                            + " cluster replica attach detach no force")
                    .split(" "));

    private final TokenCursor statement;
    private final TableDraft table;
    private final TableStatement elements;
    private final SchemaNotes notes;

    AlterStatement(TokenCursor statement, TableDraft table, TableStatement elements, SchemaNotes notes) {
        this.statement = statement;
        this.table = table;
        this.elements = elements;
        this.notes = notes;
    }

    /** What stands behind ALTER TABLE and a name: one or several changes. */
    void read() throws Unreadable {
        boolean isAdding = false;
        do {
            if (isAdding && !CHANGES.contains(statement.peek().text().toLowerCase(Locale.ROOT))) {
                // One ADD for several elements, as SQL Server has it.
                elements.readElement();
            } else {
                isAdding = statement.isNext("add")
                        || statement.isNext("with", "check")
                        || statement.isNext("with", "nocheck");
                readChange();
            }
        } while (statement.takeSymbol(","));
    }

    private void readChange() throws Unreadable {
        Token first = statement.peek();
        if (statement.take("with", "check") || statement.take("with", "nocheck")) {
            if (!statement.isNext("add")) {
                pass();
                return;
            }
            readChange();
        } else if (statement.take("add")) {
            readAdded();
        } else if (statement.take("modify")) {
            statement.take("column");
            readAgain(column(statement.name()));
        } else if (statement.take("alter")) {
            readAltered(first);
        } else if (statement.take("drop")) {
            readDropped(first);
        } else if (statement.take("nocheck", "constraint") || statement.take("disable", "constraint")) {
            Token name = statement.name();
            table.links.stream().filter(link -> isNamed(link.name, name)).forEach(link -> link.isEnforced = false);
        } else if (IDLE.contains(first.text().toLowerCase(Locale.ROOT))) {
            notes.passOver(first, "ALTER TABLE " + first.text().toUpperCase(Locale.ROOT));
            pass();
        } else {
            lose(first);
        }
    }

    /** Passes over one change. */
    private void pass() throws Unreadable {
        while (!statement.isAtEnd() && !statement.peek().isSymbol(",")) {
            if (statement.peek().isSymbol("(")) {
                statement.skipParentheses();
            } else {
                statement.next();
            }
        }
    }

    private void lose(Token place) throws Unreadable {
        pass();
        List<Token> declared = statement.since(0).stream()
                .filter(token -> token.start() >= place.start())
                .toList();
        table.lose(What.TABLE, null, place, declared, "this change of a table is not followed");
    }

    private void readAdded() throws Unreadable {
        if (statement.peek().isSymbol("(")) {
            elements.readElements();
            return;
        }
        if (statement.take("column")) {
            statement.take("if", "not", "exists");
            elements.readColumn();
            return;
        }
        statement.take("if", "not", "exists");
        elements.readElement();
    }

    private ColumnDraft column(Token name) throws Unreadable {
        return table.columns.values().stream()
                .filter(c -> isNamed(c.name, name))
                .findFirst()
                .orElseThrow(() ->
                        new Unreadable(name, "table `" + table.name.text() + "` has no column `" + name.text() + "`"));
    }

    /** A column declared anew: its type, and all that stands behind it. */
    private void readAgain(ColumnDraft column) throws Unreadable {
        column.isRequired = false;
        column.hasOwnDefault = false;
        column.generated = null;
        table.lost.removeIf(lost -> Objects.equals(lost.name(), column.name) && lost.what() == What.TYPE);
        elements.readType(column);
        elements.readColumnConstraints(column);
    }

    private void readAltered(Token first) throws Unreadable {
        if (statement.isNext("constraint") || statement.isNext("index") || statement.isNext("check")) {
            lose(first);
            return;
        }
        statement.take("column");
        ColumnDraft column = column(statement.name());
        if (statement.take("set", "not", "null")) {
            column.isRequired = true;
        } else if (statement.take("drop", "not", "null")) {
            column.isRequired = false;
        } else if (statement.take("set", "default")) {
            elements.readDefault(column);
        } else if (statement.take("drop", "default")) {
            elements.takeDefaultOfDomain(column);
        } else if (statement.take("add", "generated")) {
            elements.readGenerated(column);
        } else if (statement.take("type") || statement.take("set", "data", "type")) {
            elements.readType(column);
            pass();
        } else if (statement.isNext("set") || statement.isNext("reset") || statement.isNext("drop", "identity")) {
            notes.passOver(first, "ALTER TABLE ... ALTER COLUMN");
            pass();
        } else if (statement.isNext("drop") || statement.isNext("restart") || statement.isNext("rename")) {
            lose(first);
        } else {
            // SQL Server declares the column anew.
            readAgain(column);
        }
    }

    private void readDropped(Token first) throws Unreadable {
        if (statement.take("primary", "key")) {
            table.dropPrimaryKey();
            return;
        }
        boolean isConstraint = statement.takeOne("constraint", "foreign key", "index", "key", "check");
        if (!isConstraint) {
            statement.take("column");
        }
        boolean isOptional = statement.take("if", "exists");
        Token name = statement.name();
        statement.takeOne("cascade", "restrict");
        boolean isGone = isConstraint ? dropConstraint(name) : dropColumn(name);
        if (!isGone && !isOptional && !isConstraint) {
            throw new Unreadable(name, "table `" + table.name.text() + "` has no column `" + name.text() + "`");
        } else if (!isGone && !isOptional) {
            lose(first);
        }
    }

    private static boolean isNamed(Token name, Token wanted) {
        return name != null && name.text().equalsIgnoreCase(wanted.text());
    }

    private boolean dropConstraint(Token name) {
        boolean isPrimary = isNamed(table.primaryKeyName, name)
                || (table.primaryKeyName == null
                        && name.text().equalsIgnoreCase(table.name.text() + "_pkey")
                        && !table.primaryKey.isEmpty());
        if (isPrimary) {
            table.dropPrimaryKey();
        }
        boolean isGone = table.uniqueKeys.removeIf(key -> isNamed(key.name(), name));
        isGone |= table.links.removeIf(link -> isNamed(link.name, name));
        isGone |= table.checks.removeIf(check -> isNamed(check.name(), name));
        isGone |= table.lost.removeIf(lost -> isNamed(lost.name(), name) && lost.what() != What.TYPE);
        return isPrimary || isGone;
    }

    /** A column goes with the keys, links and conditions that ask for it. */
    private boolean dropColumn(Token name) {
        boolean isGone = table.columns.keySet().removeIf(column -> column.equalsIgnoreCase(name.text()));
        if (table.primaryKey.stream().anyMatch(column -> isNamed(column, name))) {
            table.dropPrimaryKey();
        }
        table.uniqueKeys.removeIf(key -> key.columns().stream().anyMatch(column -> isNamed(column, name)));
        table.links.removeIf(link -> link.columns.stream().anyMatch(column -> isNamed(column, name)));
        table.checks.removeIf(
                check -> check.condition().stream().anyMatch(token -> token.isName() && isNamed(token, name)));
        table.lost.removeIf(lost -> isNamed(lost.name(), name));
        return isGone;
    }
}
