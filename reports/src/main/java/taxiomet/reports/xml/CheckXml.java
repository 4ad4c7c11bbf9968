package taxiomet.reports.xml;

import java.io.IOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import java.util.stream.Stream;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;
import taxiomet.charter.Severity;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.TableResult;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;
import taxiomet.reports.EvidenceFields;
import taxiomet.reports.OutputException;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.FindingSentences;

/**
 * The result of a check as XML in the form that build servers read test results in (JUnit's): a suite for each table, in it a case for each
 * finding, each link and each rule; findings that are bad enough are failures.
 */
public final class CheckXml {
    private final CheckResult result;
    private final Predicate<Severity> fails;
    private final XMLStreamWriter xml;

    private CheckXml(CheckResult result, Predicate<Severity> fails, XMLStreamWriter xml) {
        this.result = result;
        this.fails = fails;
        this.xml = xml;
    }

    /** A case, with the finding that it came to, if any. */
    private record Case(String name, Finding finding) {}

    /**
     * Writes a result.
     *
     * @param fails whether findings of a severity are failures
     * @throws OutputException when the file cannot be written
     */
    public static void write(CheckResult result, Predicate<Severity> fails, Path file) {
        try (Writer writer = Files.newBufferedWriter(file, StandardCharsets.UTF_8)) {
            XMLStreamWriter xml = XMLOutputFactory.newInstance().createXMLStreamWriter(writer);
            new CheckXml(result, fails, xml).write();
            xml.close();
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        } catch (XMLStreamException e) {
            throw OutputException.of(file.toString(), new IOException(e));
        }
    }

    private void write() throws XMLStreamException {
        xml.writeStartDocument("UTF-8", "1.0");
        xml.writeCharacters("\n");
        xml.writeStartElement("testsuites");
        xml.writeAttribute("name", plain(result.title()));
        List<Case> ofNoTable = result.findings().stream()
                .filter(finding ->
                        result.tables().stream().noneMatch(table -> table.name().equals(finding.table())))
                .map(CheckXml::of)
                .toList();
        if (!ofNoTable.isEmpty()) {
            writeSuite("charter", ofNoTable);
        }
        for (TableResult table : result.tables()) {
            writeSuite(table.name(), cases(table.name()));
        }
        xml.writeCharacters("\n");
        xml.writeEndElement();
        xml.writeCharacters("\n");
        xml.writeEndDocument();
    }

    private static Case of(Finding finding) {
        return new Case(finding.kind().words() + " at " + finding.at(), finding);
    }

    private List<Case> cases(String table) {
        List<Case> cases = new ArrayList<>();
        result.findings().stream()
                .filter(finding -> finding.table().equals(table))
                .map(CheckXml::of)
                .forEach(cases::add);
        List<Case> kept = Stream.concat(
                        result.links().stream()
                                .filter(link -> link.child().equals(table))
                                .map(link -> FindingKind.ORPHAN.words() + " at " + link.name()),
                        result.rules().stream()
                                .filter(rule -> rule.table().equals(table))
                                .map(rule -> FindingKind.BROKEN_RULE.words() + " at " + rule.name()))
                .filter(name -> cases.stream().noneMatch(each -> each.name().equals(name)))
                .map(name -> new Case(name, null))
                .toList();
        cases.addAll(kept);
        if (cases.isEmpty()) {
            cases.add(new Case("rows", null));
        }
        return cases;
    }

    private void writeSuite(String name, List<Case> cases) throws XMLStreamException {
        xml.writeCharacters("\n  ");
        xml.writeStartElement("testsuite");
        xml.writeAttribute("name", plain(name));
        xml.writeAttribute("tests", String.valueOf(cases.size()));
        xml.writeAttribute(
                "failures",
                String.valueOf(cases.stream().filter(this::isFailure).count()));
        xml.writeAttribute("errors", "0");
        for (Case each : cases) {
            writeCase(name, each);
        }
        xml.writeCharacters("\n  ");
        xml.writeEndElement();
    }

    private boolean isFailure(Case each) {
        return each.finding != null && fails.test(each.finding.severity());
    }

    private void writeCase(String suite, Case each) throws XMLStreamException {
        xml.writeCharacters("\n    ");
        xml.writeStartElement("testcase");
        xml.writeAttribute("classname", plain(suite));
        xml.writeAttribute("name", plain(each.name));
        if (each.finding != null) {
            boolean isFailure = isFailure(each);
            xml.writeCharacters("\n      ");
            xml.writeStartElement(isFailure ? "failure" : "system-out");
            if (isFailure) {
                xml.writeAttribute("type", each.finding.severity().word());
                xml.writeAttribute("message", plain(FindingSentences.rows(each.finding)));
            }
            xml.writeCharacters(plain(String.join("\n", told(each.finding))));
            xml.writeEndElement();
            xml.writeCharacters("\n    ");
        }
        xml.writeEndElement();
    }

    private List<String> told(Finding finding) {
        List<String> lines = new ArrayList<>();
        lines.add(finding.severity().word() + ": " + finding.kind().words() + " at " + FindingSentences.place(finding)
                + ", " + FindingSentences.rows(finding));
        lines.addAll(new FindingSentences(result).of(finding));
        EvidenceFields fields = finding.examples().isEmpty() ? null : new EvidenceFields(result, finding);
        for (Evidence row : finding.examples()) {
            List<String> cells = new ArrayList<>();
            if (finding.kind() != FindingKind.MALFORMED_ROW) {
                fields.shown()
                        .forEach(column -> cells.add(CellText.escaped(column) + " "
                                + CellText.of(fields.cell(row, column).orElse(null))));
            }
            cells.add(CellText.escaped(EvidenceFields.remark(row)));
            cells.removeIf(String::isEmpty);
            lines.add(CellText.escaped(row.part()) + ", row " + row.row() + ": " + String.join(", ", cells));
        }
        long more = finding.rows() - finding.examples().size();
        if (more > 0 && !finding.examples().isEmpty()) {
            lines.add("and " + more + (more == 1 ? " more row" : " more rows"));
        }
        return lines;
    }

    /** Without characters that XML cannot hold. */
    private static String plain(String text) {
        StringBuilder plain = new StringBuilder();
        text.codePoints().forEach(c -> {
            boolean isHeld = c == '\t'
                    || c == '\n'
                    || (c >= 0x20 && c <= 0xD7FF)
                    || (c >= 0xE000 && c <= 0xFFFD)
                    || c >= 0x10000;
            plain.appendCodePoint(isHeld ? c : 0xFFFD);
        });
        return plain.toString();
    }
}
