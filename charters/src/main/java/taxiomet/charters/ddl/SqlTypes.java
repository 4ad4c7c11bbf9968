package taxiomet.charters.ddl;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import taxiomet.charter.ColumnType;

/** The types of several dialects in the words of a charter. */
final class SqlTypes {
    /**
     * A type as a charter writes it.
     *
     * @param values those of an enumeration; empty otherwise
     * @param isNumbered whether the type itself says that the database numbers rows (serial)
     * @param isIgnoringCase whether the type itself compares texts without regard to case
     * @param isKnown false for a type that is read as text for want of a better one
     */
    record Mapped(String type, List<String> values, boolean isNumbered, boolean isIgnoringCase, boolean isKnown) {
        Mapped {
            values = List.copyOf(values);
        }

        static Mapped of(String type) {
            return new Mapped(type, List.of(), false, false, true);
        }
    }

    private static final Map<String, String> PLAIN = Map.ofEntries(
            Map.entry("tinyint", "smallint"),
            Map.entry("mediumint", "int"),
            Map.entry("big int", "bigint"),
            Map.entry("bit", "boolean"),
            Map.entry("money", "numeric(19,4)"),
            Map.entry("smallmoney", "numeric(10,4)"),
            Map.entry("tinytext", "text"),
            Map.entry("mediumtext", "text"),
            Map.entry("longtext", "text"),
            Map.entry("ntext", "text"),
            Map.entry("nclob", "text"),
            Map.entry("long", "text"),
            Map.entry("character large object", "text"),
            Map.entry("year", "smallint"),
            Map.entry("smalldatetime", "timestamp(0)"),
            Map.entry("uniqueidentifier", "uuid"),
            Map.entry("sysname", "varchar(128)"),
            Map.entry("binary_float", "real"),
            Map.entry("binary_double", "double precision"),
            Map.entry("any", "text"),
            Map.entry("", "text"));

    private static final Map<String, String> SERIALS = Map.of(
            "serial", "int",
            "serial4", "int",
            "bigserial", "bigint",
            "serial8", "bigint",
            "smallserial", "smallint",
            "serial2", "smallint");

    private static final Map<String, String> RENAMED = Map.of(
            "varchar2", "varchar",
            "nvarchar2", "varchar",
            "nvarchar", "varchar",
            "national character varying", "varchar",
            "national varchar", "varchar",
            "national character", "char",
            "nchar", "char",
            "native character", "char",
            "varying character", "varchar");

    private static final Map<String, String> UNSIGNED = Map.of(
            "smallint", "integer",
            "integer", "bigint",
            "int", "bigint",
            "bigint", "numeric(20)");

    private final Map<String, List<String>> enumerations;
    private final boolean isOracle;

    /**
     * @param enumerations types that the script itself declares, by their names in lower case
     * @param isOracle whether a date has a time of day
     */
    SqlTypes(Map<String, List<String>> enumerations, boolean isOracle) {
        this.enumerations = Map.copyOf(enumerations);
        this.isOracle = isOracle;
    }

    /**
     * The type that a charter would declare.
     *
     * @param name the words of the type in lower case, without its sizes, such as {@code character varying}
     * @param sizes what stands in parentheses, such as 10 and 2, or the texts of an enumeration
     * @param isZoned true for WITH TIME ZONE
     */
    Mapped map(String name, List<String> sizes, boolean isUnsigned, boolean isZoned) {
        if (enumerations.containsKey(name)) {
            return new Mapped("text", enumerations.get(name), false, false, true);
        }
        if (name.equals("enum")) {
            return new Mapped("text", sizes, false, false, true);
        }
        if (SERIALS.containsKey(name)) {
            return new Mapped(SERIALS.get(name), List.of(), true, false, true);
        }
        if (name.equals("citext")) {
            return new Mapped("text", List.of(), false, true, true);
        }
        String known = known(name, sizes, isZoned);
        if (known.isEmpty()) {
            return new Mapped("text", List.of(), false, false, false);
        }
        return Mapped.of(isUnsigned ? UNSIGNED.getOrDefault(known, known) : known);
    }

    private String known(String name, List<String> sizes, boolean isZoned) {
        String first =
                sizes.isEmpty() ? "" : sizes.get(0).toLowerCase(Locale.ROOT).replaceAll("\\s*(byte|char)$", "");
        String bare = RENAMED.getOrDefault(name, name);
        switch (bare) {
            case "number" -> {
                return sizes.isEmpty() || first.equals("*")
                        ? "numeric"
                        : "numeric(" + first + "," + (sizes.size() > 1 ? sizes.get(1) : "0") + ")";
            }
            case "varchar", "character varying", "char varying" -> {
                return first.isEmpty() || first.equals("max") ? "text" : "varchar(" + first + ")";
            }
            case "datetime" -> {
                return "timestamp" + (first.isEmpty() ? "" : "(" + first + ")");
            }
            case "datetime2" -> {
                return "timestamp" + (first.isEmpty() || first.equals("7") ? "" : "(" + first + ")");
            }
            case "datetimeoffset" -> {
                return "timestamp with time zone";
            }
            case "date" -> {
                return isOracle ? "timestamp(0)" : "date";
            }
            case "bit" -> {
                return first.isEmpty() || first.equals("1") ? "boolean" : "";
            }
            case "double", "double precision" -> {
                return "double precision";
            }
            case "float" -> {
                boolean isReal =
                        sizes.size() == 2 || (!first.isEmpty() && first.length() < 3 && Integer.parseInt(first) <= 24);
                return isReal ? "real" : "double precision";
            }
            case "tinyint", "smallint", "mediumint", "int", "integer", "bigint" -> {
                return PLAIN.getOrDefault(bare, bare);
            }
            default -> {
                // Below: types that a charter spells as SQL does, and those that need no sizes.
            }
        }
        if (PLAIN.containsKey(bare)) {
            return PLAIN.get(bare);
        }
        List<String> numbers = new ArrayList<>(sizes);
        if (!numbers.isEmpty()) {
            numbers.set(0, first);
        }
        String sized = bare + (numbers.isEmpty() ? "" : "(" + String.join(",", numbers) + ")");
        return ColumnType.parse(sized + (isZoned ? " with time zone" : ""))
                .map(type -> type.name() == ColumnType.Name.INTEGER ? "int" : type.sql())
                .orElse("");
    }
}
