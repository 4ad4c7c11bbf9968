package taxiomet.cli.rehearsal;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import taxiomet.cli.rehearsal.RandomProposal.ColumnCase;
import taxiomet.cli.rehearsal.RandomProposal.KeyCase;
import taxiomet.cli.rehearsal.RandomProposal.LinkCase;
import taxiomet.cli.rehearsal.RandomProposal.RuleCase;
import taxiomet.cli.rehearsal.RandomProposal.TableCase;

/** Writes a case as a charter with its CSV files. */
final class CharterOfCase {
    private CharterOfCase() {}

    /** What a charter declares beyond what servers know; none of it refuses a change. */
    interface More {
        /** Entries of a link, each with a comma before it. */
        default String ofLink(LinkCase link) {
            return "";
        }

        /** Rules of a table. */
        default List<RuleCase> rulesOf(TableCase table) {
            return List.of();
        }

        /** The column of a table that is added up. */
        default Optional<String> totalOf(TableCase table) {
            return Optional.empty();
        }
    }

    private static final More NOTHING = new More() {};

    static Path write(RandomProposal proposal, Path folder) throws IOException {
        return write(proposal, folder, NOTHING);
    }

    static Path write(RandomProposal proposal, Path folder, More more) throws IOException {
        StringBuilder yaml = new StringBuilder("charter: 1\ntables:\n");
        for (TableCase table : proposal.tables) {
            write(proposal, table, more, yaml);
            StringBuilder csv = new StringBuilder(String.join(
                            ",", table.columns.stream().map(ColumnCase::name).toList()))
                    .append('\n');
            for (List<String> row : table.rows) {
                csv.append(String.join(
                                ",",
                                row.stream()
                                        .map(cell -> cell == null ? "" : cell)
                                        .toList()))
                        .append('\n');
            }
            Files.writeString(folder.resolve(table.name + ".csv"), csv);
        }
        Path charter = folder.resolve("charter.yaml");
        Files.writeString(charter, yaml);
        return charter;
    }

    private static void write(RandomProposal proposal, TableCase table, More more, StringBuilder yaml) {
        yaml.append("  ")
                .append(table.name)
                .append(":\n    rows: ")
                .append(table.name)
                .append(".csv\n    columns:\n");
        for (ColumnCase column : table.columns) {
            yaml.append("      ")
                    .append(column.name())
                    .append(": {type: \"")
                    .append(column.type())
                    .append('"');
            if (column.isRequired()) {
                yaml.append(", not_null: true");
            }
            if (column.defaultValue() != null) {
                yaml.append(", default: \"").append(column.defaultValue()).append('"');
            }
            if (column.isGenerated()) {
                yaml.append(", generated: by default");
            }
            yaml.append("}\n");
        }
        yaml.append("    primary_key: ")
                .append(table.names(table.primaryKey.columns()))
                .append('\n');
        if (!table.uniqueKeys.isEmpty()) {
            yaml.append("    unique:\n");
            for (KeyCase key : table.uniqueKeys) {
                yaml.append("      ")
                        .append(key.name())
                        .append(": ")
                        .append(table.names(key.columns()))
                        .append('\n');
            }
        }
        more.totalOf(table)
                .ifPresent(column -> yaml.append("    totals: ").append(column).append('\n'));
        List<RuleCase> rules = new ArrayList<>(table.rules);
        rules.addAll(more.rulesOf(table));
        if (!rules.isEmpty()) {
            yaml.append("    rules:\n");
            for (RuleCase rule : rules) {
                yaml.append("      ")
                        .append(rule.name())
                        .append(": ")
                        .append(rule.condition())
                        .append('\n');
            }
        }
        int place = proposal.tables.indexOf(table);
        boolean isFirst = true;
        for (LinkCase link : proposal.links) {
            if (link.child() == place) {
                yaml.append(isFirst ? "    foreign_keys:\n" : "");
                isFirst = false;
                write(proposal, table, link, more, yaml);
            }
        }
    }

    private static void write(RandomProposal proposal, TableCase table, LinkCase link, More more, StringBuilder yaml) {
        TableCase parent = proposal.tables.get(link.parent());
        String onDelete = link.nullColumns().isEmpty()
                ? link.onDelete()
                : "{" + link.onDelete() + ": " + table.names(link.nullColumns()) + "}";
        yaml.append("      ")
                .append(link.name())
                .append(": {columns: ")
                .append(table.names(link.columns()))
                .append(", references: {")
                .append(parent.name)
                .append(": ")
                .append(parent.names(link.parentColumns()))
                .append("}, match: ")
                .append(link.isFull() ? "full" : "simple")
                .append(", on_delete: ")
                .append(onDelete)
                .append(", on_update: ")
                .append(link.onUpdate())
                .append(more.ofLink(link))
                .append("}\n");
    }
}
