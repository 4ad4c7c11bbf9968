package taxiomet.settle.compare;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.LongPredicate;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Table;
import taxiomet.check.CheckRun;
import taxiomet.check.pass.FaultLog;
import taxiomet.finding.Finding;
import taxiomet.finding.KeptResult;
import taxiomet.finding.KeptResult.KeptFinding;
import taxiomet.finding.KeptResult.KeptParents;
import taxiomet.finding.KeptResult.KeptRow;
import taxiomet.finding.KeptResult.KeptTable;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyForm;
import taxiomet.keys.SecretMark;
import taxiomet.keys.TypedBatch;
import taxiomet.personal.Pseudonyms;
import taxiomet.rows.TableSource;
import taxiomet.settle.compare.RowMarks.Mark;
import taxiomet.work.KeyedHash;
import taxiomet.work.Secret;

/** Makes of a check what is kept of it. */
public final class ResultKeeper {
    private static final String PURPOSE = "taxiomet kept rows";

    private final Charter charter;
    private final CheckRun run;
    private final Secret secret;
    private final KeyedHash hash;

    /**
     * @param run a check, still open
     * @param secret under which it ran: results can be compared that were kept under the same
     */
    public ResultKeeper(Charter charter, CheckRun run, Secret secret) {
        this.charter = charter;
        this.run = run;
        this.secret = secret;
        this.hash = new KeyedHash(secret, PURPOSE);
    }

    /**
     * What is kept.
     *
     * @param made when
     * @param keepsParents whether the keys that links point at are, too: their tables are read once more
     * @throws taxiomet.rows.SourceException when rows cannot be read
     */
    public KeptResult keep(Instant made, boolean keepsParents) {
        List<KeptTable> tables = run.result().tables().stream()
                .map(table -> new KeptTable(table.name(), table.rows(), table.faultyRows()))
                .toList();
        return new KeptResult(
                made, charter.name(), SecretMark.of(secret), tables, findings(), keepsParents ? parents() : List.of());
    }

    private List<KeptFinding> findings() {
        Pseudonyms pseudonyms = new Pseudonyms(charter, secret);
        Map<String, RowMarks> marks = new HashMap<>();
        List<KeptFinding> findings = new ArrayList<>();
        for (Finding finding : run.result().findings()) {
            List<KeptRow> rows = new ArrayList<>();
            for (FaultLog log : logsOf(finding)) {
                RowMarks ofTable = marks.computeIfAbsent(log.table(), name -> marks(name, pseudonyms));
                LongPredicate isAccepted = run.accepted(log);
                log.forEachRow(ref -> rows.add(row(ofTable.of(ref), log, isAccepted.test(ref))));
            }
            findings.add(new KeptFinding(
                    finding.kind(),
                    finding.severity(),
                    finding.table(),
                    finding.at(),
                    finding.rows(),
                    finding.acceptedRows(),
                    rows));
        }
        return findings;
    }

    private static KeptRow row(Mark mark, FaultLog log, boolean isAccepted) {
        return new KeptRow(
                mark.identity(), mark.rest(), mark.pointsAt().getOrDefault(log.at(), 0L), mark.name(), isAccepted);
    }

    /** Notes are counted alone: every row may be one. */
    private List<FaultLog> logsOf(Finding finding) {
        return run.faults().stream()
                .filter(log -> log.hasFaults() && log.isOf(finding.kind(), finding.table(), finding.at()))
                .toList();
    }

    private RowMarks marks(String name, Pseudonyms pseudonyms) {
        RowMarks marks = new RowMarks(charter, charter.table(name), secret, hash, pseudonyms);
        marks.read(
                run.faults().stream()
                        .filter(log -> log.hasFaults() && log.table().equals(name))
                        .toList(),
                run.sources().get(name));
        return marks;
    }

    private List<KeptParents> parents() {
        Map<List<Object>, long[]> read = new HashMap<>();
        List<KeptParents> parents = new ArrayList<>();
        for (ForeignKey link : charter.links()) {
            Table parent = charter.table(link.parent());
            TableSource source = run.sources().get(parent.name());
            if (source == null) {
                continue;
            }
            List<KeyForm> forms = KeyForm.of(charter.table(link.child()), parent, link);
            long[] keys = read.computeIfAbsent(
                    List.of(parent.name(), link.parentColumns(), forms),
                    which -> keys(parent, parent.indexesOf(link.parentColumns()), forms, source));
            parents.add(new KeptParents(link.child(), link.name(), keys));
        }
        return parents;
    }

    private long[] keys(Table parent, int[] columns, List<KeyForm> forms, TableSource source) {
        int[] read = Arrays.stream(columns).distinct().sorted().toArray();
        TypedBatch typed = TypedBatch.ofValues(parent, read, secret);
        KeyEncoder encoder = new KeyEncoder(columns, forms, secret);
        Numbers keys = new Numbers();
        source.read(read, batch -> {
            typed.read(batch);
            encoder.start(typed);
            for (int row = 0; row < batch.size(); row++) {
                encoder.look(row);
                if (encoder.isComplete()) {
                    encoder.encode(row);
                    keys.add(RowMarks.pointedAt(hash, encoder.high(), encoder.low()));
                }
            }
        });
        return Arrays.stream(keys.sorted()).distinct().toArray();
    }

    /** Longs as they come. */
    private static final class Numbers {
        private long[] all = new long[64];
        private int size;

        void add(long number) {
            if (size == all.length) {
                all = Arrays.copyOf(all, size * 2);
            }
            all[size++] = number;
        }

        long[] sorted() {
            long[] sorted = Arrays.copyOf(all, size);
            Arrays.sort(sorted);
            return sorted;
        }
    }
}
