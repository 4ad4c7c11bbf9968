package taxiomet.vet;

import java.util.List;
import taxiomet.charter.Alike;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.Table;
import taxiomet.vet.Judgement.Kind;

/** Judges when rows of one table are taken for one thing. */
final class AlikeReview {
    private static final int FEW_VALUES = 4;

    private final Table table;
    private final Review review;

    AlikeReview(Table table, Review review) {
        this.table = table;
        this.review = review;
    }

    void judge() {
        table.alike().forEach(this::judge);
    }

    private void judge(Alike rule) {
        List<String> path = Review.path(table.name(), "alike", rule.name());
        if (rule.agree() == 1 && rule.columns().size() > 1) {
            review.warn(
                    Kind.LIKENESS_SAYS_LITTLE,
                    path,
                    "`" + rule.name() + "` takes two rows for one thing when a single one of "
                            + rule.columns().size() + " columns agrees",
                    "let more of them agree");
        }
        for (String name : rule.columns()) {
            Column column = table.column(name);
            boolean isOfFew = column.type().name() == ColumnType.Name.BOOLEAN
                    || (!column.values().isEmpty() && column.values().size() <= FEW_VALUES);
            if (isOfFew) {
                review.warn(
                        Kind.LIKENESS_SAYS_LITTLE,
                        path,
                        "`" + rule.name() + "` compares `" + name
                                + "`, which has so few values that many rows agree in it",
                        "leave it out");
            } else if (table.isOfPrimaryKey(name) && table.namingKey().size() == 1) {
                review.warn(
                        Kind.LIKENESS_SAYS_LITTLE,
                        path,
                        "`" + rule.name() + "` compares `" + name
                                + "`, the primary key: rows that share it are duplicates",
                        "leave it out");
            }
        }
    }
}
