package taxiomet.sources.parquet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.airlift.compress.Compressor;
import io.airlift.compress.lz4.Lz4Compressor;
import io.airlift.compress.snappy.SnappyCompressor;
import io.airlift.compress.zstd.ZstdCompressor;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.UUID;
import java.util.function.BiConsumer;
import java.util.stream.IntStream;
import java.util.zip.GZIPOutputStream;
import org.apache.parquet.bytes.BytesInput;
import org.apache.parquet.column.ParquetProperties.WriterVersion;
import org.apache.parquet.compression.CompressionCodecFactory;
import org.apache.parquet.conf.PlainParquetConfiguration;
import org.apache.parquet.example.data.Group;
import org.apache.parquet.example.data.simple.SimpleGroupFactory;
import org.apache.parquet.hadoop.ParquetWriter;
import org.apache.parquet.hadoop.example.ExampleParquetWriter;
import org.apache.parquet.hadoop.metadata.CompressionCodecName;
import org.apache.parquet.io.LocalOutputFile;
import org.apache.parquet.io.api.Binary;
import org.apache.parquet.schema.MessageType;
import org.apache.parquet.schema.MessageTypeParser;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import taxiomet.charter.ColumnType;
import taxiomet.charter.place.ParquetRows;
import taxiomet.rows.ColumnFacts;
import taxiomet.rows.RefCursor;
import taxiomet.rows.RefRanges;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowRef;
import taxiomet.rows.Scan;
import taxiomet.rows.SourceException;
import taxiomet.rows.Split;
import taxiomet.rows.Undeclared;

class ParquetSourceTest {
    @TempDir
    private Path folder;

    private record Form(WriterVersion version, boolean byDictionary, CompressionCodecName codec, int groupRows) {
        static final Form PLAIN =
                new Form(WriterVersion.PARQUET_1_0, false, CompressionCodecName.UNCOMPRESSED, 1_000_000);
        static final Form DICTIONARY =
                new Form(WriterVersion.PARQUET_1_0, true, CompressionCodecName.UNCOMPRESSED, 1_000_000);
    }

    private void write(String name, String schema, Form form, int rows, BiConsumer<Group, Integer> fill)
            throws IOException {
        MessageType type = MessageTypeParser.parseMessageType("message rows { " + schema + " }");
        try (ParquetWriter<Group> writer = ExampleParquetWriter.builder(new LocalOutputFile(folder.resolve(name)))
                .withType(type)
                .withConf(new PlainParquetConfiguration())
                .withCodecFactory(new Packing())
                .withCompressionCodec(form.codec)
                .withWriterVersion(form.version)
                .withDictionaryEncoding(form.byDictionary)
                .withRowGroupRowCountLimit(form.groupRows)
                .withPageRowCountLimit(700)
                .build()) {
            SimpleGroupFactory groups = new SimpleGroupFactory(type);
            for (int row = 0; row < rows; row++) {
                Group group = groups.newGroup();
                fill.accept(group, row);
                writer.write(group);
            }
        }
    }

    private ParquetSource open(String name, String... columns) {
        return ParquetSource.open(new ParquetRows(folder, name, Map.of()), List.of(columns));
    }

    private static List<List<String>> all(ParquetSource source) {
        List<List<String>> rows = new ArrayList<>();
        source.read(IntStream.range(0, source.columns().size()).toArray(), batch -> addRows(batch, rows));
        return rows;
    }

    private static void addRows(RowBatch batch, List<List<String>> rows) {
        for (int row = 0; row < batch.size(); row++) {
            int number = row;
            rows.add(IntStream.range(0, batch.columnCount())
                    .mapToObj(column -> batch.column(column).text(number))
                    .toList());
        }
    }

    private static Binary bytes(int... bytes) {
        byte[] all = new byte[bytes.length];
        IntStream.range(0, bytes.length).forEach(i -> all[i] = (byte) bytes[i]);
        return Binary.fromConstantByteArray(all);
    }

