package taxiomet.cli.pages;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.logging.Level;
import java.util.stream.Stream;
import org.openqa.selenium.By;
import org.openqa.selenium.Dimension;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;
import org.openqa.selenium.logging.LogEntry;
import org.openqa.selenium.logging.LogType;
import org.openqa.selenium.logging.LoggingPreferences;

/** A browser without a window, in which pages are used as people use them. */
final class Browser implements AutoCloseable {
    private static final List<String> BROWSERS =
            List.of("/usr/bin/chromium", "/usr/bin/chromium-browser", "/usr/bin/google-chrome");
    private static final List<String> DRIVERS = List.of(
            "/usr/bin/chromedriver", "/usr/lib/chromium/chromedriver", "/usr/lib/chromium-browser/chromedriver");

    private final ChromeDriver driver;

    private Browser(ChromeDriver driver) {
        this.driver = driver;
    }

    private static Optional<String> first(List<String> paths) {
        return paths.stream().filter(path -> Files.isExecutable(Path.of(path))).findFirst();
    }

    /** Whether there is one on this machine; it is said loudly where there is none. */
    static boolean isThere() {
        boolean isThere = first(BROWSERS).isPresent() && first(DRIVERS).isPresent();
        if (!isThere) {
            System.out.println(
                    "NO BROWSER: pages are not tested, since neither chromium with chromedriver nor another is"
                            + " installed (Debian: apt-get install chromium chromium-driver)");
        }
        return isThere;
    }

    static Browser start(Path folder) throws IOException {
        LoggingPreferences logs = new LoggingPreferences();
        logs.enable(LogType.BROWSER, Level.ALL);
        ChromeOptions options = new ChromeOptions();
        options.setBinary(first(BROWSERS).orElseThrow());
        options.setCapability("goog:loggingPrefs", logs);
        options.addArguments(
                "--headless=new",
                "--no-sandbox",
                "--disable-gpu",
                "--disable-quic",
                "--no-first-run",
                "--disable-background-networking",
                "--disable-component-update",
                "--disable-sync",
                "--allow-file-access-from-files",
                "--user-data-dir=" + Files.createTempDirectory(folder, "profile"));
        ChromeDriverService service = new ChromeDriverService.Builder()
                .usingDriverExecutable(Path.of(first(DRIVERS).orElseThrow()).toFile())
                .usingAnyFreePort()
                .build();
        return new Browser(new ChromeDriver(service, options));
    }

    /** Opens a page in a window of some size, light or dark. */
    void open(Path page, int width, int height, boolean isDark) {
        driver.executeCdpCommand(
                "Emulation.setEmulatedMedia",
                Map.of(
                        "features",
                        List.of(Map.of("name", "prefers-color-scheme", "value", isDark ? "dark" : "light"))));
        driver.executeCdpCommand(
                "Emulation.setDeviceMetricsOverride",
                Map.of("width", width, "height", height, "deviceScaleFactor", 1, "mobile", width < 500));
        driver.manage().window().setSize(new Dimension(width, height));
        driver.get(page.toUri().toString());
    }

    /** What a script gives. */
    Object run(String script, Object... arguments) {
        return driver.executeScript(script, arguments);
    }

    WebElement element(String selector) {
        return driver.findElement(By.cssSelector(selector));
    }

    List<WebElement> seen(String selector) {
        return driver.findElements(By.cssSelector(selector)).stream()
                .filter(WebElement::isDisplayed)
                .toList();
    }

    WebElement focused() {
        return driver.switchTo().activeElement();
    }

    /** Nothing was asked of any network, nothing was complained of, and nothing is wider than the window. */
    void requireQuiet(int width) {
        assertThat(run("return performance.getEntriesByType('resource').map(e => e.name)"))
                .as("requests")
                .isEqualTo(List.of());
        assertThat(Stream.of(driver.manage().logs().get(LogType.BROWSER))
                        .flatMap(entries -> entries.getAll().stream())
                        .map(LogEntry::getMessage))
                .as("console")
                .isEmpty();
        assertThat((Long) run("return document.documentElement.scrollWidth")).isLessThanOrEqualTo(width);
    }

    /** What would keep somebody from using the page, by the rules of a library for that. */
    List<?> seriousFaults() throws IOException {
        try (InputStream script = Browser.class.getResourceAsStream("/axe.min.js")) {
            run(new String(script.readAllBytes(), StandardCharsets.UTF_8));
        }
        return (List<?>) driver.executeAsyncScript("""
                const done = arguments[arguments.length - 1];
                axe.run().then(found => done(found.passes.length === 0 ? ['no rule was tried'] : found.violations
                  .filter(v => v.impact === 'serious' || v.impact === 'critical')
                  .map(v => v.id + ': ' + v.help + ': ' + v.nodes.slice(0, 3).map(n => n.html.slice(0, 120)).join(' | '))));
                """);
    }

    @Override
    public void close() {
        driver.quit();
    }
}
