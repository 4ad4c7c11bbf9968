package taxiomet.check;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import taxiomet.charter.Charter;
import taxiomet.check.pass.CheckOptions;
import taxiomet.check.pass.StateReader;
import taxiomet.check.pass.StateWriter;
import taxiomet.keys.SecretMark;
import taxiomet.rows.Split;
import taxiomet.work.ContentHash;
import taxiomet.work.Secret;

/**
 * What stands before the state of a piece: the version of the form (2), then as texts the table, all its splits, which of them this is,
 * the digest of charter and options, and the mark of the secret; then how much was read, and what is there that is not declared.
 *
 * @param splits all pieces of the table, in their order
 * @param number which of them this is, 0 for the first
 * @param digest tells charters apart, wherever their rows stand
 */
record PieceHeader(
        String table, List<Split> splits, int number, TableFigures figures, String digest, String secretMark) {
    private static final long VERSION = 2;

    PieceHeader(String table, List<Split> splits, int number, TableFigures figures, String digest, Secret secret) {
        this(table, splits, number, figures, digest, SecretMark.of(secret));
    }

    /** What is declared and asked for, as a digest. */
    static String digest(Charter charter, CheckOptions options) {
        String declared = charter.tables().stream()
                .map(table -> table.withRows(null).toString())
                .collect(Collectors.joining("\n"));
        ContentHash hash = new ContentHash();
        hash.digest()
                .update((declared
                                + charter.notRead()
                                + options.only().stream().sorted().toList())
                        .getBytes(StandardCharsets.UTF_8));
        return hash.hex();
    }

    /** Writes it. */
    void write(StateWriter writer) {
        writer.count(VERSION);
        writer.texts(List.of(
                table,
                splits.stream().map(Split::text).collect(Collectors.joining(" ")),
                Integer.toString(number),
                digest,
                secretMark));
        writer.count(figures.rows());
        writer.count(figures.malformed());
        writer.count(figures.emptyLines());
        writer.texts(figures.undeclared().stream().sorted().toList());
    }

    /** @throws IllegalArgumentException when it is none */
    static PieceHeader read(StateReader reader) {
        long version = reader.count(0);
        if (version != VERSION) {
            throw new IllegalArgumentException("a state of version " + version + " is not read, only of " + VERSION);
        }
        List<String> texts = reader.texts(List.of());
        if (texts.size() != 5) {
            throw new IllegalArgumentException("this is no state of a piece");
        }
        List<Split> splits =
                List.of(texts.get(1).split(" ")).stream().map(Split::parse).toList();
        TableFigures figures = new TableFigures(
                reader.count(0), reader.count(0), reader.count(0), Set.copyOf(reader.texts(List.of())));
        return new PieceHeader(
                texts.get(0), splits, Integer.parseInt(texts.get(2)), figures, texts.get(3), texts.get(4));
    }
}