    @Test
    void values_of_all_types_are_taken_as_they_are() throws IOException {
        UUID uuid = UUID.fromString("1b4e28ba-2fa1-11d2-883f-0016d3cca427");
        byte[] halves = ByteBuffer.allocate(16)
                .putLong(uuid.getMostSignificantBits())
                .putLong(uuid.getLeastSignificantBits())
                .array();
        byte[] older = ByteBuffer.allocate(12)
                .order(ByteOrder.LITTLE_ENDIAN)
                .putLong(3_600_000_000_000L)
                .putInt(2_440_589)
                .array();
        String schema = "required boolean truth; required int32 small; required int64 big; required float near;"
                + " required double far; required int32 price (DECIMAL(9,2)); required int64 sum (DECIMAL(18,3));"
                + " required fixed_len_byte_array(3) wide (DECIMAL(6,1)); required binary wider (DECIMAL(30,0));"
                + " required int32 day (DATE); required int32 at_ms (TIME(MILLIS,true)); required int64 at_ns (TIME(NANOS,true));"
                + " required int64 moment (TIMESTAMP(MICROS,false)); required int64 instant (TIMESTAMP(MILLIS,true));"
                + " required int64 fine (TIMESTAMP(NANOS,true)); required int96 older; required int32 count (UINT_32);"
                + " required int64 huge (UINT_64); required fixed_len_byte_array(16) id (UUID); required binary name (UTF8);"
                + " required binary kind (ENUM); required binary data (JSON); required binary unsaid; required binary odd;";
        write("t.parquet", schema, Form.PLAIN, 1, (group, row) -> {
            group.append("truth", true)
                    .append("small", -7)
                    .append("big", 1L << 40)
                    .append("near", 0.1f);
            group.append("far", 1e-9).append("price", -150).append("sum", 1L);
            group.append("wide", bytes(0xFF, 0xFF, 0xFE)).append("wider", bytes(1, 0, 0, 0, 0, 0, 0, 0, 0, 0));
            group.append("day", -1).append("at_ms", 1_500).append("at_ns", 1_000_001_000L);
            group.append("moment", 1L).append("instant", -1L).append("fine", 1L);
            group.append("older", Binary.fromConstantByteArray(older))
                    .append("count", -1)
                    .append("huge", -1L);
            group.append("id", Binary.fromConstantByteArray(halves))
                    .append("name", "Ü\u0000")
                    .append("kind", "A");
            group.append("data", "{}").append("unsaid", "said").append("odd", bytes(0xFF, 0));
        });
        ParquetSource source = open(
                "t.parquet",
                "truth",
                "small",
                "big",
                "near",
                "far",
                "price",
                "sum",
                "wide",
                "wider",
                "day",
                "at_ms",
                "at_ns",
                "moment",
                "instant",
                "fine",
                "older",
                "count",
                "huge",
                "id",
                "name",
                "kind",
                "data",
                "unsaid",
                "odd");
        assertThat(all(source).get(0))
                .containsExactly(
                        "true",
                        "-7",
                        "1099511627776",
                        "0.1",
                        "1.0E-9",
                        "-1.50",
                        "0.001",
                        "-0.2",
                        "4722366482869645213696",
                        "1969-12-31",
                        "00:00:01.5",
                        "00:00:01.000001",
                        "1970-01-01 00:00:00.000001",
                        "1969-12-31 23:59:59.999Z",
                        "1970-01-01T00:00:00.000000001Z",
                        "1970-01-02 01:00:00",
                        "4294967295",
                        "18446744073709551615",
                        uuid.toString(),
                        "Ü\u0000",
                        "A",
                        "{}",
                        "said",
                        "ff00");
    }

