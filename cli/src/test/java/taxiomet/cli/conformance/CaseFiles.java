package taxiomet.cli.conformance;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.cli.conformance.RandomCase.CellCase;
import taxiomet.cli.conformance.RandomCase.ColumnCase;
import taxiomet.cli.conformance.RandomCase.KeyCase;
import taxiomet.cli.conformance.RandomCase.LinkCase;
import taxiomet.cli.conformance.RandomCase.RowCase;
import taxiomet.cli.conformance.RandomCase.TableCase;

/** The charter of a random case, in JSON, and its rows, in delimited text. */
final class CaseFiles {
    private static final String NULL_WORD = "NULL";

    private CaseFiles() {}

    /** Writes the charter and the tables of a case into a folder. */
    static void write(RandomCase random, Path place) throws IOException {
        Map<String, Object> tables = new LinkedHashMap<>();
        for (TableCase table : random.tables) {
            tables.put(table.name, charter(random, table));
            Files.writeString(place.resolve(table.name + ".csv"), csv(table));
        }
        Map<String, Object> charter = new LinkedHashMap<>();
        charter.put("charter", 1);
        charter.put("defaults", Map.of("files", Map.of("null_words", List.of(NULL_WORD))));
        charter.put("tables", tables);
        new ObjectMapper().writeValue(place.resolve("charter.json").toFile(), charter);
    }

    private static Map<String, Object> charter(RandomCase random, TableCase table) {
        Map<String, Object> columns = new LinkedHashMap<>();
        for (ColumnCase column : table.columns) {
            Map<String, Object> declared = new LinkedHashMap<>(column.extras());
            declared.put("type", column.type());
            columns.put(column.name(), declared.size() == 1 ? column.type() : declared);
        }
        Map<String, Object> whole = new LinkedHashMap<>();
        whole.put("rows", table.name + ".csv");
        whole.put("columns", columns);
        if (table.primary != null) {
            whole.put("primary_key", names(table.primary.columns()));
        }
        Map<String, Object> unique = new LinkedHashMap<>();
        for (KeyCase key : table.unique) {
            unique.put(
                    key.name(),
                    Map.of("columns", names(key.columns()), "nulls", key.nullsEqual() ? "equal" : "distinct"));
        }
        whole.put("unique", unique);
        Map<String, Object> links = new LinkedHashMap<>();
        for (LinkCase link : table.links) {
            Map<String, Object> declared = new LinkedHashMap<>();
            declared.put("columns", names(link.columns()));
            declared.put("references", Map.of(random.tables.get(link.parent()).name, names(link.parentColumns())));
            declared.put("match", link.match());
            if (link.children() != null) {
                declared.put("children", link.children());
            }
            if (random.tables.get(link.parent()) == table) {
                declared.put("acyclic", true);
            }
            links.put(link.name(), declared);
        }
        whole.put("foreign_keys", links);
        Map<String, String> rules = new LinkedHashMap<>();
        table.rules.forEach(rule -> rules.put(rule.name(), rule.text()));
        table.parentRules.forEach(rule -> rules.put(rule.name(), rule.text()));
        table.childrenRules.forEach(rule -> rules.put(rule.name(), rule.text()));
        whole.put("rules", rules);
        List<String> totals = new ArrayList<>();
        total(table).ifPresent(column -> {
            totals.add(table.columns.get(column).name());
            totalLink(random, table).ifPresent(link -> {
                TableCase parent = random.tables.get(link.parent());
                totals.add(totals.get(0) + " * " + link.name() + "."
                        + parent.columns.get(total(parent).orElseThrow()).name());
            });
        });
        if (!totals.isEmpty()) {
            whole.put("totals", totals);
        }
        return whole;
    }

    /** The column that is worth adding up, if there is one: the first of whole or exact numbers. */
    static Optional<Integer> total(TableCase table) {
        for (int i = 0; i < table.columns.size(); i++) {
            String type = table.columns.get(i).type();
            if (type.endsWith("int") || type.equals("integer") || type.startsWith("numeric")) {
                return Optional.of(i);
            }
        }
        return Optional.empty();
    }

    /** The link over which a column of a parent is multiplied with the one that is added up: the first where there is one. */
    static Optional<LinkCase> totalLink(RandomCase random, TableCase table) {
        return table.links.stream()
                .filter(link -> total(random.tables.get(link.parent())).isPresent())
                .findFirst();
    }

    private static List<String> names(List<Integer> columns) {
        return columns.stream().map(c -> "c" + c).toList();
    }

    private static String csv(TableCase table) {
        StringBuilder csv = new StringBuilder(String.join(",", names(range(table.columns.size())))).append('\n');
        for (RowCase row : table.rows) {
            List<String> cells =
                    new ArrayList<>(row.cells().stream().map(CaseFiles::written).toList());
            switch (String.valueOf(row.malformed())) {
                case "more" -> cells.add("x");
                case "fewer" -> cells.remove(0);
                case "stray" -> cells.set(0, "\"a\"b");
                default -> {
                    // as it is
                }
            }
            csv.append(String.join(",", cells)).append('\n');
        }
        return csv.toString();
    }

    private static List<Integer> range(int size) {
        List<Integer> range = new ArrayList<>();
        for (int i = 0; i < size; i++) {
            range.add(i);
        }
        return range;
    }

    private static String written(CellCase cell) {
        if (cell.text() == null) {
            return cell.asWord() ? NULL_WORD : "";
        }
        boolean needsQuotes = cell.text().isEmpty()
                || cell.text().equals(NULL_WORD)
                || cell.text().matches("(?s).*[,\"\n].*");
        return needsQuotes ? '"' + cell.text().replace("\"", "\"\"") + '"' : cell.text();
    }
}
