package taxiomet.sources.parquet;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.apache.parquet.column.ColumnDescriptor;
import org.apache.parquet.column.page.PageReadStore;
import org.apache.parquet.hadoop.ParquetFileReader;
import org.apache.parquet.hadoop.metadata.ColumnChunkMetaData;
import org.apache.parquet.hadoop.metadata.ColumnPath;
import taxiomet.rows.RowBatch;
import taxiomet.sources.parquet.ParquetPart.Group;
import taxiomet.values.ValueCells;

/** The pages of a row group, of some columns. */
final class GroupPages implements AutoCloseable {
    private final ParquetPart part;
    private final List<Leaf> leaves;
    private final ParquetFileReader file;
    private final Codecs codecs;
    private final List<LeafPages> readers = new ArrayList<>();

    /** @param codecs for one group after the other: what one has unpacked is gone with the next */
    GroupPages(ParquetPart part, Group group, List<Leaf> leaves, Codecs codecs) {
        this.part = part;
        this.codecs = codecs;
        this.leaves = leaves;
        try {
            file = part.open(codecs);
        } catch (IOException | RuntimeException e) {
            throw part.unreadable(e);
        }
        boolean isOpen = false;
        try {
            if (!leaves.isEmpty()) {
                open(group);
            }
            isOpen = true;
        } catch (IOException | RuntimeException e) {
            throw part.unreadable(e);
        } finally {
            if (!isOpen) {
                close();
            }
        }
    }

    private void open(Group group) throws IOException {
        List<ColumnDescriptor> wanted =
                leaves.stream().map(Leaf::descriptor).distinct().toList();
        file.setRequestedSchema(wanted);
        Set<ColumnPath> paths = new HashSet<>();
        wanted.forEach(column -> paths.add(ColumnPath.get(column.getPath())));
        for (ColumnChunkMetaData chunk : file.getRowGroups().get(group.index()).getColumns()) {
            if (paths.contains(chunk.getPath())) {
                if (chunk.getValueCount() != group.rows()) {
                    throw new IOException("column " + chunk.getPath().toDotString() + " has " + chunk.getValueCount()
                            + " values in a group of " + group.rows() + " rows");
                }
                part.file().count(chunk.getTotalSize());
            }
        }
        PageReadStore pages = file.readRowGroup(group.index());
        for (Leaf leaf : leaves) {
            readers.add(new LeafPages(leaf, pages.getPageReader(leaf.descriptor())));
        }
    }

    /** Takes the next rows into a batch, column by column, and gives about how many bytes they take. */
    long take(RowBatch batch, int count) {
        try {
            long bytes = 0;
            for (int i = 0; i < leaves.size(); i++) {
                bytes += readers.get(i).take((ValueCells) batch.column(i), count);
            }
            return bytes;
        } catch (IOException | RuntimeException e) {
            throw part.unreadable(e);
        }
    }

    /** Goes over rows that are not wanted. */
    void pass(long count) {
        try {
            for (LeafPages reader : readers) {
                reader.pass(count);
            }
        } catch (IOException | RuntimeException e) {
            throw part.unreadable(e);
        }
    }

    @Override
    public void close() {
        codecs.takeBack();
        try {
            file.close();
        } catch (IOException e) {
            throw part.unreadable(e);
        }
    }
}
