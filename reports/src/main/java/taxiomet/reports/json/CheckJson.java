package taxiomet.reports.json;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.List;
import taxiomet.charter.Key;
import taxiomet.charter.Severity;
import taxiomet.finding.Cause;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.CheckResult.RuleResult;
import taxiomet.finding.CheckResult.TableResult;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;
import taxiomet.reports.EvidenceFields;
import taxiomet.reports.words.CauseWords;

/** The result of a check as JSON: exact counts, and the examples. */
public final class CheckJson {
    private final JsonGenerator json;
    private final DetailsJson details;
    private final CheckResult result;
    private final Provenance provenance;
    private final List<String> evidenceFiles;

    private CheckJson(JsonGenerator json, CheckResult result, Provenance provenance, List<String> evidenceFiles) {
        this.json = json;
        this.details = new DetailsJson(json);
        this.result = result;
        this.provenance = provenance;
        this.evidenceFiles = evidenceFiles;
    }

    /**
     * Writes a result; the stream stays open.
     *
     * @param evidenceFiles for each finding the name of the file with all of its rows; empty when there are none
     */
    public static void write(CheckResult result, Provenance provenance, List<String> evidenceFiles, OutputStream out)
            throws IOException {
        JsonOutput.write(out, json -> new CheckJson(json, result, provenance, evidenceFiles).write());
    }

    /** @throws taxiomet.reports.OutputException when the file cannot be written */
    public static void write(CheckResult result, Provenance provenance, List<String> evidenceFiles, Path file) {
        JsonOutput.write(file, json -> new CheckJson(json, result, provenance, evidenceFiles).write());
    }

    /** A result as part of a larger document. */
    static void writeTo(JsonGenerator json, CheckResult result, Provenance provenance) throws IOException {
        new CheckJson(json, result, provenance, List.of()).write();
    }

