package taxiomet.sources.parquet;

import java.io.IOException;
import java.math.BigInteger;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.apache.parquet.column.Dictionary;
import org.apache.parquet.column.Encoding;
import org.apache.parquet.column.EncodingStats;
import org.apache.parquet.column.page.DictionaryPage;
import org.apache.parquet.column.page.DictionaryPageReadStore;
import org.apache.parquet.column.statistics.IntStatistics;
import org.apache.parquet.column.statistics.LongStatistics;
import org.apache.parquet.column.statistics.Statistics;
import org.apache.parquet.hadoop.ParquetFileReader;
import org.apache.parquet.hadoop.metadata.BlockMetaData;
import org.apache.parquet.hadoop.metadata.ColumnChunkMetaData;
import org.apache.parquet.hadoop.metadata.ColumnPath;
import org.apache.parquet.schema.LogicalTypeAnnotation;
import org.apache.parquet.schema.LogicalTypeAnnotation.DateLogicalTypeAnnotation;
import org.apache.parquet.schema.LogicalTypeAnnotation.DecimalLogicalTypeAnnotation;
import org.apache.parquet.schema.LogicalTypeAnnotation.IntLogicalTypeAnnotation;
import taxiomet.charter.ColumnType;
import taxiomet.charter.ColumnType.Name;
import taxiomet.rows.ColumnFacts;
import taxiomet.sources.file.Utf8;

/**
 * What the footer of a file says of a column: how many nulls there are, the least value and the greatest; of texts that are all in a
 * dictionary, how long those are. Where it says nothing, nothing is known.
 */
final class FooterFacts {
    private static final long FIRST_DAY = LocalDate.of(1, 1, 1).toEpochDay();
    private static final long LAST_DAY = LocalDate.of(9999, 12, 31).toEpochDay();

    private static final String OF_DICTIONARY = "PLAIN_DICTIONARY";
    private static final Set<String> OF_DICTIONARY_AND_LEVELS = Set.of(OF_DICTIONARY, "RLE", "BIT_PACKED");

    private final ParquetPart part;
    private final Leaf leaf;
    private final ColumnPath path;
    private boolean hasNulls;
    private long least = Long.MAX_VALUE;
    private long greatest = Long.MIN_VALUE;
    private boolean areBounded = true;

    private FooterFacts(ParquetPart part, Leaf leaf, List<BlockMetaData> groups) {
        this.part = part;
        this.leaf = leaf;
        this.path = ColumnPath.get(leaf.descriptor().getPath());
        groups.forEach(group -> see(chunkOf(group)));
    }

    /** What is known of a column of a file. */
    static Optional<ColumnFacts> of(ParquetPart part, Leaf leaf, List<BlockMetaData> groups) {
        FooterFacts facts = new FooterFacts(part, leaf, groups);
        Optional<ColumnType> type = leaf.areTexts() ? facts.textType(groups) : facts.type();
        return type.map(known -> new ColumnFacts(known, facts.hasNulls));
    }

    private ColumnChunkMetaData chunkOf(BlockMetaData group) {
        return group.getColumns().stream()
                .filter(chunk -> chunk.getPath().equals(path))
                .findFirst()
                .orElseThrow(() -> part.unreadable(new IOException("a row group lacks column " + path.toDotString())));
    }

    private void see(ColumnChunkMetaData chunk) {
        Statistics<?> known = chunk.getStatistics();
        if (leaf.descriptor().getMaxDefinitionLevel() > 0) {
            hasNulls |= known == null || !known.isNumNullsSet() || known.getNumNulls() > 0;
        }
        boolean isEmpty = known != null && known.isNumNullsSet() && known.getNumNulls() == chunk.getValueCount();
        if (known instanceof IntStatistics whole && whole.hasNonNullValue()) {
            include(whole.getMin(), whole.getMax());
        } else if (known instanceof LongStatistics whole && whole.hasNonNullValue()) {
            include(whole.getMin(), whole.getMax());
        } else {
            areBounded &= isEmpty;
        }
    }

