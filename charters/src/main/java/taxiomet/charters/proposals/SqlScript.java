package taxiomet.charters.proposals;

import java.util.ArrayList;
import java.util.List;
import taxiomet.charters.sql.SqlTokens;
import taxiomet.charters.sql.SqlTokens.Token;
import taxiomet.charters.sql.SqlTokens.Unfinished;
import taxiomet.proposal.ProposalException;

/** Takes a SQL script apart into statements, each with the line that it begins in. */
final class SqlScript {
    private SqlScript() {}

    /**
     * One statement.
     *
     * @param sql as written, without the semicolon behind it
     * @param tokens at least one
     * @param line from 1
     */
    record Statement(String sql, List<Token> tokens, int line) {
        Statement {
            tokens = List.copyOf(tokens);
        }
    }

    /** @throws ProposalException when a quote or comment is left open */
    static List<Statement> statements(String script, String file) {
        try {
            List<Statement> statements = new ArrayList<>();
            for (List<Token> tokens : SqlTokens.statements(SqlTokens.of(script))) {
                Token first = tokens.get(0);
                String sql = script.substring(
                        first.start(), tokens.get(tokens.size() - 1).end());
                statements.add(new Statement(sql, tokens, first.line()));
            }
            return statements;
        } catch (Unfinished e) {
            throw new ProposalException(file + ":" + e.line(), e.getMessage(), "");
        }
    }
}
