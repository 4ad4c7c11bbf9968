package taxiomet.reports.html;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.reports.OutputException;
import taxiomet.reports.text.Paper;
import taxiomet.reports.text.ResultText;
import taxiomet.reports.text.Style;

class TextHtmlTest {
    private static final Path FULL = Path.of("/dev/full");

    @TempDir
    private Path folder;

    private record Told(Paper paper, int sentences) implements ResultText {
        @Override
        public void write() {
            writeAnswer();
            paper.gap();
            paper.paragraph(Style.STRONG.apply("a <b>heading</b>", paper.hasColor()), 0);
            for (int i = 0; i < sentences; i++) {
                paper.paragraph("one " + Style.ERROR.apply("bad & worse", paper.hasColor()) + " thing " + i, 4);
            }
        }

        @Override
        public void writeAnswer() {
            paper.answer("about\u001B[31m it", "sound", Style.GOOD);
        }
    }

    @Test
    void words_of_a_text_become_headings_and_sentences_with_their_styles_and_no_markup() throws Exception {
        Path page = folder.resolve("page.html");

        TextHtml.write(paper -> new Told(paper, 1), "made now", page);

        assertThat(Files.readString(page))
                .contains("<h1>about\\u{1b}[31m it</h1>")
                .contains("<p class=\"answer good\">sound</p>")
                .contains("<h2>a &lt;b&gt;heading&lt;/b&gt;</h2>")
                .contains("<p class=\"in2\"><span class=\"\">one </span><span class=\"s-error\">bad &amp; worse</span>")
                .contains("<footer>made now</footer>")
                .doesNotContain("\u001B");
    }

    @Test
    void a_page_that_cannot_be_written_is_said_wherever_it_ends() {
        assumeTrue(Files.exists(FULL));
        for (int sentences : new int[] {1, 50_000}) {
            assertThatThrownBy(() -> TextHtml.write(paper -> new Told(paper, sentences), "made now", FULL))
                    .isInstanceOf(OutputException.class)
                    .hasMessageContaining("/dev/full");
        }
    }
}
