package taxiomet.reports.sql;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.NotRead;
import taxiomet.charter.Server;
import taxiomet.charter.Table;
import taxiomet.reports.sql.SchemaStep.LeftOut;

/**
 * How the rules of a charter are put in place on a server, in an order that works: tables, then columns that may not be null, keys, what
 * holds in one row, indexes for links, and links at the end.
 */
public final class SchemaPlan {
    private final SchemaDraft draft;

    /**
     * Makes a plan.
     *
     * @param makesTables whether the tables are made, too
     * @param there paths to the declarations that are in place already
     */
    public SchemaPlan(Charter charter, Server server, boolean makesTables, Collection<List<String>> there) {
        draft = new SchemaDraft(charter, server, makesTables, there);
        KeySteps keys = new KeySteps(draft);
        CheckSteps checks = new CheckSteps(draft);
        LinkSteps links = new LinkSteps(draft);
        TableSteps ofTables = new TableSteps(draft, keys, checks, links);
        List<Table> tables = inLoadOrder(charter);
        for (Table table : tables) {
            ofTables.add(table);
        }
        for (Table table : tables) {
            if (!draft.isWhole(table)) {
                table.keys().forEach(key -> keys.add(table, key));
            }
        }
        for (Table table : tables) {
            checks.add(table);
        }
        for (Table table : tables) {
            table.links().forEach(link -> links.addIndex(table, link));
        }
        for (ForeignKey link : charter.links()) {
            links.add(link);
        }
        for (NotRead each : charter.notRead()) {
            draft.leaveOut(each.what().word() + " " + each.name(), "it could not be read: " + each.problem());
        }
    }

    private static List<Table> inLoadOrder(Charter charter) {
        List<Table> ordered = new ArrayList<>();
        Set<String> open = new LinkedHashSet<>();
        charter.tables().forEach(table -> place(charter, table, ordered, open));
        return ordered;
    }

    private static void place(Charter charter, Table table, List<Table> ordered, Set<String> open) {
        if (ordered.contains(table) || !open.add(table.name())) {
            return;
        }
        table.links().forEach(link -> place(charter, charter.table(link.parent()), ordered, open));
        ordered.add(table);
    }

    /** The steps, in an order that works. */
    public List<SchemaStep> steps() {
        return List.copyOf(draft.steps);
    }

    /** What is not put in place, with the reasons. */
    public List<LeftOut> left() {
        return List.copyOf(draft.left);
    }

    /** The server. */
    public Server server() {
        return draft.server;
    }
}
