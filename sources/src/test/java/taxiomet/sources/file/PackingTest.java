package taxiomet.sources.file;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;

class PackingTest {
    private static byte[] zip(String... entries) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            for (String entry : entries) {
                zip.putNextEntry(new ZipEntry(entry));
                if (!entry.endsWith("/")) {
                    zip.write(("rows of " + entry).getBytes(StandardCharsets.UTF_8));
                }
            }
        }
        return out.toByteArray();
    }

    private static String unpacked(byte[] packed) throws IOException {
        try (InputStream in = Packing.ZIP.unpack(new ByteArrayInputStream(packed))) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    @Test
    void the_ending_of_a_name_says_how_it_is_packed() {
        assertThat(Packing.of(Path.of("a.csv.ZIP"))).isEqualTo(Packing.ZIP);
        assertThat(Packing.of(Path.of("a.csv.gz"))).isEqualTo(Packing.GZIP);
        assertThat(Packing.of(Path.of("zip.csv"))).isEqualTo(Packing.NONE);
    }

    @Test
    void the_one_file_of_an_archive_is_read_whatever_else_programs_put_in() throws IOException {
        assertThat(unpacked(zip("data/", "__MACOSX/data/._a.csv", "data/.hidden", "data/a.csv")))
                .isEqualTo("rows of data/a.csv");
    }

    @Test
    void an_archive_of_several_files_or_of_none_is_refused() throws IOException {
        assertThatThrownBy(() -> unpacked(zip("a.csv", "b.csv")))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("several files");
        assertThatThrownBy(() -> unpacked(zip("data/"))).hasMessageContaining("no file in it");
        assertThatThrownBy(() -> unpacked(new byte[] {1, 2, 3})).hasMessageContaining("no zip archive");
        byte[] whole = zip("a.csv");
        byte[] torn = java.util.Arrays.copyOf(whole, 45);
        assertThatThrownBy(() -> unpacked(torn)).isInstanceOf(IOException.class);
    }

    @Test
    void what_is_packed_is_unpacked_again() throws IOException {
        for (Packing packing : Packing.values()) {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            try (OutputStream packed = packing.pack(out)) {
                packed.write("id\n1\n2\n".getBytes(StandardCharsets.UTF_8));
            }
            try (InputStream in = packing.unpack(new ByteArrayInputStream(out.toByteArray()))) {
                assertThat(in.readAllBytes()).as(packing.toString()).asString().isEqualTo("id\n1\n2\n");
            }
        }
    }
}
