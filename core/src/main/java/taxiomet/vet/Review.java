package taxiomet.vet;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import taxiomet.charter.Alike;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Key;
import taxiomet.charter.NotRead;
import taxiomet.charter.Server;
import taxiomet.charter.Severity;
import taxiomet.charter.Table;
import taxiomet.vet.Judgement.Kind;

/**
 * Judges the declarations of a charter by themselves; no row is read. What a charter's reader refuses already (names that do
 * not resolve, types that can never be equal) does not come up again.
 */
public final class Review {
    private static final List<String> SECTIONS =
            List.of("", "columns", "primary_key", "unique", "foreign_keys", "alike", "not_read");
    private static final long PER_SECTION = 1_000_000;
    private static final long PER_TABLE = 10 * PER_SECTION;

    private final List<Judgement> judgements = new ArrayList<>();

    private Review() {}

    /**
     * All that there is to say, the worst first, then in the order of the charter.
     *
     * @param server the database server that is to take the rules; empty where none was named
     */
    public static List<Judgement> of(Charter charter, Optional<Server> server) {
        Review review = new Review();
        LinkGraph graph = new LinkGraph(charter);
        for (Table table : charter.tables()) {
            new ColumnReview(table, review).judge();
            new KeyReview(table, graph, review).judge();
            new AlikeReview(table, review).judge();
            for (ForeignKey link : table.links()) {
                new LinkReview(charter, link, review).judge();
                server.ifPresent(s -> new ServerReview(s, charter, review).judge(link));
            }
            server.ifPresent(s -> new ServerReview(s, charter, review).judge(table));
        }
        new CascadeReview(charter, graph, review).judge();
        server.ifPresent(s -> new ServerReview(s, charter, review).judgeRoads());
        charter.notRead().forEach(review::judge);
        review.judgements.sort(
                Comparator.comparing(Judgement::severity).thenComparing(j -> position(charter, j.path())));
        return List.copyOf(review.judgements);
    }

    /** Sorts declarations as they stand: by table, then by what is declared in it, then in its order. */
    private static long position(Charter charter, List<String> path) {
        if (!path.get(0).equals("tables")) {
            return charter.tables().size() * PER_TABLE;
        }
        Table table = charter.table(path.get(1));
        long position = charter.indexOf(table.name()) * PER_TABLE;
        if (path.size() < 4) {
            return position;
        }
        List<String> names = switch (path.get(2)) {
            case "columns" -> table.columns().stream().map(Column::name).toList();
            case "not_read" -> charter.notRead().stream().map(NotRead::name).toList();
            case "alike" -> table.alike().stream().map(Alike::name).toList();
            case "unique" -> table.uniqueKeys().stream().map(Key::name).toList();
            default -> table.links().stream().map(ForeignKey::name).toList();
        };
        return position + SECTIONS.indexOf(path.get(2)) * PER_SECTION + names.indexOf(path.get(3));
    }

    private void judge(NotRead lost) {
        judgements.add(new Judgement(
                Kind.RULE_NOT_READ,
                lost.severity(),
                lost.path(),
                "a " + lost.what().word() + " is not read: " + lost.declared()
                        + (lost.problem().isEmpty() ? "" : " (" + lost.problem() + ")"),
                "say the same in a way that is read, or look after it by other means"));
    }

    void error(Kind kind, List<String> path, String problem, String remedy) {
        judgements.add(new Judgement(kind, Severity.ERROR, path, problem, remedy));
    }

    void warn(Kind kind, List<String> path, String problem, String remedy) {
        judgements.add(new Judgement(kind, Severity.WARNING, path, problem, remedy));
    }

    void note(Kind kind, List<String> path, String problem, String remedy) {
        judgements.add(new Judgement(kind, Severity.NOTE, path, problem, remedy));
    }

    /** The way to a table. */
    static List<String> path(String table) {
        return List.of("tables", table);
    }

    static List<String> path(String table, String... more) {
        List<String> path = new ArrayList<>(path(table));
        path.addAll(List.of(more));
        return path;
    }

    /** The way to a link, or to one of its keys. */
    static List<String> path(ForeignKey link, String... more) {
        List<String> path = new ArrayList<>(path(link.child(), "foreign_keys", link.name()));
        path.addAll(List.of(more));
        return path;
    }
}
