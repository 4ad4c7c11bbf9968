package taxiomet.check;

import java.util.List;
import java.util.function.LongConsumer;
import taxiomet.charter.Charter;
import taxiomet.charter.Table;
import taxiomet.check.pass.CheckOptions;
import taxiomet.check.pass.Reading;
import taxiomet.check.pass.StateWriter;
import taxiomet.check.pass.TablePass;
import taxiomet.rows.Split;
import taxiomet.rows.SplittableSource;
import taxiomet.rows.SplittableSource.SplitScan;
import taxiomet.spill.SpillFolder;
import taxiomet.work.RunContext;

/**
 * A check of one piece of a table in a state of its own, which travels and is brought together with those of all other pieces by {@link
 * CheckRun#merge}. What is known of rows in other pieces waits for that: keys that come again, parents, children.
 */
public final class PieceCheck {
    private PieceCheck() {}

    /**
     * Checks one piece.
     *
     * @param splits all pieces of the table, in their order
     * @param number which of them this is, 0 for the first
     * @param source the rows of the table with all its declared columns
     * @param context with a secret that all pieces share
     * @param state gets the state as longs, of which {@link CheckRun#merge} makes sense
     * @throws taxiomet.rows.SourceException when rows cannot be read
     */
    public static void check(
            Charter charter,
            CheckOptions options,
            Table table,
            List<Split> splits,
            int number,
            SplittableSource source,
            RunContext context,
            LongConsumer state) {
        try (SpillFolder spill = new SpillFolder(context.temporary(), context.budget());
                CheckPlan plan = new CheckPlan(charter, options, spill, context)) {
            plan.keepKeysApart();
            int[] columns = plan.plan().columnsOf(table);
            SplitScan[] scan = new SplitScan[1];
            TablePass pass = new TablePass(
                    table,
                    () -> {
                        scan[0] = source.scan(columns, splits.get(number));
                        return scan[0];
                    },
                    columns,
                    plan.plan().checksOf(table),
                    plan.malformedOf(table),
                    context.secret(),
                    () -> {});
            new Reading(
                            List.of(pass),
                            context.threads(),
                            read -> context.progress().reading(read.name()))
                    .run();
            TableFigures figures = new TableFigures(
                    pass.rows(),
                    pass.malformed(),
                    scan[0].emptyLines(),
                    source.undeclared().names());
            StateWriter writer = new StateWriter(state);
            new PieceHeader(
                            table.name(),
                            splits,
                            number,
                            figures,
                            PieceHeader.digest(charter, options),
                            context.secret())
                    .write(writer);
            plan.exchange(table, writer);
        }
    }
}
