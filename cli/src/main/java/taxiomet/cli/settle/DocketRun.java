package taxiomet.cli.settle;

import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import taxiomet.charter.Charter;
import taxiomet.check.CheckRun;
import taxiomet.check.pass.CheckOptions;
import taxiomet.cli.option.EngineOptions;
import taxiomet.cli.terminal.Terminal;
import taxiomet.finding.settled.Docket;
import taxiomet.settle.docket.DocketMaker;
import taxiomet.work.CheckProgress;
import taxiomet.work.RunContext;
import taxiomet.work.Secret;

/** Makes the docket of the rows as they are: when it is written, and again when its decisions are read back. */
public final class DocketRun {
    /** Parents are looked for on behalf of so many different missing values. */
    private static final int HINTED = 10_000;

    private DocketRun() {}

    /**
     * Makes it as often as there are ways to tell its rows, of one check.
     *
     * @param told the charters by which rows are told, each with other personal columns
     * @param secret under which rows are known again
     * @param tables of which tables
     */
    public static List<Docket> make(
            List<Charter> told,
            KeyOptions keys,
            EngineOptions engine,
            Terminal terminal,
            Secret secret,
            CheckProgress progress,
            Predicate<String> tables)
            throws IOException {
        RunContext context = engine.context().under(secret).toldTo(progress);
        CheckOptions options = new CheckOptions(Set.of(), 0, HINTED, false, Optional.of(keys.day()));
        // Values are told by the docket itself: what its choices would do needs them as they are.
        Charter plain = told.get(0).withPersonal((table, column) -> false);
        try (CheckRun run = CheckRun.start(plain, options, engine.open(terminal), context)) {
            return told.stream()
                    .map(each -> new DocketMaker(each, run, secret).make(tables))
                    .toList();
        }
    }
}
