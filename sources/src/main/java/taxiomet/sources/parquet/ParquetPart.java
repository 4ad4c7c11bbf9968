package taxiomet.sources.parquet;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.apache.parquet.ParquetReadOptions;
import org.apache.parquet.column.ColumnDescriptor;
import org.apache.parquet.conf.PlainParquetConfiguration;
import org.apache.parquet.hadoop.ParquetFileReader;
import org.apache.parquet.hadoop.metadata.BlockMetaData;
import org.apache.parquet.hadoop.metadata.ParquetMetadata;
import org.apache.parquet.io.InputFile;
import org.apache.parquet.io.LocalInputFile;
import org.apache.parquet.schema.MessageType;
import taxiomet.charter.place.FieldPointer;
import taxiomet.rows.ColumnFacts;
import taxiomet.rows.SourceException;
import taxiomet.sources.file.DataFile;
import taxiomet.sources.file.FileParts;

/** One file of the table: what its footer says. */
final class ParquetPart {
    private final DataFile file;
    private final List<Group> groups = new ArrayList<>();
    private final Map<String, Leaf> leaves = new LinkedHashMap<>();
    private final TreeSet<String> fields = new TreeSet<>();
    private final TreeSet<String> lists = new TreeSet<>();
    private final ParquetMetadata footer;
    private final MessageType schema;
    private final String writer;

    /**
     * A row group.
     *
     * @param index its number in the file, from 0
     * @param place where it begins, in bytes
     * @param firstRow the number of its first row in the file, from 1
     * @param bytes about how many it has without any compression
     */
    record Group(int index, long place, long firstRow, long rows, long bytes) {
        long endRow() {
            return firstRow + rows;
        }
    }

    /** @throws SourceException when the file is none, or its footer cannot be read */
    ParquetPart(Path path) {
        this.file = new DataFile(path);
        try (ParquetFileReader reader = ParquetFileReader.open(new LocalInputFile(path), options(new Codecs()))) {
            footer = reader.getFooter();
            schema = reader.getFileMetaData().getSchema();
            writer = reader.getFileMetaData().getCreatedBy();
            long row = 1;
            for (BlockMetaData block : reader.getRowGroups()) {
                groups.add(new Group(
                        groups.size(), block.getStartingPos(), row, block.getRowCount(), block.getTotalByteSize()));
                row += block.getRowCount();
            }
            for (ColumnDescriptor column : schema.getColumns()) {
                String pointer = pointer(column.getPath());
                if (column.getMaxRepetitionLevel() == 0) {
                    leaves.put(pointer, new Leaf(column));
                } else {
                    lists.add(column.getPath()[0]);
                }
                fields.add(column.getPath()[0]);
            }
        } catch (IOException | RuntimeException e) {
            throw unreadable(e);
        }
    }

    private static String pointer(String[] path) {
        return Arrays.stream(path).map(FieldPointer::to).collect(Collectors.joining());
    }

    private static ParquetReadOptions options(Codecs codecs) {
        return ParquetReadOptions.builder(new PlainParquetConfiguration())
                .withCodecFactory(codecs)
                .usePageChecksumVerification()
                .build();
    }

    /** Opens the file once more; its footer is not read again. */
    ParquetFileReader open(Codecs codecs) throws IOException {
        InputFile input = new LocalInputFile(file.path());
        return ParquetFileReader.open(input, footer, options(codecs), input.newStream());
    }

    /** What its footer says of a column. */
    Optional<ColumnFacts> facts(Leaf leaf) {
        return FooterFacts.of(this, leaf, footer.getBlocks());
    }

    DataFile file() {
        return file;
    }

    MessageType schema() {
        return schema;
    }

    /** The program that wrote the file, as it calls itself. */
    String writer() {
        return writer;
    }

    List<Group> groups() {
        return groups;
    }

    /** The columns of single values, by their JSON Pointers. */
    Map<String, Leaf> leaves() {
        return leaves;
    }

    /** The fields at the top. */
    SortedSet<String> fields() {
        return fields;
    }

    /** Those of them that hold several values in a row. */
    SortedSet<String> lists() {
        return lists;
    }

    /** What to say when it cannot be read. */
    SourceException unreadable(Exception e) {
        if (e instanceof SourceException known) {
            return known;
        }
        file.requireUnchanged();
        return new SourceException(
                file.path().toString(),
                "the Parquet file cannot be read (" + said(e) + ")",
                "check that it is whole, or have it written again");
    }

    private static String said(Exception e) {
        // The reader names the file once more, by another way.
        String reason =
                FileParts.reason(e).lines().findFirst().orElse("").replaceFirst("^(?:[a-z]+\\.)+[A-Z]\\w*: ", "");
        return reason.contains(" is not a Parquet file") ? "it is none: it does not begin or end as one" : reason;
    }
}
