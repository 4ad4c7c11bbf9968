package taxiomet.vet;

import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import taxiomet.charter.Charter;
import taxiomet.charter.ColumnType;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.ForeignKey.Deferrable;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.charter.Key;
import taxiomet.charter.Server;
import taxiomet.charter.Table;
import taxiomet.vet.Judgement.Kind;

/** What a database server would not take, or would take and not do. */
final class ServerReview {
    private final Server server;
    private final Charter charter;
    private final Review review;

    ServerReview(Server server, Charter charter, Review review) {
        this.server = server;
        this.charter = charter;
        this.review = review;
    }

    private void refuse(List<String> path, String problem, String remedy) {
        review.error(Kind.NOT_TAKEN, path, server.title() + " " + problem, remedy);
    }

    void judge(ForeignKey link) {
        judgeAction(link, "on_delete", link.onDelete());
        judgeAction(link, "on_update", link.onUpdate());
        judgeMatch(link);
        judgeSizes(link);
        boolean canWait = server == Server.POSTGRESQL || server == Server.SQLITE || server == Server.ORACLE;
        if (link.deferrable() != Deferrable.NO && !canWait) {
            refuse(
                    Review.path(link, "deferrable"),
                    "has no deferrable links",
                    "leave it out, and load in the order that vet prints");
        }
    }

    private void judgeAction(ForeignKey link, String key, Action action) {
        List<String> path = Review.path(link, key);
        ActionName name = action.name();
        if (name == ActionName.SET_DEFAULT && (server == Server.MARIADB || server == Server.ORACLE)) {
            refuse(path, "does not know set default", "choose another action");
        }
        if (server == Server.ORACLE && key.equals("on_update") && name != ActionName.NO_ACTION) {
            refuse(path, "has no on update", "leave it out, and never change keys");
        } else if (name == ActionName.RESTRICT && (server == Server.ORACLE || server == Server.SQLSERVER)) {
            refuse(path, "does not know the word restrict", "say no action: there it is judged at once all the same");
        }
        if (!action.columns().isEmpty() && server != Server.POSTGRESQL) {
            refuse(path, "writes all columns of a link: it cannot be told which", "leave out the list of columns");
        }
        boolean isSelf = link.child().equals(link.parent());
        if (server == Server.SQLSERVER && isSelf && name != ActionName.NO_ACTION && name != ActionName.RESTRICT) {
            refuse(path, "takes no action but no action on a link of a table to itself", "say no action");
        }
    }

    /** MariaDB joins texts of any lengths, and all else of one type alone. */
    private void judgeSizes(ForeignKey link) {
        if (server != Server.MARIADB) {
            return;
        }
        for (int i = 0; i < link.columns().size(); i++) {
            ColumnType from =
                    charter.table(link.child()).column(link.columns().get(i)).type();
            ColumnType to = charter.table(link.parent())
                    .column(link.parentColumns().get(i))
                    .type();
            boolean areTexts = from.isText() && to.isText();
            if (!areTexts && !from.sql().equals(to.sql())) {
                refuse(
                        Review.path(link, "columns"),
                        "takes no link between " + from + " and " + to,
                        "give both ends one type");
            }
        }
    }

    private void judgeMatch(ForeignKey link) {
        if (link.match() == Match.SIMPLE || link.columns().size() == 1) {
            return;
        }
        boolean knowsFull = server == Server.POSTGRESQL && link.match() == Match.FULL;
        if (!knowsFull) {
            refuse(
                    Review.path(link, "match"),
                    "does not know match " + link.match().name().toLowerCase(java.util.Locale.ROOT),
                    "leave it out, and add a check that all columns are null or none is");
        }
    }

    void judge(Table table) {
        for (Key key : table.uniqueKeys()) {
            List<String> path = Review.path(table.name(), "unique", key.name());
            boolean hasNulls = key.columns().stream().anyMatch(column -> !table.isRequired(column));
            if (key.nullsAreEqual() && server != Server.POSTGRESQL && server != Server.SQLSERVER) {
                refuse(path, "takes nulls in a unique key for different ones", "say nulls: distinct, or allow none");
            } else if (!key.nullsAreEqual() && server == Server.SQLSERVER && hasNulls) {
                refuse(
                        path,
                        "takes nulls in a unique key for equal ones",
                        "make it a unique index with a condition, or allow no nulls");
            }
        }
    }

    /** SQL Server refuses cascades (and set null) that come to one table over two roads. */
    void judgeRoads() {
        if (server != Server.SQLSERVER) {
            return;
        }
        Set<String> said = new LinkedHashSet<>();
        for (Table start : charter.tables()) {
            Map<String, ForeignKey> arrivals = new LinkedHashMap<>();
            walk(start.name(), arrivals, new LinkedHashSet<>(Set.of(start.name())), said);
        }
    }

    private void walk(String table, Map<String, ForeignKey> arrivals, Set<String> visited, Set<String> said) {
        for (ForeignKey link : charter.links()) {
            boolean acts = link.onDelete().name() == ActionName.CASCADE
                    || link.onDelete().name() == ActionName.SET_NULL
                    || link.onDelete().name() == ActionName.SET_DEFAULT;
            if (!link.parent().equals(table) || !acts || link.child().equals(table)) {
                continue;
            }
            ForeignKey before = arrivals.putIfAbsent(link.child(), link);
            if (before != null) {
                if (said.add(link.child() + "/" + link.name())) {
                    refuse(
                            Review.path(link, "on_delete"),
                            "takes no two cascade roads to one table: `" + link.child() + "` is reached over `"
                                    + before.name() + "` and `" + link.name() + "`",
                            "say no action in one of them");
                }
            } else if (link.onDelete().name() == ActionName.CASCADE && visited.add(link.child())) {
                walk(link.child(), arrivals, visited, said);
            }
        }
    }
}
