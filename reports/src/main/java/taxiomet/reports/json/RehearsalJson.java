package taxiomet.reports.json;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.NotRead;
import taxiomet.finding.ActionComparison;
import taxiomet.finding.ProofResult;
import taxiomet.finding.ProofResult.ChangeProof;
import taxiomet.finding.ProofResult.TableProof;
import taxiomet.finding.RehearsalResult;
import taxiomet.finding.RehearsalResult.ChangeResult;
import taxiomet.finding.RehearsalResult.Divergence;
import taxiomet.finding.RehearsalResult.EffectCount;
import taxiomet.finding.RehearsalResult.EffectRow;
import taxiomet.finding.RehearsalResult.FindingChange;
import taxiomet.finding.RehearsalResult.LinkActions;
import taxiomet.finding.RehearsalResult.RefusalResult;
import taxiomet.finding.RehearsalResult.RowName;
import taxiomet.finding.RehearsalResult.TableChange;
import taxiomet.finding.RehearsalResult.TableCount;
import taxiomet.finding.RehearsalResult.TotalSum;
import taxiomet.finding.RehearsalResult.Ways;
import taxiomet.finding.settled.DocketDecisions;
import taxiomet.proposal.ProposalException;

/** The result of a rehearsal as JSON; docs/formats/rehearsal.schema.json says what is in it. */
public final class RehearsalJson {
    private final RehearsalResult result;
    private final Optional<ProofResult> proof;
    private final Optional<DocketDecisions> decisions;
    private final Provenance provenance;

    /** @param proof what a database made of it, where one was asked */
    public RehearsalJson(RehearsalResult result, Optional<ProofResult> proof, Provenance provenance) {
        this(result, proof, Optional.empty(), provenance);
    }

    /**
     * A rehearsal of what was decided in dockets.
     *
     * @param decisions what became of the decisions
     */
    public RehearsalJson(
            RehearsalResult result,
            Optional<ProofResult> proof,
            Optional<DocketDecisions> decisions,
            Provenance provenance) {
        this.result = result;
        this.proof = proof;
        this.decisions = decisions;
        this.provenance = provenance;
    }

    /** Writes to a stream, which stays open. */
    public void write(OutputStream out) throws IOException {
        JsonOutput.write(out, this::write);
    }

    /** @throws taxiomet.reports.OutputException when the file cannot be written */
    public void write(Path file) {
        JsonOutput.write(file, this::write);
    }

    /** One proposal under each action of a link: a whole result for each. */
    public static void write(ActionComparison comparison, Provenance provenance, OutputStream out) throws IOException {
        JsonOutput.write(out, json -> {
            provenance.begin(json, "actions", comparison.title());
            json.writeStringField("link", comparison.link());
            json.writeStringField("event", comparison.event());
            json.writeArrayFieldStart("actions");
            for (ActionComparison.Entry entry : comparison.entries()) {
                json.writeStartObject();
                json.writeStringField("action", entry.action());
                json.writeBooleanField("declared", entry.isDeclared());
                json.writeFieldName("result");
                new RehearsalJson(entry.result(), Optional.empty(), provenance).write(json);
                json.writeEndObject();
            }
            json.writeEndArray();
            json.writeEndObject();
        });
    }

