package taxiomet.reports.json;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import taxiomet.survey.SurveyResult;
import taxiomet.survey.SurveyResult.SurveyedTable;
import taxiomet.survey.choice.AlikeChoice;
import taxiomet.survey.choice.CandidateKey;
import taxiomet.survey.choice.CandidateLink;
import taxiomet.survey.profile.ColumnProfile;
import taxiomet.survey.profile.ColumnProfile.CommonValue;

/** The result of a survey as JSON. */
public final class SurveyJson {
    private final JsonGenerator json;
    private final SurveyResult result;
    private final Provenance provenance;

    private SurveyJson(JsonGenerator json, SurveyResult result, Provenance provenance) {
        this.json = json;
        this.provenance = provenance;
        this.result = result;
    }

    /** Writes the result; the stream stays open. */
    public static void write(SurveyResult result, Provenance provenance, OutputStream out) throws IOException {
        JsonOutput.write(out, json -> new SurveyJson(json, result, provenance).write());
    }

    /** @throws taxiomet.reports.OutputException when the file cannot be written */
    public static void write(SurveyResult result, Provenance provenance, Path file) {
        JsonOutput.write(file, json -> new SurveyJson(json, result, provenance).write());
    }

    private void write() throws IOException {
        provenance.begin(json, "survey", result.draft().name());
        json.writeArrayFieldStart("tables");
        for (SurveyedTable table : result.tables()) {
            writeTable(table);
        }
        json.writeEndArray();
        json.writeArrayFieldStart("keys");
        for (CandidateKey key : result.keys()) {
            writeKey(key);
        }
        json.writeEndArray();
        json.writeArrayFieldStart("links");
        for (CandidateLink link : result.links()) {
            writeLink(link);
        }
        json.writeEndArray();
        JsonOutput.writePairs(json, result.pairs());
        json.writeArrayFieldStart("alike");
        for (SurveyedTable table : result.tables()) {
            AlikeChoice.Proposed proposed = result.alike().get(table.name());
            if (proposed != null) {
                writeAlike(table.name(), proposed);
            }
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private void writeAlike(String table, AlikeChoice.Proposed proposed) throws IOException {
        json.writeStartObject();
        json.writeStringField("table", table);
        json.writeStringField("name", proposed.rule().name());
        JsonOutput.writeTexts(json, "columns", proposed.rule().columns());
        json.writeNumberField("agree", proposed.rule().agree());
        JsonOutput.writeTexts(json, "never_differ", proposed.rule().neverDiffer());
        json.writeNumberField("rows_looked_at", proposed.rows());
        json.writeNumberField("rows_alike", proposed.alike());
        json.writeEndObject();
    }

    private void writeTable(SurveyedTable table) throws IOException {
        json.writeStartObject();
        json.writeStringField("table", table.name());
        JsonOutput.writeTexts(json, "files", table.files());
        json.writeNumberField("rows", table.rows());
        json.writeBooleanField("sampled", table.isSampled());
        json.writeNumberField("malformed_rows", table.malformed());
        json.writeBooleanField("repeats_rows", table.repeatsRows());
        JsonOutput.writeTexts(json, "remarks", table.remarks());
        json.writeArrayFieldStart("columns");
        for (ColumnProfile column : table.columns()) {
            writeColumn(column);
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private void writeColumn(ColumnProfile column) throws IOException {
        json.writeStartObject();
        json.writeStringField("column", column.name());
        json.writeStringField("type", column.guess().type().sql());
        if (column.guess().format().isPresent()) {
            json.writeStringField("format", column.guess().format().get());
        }
        if (column.guess().decimalComma()) {
            json.writeStringField("decimal", ",");
        }
        json.writeNumberField("misfits", column.guess().misfits());
        JsonOutput.writeTexts(json, "misfit_examples", column.guess().examples());
        json.writeStringField("holds_all", column.guess().holdsAll().sql());
        json.writeNumberField("values", column.values());
        json.writeNumberField("nulls", column.nulls());
        json.writeNumberField("empty_texts", column.emptyTexts());
        json.writeNumberField("distinct", column.distinct());
        json.writeBooleanField("distinct_is_exact", column.distinctIsExact());
        json.writeNumberField("shortest", column.shortest());
        json.writeNumberField("longest", column.longest());
        json.writeStringField("least", column.least().orElse(null));
        json.writeStringField("greatest", column.greatest().orElse(null));
        json.writeArrayFieldStart("commonest");
        for (CommonValue value : column.commonest()) {
            json.writeStartObject();
            json.writeStringField("value", value.value());
            json.writeNumberField("rows", value.rows());
            json.writeBooleanField("is_exact", value.isExact());
            json.writeEndObject();
        }
        json.writeEndArray();
        JsonOutput.writeTexts(json, "remarks", column.remarks());
        json.writeEndObject();
    }

    private void writeKey(CandidateKey key) throws IOException {
        json.writeStartObject();
        json.writeStringField("table", key.table());
        JsonOutput.writeTexts(json, "columns", key.columns());
        json.writeBooleanField("exact", key.isExact());
        json.writeNumberField("excess", key.excess());
        json.writeNumberField("nulls", key.nulls());
        json.writeNumberField("score", Math.round(key.score() * 1000) / 1000.0);
        json.writeBooleanField("primary", key.isPrimary());
        json.writeBooleanField("chosen", key.isChosen());
        JsonOutput.writeTexts(json, "reasons", key.reasons());
        json.writeEndObject();
    }

    private void writeLink(CandidateLink link) throws IOException {
        json.writeStartObject();
        json.writeStringField("child", link.counts().child());
        JsonOutput.writeTexts(json, "columns", link.counts().columns());
        json.writeStringField("parent", link.counts().parent());
        JsonOutput.writeTexts(json, "parent_columns", link.counts().parentColumns());
        json.writeNumberField("judged", link.counts().judged());
        json.writeNumberField("nulls", link.counts().nulls());
        json.writeNumberField("half_nulls", link.counts().halfNulls());
        json.writeNumberField("orphans", link.counts().orphans());
        json.writeBooleanField("one_to_one", link.isOneToOne());
        JsonOutput.writeTally(json, link.counts().children().orElseThrow());
        json.writeNumberField("score", Math.round(link.score() * 1000) / 1000.0);
        json.writeBooleanField("chosen", link.isChosen());
        JsonOutput.writeTexts(json, "reasons", link.reasons());
        json.writeEndObject();
    }
}
