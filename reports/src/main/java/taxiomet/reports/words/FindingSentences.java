package taxiomet.reports.words;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.CheckResult.RuleResult;
import taxiomet.finding.CheckResult.TableResult;
import taxiomet.finding.Finding;
import taxiomet.finding.Finding.MissingValue;
import taxiomet.finding.Finding.Reason;
import taxiomet.finding.FindingKind;

/** What there is to say about a finding as a whole, in sentences: once for all reports that people read. */
public final class FindingSentences {
    private static final int VALUES_SHOWN = 3;
    private static final int GAPS_SHOWN = 12;
    private static final int LONGEST_DECLARED = 200;

    private final CheckResult result;

    public FindingSentences(CheckResult result) {
        this.result = result;
    }

    /** The kinds of findings of a table with their rows, in words; empty where there are none. */
    public String kindsOf(TableResult table) {
        TreeMap<FindingKind, Long> kinds = new TreeMap<>();
        result.findings().stream()
                .filter(finding -> finding.table().equals(table.name()))
                .forEach(finding -> kinds.merge(finding.kind(), finding.rows(), Long::sum));
        return kinds.entrySet().stream()
                .map(kind -> kind.getKey().hasNoRows()
                        ? kind.getKey().words()
                        : kind.getKey().words() + " " + Counted.grouped(kind.getValue()))
                .collect(Collectors.joining(", "));
    }

    /** Where in the charter a finding stands. */
    public static String place(Finding finding) {
        boolean isOfTable = finding.kind() == FindingKind.MALFORMED_ROW;
        return CellText.escaped(
                isOfTable
                        ? finding.table()
                        : finding.table().isEmpty() ? finding.at() : finding.table() + "." + finding.at());
    }

    /** How many rows it has; of what has none, where it is declared or how much is missing. */
    public static String rows(Finding finding) {
        if (finding.details() instanceof Finding.Undeclared lost) {
            return CellText.escaped(lost.place());
        } else if (finding.details() instanceof Finding.Gaps gaps) {
            return Counted.of(gaps.missing(), "number") + " in " + Counted.of(gaps.ranges(), "gap");
        }
        return Counted.of(finding.rows(), "row");
    }

    private static String accepted(Finding finding, Finding.Accepting accepting) {
        boolean areAll = accepting.rows() == finding.rows();
        return (areAll ? "accepted" : Counted.grouped(accepting.rows()) + " of them accepted")
                + accepting.until().map(day -> " until " + day).orElse("") + ": "
                + CellText.escaped(accepting.reason());
    }

    /** What there is to say about a finding as a whole. */
    public List<String> of(Finding finding) {
        List<String> sentences = new ArrayList<>();
        finding.accepted().forEach(accepting -> sentences.add(accepted(finding, accepting)));
        Finding.Details details = finding.details();
        if (details instanceof Finding.Missing missing) {
            sentences.add(linkSentence(finding, missing));
            sentences.add(missingSentence(finding, missing));
            missing.consequences().forEach(consequence -> sentences.add(consequenceSentence(consequence)));
        } else if (details instanceof Finding.Duplicates duplicates) {
            sentences.add("(" + String.join(", ", finding.columns()) + "): " + Counted.of(duplicates.groups(), "value")
                    + (duplicates.groups() == 1 ? " stands" : " stand") + " more than once, "
                    + Counted.of(duplicates.excess(), "row") + " beyond the first");
        } else if (details instanceof Finding.LikelyDoubles doubles) {
            sentences.add(CellText.escaped(doubles.rule()));
            sentences.add(Counted.of(doubles.pairs(), "pair") + (doubles.pairs() == 1 ? " is" : " are")
                    + " alike: probably " + Counted.of(doubles.groups(), "thing") + " entered more than once");
        } else if (details instanceof Finding.Rings rings) {
            sentences.add(Counted.of(rings.rings(), "ring") + " over (" + String.join(", ", finding.columns())
                    + "): whoever follows the link from such a row comes back to it");
        } else if (details instanceof Finding.Children children) {
            sentences.add("each row should have " + wanted(children.range()) + " in " + children.child() + " (link "
                    + children.link() + ")");
        } else if (details instanceof Finding.Undeclared lost) {
            sentences.add("a " + lost.what() + " is left out: "
                    + CellText.escaped(CellText.cut(lost.declared(), LONGEST_DECLARED)));
            sentences.add(CellText.escaped(lost.problem()));
        } else if (details instanceof Finding.Gaps gaps) {
            sentences.add("no row has "
                    + gaps.first().stream()
                            .limit(GAPS_SHOWN)
                            .map(gap -> gap.from() == gap.to()
                                    ? String.valueOf(gap.from())
                                    : gap.from() + " to " + gap.to())
                            .collect(Collectors.joining(", "))
                    + (gaps.ranges() > GAPS_SHOWN ? ", ..." : ""));
        } else if (details instanceof Finding.Broken broken) {
            sentences.add(CellText.escaped(broken.condition()));
            ruleSentence(finding).ifPresent(sentences::add);
        } else if (details instanceof Finding.Reasons reasons) {
            if (!reasons.declared().isEmpty()) {
                sentences.add("declared: " + CellText.escaped(CellText.cut(reasons.declared(), LONGEST_DECLARED)));
            }
            if (reasons.reasons().size() > 1) {
                sentences.add(reasons.reasons().stream()
                        .limit(VALUES_SHOWN)
                        .map(FindingSentences::counted)
                        .collect(Collectors.joining("; ")));
            }
        }
        return sentences;
    }

