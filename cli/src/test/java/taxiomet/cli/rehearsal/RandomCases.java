package taxiomet.cli.rehearsal;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.LongFunction;
import java.util.function.Predicate;
import taxiomet.charter.Charter;
import taxiomet.charter.CharterException;
import taxiomet.charters.Charters;

/**
 * Goes through random tables and changes, from a seed that is printed, and gathers all cases in which something differs. How many: {@code
 * -Dtaxiomet.cases}; from which seed: {@code -Dtaxiomet.seed}.
 */
final class RandomCases {
    static final int USUAL = Integer.getInteger("taxiomet.cases", 40);
    private static final long SEED = Long.getLong("taxiomet.seed", 1_000L);

    private static final int TOLD_AFTER = 250;

    private final String name;
    private final Path temporary;
    private final Map<String, Integer> seen = new TreeMap<>();

    /** One case, in a folder of its own. */
    record Drawn(long seed, RandomProposal proposal, Path folder) {
        Charter charter() throws IOException, CharterException {
            return charter(CharterOfCase.More.NOTHING);
        }

        Charter charter(CharterOfCase.More more) throws IOException, CharterException {
            return Charters.read(CharterOfCase.write(proposal, folder, more), Optional.empty())
                    .charter();
        }
    }

    /** What is held against something else. */
    interface Comparison {
        /** What differs; empty for nothing. */
        Optional<String> difference(Drawn drawn) throws Exception;
    }

    RandomCases(String name, Path temporary) {
        this.name = name;
        this.temporary = temporary;
    }

    /** Counts what a case met, so that a test can ask for it. */
    void note(String what) {
        note(what, 1);
    }

    void note(String what, int times) {
        seen.merge(what, times, Integer::sum);
    }

    /** Compares so many cases; none may differ. */
    void compare(int count, Predicate<RandomProposal> isTaken, Comparison comparison) throws Exception {
        compare(count, RandomProposal::new, isTaken, comparison);
    }

    void compare(
            int count, LongFunction<RandomProposal> source, Predicate<RandomProposal> isTaken, Comparison comparison)
            throws Exception {
        int cases = 0;
        List<String> differences = new ArrayList<>();
        for (long seed = SEED; cases < count; seed++) {
            RandomProposal proposal = source.apply(seed);
            if (!isTaken.test(proposal)) {
                continue;
            }
            cases++;
            if (cases % TOLD_AFTER == 0) {
                System.out.println(name + ": " + cases + " cases, to seed " + seed);
            }
            Optional<String> difference =
                    comparison.difference(new Drawn(seed, proposal, Files.createTempDirectory(temporary, "case")));
            if (difference.isPresent()) {
                System.out.println(name + " differs at seed " + seed);
                differences.add("seed " + seed + ": " + difference.get() + "\n" + proposal.describe());
            }
        }
        System.out.println(name + ": " + cases + " cases from seed " + SEED + ", " + seen);
        assertThat(differences).isEmpty();
    }

    /** All of this was met at least once. */
    void requireSeen(String... what) {
        assertThat(seen).containsKeys(what);
    }
}
