package taxiomet.charters.proposals;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import taxiomet.charter.Charter;
import taxiomet.charter.NearestWord;
import taxiomet.charter.Table;
import taxiomet.charters.input.InputFile;
import taxiomet.proposal.Change;
import taxiomet.proposal.ProposalException;

/** The way from what a user proposes to changes; all names in them are those of the charter. */
public final class ProposalReader {
    private final Charter charter;
    private final StatementReader statements;

    /** What the rows of a file are for. */
    public enum Use {
        INSERT,
        UPDATE,
        DELETE
    }

    /** @param now the moment that is current throughout */
    public ProposalReader(Charter charter, Instant now) {
        this.charter = charter;
        this.statements = new StatementReader(charter, now);
    }

    /**
     * The changes of some SQL.
     *
     * @param place what to call it in messages
     * @throws ProposalException with all that cannot be read, or does not fit the charter
     */
    public List<Change> sql(String sql, String place) {
        List<Change> changes = new ArrayList<>();
        List<ProposalException> faults = new ArrayList<>();
        for (SqlScript.Statement statement : SqlScript.statements(sql, place)) {
            try {
                changes.add(statements.read(statement, place + ":" + statement.line()));
            } catch (ProposalException e) {
                faults.add(e);
            }
        }
        if (!faults.isEmpty()) {
            throw ProposalException.ofAll(faults);
        }
        if (changes.isEmpty()) {
            throw new ProposalException(place, "there is no statement in it", "write INSERT, UPDATE or DELETE");
        }
        return changes;
    }

    /** The changes of a SQL script. */
    public List<Change> script(Path file) {
        return sql(ProposalText.of(file), InputFile.name(file));
    }

    /** The change that a CSV file of keys, or of rows, is. */
    public Change rows(Use use, String table, Path file) {
        Table found = charter.find(table).orElseThrow(() -> {
            List<String> known = charter.tables().stream().map(Table::name).collect(Collectors.toList());
            return new ProposalException(
                    InputFile.name(file),
                    "there is no table `" + table + "`",
                    NearestWord.of(table, known)
                            .map(near -> "did you mean `" + near + "`?")
                            .orElseGet(() -> "known: " + String.join(", ", known)));
        });
        KeyFileReader reader = new KeyFileReader(found, file);
        return switch (use) {
            case INSERT -> reader.insert();
            case UPDATE -> reader.update();
            case DELETE -> reader.delete();
        };
    }
}
