package taxiomet.check;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.function.LongSupplier;
import taxiomet.charter.Charter;
import taxiomet.charter.Table;
import taxiomet.check.pass.StateReader;
import taxiomet.keys.SecretMark;
import taxiomet.rows.RowRef;
import taxiomet.rows.Split;
import taxiomet.work.Secret;

/** Reads the states of all pieces into one plan: rows get their numbers in their files when it is known how many stand before them. */
final class PieceStates {
    private final Charter charter;
    private final CheckPlan plan;
    private final String secretMark;

    private record Piece(PieceHeader header, LongSupplier rest) {}

    PieceStates(Charter charter, CheckPlan plan, Secret secret) {
        this.charter = charter;
        this.plan = plan;
        this.secretMark = SecretMark.of(secret);
    }

    /**
     * Reads them.
     *
     * @return how much was read of each table
     * @throws IllegalArgumentException when a piece is missing, comes twice, or belongs to another check
     */
    Map<String, TableFigures> read(List<LongSupplier> states) {
        Map<String, TreeMap<Integer, Piece>> pieces = new LinkedHashMap<>();
        for (LongSupplier state : states) {
            PieceHeader header = PieceHeader.read(new StateReader(state, ref -> ref));
            require(header);
            Piece twin = pieces.computeIfAbsent(header.table(), name -> new TreeMap<>())
                    .put(header.number(), new Piece(header, state));
            if (twin != null) {
                throw new IllegalArgumentException(
                        "piece " + (header.number() + 1) + " of table " + header.table() + " comes twice");
            }
        }
        Map<String, TableFigures> figures = new HashMap<>();
        for (Table table : plan.order()) {
            TreeMap<Integer, Piece> own = pieces.getOrDefault(table.name(), new TreeMap<>());
            requireAll(table, own);
            figures.put(table.name(), read(table, List.copyOf(own.values())));
        }
        return figures;
    }

    private void require(PieceHeader header) {
        if (!header.digest().equals(PieceHeader.digest(charter, plan.plan().options()))) {
            throw new IllegalArgumentException("a piece of table " + header.table() + " was checked by other rules");
        }
        if (!header.secretMark().equals(secretMark)) {
            throw new IllegalArgumentException(
                    "a piece of table " + header.table() + " was checked under another secret");
        }
    }

    private static void requireAll(Table table, SortedMap<Integer, Piece> pieces) {
        List<Split> splits = pieces.isEmpty()
                ? List.of()
                : pieces.get(pieces.firstKey()).header().splits();
        for (int number = 0; number < Math.max(1, splits.size()); number++) {
            Piece piece = pieces.get(number);
            if (piece == null) {
                throw new IllegalArgumentException(
                        "piece " + (number + 1) + " of table " + table.name() + " is missing");
            }
            if (!piece.header().splits().equals(splits)) {
                throw new IllegalArgumentException(
                        "the pieces of table " + table.name() + " were cut in different ways");
            }
        }
    }

    private TableFigures read(Table table, List<Piece> pieces) {
        Map<Integer, Long> rowsBefore = new HashMap<>();
        List<Long> bases = new ArrayList<>();
        TableFigures sum = TableFigures.NONE;
        for (Piece piece : pieces) {
            int part = piece.header().splits().get(piece.header().number()).part();
            bases.add(RowRef.of(part, rowsBefore.getOrDefault(part, 0L)));
            rowsBefore.merge(part, piece.header().figures().rows(), Long::sum);
            sum = sum.plus(piece.header().figures());
        }
        for (int i = 0; i < pieces.size(); i++) {
            long base = bases.get(i);
            plan.exchange(table, new StateReader(pieces.get(i).rest(), ref -> base + RowRef.row(ref)));
        }
        return sum;
    }
}
