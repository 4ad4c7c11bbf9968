package taxiomet.reports.json;

import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import taxiomet.finding.Finding;
import taxiomet.finding.Finding.MissingValue;
import taxiomet.finding.Finding.Reason;
import taxiomet.finding.Hint;

/** What a finding has to say beyond the count of its rows. */
final class DetailsJson {
    private final JsonGenerator json;

    DetailsJson(JsonGenerator json) {
        this.json = json;
    }

    /**
     * Writes them as fields of a finding.
     *
     * @param parentColumns the columns that a link points at; none of other findings
     */
    void write(Finding finding, List<String> parentColumns) throws IOException {
        Finding.Details details = finding.details();
        if (details instanceof Finding.Duplicates duplicates) {
            json.writeNumberField("groups", duplicates.groups());
            json.writeNumberField("excess", duplicates.excess());
        } else if (details instanceof Finding.LikelyDoubles doubles) {
            json.writeNumberField("groups", doubles.groups());
            json.writeNumberField("pairs", doubles.pairs());
            json.writeStringField("asked", doubles.rule());
        } else if (details instanceof Finding.Rings rings) {
            json.writeNumberField("groups", rings.rings());
        } else if (details instanceof Finding.Missing missing) {
            json.writeStringField("link", missing.link());
            json.writeNumberField("distinct", missing.distinct());
            json.writeArrayFieldStart("commonest");
            for (MissingValue value : missing.commonest()) {
                json.writeStartObject();
                json.writeObjectFieldStart("values");
                for (int i = 0; i < finding.columns().size(); i++) {
                    json.writeStringField(
                            finding.columns().get(i), value.values().get(i));
                }
                json.writeEndObject();
                json.writeNumberField("rows", value.rows());
                writeHint(value.hint(), parentColumns);
                json.writeEndObject();
            }
            json.writeEndArray();
            if (!missing.consequences().isEmpty()) {
                json.writeArrayFieldStart("consequences");
                for (Finding.Consequence consequence : missing.consequences()) {
                    json.writeStartObject();
                    json.writeStringField("of", consequence.kind().words());
                    json.writeStringField("table", consequence.table());
                    json.writeNumberField("rows", consequence.rows());
                    json.writeEndObject();
                }
                json.writeEndArray();
            }
        } else if (details instanceof Finding.Children children) {
            json.writeStringField("child", children.child());
            json.writeStringField("link", children.link());
            json.writeStringField("children", children.range());
        } else if (details instanceof Finding.Undeclared lost) {
            json.writeStringField("what", lost.what());
            json.writeStringField("declared", lost.declared());
            json.writeStringField("problem", lost.problem());
            json.writeStringField("place", lost.place());
        } else if (details instanceof Finding.Gaps gaps) {
            json.writeNumberField("missing", gaps.missing());
            json.writeNumberField("ranges", gaps.ranges());
            json.writeArrayFieldStart("first_ranges");
            for (Finding.Gap gap : gaps.first()) {
                json.writeStartArray();
                json.writeNumber(gap.from());
                json.writeNumber(gap.to());
                json.writeEndArray();
            }
            json.writeEndArray();
        } else if (details instanceof Finding.Broken broken) {
            json.writeStringField("condition", broken.condition());
            writeReasons(broken.reasons());
        } else if (details instanceof Finding.Reasons reasons) {
            if (!reasons.declared().isEmpty()) {
                json.writeStringField("declared", reasons.declared());
            }
            writeReasons(reasons.reasons());
        }
    }

    /** The key that a finding's rows point at; empty where it is not about a link. */
    private void writeReasons(List<Reason> reasons) throws IOException {
        if (reasons.isEmpty()) {
            return;
        }
        json.writeArrayFieldStart("reasons");
        for (Reason reason : reasons) {
            json.writeStartObject();
            json.writeStringField("reason", reason.words());
            json.writeNumberField("rows", reason.rows());
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    /** Writes which parents may have been meant, if any. */
    void writeHint(Optional<Hint> hint, List<String> parentColumns) throws IOException {
        if (hint.isEmpty()) {
            return;
        }
        json.writeObjectFieldStart("hint");
        json.writeStringField("text", hint.get().words());
        json.writeArrayFieldStart("parents");
        for (List<String> key : hint.get().parents()) {
            json.writeStartObject();
            for (int i = 0; i < parentColumns.size(); i++) {
                json.writeStringField(parentColumns.get(i), key.get(i));
            }
            json.writeEndObject();
        }
        json.writeEndArray();
        if (hint.get().faultyParent().isPresent()) {
            Hint.FaultyParent parent = hint.get().faultyParent().get();
            json.writeObjectFieldStart("faulty_parent");
            json.writeStringField("table", parent.table());
            json.writeStringField("file", parent.part());
            json.writeNumberField("row", parent.row());
            json.writeStringField("finding", parent.fault().kind().words());
            json.writeEndObject();
        }
        json.writeEndObject();
    }
}
