package taxiomet.bench;

import io.trino.tpch.TpchColumn;
import io.trino.tpch.TpchEntity;
import io.trino.tpch.TpchTable;
import java.io.BufferedWriter;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Writes the standard decision-support tables as CSV: {@code MakeTables SCALE FOLDER [text|faults]}. With {@code text}, every key becomes
 * a code of 20 characters, the same for the same number and kind of thing. With {@code faults}, every 2,887th row gets a
 * fault, 3,000 at scale 1, and {@code planted.csv} says which: table, row number, kind.
 */
public final class MakeTables {
    /** The columns that hold a key, and what kind of thing it names. */
    private static final Set<String> KINDS =
            Set.of("regionkey", "nationkey", "partkey", "suppkey", "custkey", "orderkey");

    private static final char[] DIGITS = "0123456789ABCDEFGHJKMNPQRSTVWXYZ".toCharArray();

    private MakeTables() {}

    public static void main(String[] args) throws IOException {
        double scale = Double.parseDouble(args[0]);
        Path folder = Path.of(args[1]);
        String variant = args.length > 2 ? args[2] : "plain";
        Files.createDirectories(folder);
        try (BufferedWriter planted = Files.newBufferedWriter(folder.resolve("planted.csv"))) {
            planted.write("table,row,kind\n");
            for (TpchTable<?> table : TpchTable.getTables()) {
                write(table, scale, folder.resolve(table.getTableName() + ".csv"), variant, planted);
            }
        }
        if (!variant.equals("faults")) {
            Files.delete(folder.resolve("planted.csv"));
        }
    }

    private static <E extends TpchEntity> void write(
            TpchTable<E> table, double scale, Path file, String variant, BufferedWriter planted) throws IOException {
        List<String> names =
                table.getColumns().stream().map(TpchColumn::getColumnName).toList();
        long row = 0;
        long plantedHere = 0;
        try (BufferedWriter out = Files.newBufferedWriter(file)) {
            out.write(String.join(",", names));
            out.write('\n');
            for (E entity : table.createGenerator(scale, 1, 1)) {
                // A bar stands behind each field, the last one too.
                String[] fields = entity.toLine().split("\\|", -1);
                row++;
                if (variant.equals("text")) {
                    for (int i = 0; i < names.size(); i++) {
                        String kind = kind(names.get(i));
                        fields[i] = KINDS.contains(kind) ? code(kind, Long.parseLong(fields[i])) : fields[i];
                    }
                }
                boolean isFaulty = variant.equals("faults") && row % STEP == 0;
                String fault = isFaulty ? plant(table.getTableName(), names, fields, plantedHere++) : "";
                write(out, fields, names.size() + (fault.equals("malformed row") ? 1 : 0));
                if (fault.equals("duplicate")) {
                    write(out, fields, names.size());
                    row++;
                }
                if (isFaulty) {
                    planted.write(table.getTableName() + "," + row + "," + fault + "\n");
                }
            }
        }
    }

    private static String kind(String column) {
        return column.substring(column.indexOf('_') + 1);
    }

    private static void write(BufferedWriter out, String[] fields, int count) throws IOException {
        for (int i = 0; i < count; i++) {
            String field = fields[i];
            boolean isQuoted = field.indexOf(',') >= 0 || field.indexOf('"') >= 0;
            out.write(i > 0 ? "," : "");
            out.write(isQuoted ? '"' + field.replace("\"", "\"\"") + '"' : field);
        }
        out.write('\n');
    }

    /** Spoils a row, each kind of fault in its turn; gives what was done. */
    private static String plant(String table, List<String> names, String[] fields, long turn) {
        String[] kinds = {"orphan", "type mismatch", "duplicate", "null not allowed", "malformed row", "orphan"};
        String kind = kinds[(int) (turn % kinds.length)];
        int last = names.size() - 1;
        switch (kind) {
            case "orphan" -> {
                List<String> links = LINKS.getOrDefault(table, List.of());
                if (links.isEmpty()) {
                    return plant(table, names, fields, 1);
                }
                int column = names.indexOf(links.get((int) (turn / kinds.length % links.size())));
                // More digits than any key has.
                fields[column] = (fields[column] + "77777777").substring(0, 8);
            }
            case "type mismatch" -> {
                int column = last - 1;
                while (!fields[column].matches("[-0-9.]+")) {
                    column--;
                }
                fields[column] = turn % 2 == 0 ? "1995-02-30x" : "12,5";
            }
            case "null not allowed" -> fields[last] = "";
            default -> {
                // A row is repeated, or has a field too many: nothing changes in it.
            }
        }
        return kind;
    }

    private static final long STEP = 2_887;

    /** Columns of links that can be spoiled without touching a key or another link. */
    private static final Map<String, List<String>> LINKS = Map.of(
            "customer", List.of("c_nationkey"),
            "supplier", List.of("s_nationkey"),
            "orders", List.of("o_custkey"));

    /** A letter for the kind and nineteen digits to the base 32, which spread the number over all of them. */
    private static String code(String kind, long number) {
        char[] code = new char[20];
        code[0] = Character.toUpperCase(kind.charAt(0));
        long bits = number * 0x9E3779B97F4A7C15L;
        for (int i = 1; i < code.length; i++) {
            if (i == 13) {
                bits = Long.rotateLeft(bits, 31) * 0xD6E8FEB86659FD93L;
            }
            code[i] = DIGITS[(int) (bits >>> 59)];
            bits <<= 5;
        }
        return new String(code);
    }
}
