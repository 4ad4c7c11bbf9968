package taxiomet.survey.count;

import java.util.Collections;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import taxiomet.charter.Charter;
import taxiomet.charter.Table;
import taxiomet.check.CheckRun;
import taxiomet.check.pass.CheckOptions;
import taxiomet.rows.TableSource;
import taxiomet.survey.profile.TableProfile;
import taxiomet.survey.search.Pair;
import taxiomet.work.RunContext;

/** Counts candidates that memory cannot hold by a check, which has temporary files. */
final class CountsByCheck {
    private final List<TableProfile> profiles;
    private final Map<TableProfile, List<int[]>> keys;
    private final Function<Table, TableSource> open;
    private final RunContext context;

    CountsByCheck(
            List<TableProfile> profiles,
            Map<TableProfile, List<int[]>> keys,
            Function<Table, TableSource> open,
            RunContext context) {
        this.profiles = profiles;
        this.keys = keys;
        this.open = open;
        this.context = context;
    }

    /**
     * Counts.
     *
     * @param someKeys of those of the tables
     * @param examples how many of the values without a parent are named
     */
    void addTo(Counts counts, Set<int[]> someKeys, List<Pair> pairs, int examples) {
        Set<TableProfile> concerned = new HashSet<>();
        Map<TableProfile, List<int[]>> some = new LinkedHashMap<>();
        Set<int[]> wanted = Collections.newSetFromMap(new IdentityHashMap<>());
        wanted.addAll(someKeys);
        pairs.forEach(pair -> wanted.add(pair.key()));
        for (TableProfile profile : profiles) {
            some.put(
                    profile,
                    keys.getOrDefault(profile, List.of()).stream()
                            .filter(wanted::contains)
                            .toList());
            boolean isConcerned = !some.get(profile).isEmpty()
                    || pairs.stream().anyMatch(pair -> pair.child().equals(profile));
            if (isConcerned) {
                concerned.add(profile);
            }
        }
        List<TableProfile> asked = profiles.stream().filter(concerned::contains).toList();
        Charter exam = Exam.exam(asked, some, pairs);
        try (CheckRun run = CheckRun.start(exam, new CheckOptions(Set.of(), examples, 0), open, context)) {
            ExamResult result = new ExamResult(run.result());
            some.forEach((profile, own) -> {
                for (int place = 0; place < own.size(); place++) {
                    counts.add(own.get(place), result.key(profile.name(), place));
                }
            });
            for (int place = 0; place < pairs.size(); place++) {
                counts.add(pairs.get(place), result.link(place));
            }
        }
    }
}