    @ParameterizedTest
    @CsvSource({
        "PARQUET_1_0,false,UNCOMPRESSED",
        "PARQUET_1_0,true,SNAPPY",
        "PARQUET_1_0,false,ZSTD",
        "PARQUET_2_0,true,GZIP",
        "PARQUET_2_0,false,LZ4_RAW",
        "PARQUET_2_0,false,SNAPPY"
    })
    void rows_come_whole_in_every_encoding(WriterVersion version, boolean byDictionary, CompressionCodecName codec)
            throws IOException {
        Random random = new Random(1_730);
        List<List<String>> rows = new ArrayList<>();
        for (int row = 0; row < 5_000; row++) {
            String name = random.nextInt(4) == 0 ? null : "name ü " + random.nextInt(300) + "x".repeat(row % 9);
            String weight = random.nextInt(9) == 0 ? null : String.valueOf(random.nextInt(50) - 25L);
            rows.add(Arrays.asList(
                    String.valueOf(row), name, weight, String.valueOf(random.nextBoolean()), "c" + row % 3));
        }
        write(
                "r.parquet",
                "required int32 id; optional binary name (UTF8); optional int64 weight; required boolean truth;"
                        + " required group keeper { optional binary code (UTF8); }",
                new Form(version, byDictionary, codec, 1_200),
                rows.size(),
                (group, row) -> {
                    List<String> cells = rows.get(row);
                    group.append("id", row).append("truth", Boolean.parseBoolean(cells.get(3)));
                    Optional.ofNullable(cells.get(1)).ifPresent(name -> group.append("name", name));
                    Optional.ofNullable(cells.get(2))
                            .ifPresent(weight -> group.append("weight", Long.parseLong(weight)));
                    group.addGroup("keeper").append("code", cells.get(4));
                });
        ParquetSource source = ParquetSource.open(
                new ParquetRows(folder, "r.parquet", Map.of("code", "/keeper/code")),
                List.of("id", "name", "weight", "truth", "code"));
        assertThat(all(source)).isEqualTo(rows);
        assertThat(source.undeclared()).isEqualTo(Undeclared.columns(List.of()));

        List<Long> some = List.of(1L, 2L, 699L, 701L, 1_200L, 1_201L, 4_999L, 5_000L);
        List<List<String>> fetched = new ArrayList<>();
        source.fetch(cursor(some), new int[] {1, 0, 4}, batch -> addRows(batch, fetched));
        assertThat(fetched)
                .isEqualTo(some.stream()
                        .map(row -> rows.get((int) (row - 1)))
                        .map(cells -> Arrays.asList(cells.get(1), cells.get(0), cells.get(4)))
                        .toList());

        List<List<String>> inPieces = new ArrayList<>();
        List<Split> splits = source.splits(1);
        assertThat(splits).hasSize(5);
        for (Split split : splits) {
            try (Scan scan = source.scan(new int[] {0}, split);
                    Scan.BatchReader reader = scan.reader()) {
                long first = -1;
                for (RowBatch batch = reader.next(); batch != null; batch = reader.next()) {
                    first = first < 0 ? batch.ref(0) : first;
                    addRows(batch, inPieces);
                }
                assertThat(first).isEqualTo(RowRef.of(0, 1));
            }
        }
        assertThat(inPieces)
                .isEqualTo(rows.stream().map(cells -> List.of(cells.get(0))).toList());
    }

    private static RefCursor cursor(List<Long> rows) {
        int[] at = {0};
        return () -> at[0] == rows.size() ? RefCursor.END : RowRef.of(0, rows.get(at[0]++));
    }

    @Test
    void parts_are_one_table_and_what_is_known_of_a_column_holds_for_all_of_them() throws IOException {
        write(
                "p1.parquet",
                "required int32 id; required int64 n;",
                Form.PLAIN,
                3,
                (group, row) -> group.append("id", row).append("n", 5L));
        write(
                "p2.parquet",
                "optional int32 id; required int64 n;",
                Form.PLAIN,
                2,
                (group, row) -> group.append("n", 1L << 40));
        ParquetSource source = ParquetSource.open(new ParquetRows(folder, "p*.parquet", Map.of()), List.of("id", "n"));
        assertThat(all(source)).hasSize(5).endsWith(Arrays.asList(null, "1099511627776"));
        assertThat(source.facts(0)).contains(new ColumnFacts(ColumnType.of(ColumnType.Name.SMALLINT), true));
        assertThat(source.facts(1)).contains(new ColumnFacts(ColumnType.of(ColumnType.Name.BIGINT), false));
        try (Scan scan = source.scan(new int[] {0}, RefRanges.ALL);
                Scan.BatchReader reader = scan.reader()) {
            assertThat(reader.next().ref(2)).isEqualTo(RowRef.of(0, 3));
            assertThat(reader.next().ref(0)).isEqualTo(RowRef.of(1, 1));
        }
    }

    @Test
    void footers_tell_types_and_nulls_and_dictionaries_the_longest_text() throws IOException {
        write(
                "f.parquet",
                "required int32 price (DECIMAL(9,2)); optional int32 day (DATE); optional int32 far (DATE);"
                        + " required binary kind (UTF8); required binary note (UTF8);",
                Form.DICTIONARY,
                3_000,
                (group, row) -> group.append("price", row)
                        .append("day", 19_000 + row % 9)
                        .append("far", row == 7 ? 5_000_000 : 1)
                        .append("kind", row % 2 == 0 ? "é" : "three")
                        .append("note", "x".repeat(900) + row));
        ParquetSource source = open("f.parquet", "price", "day", "far", "kind", "note");
        assertThat(source.facts(0).orElseThrow().type().sql()).isEqualTo("numeric(9,2)");
        assertThat(source.facts(1)).contains(new ColumnFacts(ColumnType.of(ColumnType.Name.DATE), false));
        assertThat(source.facts(2)).as("a year that is none here").isEmpty();
        assertThat(source.facts(3).orElseThrow().type().sql()).isEqualTo("varchar(5)");
        assertThat(source.facts(4)).as("texts beyond the dictionary").isEmpty();
    }