    private void write(JsonGenerator json) throws IOException {
        provenance.begin(json, "rehearsal", result.title());
        json.writeStringField("server", result.behaviour());
        json.writeStringField("now", result.now());
        json.writeStringField("answer", result.answer());
        json.writeBooleanField("undone", result.isUndone());
        if (decisions.isPresent()) {
            DecisionsJson.write(decisions.get(), json);
        }
        json.writeArrayFieldStart("links");
        for (LinkActions link : result.links()) {
            json.writeStartObject();
            json.writeStringField("link", link.name());
            json.writeStringField("child", link.child());
            json.writeStringField("parent", link.parent());
            json.writeStringField("on_delete", link.onDelete());
            json.writeStringField("on_update", link.onUpdate());
            json.writeBooleanField("enforced", link.isEnforced());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeArrayFieldStart("changes");
        for (ChangeResult change : result.changes()) {
            writeChange(json, change);
        }
        json.writeEndArray();
        writeRefusals(json, "refusals_at_end", result.atEnd());
        json.writeArrayFieldStart("tables");
        for (TableChange table : result.tables()) {
            json.writeStartObject();
            json.writeStringField("table", table.table());
            json.writeNumberField("rows_before", table.rowsBefore());
            json.writeNumberField("rows_after", table.rowsAfter());
            json.writeNumberField("deleted", table.deleted());
            json.writeNumberField("changed", table.changed());
            json.writeNumberField("inserted", table.inserted());
            json.writeEndObject();
        }
        json.writeEndArray();
        writeFindings(json, "findings_added", result.added());
        writeFindings(json, "findings_mended", result.mended());
        json.writeArrayFieldStart("elsewhere");
        for (Divergence divergence : result.elsewhere()) {
            json.writeStartObject();
            json.writeStringField("where", divergence.where());
            json.writeStringField("words", divergence.words());
            json.writeNumberField("rows", divergence.rows());
            writeRows(json, divergence.examples());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeArrayFieldStart("not_read");
        for (NotRead lost : result.notRead()) {
            json.writeStartObject();
            json.writeStringField("what", lost.what().word());
            json.writeStringField("table", lost.table().orElse(null));
            json.writeStringField("at", lost.name());
            json.writeStringField("declared", lost.declared());
            json.writeStringField("problem", lost.problem());
            json.writeStringField("place", lost.place());
            json.writeStringField("severity", lost.severity().word());
            json.writeEndObject();
        }
        json.writeEndArray();
        if (proof.isPresent()) {
            writeProof(json, proof.get());
        }
        json.writeEndObject();
    }

    private static void writeProof(JsonGenerator json, ProofResult proof) throws IOException {
        json.writeObjectFieldStart("proof");
        json.writeStringField("database", proof.server());
        json.writeBooleanField("agrees", proof.agrees());
        JsonOutput.writeTexts(json, "triggers", proof.triggers());
        json.writeArrayFieldStart("changes");
        for (ChangeProof change : proof.changes()) {
            writeChangeProof(json, change);
        }
        json.writeEndArray();
        if (proof.atEnd().isPresent()) {
            json.writeFieldName("at_end");
            writeChangeProof(json, proof.atEnd().get());
        }
        json.writeArrayFieldStart("tables");
        for (TableProof table : proof.tables()) {
            json.writeStartObject();
            json.writeStringField("table", table.table());
            json.writeBooleanField("agrees", table.agrees());
            json.writeNumberField("rows", table.rows());
            json.writeNumberField("foreseen", table.foreseen());
            json.writeNumberField("missing", table.missing());
            json.writeNumberField("more", table.more());
            JsonOutput.writeTexts(json, "examples", table.examples());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private static void writeChangeProof(JsonGenerator json, ChangeProof change) throws IOException {
        json.writeStartObject();
        json.writeBooleanField("agrees", change.agrees());
        json.writeStringField("rehearsed", change.isForeseen() ? "accepted" : "blocked");
        json.writeStringField("database", change.isAccepted() ? "accepted" : "blocked");
        if (!change.said().isEmpty()) {
            json.writeStringField("said", change.said());
        }
        json.writeEndObject();
    }

    /** What is wrong with a proposal that could not be rehearsed. */
    public static void writeFaults(List<ProposalException.Fault> faults, Provenance provenance, OutputStream out)
            throws IOException {
        JsonOutput.write(out, json -> {
            provenance.begin(json, "problems", "");
            json.writeArrayFieldStart("problems");
            for (ProposalException.Fault fault : faults) {
                json.writeStartObject();
                json.writeStringField("place", fault.place());
                json.writeStringField("problem", fault.problem());
                json.writeStringField("remedy", fault.remedy());
                json.writeEndObject();
            }
            json.writeEndArray();
            json.writeEndObject();
        });
    }

    private static void writeChange(JsonGenerator json, ChangeResult change) throws IOException {
        json.writeStartObject();
        json.writeStringField("change", change.words());
        json.writeStringField("place", change.place());
        json.writeStringField("answer", change.answer());
        json.writeNumberField("selects_rows", change.direct());
        json.writeArrayFieldStart("tables");
        for (TableCount table : change.tables()) {
            json.writeStartObject();
            json.writeStringField("table", table.table());
            json.writeNumberField("deleted", table.deleted());
            json.writeNumberField("changed", table.changed());
            json.writeNumberField("inserted", table.inserted());
            json.writeEndObject();
        }
        json.writeEndArray();
        writeRefusals(json, "refusals", change.refusals());
        if (change.passesAfter() > 0) {
            json.writeNumberField("passes_after_change", change.passesAfter());
        }
        json.writeArrayFieldStart("effects");
        for (EffectCount effect : change.effects()) {
            json.writeStartObject();
            json.writeStringField("table", effect.table());
            json.writeStringField("effect", effect.kind().words());
            if (effect.link().isPresent()) {
                json.writeStringField("link", effect.link().get());
            }
            json.writeNumberField("steps", effect.steps());
            if (effect.farthest() > effect.steps()) {
                json.writeNumberField("to_steps", effect.farthest());
            }
            json.writeNumberField("rows", effect.rows());
            if (effect.writes() > effect.rows()) {
                json.writeNumberField("writes", effect.writes());
            }
            json.writeArrayFieldStart("examples");
            for (int i = 0; i < effect.examples().size(); i++) {
                json.writeStartObject();
                writeRow(json, effect.examples().get(i));
                writeCells(json, "before", effect.values().get(i).before());
                writeCells(json, "after", effect.values().get(i).after());
                json.writeEndObject();
            }
            json.writeEndArray();
            json.writeEndObject();
        }
        json.writeEndArray();
        writeTotals(json, change.totals());
        if (change.keptByTwins() > 0) {
            json.writeNumberField("kept_by_duplicates", change.keptByTwins());
        }
        json.writeEndObject();
    }

    private static void writeTotals(JsonGenerator json, List<TotalSum> totals) throws IOException {
        json.writeArrayFieldStart("totals");
        for (TotalSum total : totals) {
            json.writeStartObject();
            json.writeStringField("table", total.table());
            json.writeStringField("total", total.text());
            json.writeStringField("rows_are", total.rowsAre());
            json.writeNumberField("rows", total.rows());
            json.writeNumberField("sum", total.sum());
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private static void writeRefusals(JsonGenerator json, String name, List<RefusalResult> refusals)
            throws IOException {
        json.writeArrayFieldStart(name);
        for (RefusalResult refusal : refusals) {
            json.writeStartObject();
            json.writeStringField("refusal", refusal.kind().words());
            json.writeStringField("table", refusal.table());
            json.writeStringField("at", refusal.at());
            json.writeStringField("at_kind", refusal.kind().place().word());
            json.writeNumberField("rows", refusal.rows());
            json.writeStringField("remedy", refusal.remedy());
            writeTotals(json, refusal.totals());
            writeRows(json, refusal.examples());
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private static void writeFindings(JsonGenerator json, String name, List<FindingChange> findings)
            throws IOException {
        json.writeArrayFieldStart(name);
        for (FindingChange finding : findings) {
            json.writeStartObject();
            json.writeStringField("finding", finding.kind().words());
            json.writeStringField("table", finding.table());
            json.writeStringField("at", finding.at());
            json.writeStringField("at_kind", finding.kind().place().word());
            json.writeNumberField("rows", finding.rows());
            writeRows(json, finding.examples());
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private static void writeRows(JsonGenerator json, List<RowName> rows) throws IOException {
        json.writeArrayFieldStart("examples");
        for (RowName row : rows) {
            json.writeStartObject();
            writeRow(json, row);
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private static void writeRow(JsonGenerator json, RowName row) throws IOException {
        json.writeStringField("table", row.table());
        if (row.isNew()) {
            json.writeBooleanField("new", true);
            json.writeNumberField("new_row", row.row());
        } else {
            json.writeStringField("file", row.part());
            json.writeNumberField("row", row.row());
            if (row.line() > 0) {
                json.writeNumberField("line", row.line());
            }
        }
        writeCells(json, "key", row.key());
        writeCells(json, "label", row.label());
    }

    private static void writeCells(JsonGenerator json, String name, Map<String, String> cells) throws IOException {
        if (!cells.isEmpty()) {
            json.writeObjectFieldStart(name);
            for (Map.Entry<String, String> cell : cells.entrySet()) {
                json.writeStringField(cell.getKey(), cell.getValue());
            }
            json.writeEndObject();
        }
    }

    /** Why a row is touched: a way for each effect on it. */
    public static void writeWays(Ways why, Provenance provenance, String title, OutputStream out) throws IOException {
        JsonOutput.write(out, json -> {
            provenance.begin(json, "ways", title);
            json.writeArrayFieldStart("ways");
            for (List<EffectRow> way : why.ways()) {
                json.writeStartArray();
                for (EffectRow step : way) {
                    json.writeStartObject();
                    json.writeNumberField("change", step.change());
                    json.writeStringField("answer", step.answer());
                    json.writeStringField("effect", step.kind().words());
                    if (step.link().isPresent()) {
                        json.writeStringField("link", step.link().get());
                    }
                    json.writeNumberField("steps", step.steps());
                    writeRow(json, step.row());
                    writeCells(json, "before", step.values().before());
                    writeCells(json, "after", step.values().after());
                    json.writeEndObject();
                }
                json.writeEndArray();
            }
            json.writeEndArray();
            json.writeArrayFieldStart("in_the_way");
            for (EffectRow blocking : why.inTheWay()) {
                json.writeStartObject();
                json.writeNumberField("change", blocking.change());
                if (blocking.link().isPresent()) {
                    json.writeStringField("link", blocking.link().get());
                }
                json.writeStringField("refusal", blocking.refusal().orElse(""));
                writeRow(json, blocking.row());
                json.writeEndObject();
            }
            json.writeEndArray();
            json.writeEndObject();
        });
    }
}