    /** How many children there should be, in words. */
    private static String wanted(String range) {
        int dots = range.indexOf("..");
        String least = dots < 0 ? range : range.substring(0, dots);
        String most = dots < 0 ? range : range.substring(dots + 2);
        String children = (most.isEmpty() ? least : most).equals("1") ? " child" : " children";
        if (most.isEmpty()) {
            return "at least " + least + children;
        } else if (least.equals(most)) {
            return "exactly " + most + children;
        }
        return least.equals("0") ? "at most " + most + children : least + " to " + most + children;
    }

    private static String counted(Reason reason) {
        return Counted.of(reason.rows(), "row") + ": " + reason.words();
    }

    private Optional<String> ruleSentence(Finding finding) {
        return result.rules().stream()
                .filter(rule ->
                        rule.table().equals(finding.table()) && rule.name().equals(finding.at()))
                .filter(rule -> rule.notJudged() > 0)
                .findFirst()
                .map((RuleResult rule) -> Counted.of(rule.notJudged(), "row")
                        + (rule.notJudged() == 1 ? " was" : " were") + " not judged: a value "
                        + (rule.asksChildren() ? "of theirs or of their children " : "") + "is not of its type"
                        + (rule.asksParents() ? ", or there is no parent" : ""));
    }

    private String linkSentence(Finding finding, Finding.Missing missing) {
        LinkResult link = result.links().stream()
                .filter(l -> l.child().equals(finding.table()) && l.name().equals(missing.link()))
                .findFirst()
                .orElseThrow();
        List<String> asides = new ArrayList<>();
        if (link.nulls() > 0) {
            asides.add(Counted.grouped(link.nulls()) + " null");
        }
        if (link.halfNulls() > 0) {
            asides.add(Counted.grouped(link.halfNulls()) + " half-null");
        }
        if (link.illTyped() > 0) {
            asides.add(Counted.grouped(link.illTyped()) + " ill-typed");
        }
        return "(" + String.join(", ", link.columns()) + ") points at " + link.parent() + " ("
                + String.join(", ", link.parentColumns()) + "): " + Counted.grouped(link.orphans()) + " of "
                + Counted.grouped(link.judged()) + " judged " + (link.judged() == 1 ? "row" : "rows")
                + (link.orphans() == 1 ? " has" : " have")
                + " no parent"
                + (asides.isEmpty() ? "" : "; " + String.join(", ", asides));
    }

    private static String missingSentence(Finding finding, Finding.Missing missing) {
        String values = missing.commonest().stream()
                .limit(VALUES_SHOWN)
                .map(value -> shown(value) + (value.rows() == 1 ? "" : " (" + Counted.of(value.rows(), "row") + ")"))
                .collect(Collectors.joining(", "));
        if (missing.distinct() == 1) {
            return finding.rows() == 1 ? "missing: " + values : "one value explains them all: " + values;
        }
        String all = Counted.of(missing.distinct(), "value") + " missing";
        return all + (missing.distinct() > VALUES_SHOWN ? ", the commonest " : ": ") + values;
    }

    private static String consequenceSentence(Finding.Consequence consequence) {
        String rows = Counted.of(consequence.rows(), "row") + (consequence.rows() == 1 ? " bears" : " bear")
                + " the key of a row of " + CellText.escaped(consequence.table()) + " that ";
        return rows
                + switch (consequence.kind()) {
                    case MALFORMED_ROW -> "is malformed";
                    case NULL_IN_KEY -> "has a null in it";
                    default -> "has it otherwise than its type asks";
                }
                + (consequence.rows() == 1 ? ": it follows from that" : ": they follow from that");
    }

    private static String shown(MissingValue value) {
        String cells = value.values().stream().map(CellText::of).collect(Collectors.joining(", "));
        return value.values().size() == 1 ? cells : "(" + cells + ")";
    }
}
