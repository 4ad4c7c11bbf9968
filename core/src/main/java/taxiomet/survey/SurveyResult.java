package taxiomet.survey;

import java.util.List;
import java.util.Map;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.survey.choice.AlikeChoice;
import taxiomet.survey.choice.CandidateKey;
import taxiomet.survey.choice.CandidateLink;
import taxiomet.survey.profile.ColumnProfile;
import taxiomet.vet.LinkGraph.ManyToMany;

/**
 * What a survey found.
 *
 * @param tables in the order found
 * @param keys candidates that hold or nearly hold, by table, the likeliest first
 * @param links candidates that hold or nearly hold, the likeliest first
 * @param pairs tables that chosen links join many to many
 * @param alike for tables whose rows only a number tells apart, when two of them are probably one thing; by the names of tables
 * @param draft a first charter of the keys and links chosen
 * @param perhaps links that may be meant and are not in the draft, as they would be declared there
 * @param comments for the draft and these, by the keys that lead to a declaration: why it is there, and what was nearly so
 */
public record SurveyResult(
        List<SurveyedTable> tables,
        List<CandidateKey> keys,
        List<CandidateLink> links,
        List<ManyToMany> pairs,
        Map<String, AlikeChoice.Proposed> alike,
        Charter draft,
        List<ForeignKey> perhaps,
        Map<List<String>, List<String>> comments) {
    public SurveyResult {
        tables = List.copyOf(tables);
        keys = List.copyOf(keys);
        links = List.copyOf(links);
        pairs = List.copyOf(pairs);
        alike = Map.copyOf(alike);
        perhaps = List.copyOf(perhaps);
        comments = Map.copyOf(comments);
    }

    /**
     * One table.
     *
     * @param files names of its files
     * @param rows all of them, malformed ones too; of a sampled table those that were looked at
     * @param isSampled whether there are more rows
     * @param repeatsRows whether there are rows that are equal in all columns
     * @param remarks what was guessed about how the rows are written, and why
     */
    public record SurveyedTable(
            String name,
            List<String> files,
            long rows,
            boolean isSampled,
            long malformed,
            boolean repeatsRows,
            List<String> remarks,
            List<ColumnProfile> columns) {
        public SurveyedTable {
            files = List.copyOf(files);
            remarks = List.copyOf(remarks);
            columns = List.copyOf(columns);
        }
    }

    /** The candidate keys of a table. */
    public List<CandidateKey> keysOf(String table) {
        return keys.stream().filter(key -> key.table().equals(table)).toList();
    }
}
