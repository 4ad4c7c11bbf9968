package taxiomet.bench;

import io.trino.tpch.TpchColumn;
import io.trino.tpch.TpchEntity;
import io.trino.tpch.TpchTable;
import java.io.BufferedWriter;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * Writes the standard decision-support tables as CSV: {@code MakeTables SCALE FOLDER [text]}. With {@code text}, every key becomes a
 * code of 20 characters, the same for the same number and kind of thing.
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
        boolean isText = args.length > 2 && args[2].equals("text");
        Files.createDirectories(folder);
        for (TpchTable<?> table : TpchTable.getTables()) {
            write(table, scale, folder.resolve(table.getTableName() + ".csv"), isText);
        }
    }

    private static <E extends TpchEntity> void write(TpchTable<E> table, double scale, Path file, boolean isText)
            throws IOException {
        List<TpchColumn<E>> columns = table.getColumns();
        try (BufferedWriter out = Files.newBufferedWriter(file)) {
            out.write(columns.stream().map(TpchColumn::getColumnName).collect(Collectors.joining(",")));
            out.write('\n');
            for (E row : table.createGenerator(scale, 1, 1)) {
                // A bar stands behind each field, the last one too.
                String[] fields = row.toLine().split("\\|", -1);
                for (int i = 0; i < columns.size(); i++) {
                    if (i > 0) {
                        out.write(',');
                    }
                    String name = columns.get(i).getColumnName();
                    String kind = name.substring(name.indexOf('_') + 1);
                    String field = isText && KINDS.contains(kind) ? code(kind, Long.parseLong(fields[i])) : fields[i];
                    boolean isQuoted = field.indexOf(',') >= 0 || field.indexOf('"') >= 0;
                    out.write(isQuoted ? '"' + field.replace("\"", "\"\"") + '"' : field);
                }
                out.write('\n');
            }
        }
    }

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