    private void write() throws IOException {
        provenance.begin(json, "check", result.title());
        json.writeStringField("answer", result.answer());
        json.writeObjectFieldStart("counts");
        json.writeNumberField("findings", result.findings().size());
        json.writeNumberField("errors", result.count(Severity.ERROR));
        json.writeNumberField("warnings", result.count(Severity.WARNING));
        json.writeNumberField("notes", result.count(Severity.NOTE));
        json.writeNumberField("tables", result.tables().size());
        json.writeNumberField("rows", result.rows());
        json.writeNumberField("faulty_rows", result.faultyRows());
        json.writeEndObject();
        json.writeArrayFieldStart("tables");
        for (TableResult table : result.tables()) {
            writeTable(table);
        }
        json.writeEndArray();
        json.writeArrayFieldStart("links");
        for (LinkResult link : result.links()) {
            writeLink(link);
        }
        json.writeEndArray();
        json.writeArrayFieldStart("rules");
        for (RuleResult rule : result.rules()) {
            writeRule(rule);
        }
        json.writeEndArray();
        json.writeArrayFieldStart("causes");
        for (Cause cause : result.causes()) {
            writeCause(cause);
        }
        json.writeEndArray();
        if (result.load().isPresent()) {
            LoadJson.write(result.load().get(), json);
        }
        if (result.since().isPresent()) {
            json.writeFieldName("since");
            CompareJson.write(result.since().get(), json);
        }
        json.writeArrayFieldStart("findings");
        for (int i = 0; i < result.findings().size(); i++) {
            writeFinding(result.findings().get(i), evidenceFiles.isEmpty() ? null : evidenceFiles.get(i));
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private void writeTable(TableResult table) throws IOException {
        json.writeStartObject();
        json.writeStringField("table", table.name());
        JsonOutput.writeTexts(json, "files", table.files());
        JsonOutput.writeTexts(json, "columns", table.columns());
        JsonOutput.writeTexts(json, "key_columns", table.key());
        JsonOutput.writeTexts(json, "label_columns", table.label());
        json.writeNumberField("rows", table.rows());
        json.writeNumberField("malformed_rows", table.malformedRows());
        json.writeNumberField("faulty_rows", table.faultyRows());
        json.writeNumberField("empty_lines", table.emptyLines());
        json.writeArrayFieldStart("remarks");
        for (CheckResult.Remark remark : table.remarks()) {
            json.writeStartObject();
            json.writeStringField("kind", remark.kind());
            json.writeStringField("text", remark.text());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private void writeLink(LinkResult link) throws IOException {
        json.writeStartObject();
        json.writeStringField("link", link.name());
        json.writeStringField("child", link.child());
        JsonOutput.writeTexts(json, "columns", link.columns());
        json.writeStringField("parent", link.parent());
        JsonOutput.writeTexts(json, "parent_columns", link.parentColumns());
        json.writeStringField("match", link.match());
        json.writeBooleanField("enforced", link.isEnforced());
        json.writeNumberField("rows", link.rows());
        json.writeNumberField("judged", link.judged());
        json.writeNumberField("nulls", link.nulls());
        json.writeNumberField("half_nulls", link.halfNulls());
        json.writeNumberField("ill_typed", link.illTyped());
        json.writeNumberField("orphans", link.orphans());
        if (link.children().isPresent()) {
            JsonOutput.writeTally(json, link.children().get());
        }
        json.writeEndObject();
    }

    private void writeRule(RuleResult rule) throws IOException {
        json.writeStartObject();
        json.writeStringField("rule", rule.name());
        json.writeStringField("table", rule.table());
        json.writeStringField("condition", rule.condition());
        json.writeNumberField("judged", rule.judged());
        json.writeNumberField("not_judged", rule.notJudged());
        json.writeNumberField("unknown", rule.unknown());
        json.writeNumberField("broken", rule.broken());
        json.writeEndObject();
    }

    private void writeCause(Cause cause) throws IOException {
        json.writeStartObject();
        json.writeStringField("do", cause.what().word());
        json.writeStringField("words", CauseWords.toDo(cause));
        json.writeStringField("finding", cause.finding().words());
        json.writeStringField("table", cause.table());
        json.writeStringField("at", cause.at());
        JsonOutput.writeTexts(json, "columns", cause.columns());
        JsonOutput.writeTexts(json, "values", cause.values());
        JsonOutput.writeTexts(json, "meant", cause.meant());
        if (cause.place().isPresent()) {
            json.writeStringField("file", cause.place().get().part());
            json.writeNumberField("row", cause.place().get().row());
        }
        json.writeNumberField("rows", cause.rows());
        json.writeArrayFieldStart("cures");
        for (Cause.Cure cure : cause.cures()) {
            json.writeStartObject();
            json.writeStringField("finding", cure.kind().words());
            json.writeStringField("table", cure.table());
            json.writeStringField("at", cure.at());
            json.writeNumberField("rows", cure.rows());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeStringField("next", CauseWords.command(cause, provenance.charter()));
        json.writeEndObject();
    }

    private void writeAccepted(Finding finding) throws IOException {
        if (finding.accepted().isEmpty()) {
            return;
        }
        json.writeArrayFieldStart("accepted");
        for (Finding.Accepting accepting : finding.accepted()) {
            json.writeStartObject();
            json.writeStringField("reason", accepting.reason());
            if (accepting.until().isPresent()) {
                json.writeStringField("until", accepting.until().get().toString());
            }
            json.writeNumberField("rows", accepting.rows());
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private void writeFinding(Finding finding, String evidenceFile) throws IOException {
        json.writeStartObject();
        json.writeStringField("finding", finding.kind().words());
        json.writeStringField("severity", finding.severity().word());
        json.writeStringField("table", finding.table());
        json.writeStringField("at", finding.at());
        if (finding.kind().place() == FindingKind.Place.KEY
                && result.table(finding.table()).keyName().isPresent()
                && finding.at().equals(Key.PRIMARY)) {
            json.writeStringField(
                    "key_name", result.table(finding.table()).keyName().get());
        }
        json.writeStringField(
                "at_kind",
                finding.details() instanceof Finding.Undeclared lost
                        ? lost.what()
                        : finding.kind().place().word());
        JsonOutput.writeTexts(json, "columns", finding.columns());
        json.writeNumberField("rows", finding.rows());
        writeAccepted(finding);
        details.write(finding, parentColumns(finding));
        json.writeArrayFieldStart("examples");
        if (!finding.examples().isEmpty()) {
            EvidenceFields fields = new EvidenceFields(result, finding);
            for (Evidence row : finding.examples()) {
                writeEvidence(row, fields, parentColumns(finding));
            }
        }
        json.writeEndArray();
        if (evidenceFile != null && !finding.kind().hasNoRows()) {
            json.writeStringField("evidence", evidenceFile);
        }
        json.writeEndObject();
    }

    private List<String> parentColumns(Finding finding) {
        return result.links().stream()
                .filter(link ->
                        link.child().equals(finding.table()) && link.name().equals(finding.at()))
                .findFirst()
                .map(LinkResult::parentColumns)
                .orElse(List.of());
    }

    private void writeEvidence(Evidence row, EvidenceFields fields, List<String> parentColumns) throws IOException {
        json.writeStartObject();
        json.writeStringField("file", row.part());
        json.writeNumberField("row", row.row());
        if (row.line() > 0) {
            json.writeNumberField("line", row.line());
        }
        if (row.group() > 0) {
            json.writeNumberField("group", row.group());
        }
        if (!row.values().isEmpty()) {
            writeCells("key", fields.table().key(), row, fields);
            writeCells("label", fields.table().label(), row, fields);
            writeCells("values", fields.columns(), row, fields);
        }
        if (!row.problem().isEmpty()) {
            json.writeStringField("problem", row.problem());
        }
        if (row.isAccepted()) {
            json.writeBooleanField("accepted", true);
        }
        if (!row.differsIn().isEmpty()) {
            JsonOutput.writeTexts(json, "differs_in", row.differsIn());
        }
        if (!row.raw().isEmpty()) {
            json.writeStringField("raw", row.raw());
        }
        details.writeHint(row.hint(), parentColumns);
        json.writeEndObject();
    }

    private void writeCells(String name, List<String> columns, Evidence row, EvidenceFields fields) throws IOException {
        json.writeObjectFieldStart(name);
        for (String column : columns) {
            json.writeStringField(column, fields.cell(row, column).orElse(null));
        }
        json.writeEndObject();
    }
}
