package taxiomet.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Sound rows and rows set aside as files: bytes as they were read, and the way back from what was mended. */
class SiftCommandTest {
    private static final byte[] QUAYS =
            "\uFEFFquay;name\r\nQ1;\"North \"\"old\"\" quay\"\r\nQ2;South\r\nQ2;South again\r\n\r\nQ3;\"two\r\nlines\""
                    .getBytes(StandardCharsets.UTF_8);

    @TempDir
    private Path folder;

    @BeforeEach
    void write_the_tables() throws IOException {
        Files.write(folder.resolve("quays.csv"), QUAYS);
        Files.writeString(
                folder.resolve("boats.jsonl"),
                "{\"no\": 1, \"quay\": \"q1 \", \"name\": \"\"}\n{\"no\": 2, \"quay\": \"Q2\"}\n{\"no\": 3, \"quay\": null, \"name\": \"a,b\"}\n"
                        + "{\"no\": \"x\", \"quay\": \"Q3\", \"name\": \"c\"}\n");
        Files.writeString(folder.resolve("charter.yaml"), """
                charter: 1
                title: Harbour
                tables:
                  quay:
                    rows: {file: quays.csv, delimiter: ";"}
                    columns: {quay: varchar(4), name: text}
                    primary_key: quay
                  boat:
                    rows: boats.jsonl
                    columns: {no: integer, quay: varchar(4), name: text}
                    primary_key: no
                    foreign_keys:
                      boat_quay: {columns: quay, references: quay}
                """);
    }

    private Program sift(String... options) {
        List<String> arguments = new java.util.ArrayList<>(List.of(
                "sift",
                folder.resolve("charter.yaml").toString(),
                "--into",
                folder.resolve("s").toString()));
        arguments.addAll(Arrays.asList(options));
        return Program.run(arguments.toArray(new String[0]));
    }

    private String text(String file) throws IOException {
        return Files.readString(folder.resolve("s").resolve(file));
    }

    @Test
    void files_are_parted_byte_for_byte_and_other_tables_become_csv() throws IOException {
        Program sift = sift("--keep", "first");
        assertThat(sift.status()).isEqualTo(1);
        assertThat(sift.out()).contains("Harbour: 5 of 8 rows obey the charter together, 3 are set aside");
        assertThat(text("sound/quays.csv"))
                .isEqualTo("\uFEFFquay;name\r\nQ1;\"North \"\"old\"\" quay\"\r\nQ2;South\r\n\r\nQ3;\"two\r\nlines\"");
        assertThat(text("aside/quays.csv")).isEqualTo("\uFEFFquay;name\r\nQ2;South again\r\n");
        assertThat(text("sound/boat.csv")).isEqualTo("no,quay,name\n2,Q2,\n3,,\"a,b\"\n");
        assertThat(text("aside/boat.csv")).isEqualTo("no,quay,name\n1,q1 ,\"\"\nx,Q3,c\n");
        assertThat(text("reasons.csv"))
                .contains("\"has the key primary_key of quay row 2 (quay Q2), which stays\"")
                .contains("orphan at boat_quay");
        assertThat(Program.run("check", folder.resolve("s/sound/charter.yaml").toString())
                        .status())
                .isZero();
    }

    @Test
    void what_is_mended_is_listed_and_taken_back() throws IOException {
        Files.writeString(folder.resolve("boats.csv"), "no,quay,name\n1,\"q1\",A\n2, Q3,B\n3,Q9,C\n");
        Files.writeString(
                folder.resolve("charter.yaml"),
                Files.readString(folder.resolve("charter.yaml")).replace("boats.jsonl", "boats.csv"));
        assertThat(sift("--mend").out()).contains("2 values were mended first");
        assertThat(text("sound/boats.csv")).isEqualTo("no,quay,name\n1,Q1,A\n2,Q3,B\n");
        assertThat(text("mendings.csv").lines().skip(1))
                .containsExactly(
                        "boat,boats.csv,1,quay,q1,Q1,orphan,boat_quay",
                        "boat,boats.csv,2,quay, Q3,Q3,orphan,boat_quay");
        Path back = folder.resolve("back");
        assertThat(Program.run(
                                "rehearse",
                                "--undo",
                                folder.resolve("s/sound/undo.json").toString(),
                                "--into",
                                back.toString())
                        .status())
                .isZero();
        assertThat(Files.readAllBytes(back.resolve("quays.csv"))).isEqualTo(QUAYS);
        assertThat(Files.readString(back.resolve("boats.csv")))
                .isEqualTo("no,quay,name\n1,\"q1\",A\n2, Q3,B\n3,Q9,C\n");
    }

    @Test
    void what_cannot_be_meant_is_said() throws IOException {
        assertThat(sift("--keep", "newest").err()).contains("--keep newest: write first, last, most-complete, none");
        assertThat(sift("--keep", "quay=nme desc").err()).contains("quay has no column nme; did you mean name?");
        assertThat(sift("--keep", "quays=first").err()).contains("no table `quays`");
        assertThat(sift("--fail-on", "never").status()).isZero();
        assertThat(sift().err()).contains("holds rows of a sift already");
        Files.writeString(folder.resolve("s/mine.txt"), "");
        assertThat(Files.exists(folder.resolve("s/sift.json"))).isTrue();
    }
}
