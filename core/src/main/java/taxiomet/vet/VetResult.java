package taxiomet.vet;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.Charter;
import taxiomet.charter.Problem;
import taxiomet.charter.Server;
import taxiomet.charter.Severity;
import taxiomet.vet.LinkGraph.ManyToMany;

/**
 * What the declarations of a charter come to by themselves.
 *
 * @param title what the charter is called
 * @param tables how many tables it declares
 * @param judgements the worst first
 * @param remarks notes about the file that the charter was read from, such as statements that were passed over
 * @param links what each link means, in the order declared
 * @param pairs tables joined many to many
 * @param loadOrder steps, each of which needs only those before it; to delete, they are taken from the last to the first
 * @param around what depends on one table and what it depends on; empty when no table was asked about
 */
public record VetResult(
        String title,
        int tables,
        List<Judgement> judgements,
        List<Problem> remarks,
        List<LinkMeaning> links,
        List<ManyToMany> pairs,
        List<List<String>> loadOrder,
        Optional<Around> around) {
    public VetResult {
        judgements = List.copyOf(judgements);
        remarks = List.copyOf(remarks);
        links = List.copyOf(links);
        pairs = List.copyOf(pairs);
        loadOrder = List.copyOf(loadOrder);
    }

    /** A link and its meaning in a sentence. */
    public record LinkMeaning(String child, String link, String parent, String sentence) {}

    /** A table, and how many links away it is. */
    public record Neighbour(String table, int steps) {}

    /**
     * One table's place among the others.
     *
     * @param dependants tables whose rows need rows of this one, the nearest first
     * @param supports tables whose rows this one needs, the nearest first
     * @param deletable tables that a delete here can reach over cascades
     */
    public record Around(
            String table, List<Neighbour> dependants, List<Neighbour> supports, List<Neighbour> deletable) {
        public Around {
            dependants = List.copyOf(dependants);
            supports = List.copyOf(supports);
            deletable = List.copyOf(deletable);
        }
    }

    /**
     * Vets a charter.
     *
     * @param remarks about the file that the charter was read from
     * @param server that is to take the rules; empty for none
     * @param around a table of the charter to look at more closely
     */
    public static VetResult of(
            Charter charter, List<Problem> remarks, Optional<Server> server, Optional<String> around) {
        LinkGraph graph = new LinkGraph(charter);
        return new VetResult(
                charter.name(),
                charter.tables().size(),
                Review.of(charter, server),
                remarks,
                charter.links().stream()
                        .map(link -> new LinkMeaning(
                                link.child(), link.name(), link.parent(), LinkSentence.of(charter, link)))
                        .toList(),
                graph.manyToMany(),
                graph.loadOrder(),
                around.map(table -> new Around(
                        table,
                        neighbours(graph.dependants(table)),
                        neighbours(graph.supports(table)),
                        neighbours(graph.cascade(table)))));
    }

    /** The same with more judgements. */
    public VetResult with(List<Judgement> more) {
        List<Judgement> all = new ArrayList<>(judgements);
        all.addAll(more);
        all.sort(Comparator.comparing(Judgement::severity));
        return new VetResult(title, tables, all, remarks, links, pairs, loadOrder, around);
    }

    private static List<Neighbour> neighbours(Map<String, Integer> reached) {
        List<Neighbour> neighbours = new ArrayList<>();
        reached.forEach((table, steps) -> neighbours.add(new Neighbour(table, steps)));
        return neighbours;
    }

    /** How many judgements there are of a severity. */
    public long count(Severity severity) {
        long count = judgements.stream().filter(j -> j.severity() == severity).count();
        return severity == Severity.NOTE ? count + remarks.size() : count;
    }

    /** What it comes to, in a word or two. */
    public String answer() {
        return isSound() ? "sound" : "not sound";
    }

    /** Whether there is neither an error nor a warning. */
    public boolean isSound() {
        return judgements.stream().allMatch(j -> j.severity() == Severity.NOTE);
    }
}
