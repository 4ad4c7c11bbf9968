package taxiomet.charters.csvw;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/** The words of the vocabulary, as far as they are known here. */
final class Words {
    /** What says that a document is in this vocabulary. */
    static final String CONTEXT = "http://www.w3.org/ns/csvw";

    /** Words that say nothing about rows: who made them, what they would be in RDF, how they are shown. */
    private static final Set<String> SILENT = Set.of(
            "@context",
            "@id",
            "@type",
            "notes",
            "aboutUrl",
            "propertyUrl",
            "valueUrl",
            "lang",
            "textDirection",
            "tableDirection",
            "transformations",
            "suppressOutput",
            "ordered",
            "rowTitles");

    private static final List<String> INHERITED = List.of("null", "required", "separator", "default", "datatype");

    static final List<String> OF_GROUP = with("tables", "dialect", "tableSchema");
    static final List<String> OF_TABLE = with("url", "dialect", "tableSchema");
    static final List<String> OF_SCHEMA = with("columns", "primaryKey", "foreignKeys");
    static final List<String> OF_COLUMN = with("name", "titles", "virtual");

    private Words() {}

    private static List<String> with(String... own) {
        return Stream.concat(Stream.of(own), INHERITED.stream()).toList();
    }

    /** Whether a word means nothing here and may stand all the same; one with a colon is from another vocabulary. */
    static boolean isSilent(String word) {
        return SILENT.contains(word) || word.contains(":");
    }

    /** A type of the vocabulary and what it is here. */
    record Type(String sql, Optional<String> least, Optional<String> most) {
        static Type of(String sql) {
            return new Type(sql, Optional.empty(), Optional.empty());
        }

        static Type within(String sql, String least, String most) {
            return new Type(
                    sql,
                    Optional.of(least).filter(bound -> !bound.isEmpty()),
                    Optional.of(most).filter(bound -> !bound.isEmpty()));
        }
    }

    /** Types of numbers, moments and truths; empty for a text. */
    static Optional<Type> type(String word) {
        return Optional.ofNullable(
                switch (word) {
                    case "byte" -> Type.within("smallint", "-128", "127");
                    case "short" -> Type.of("smallint");
                    case "int" -> Type.of("integer");
                    case "long" -> Type.of("bigint");
                    case "integer" -> Type.of("numeric(38)");
                    case "unsignedByte" -> Type.within("smallint", "0", "255");
                    case "unsignedShort" -> Type.within("integer", "0", "65535");
                    case "unsignedInt" -> Type.within("bigint", "0", "4294967295");
                    case "unsignedLong" -> Type.within("numeric(20)", "0", "18446744073709551615");
                    case "nonNegativeInteger" -> Type.within("numeric(38)", "0", "");
                    case "positiveInteger" -> Type.within("numeric(38)", "1", "");
                    case "nonPositiveInteger" -> Type.within("numeric(38)", "", "0");
                    case "negativeInteger" -> Type.within("numeric(38)", "", "-1");
                    case "decimal" -> Type.of("numeric");
                    case "float" -> Type.of("real");
                    case "double", "number" -> Type.of("double precision");
                    case "boolean" -> Type.of("boolean");
                    case "date" -> Type.of("date");
                    case "time" -> Type.of("time");
                    case "dateTime", "datetime" -> Type.of("timestamp");
                    case "dateTimeStamp" -> Type.of("timestamp with time zone");
                    default -> null;
                });
    }

    /** Types that are texts without more to judge. */
    static final Set<String> TEXTS = Set.of("string", "anyAtomicType", "any", "normalizedString", "token");

    /** Types that are texts of a form, which is not judged here. */
    static final Set<String> FORMS = Set.of(
            "anyURI",
            "base64Binary",
            "binary",
            "hexBinary",
            "duration",
            "dayTimeDuration",
            "yearMonthDuration",
            "gDay",
            "gMonth",
            "gMonthDay",
            "gYear",
            "gYearMonth",
            "QName",
            "language",
            "Name",
            "NMTOKEN",
            "xml",
            "html",
            "json");
}