    @Test
    void columns_that_are_not_there_or_hold_no_single_values_are_said() throws IOException {
        write(
                "n.parquet",
                "required int32 id; required group keeper { required int32 id; } repeated int32 tags;",
                Form.PLAIN,
                1,
                (group, row) -> group.append("id", 1).addGroup("keeper").append("id", 2));
        assertThatThrownBy(() -> open("n.parquet", "idd"))
                .isInstanceOf(SourceException.class)
                .hasMessageContaining("`id` looks like it");
        assertThatThrownBy(() -> open("n.parquet", "keeper"))
                .hasMessageContaining("name one of them under `fields`: `/keeper/id`");
        assertThatThrownBy(() -> open("n.parquet", "tags")).hasMessageContaining("holds lists");
        assertThat(ParquetSource.sniff(folder.resolve("n.parquet")).columns()).containsExactly("id", "keeper_id");
        assertThat(ParquetSource.sniff(folder.resolve("n.parquet")).remarks())
                .containsExactly("lists are passed over: tags");
        Files.writeString(folder.resolve("no.parquet"), "id\n1\n");
        assertThatThrownBy(() -> open("no.parquet", "id"))
                .isInstanceOf(SourceException.class)
                .hasMessageContaining("it does not begin or end as one");
    }

    /** Seeds 1 to 400: whatever bytes change, and wherever a file is cut, it is read or refused. */
    @ParameterizedTest
    @EnumSource(
            value = CompressionCodecName.class,
            names = {"UNCOMPRESSED", "SNAPPY"})
    void damaged_files_are_refused_in_words(CompressionCodecName codec) throws IOException {
        Form form = new Form(WriterVersion.PARQUET_1_0, codec == CompressionCodecName.SNAPPY, codec, 60);
        write(
                "d.parquet",
                "required int32 id; optional binary name (UTF8);",
                form,
                100,
                (group, row) -> group.append("id", row).append("name", "n" + row % 7));
        byte[] whole = Files.readAllBytes(folder.resolve("d.parquet"));
        int refused = 0;
        for (int seed = 1; seed <= 400; seed++) {
            Random random = new Random(seed);
            byte[] damaged =
                    random.nextInt(5) == 0 ? Arrays.copyOf(whole, random.nextInt(whole.length)) : whole.clone();
            for (int i = random.nextInt(4); i >= 0 && damaged.length > 0; i--) {
                damaged[random.nextInt(damaged.length)] = (byte) random.nextInt();
            }
            Path file = Files.write(folder.resolve("x" + seed + ".parquet"), damaged);
            try (ParquetSource source = open("x" + seed + ".parquet", "id", "name")) {
                source.facts(0);
                source.facts(1);
                all(source);
            } catch (SourceException e) {
                refused++;
            } catch (RuntimeException | Error e) {
                throw new AssertionError("seed " + seed, e);
            }
            Files.delete(file);
        }
        assertThat(refused).isGreaterThan(100);
    }

    /** Packs pages as the formats say. */
    private static final class Packing implements CompressionCodecFactory {
        @Override
        public BytesInputCompressor getCompressor(CompressionCodecName codec) {
            return new BytesInputCompressor() {
                @Override
                public BytesInput compress(BytesInput page) throws IOException {
                    byte[] bytes = page.toInputStream().readAllBytes();
                    return switch (codec) {
                        case SNAPPY -> packed(new SnappyCompressor(), bytes);
                        case ZSTD -> packed(new ZstdCompressor(), bytes);
                        case LZ4_RAW -> packed(new Lz4Compressor(), bytes);
                        case GZIP -> gzip(bytes);
                        default -> BytesInput.from(bytes);
                    };
                }

                @Override
                public CompressionCodecName getCodecName() {
                    return codec;
                }

                @Override
                public void release() {}
            };
        }

        private static BytesInput packed(Compressor codec, byte[] bytes) {
            byte[] room = new byte[codec.maxCompressedLength(bytes.length)];
            return BytesInput.from(room, 0, codec.compress(bytes, 0, bytes.length, room, 0, room.length));
        }

        private static BytesInput gzip(byte[] bytes) throws IOException {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            try (GZIPOutputStream gzip = new GZIPOutputStream(out)) {
                gzip.write(bytes);
            }
            return BytesInput.from(out.toByteArray());
        }

        @Override
        public BytesInputDecompressor getDecompressor(CompressionCodecName codec) {
            throw new UnsupportedOperationException();
        }

        @Override
        public void release() {}
    }
}
