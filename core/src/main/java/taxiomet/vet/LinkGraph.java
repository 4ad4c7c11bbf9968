package taxiomet.vet;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Key;
import taxiomet.charter.Table;

/** The tables of a charter and the links between them: who depends on whom, in which order, and where it goes round in a circle. */
public final class LinkGraph {
    private final Charter charter;
    private final Map<String, Table> tables = new LinkedHashMap<>();
    private final Map<String, List<ForeignKey>> linksToParent = new LinkedHashMap<>();

    /** @param charter whose links it is made of */
    public LinkGraph(Charter charter) {
        this.charter = charter;
        charter.tables().forEach(table -> {
            tables.put(table.name(), table);
            linksToParent.put(table.name(), new ArrayList<>());
        });
        charter.links().forEach(link -> linksToParent.get(link.parent()).add(link));
    }

    /** The links that point at a table, in the order declared. */
    public List<ForeignKey> linksTo(String parent) {
        return linksToParent.get(parent);
    }

    /** Tables that depend on a table over links, with their steps: 1 for those that point at it. The table itself is left out. */
    public Map<String, Integer> dependants(String table) {
        return reach(
                table, name -> linksTo(name).stream().map(ForeignKey::child).toList());
    }

    /** Tables that a table depends on, with their steps. */
    public Map<String, Integer> supports(String table) {
        return reach(
                table,
                name -> tables.get(name).links().stream()
                        .map(ForeignKey::parent)
                        .toList());
    }

    /** Tables that a delete in a table can reach over links that hand it on, with their steps. */
    public Map<String, Integer> cascade(String table) {
        return reach(
                table,
                name -> linksTo(name).stream()
                        .filter(LinkGraph::cascades)
                        .map(ForeignKey::child)
                        .toList());
    }

    /** Whether a delete of a parent row deletes its children. */
    static boolean cascades(ForeignKey link) {
        return link.isEnforced() && link.onDelete().name() == ForeignKey.ActionName.CASCADE;
    }

    private interface Neighbours {
        Collection<String> of(String table);
    }

    private static Map<String, Integer> reach(String start, Neighbours neighbours) {
        Map<String, Integer> steps = new LinkedHashMap<>(Map.of(start, 0));
        ArrayDeque<String> open = new ArrayDeque<>(List.of(start));
        while (!open.isEmpty()) {
            String next = open.poll();
            for (String neighbour : neighbours.of(next)) {
                if (steps.putIfAbsent(neighbour, steps.get(next) + 1) == null) {
                    open.add(neighbour);
                }
            }
        }
        steps.remove(start);
        return steps;
    }

    /**
     * The tables in an order in which they can be loaded: each step needs only those before it. Tables that need one another
     * in a circle stand in one step together.
     */
    public List<List<String>> loadOrder() {
        Map<String, Integer> stepOf = new LinkedHashMap<>();
        int steps = 0;
        // Parents' components are found before those of their children.
        for (Set<String> group : circles(link -> true)) {
            int step = 0;
            for (String table : group) {
                for (ForeignKey link : tables.get(table).links()) {
                    if (!group.contains(link.parent())) {
                        step = Math.max(step, stepOf.get(link.parent()) + 1);
                    }
                }
            }
            for (String table : group) {
                stepOf.put(table, step);
            }
            steps = Math.max(steps, step + 1);
        }
        List<List<String>> order = new ArrayList<>();
        for (int i = 0; i < steps; i++) {
            order.add(new ArrayList<>());
        }
        tables.keySet().forEach(table -> order.get(stepOf.get(table)).add(table));
        return order;
    }

    /** Circles of two tables or more over links that a condition takes: sets of tables each of which reaches all others. */
    public List<Set<String>> realCircles(Predicate<ForeignKey> condition) {
        return circles(condition).stream().filter(group -> group.size() > 1).toList();
    }

    /** The strongly connected components (Tarjan), without recursion; tables outside any circle stand alone. */
    private List<Set<String>> circles(Predicate<ForeignKey> condition) {
        return new Components(condition).find();
    }

    private final class Components {
        private final Predicate<ForeignKey> condition;
        private final Map<String, Integer> numbers = new LinkedHashMap<>();
        private final Map<String, Integer> lowest = new LinkedHashMap<>();
        private final ArrayDeque<String> stack = new ArrayDeque<>();
        private final Set<String> onStack = new LinkedHashSet<>();
        private final List<Set<String>> found = new ArrayList<>();

        Components(Predicate<ForeignKey> condition) {
            this.condition = condition;
        }

        /** A table on the way down, and how many of its parents have been visited. */
        private static final class Step {
            final String table;
            final List<String> parents;
            int next;

            Step(String table, List<String> parents) {
                this.table = table;
                this.parents = parents;
            }
        }

        List<Set<String>> find() {
            charter.tables().forEach(table -> {
                if (!numbers.containsKey(table.name())) {
                    visit(table.name());
                }
            });
            return found;
        }

        private Step step(String table) {
            numbers.put(table, numbers.size());
            lowest.put(table, numbers.get(table));
            stack.push(table);
            onStack.add(table);
            return new Step(
                    table,
                    tables.get(table).links().stream()
                            .filter(condition)
                            .map(ForeignKey::parent)
                            .toList());
        }

        private void visit(String start) {
            ArrayDeque<Step> way = new ArrayDeque<>(List.of(step(start)));
            while (!way.isEmpty()) {
                Step here = way.peek();
                if (here.next < here.parents.size()) {
                    String parent = here.parents.get(here.next++);
                    if (!numbers.containsKey(parent)) {
                        way.push(step(parent));
                    } else if (onStack.contains(parent)) {
                        lowest.merge(here.table, numbers.get(parent), Math::min);
                    }
                    continue;
                }
                way.pop();
                if (!way.isEmpty()) {
                    lowest.merge(way.peek().table, lowest.get(here.table), Math::min);
                }
                if (lowest.get(here.table).equals(numbers.get(here.table))) {
                    Set<String> group = new LinkedHashSet<>();
                    String member;
                    do {
                        member = stack.pop();
                        onStack.remove(member);
                        group.add(member);
                    } while (!member.equals(here.table));
                    found.add(group);
                }
            }
        }
    }

    /** Pairs of tables that a linking table joins many to many. */
    public record ManyToMany(String one, String other, String through) {}

    /** The many-to-many pairs, in the order of their linking tables. */
    public List<ManyToMany> manyToMany() {
        List<ManyToMany> pairs = new ArrayList<>();
        for (Table table : charter.tables()) {
            List<ForeignKey> joined = linksInKey(table);
            for (int i = 0; i < joined.size(); i++) {
                for (int j = i + 1; j < joined.size(); j++) {
                    pairs.add(
                            new ManyToMany(joined.get(i).parent(), joined.get(j).parent(), table.name()));
                }
            }
        }
        return pairs;
    }

    /** The links that make a table a linking table: two or more, none of which is a whole key, in one key made of their columns. */
    private static List<ForeignKey> linksInKey(Table table) {
        for (Key key : table.keys()) {
            List<ForeignKey> inKey = table.links().stream()
                    .filter(link -> key.columns().containsAll(link.columns())
                            && key.columns().size() > link.columns().size())
                    .toList();
            Set<String> covered = new LinkedHashSet<>();
            inKey.forEach(link -> covered.addAll(link.columns()));
            if (inKey.size() > 1 && covered.containsAll(key.columns())) {
                return inKey;
            }
        }
        return List.of();
    }

    /** Whether the primary or a unique key of a table is made of the columns of two or more of its links. */
    public static boolean isLinkingTable(Table table) {
        return !linksInKey(table).isEmpty();
    }
}
