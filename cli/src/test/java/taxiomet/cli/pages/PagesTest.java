package taxiomet.cli.pages;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import taxiomet.cli.Program;

/** Pages in a real browser: used with mouse and keyboard, in two sizes, light and dark. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class PagesTest {
    private static final int WIDE = 1280;
    private static final int NARROW = 390;

    @TempDir
    private static Path folder;

    private Browser browser;

    @BeforeAll
    void start() throws IOException {
        assumeTrue(Browser.isThere());
        browser = Browser.start(folder);
    }

    @AfterAll
    void stop() {
        if (browser != null) {
            browser.close();
        }
    }

    private Path written(String name, String... command) {
        Path page = folder.resolve(name);
        if (Files.notExists(page)) {
            String[] all = Arrays.copyOf(command, command.length + 2);
            all[command.length] = "--report";
            all[command.length + 1] = page.toString();
            assertThat(Program.run(all).status()).isLessThan(2);
        }
        return page;
    }

    private Path checked() {
        return written("check.html", "check", "../demo/charter.yaml", "--load-order");
    }

    private Path mapped() {
        written("result.json", "check", "../demo/charter.yaml");
        return written(
                "map.html",
                "map",
                "../demo/charter.yaml",
                "--check",
                folder.resolve("result.json").toString());
    }

    @Test
    void every_page_is_quiet_fits_its_window_and_can_be_read_by_everybody() throws IOException {
        String charter = "../demo/charter.yaml";
        List<Path> pages = List.of(
                checked(),
                mapped(),
                written("survey.html", "survey", "../demo"),
                written("vet.html", "vet", charter, "--around", "hive"),
                written("rehearse.html", "rehearse", charter, "../demo/proposals/apiary-closes.sql"),
                written("roster.html", "roster", charter, "apiary", "--where", "apiary_id < 6"),
                written("trace.html", "trace", charter, "hive", "118", "--down", "2"));
        for (Path page : pages) {
            for (boolean isDark : List.of(false, true)) {
                for (int width : List.of(WIDE, NARROW)) {
                    browser.open(page, width, width == WIDE ? 800 : 844, isDark);
                    browser.requireQuiet(width);
                    browser.run("document.querySelectorAll('details').forEach(d => d.open = true)");
                    assertThat(browser.seriousFaults())
                            .as("%s, %d wide, dark: %s", page.getFileName(), width, isDark)
                            .isEmpty();
                }
            }
        }
    }

    @Test
    void findings_are_searched_filtered_and_opened() {
        browser.open(checked(), WIDE, 800, false);
        int all = browser.seen("details.finding").size();
        assertThat(all).isEqualTo(39);

        browser.element("#search").sendKeys("k-008");
        assertThat(browser.seen("details.finding")).hasSizeBetween(1, 5);
        assertThat(browser.element("#shown").getText()).endsWith(" of 39 findings");
        WebElement orphan = browser.seen("details.finding[data-table=apiary]").get(0);
        orphan.findElement(By.tagName("summary")).click();
        assertThat(orphan.getText()).contains("perhaps K-008, in another case");
        assertThat(browser.seen("details.finding[data-table=apiary] tbody.rows tr"))
                .allSatisfy(row ->
                        assertThat(row.getText().toLowerCase(Locale.ROOT)).contains("k-008"));

        browser.element("#search").clear();
        browser.element("#search").sendKeys(" ");
        browser.element("#severity").sendKeys("note");
        assertThat(browser.seen("details.finding"))
                .hasSize(3)
                .allSatisfy(
                        finding -> assertThat(finding.getDomAttribute("class")).contains("note"));
    }

    @Test
    void a_finding_is_reached_and_opened_with_the_keyboard_alone() {
        browser.open(checked(), WIDE, 800, false);
        WebElement search = browser.element("#search");
        browser.run("arguments[0].focus()", search);
        search.sendKeys(Keys.TAB);
        browser.focused().sendKeys(Keys.TAB);
        browser.focused().sendKeys(Keys.TAB);
        WebElement summary = browser.focused();
        assertThat(summary.getTagName()).isEqualTo("summary");
        summary.sendKeys(Keys.ENTER);
        assertThat(browser.run("return document.querySelector('details.finding').open"))
                .isEqualTo(true);
        summary.sendKeys(Keys.TAB);
        assertThat(browser.focused().getDomAttribute("aria-label")).startsWith("Rows: ");
    }

    @Test
    void the_map_is_moved_and_a_table_chosen() {
        browser.open(mapped(), WIDE, 800, false);
        WebElement frame = browser.element("#frame");
        String whole = box();
        frame.sendKeys("+");
        assertThat(box()).isNotEqualTo(whole);
        browser.element("#whole").click();
        String again = box();
        frame.sendKeys(Keys.ARROW_RIGHT);
        assertThat(box()).isNotEqualTo(again);

        assertThat(browser.seen("section.table")).hasSize(11);
        browser.element("g.card[data-table=hive]").sendKeys(Keys.ENTER);
        assertThat(browser.seen("section.table"))
                .singleElement()
                .satisfies(section -> assertThat(section.getText())
                        .startsWith("hive")
                        .contains("primary key")
                        .contains("each row of hive points at exactly one row of apiary")
                        .contains("orphan: 9"));
        browser.element("#everything").click();
        assertThat(browser.seen("section.table")).hasSize(11);
    }

    private String box() {
        return browser.element("#frame svg").getDomAttribute("viewBox");
    }

    @Test
    void cells_are_shown_and_never_run() throws IOException {
        Files.writeString(folder.resolve("hostile.yaml"), """
                charter: 1
                title: "<script>window.hit = 1</script>"
                tables:
                  "a<b":
                    rows: hostile.csv
                    columns: {"k\\"ey": integer, "<img src=x onerror='window.hit=2'>": varchar(20)}
                    primary_key: "k\\"ey"
                """);
        String script = "</span></td></script><script>window.hit = 3</script><img src=x onerror=\"window.hit=4\">";
        Files.writeString(
                folder.resolve("hostile.csv"),
                "\"k\"\"ey\",<img src=x onerror='window.hit=2'>\n1,\"" + script.replace("\"", "\"\"")
                        + "\"\n2,\u202Etfel\u202C and " + "y".repeat(1_000_000)
                        + "\n3,\u001B[31mred\u0007 and more of it here\n");
        Path page =
                written("hostile.html", "check", folder.resolve("hostile.yaml").toString());
        Path map = written(
                "hostile-map.html", "map", folder.resolve("hostile.yaml").toString());
        for (Path each : List.of(page, map)) {
            browser.open(each, WIDE, 800, false);
            browser.requireQuiet(WIDE);
            assertThat(browser.run("return window.hit === undefined")).isEqualTo(true);
        }
        browser.open(page, WIDE, 800, false);
        browser.run("document.querySelectorAll('details').forEach(d => d.open = true)");
        assertThat(browser.element("body").getText())
                .contains("<script>window.hit = 3</script>")
                .contains("\\u{202e}tfel")
                .contains("(1,000,011 characters)")
                .contains("\\u{1b}[31mred");
        assertThat(Files.size(page)).isLessThan(200_000);
    }
}