    private void include(long min, long max) {
        least = Math.min(least, min);
        greatest = Math.max(greatest, max);
    }

    private boolean areBetween(long from, long to) {
        return areBounded && (least > greatest || (least >= from && greatest <= to));
    }

    private Optional<ColumnType> type() {
        LogicalTypeAnnotation meant = leaf.descriptor().getPrimitiveType().getLogicalTypeAnnotation();
        return switch (leaf.descriptor().getPrimitiveType().getPrimitiveTypeName()) {
            case BOOLEAN -> Optional.of(ColumnType.of(Name.BOOLEAN));
            case DOUBLE -> Optional.of(ColumnType.of(Name.DOUBLE));
            case INT32, INT64 -> wholeType(meant);
            default -> Optional.empty();
        };
    }

    private Optional<ColumnType> wholeType(LogicalTypeAnnotation meant) {
        if (meant instanceof DateLogicalTypeAnnotation) {
            return areBetween(FIRST_DAY, LAST_DAY) ? Optional.of(ColumnType.of(Name.DATE)) : Optional.empty();
        } else if (meant instanceof DecimalLogicalTypeAnnotation decimal) {
            long most = decimal.getPrecision() > 18
                    ? Long.MAX_VALUE
                    : BigInteger.TEN.pow(decimal.getPrecision()).longValueExact() - 1;
            return areBetween(-most, most)
                    ? Optional.of(new ColumnType(
                            Name.NUMERIC, ColumnType.UNBOUNDED, decimal.getPrecision(), decimal.getScale()))
                    : Optional.empty();
        } else if (meant == null || (meant instanceof IntLogicalTypeAnnotation whole && whole.isSigned())) {
            boolean isShort = areBetween(Short.MIN_VALUE, Short.MAX_VALUE);
            boolean isInteger = leaf.longBytes() == Integer.BYTES || areBetween(Integer.MIN_VALUE, Integer.MAX_VALUE);
            return Optional.of(ColumnType.of(isShort ? Name.SMALLINT : isInteger ? Name.INTEGER : Name.BIGINT));
        }
        return Optional.empty();
    }

    private Optional<ColumnType> textType(List<BlockMetaData> groups) {
        if (!groups.stream().allMatch(group -> isByDictionary(chunkOf(group)))) {
            return Optional.empty();
        }
        int longest = 1;
        try (ParquetFileReader file = part.open(new Codecs())) {
            for (int group = 0; group < groups.size(); group++) {
                DictionaryPageReadStore dictionaries = file.getDictionaryReader(group);
                DictionaryPage page = dictionaries.readDictionaryPage(leaf.descriptor());
                if (page == null) {
                    return Optional.empty();
                }
                Dictionary texts = page.getEncoding().initDictionary(leaf.descriptor(), page);
                for (int i = 0; i <= texts.getMaxId(); i++) {
                    byte[] text = texts.decodeToBinary(i).getBytesUnsafe();
                    if (!Utf8.isValid(text, 0, text.length)) {
                        return Optional.empty();
                    }
                    String characters = new String(text, StandardCharsets.UTF_8);
                    longest = Math.max(longest, characters.codePointCount(0, characters.length()));
                }
            }
        } catch (IOException | RuntimeException e) {
            throw part.unreadable(e);
        }
        return Optional.of(new ColumnType(Name.VARCHAR, longest, ColumnType.UNBOUNDED, 0));
    }

    /** Whether no page of it has texts of its own. Without a word about each kind of page, the older name of the encoding says so. */
    private static boolean isByDictionary(ColumnChunkMetaData chunk) {
        EncodingStats pages = chunk.getEncodingStats();
        if (pages != null) {
            return pages.hasDictionaryEncodedPages() && !pages.hasNonDictionaryEncodedPages();
        }
        Set<String> all = chunk.getEncodings().stream().map(Encoding::name).collect(Collectors.toSet());
        return all.contains(OF_DICTIONARY) && OF_DICTIONARY_AND_LEVELS.containsAll(all);
    }
}
