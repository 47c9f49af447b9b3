package rueda.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.AriaRole;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.TestInstance;

/**
 * The packaged program and a real Chromium. Every test begins with a browser that keeps nothing and with the demo machine as it was, saved as a
 * new revision; a class whose stories need a fresh database has one.
 */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
abstract class BrowserTest {

    private static final double PATIENCE = 60_000;
    /** Parts of the browser around the page: the lists under its address bar alone take twice the time of our page with every window. */
    private static final List<String> UNUSED = List.of("WebUIOmniboxPopup", "WebUIOmniboxFullPopup", "WebUIOmniboxAimPopup", "Translate", "MediaRouter", "LensOverlay", "OptimizationHints", "HttpsUpgrades", "PaintHolding");
    /** HTTP: another one was first. */
    private static final int CONFLICT = 409;

    /** The browser of every class, and the program of those that need none of their own: a start costs more than most stories. */
    private static Playwright playwright;
    /** All pages are of one browser that keeps what it read of the program, as a user's does; what a user chose is forgotten before every story. */
    private static BrowserContext browser;
    private static RuedaProcess shared;
    private static String demo;

    private final List<String> complaints = new ArrayList<>();
    /** The folder of a program of its own. */
    Path data;
    RuedaProcess rueda;
    Page page;

    /** Whether the stories of this class need a database that no other class wrote to, or stop the program. */
    boolean ownProgram() {
        return false;
    }

    @BeforeAll
    void startProgram() throws IOException {
        if (browser == null) {
            playwright = Playwright.create(new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
            browser = playwright.chromium().launch(new BrowserType.LaunchOptions().setExecutablePath(Path.of("/usr/bin/chromium"))
                    .setArgs(List.of("--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-features=" + String.join(",", UNUSED))))
                    .newContext(new Browser.NewContextOptions().setViewportSize(1280, 800));
            browser.setDefaultTimeout(PATIENCE);
            prepared();
            PlaywrightAssertions.setDefaultAssertionTimeout(PATIENCE);
        }
        if (ownProgram()) {
            data = Files.createTempDirectory("rueda-e2e");
            rueda = new RuedaProcess(data);
        } else {
            if (shared == null) {
                shared = RuedaProcess.forLong(Files.createTempDirectory("rueda-e2e"));
                Runtime.getRuntime().addShutdownHook(new Thread(shared::close));
            }
            rueda = shared;
        }
        if (demo == null) {
            demo = rueda.document(1);
        }
    }

    @AfterAll
    void stopProgram() {
        if (ownProgram()) {
            rueda.close();
        }
    }

    @BeforeEach
    void start() throws IOException {
        /* the last save of a page that is gone can still be on its way */
        int status;
        do {
            status = rueda.put("/api/machines/1", demo, rueda.revision(1)).statusCode();
        } while (status == CONFLICT);
        assertThat(status).isEqualTo(200);
        page = newPage();
        page.navigate(rueda.address() + "/api/machines");
        page.evaluate("localStorage.clear()");
    }

    @AfterEach
    void stop() {
        List.copyOf(browser.pages()).forEach(Page::close);
        List<String> said = List.copyOf(complaints);
        complaints.clear();
        assertThat(said).as("errors of the page").isEmpty();
    }

    /** What every page has: it tells what the server's policy forbids. */
    private static void prepared() {
        /* What the policy forbids is left out by the browser without a word on the page. Text that is put over a selection in the editor gets the
           selection's style from the browser itself (no source file); the editor draws the line anew, so nothing is missed. */
        browser.addInitScript("document.addEventListener('securitypolicyviolation', e => {"
                + " if (!e.sourceFile && e.target.closest?.('.cm-content')) return;"
                + " console.log('Content Security Policy: ' + e.violatedDirective + ' ' + e.sourceFile + ':' + e.lineNumber + ' ' + (e.target.outerHTML ?? '').slice(0, 300)) })");
    }

    Page newPage() {
        Page opened = browser.newPage();
        opened.onPageError(complaints::add);
        opened.onConsoleMessage(message -> {
            if (message.text().startsWith("Content Security Policy: ")) {
                complaints.add(message.text());
            }
        });
        return opened;
    }

    void open(String stage) {
        open(page, stage);
    }

    void open(Page where, String stage) {
        where.navigate(rueda.address() + "/machines/1" + stage);
        expect(where.getByTestId("saved")).containsText("All saved");
    }

    static LocatorAssertions expect(Locator locator) {
        return PlaywrightAssertions.assertThat(locator);
    }

    Locator button(String name) {
        return page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
    }

    /** Runs the proof, whether or not an earlier story has. */
    void runProof() {
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^Run (proof|again)$"))).click();
    }

    Locator field(String label) {
        return page.getByLabel(label, new Page.GetByLabelOptions().setExact(true));
    }

    /** Takes one of several: by its code, or by its words where they are the code. */
    static void choose(Locator field, String code) {
        if (field.evaluate("field => field.tagName").equals("SELECT")) {
            field.selectOption(code);
            return;
        }
        field.press("ArrowDown");
        field.page().locator(".v-overlay--active [data-code=\"" + code + "\"]").click();
        expect(field.page().locator(".v-overlay--active [data-code]")).hasCount(0);
    }

    Locator saved() {
        return page.getByTestId("saved");
    }

    Locator side() {
        return page.getByLabel("What this gives");
    }

    void stage(String name) {
        page.getByLabel("Stages").getByText(name).click();
        expect(page.locator("h1")).containsText(name);
    }

    /** Takes the lease, for as long as it can be, so that a slow machine does not lose it. */
    void takeControl() {
        button("By hand").click();
        if (button("Give control back").count() == 0) {
            choose(field("Axes stop when this page is silent for"), "10");
            button("Take control").click();
        }
        expect(button("Give control back")).isVisible();
    }

    /** Replaces the whole program, as a user would: select all, type. */
    void enterProgram(String source) {
        page.locator(".cm-content[aria-label='Program, Structured Text']").click();
        page.keyboard().press("Control+a");
        page.keyboard().insertText(source);
    }

    String program() {
        return (String) page.evaluate("fetch('/api/machines/1').then(r => r.json()).then(m => m.document.plc.files[0].source)");
    }

    void screenshot(String name) {
        page.mouse().move(640, 4);
        page.waitForTimeout(400);
        page.screenshot(new Page.ScreenshotOptions().setPath(Path.of(System.getProperty("rueda.screenshots"), name + ".png")));
    }

    /** Accessibility rules of WCAG 2 A and AA, checked by axe-core. */
    void expectAccessible(String what) {
        expectAccessible(what, "['wcag2a','wcag2aa','wcag21a','wcag21aa']");
    }

    /** Only the rules about colours: the others do not depend on the theme. */
    void expectContrast(String what) {
        expectAccessible(what, "['color-contrast', 'link-in-text-block']");
    }

    private void expectAccessible(String what, String rules) {
        try {
            page.evaluate(Files.readString(Path.of(System.getProperty("rueda.web"), "node_modules", "axe-core", "axe.min.js")));
        } catch (IOException missing) {
            throw new AssertionError(missing);
        }
        Object violations = page.evaluate("axe.run(document, {runOnly: " + rules + "})"
                + ".then(r => r.violations.map(v => v.id + ': ' + v.nodes.slice(0, 4).map(n => n.target.join(' ') + ' ' + (n.any[0]?.message ?? '')).join(' | ')))");
        assertThat((List<?>) violations).as(what).isEmpty();
    }
}
