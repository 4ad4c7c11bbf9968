package taxiomet.rehearse.result;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.finding.RehearsalResult;
import taxiomet.finding.RehearsalResult.ChangeResult;
import taxiomet.finding.RehearsalResult.Divergence;
import taxiomet.finding.RehearsalResult.EffectCount;
import taxiomet.finding.RehearsalResult.EffectKind;
import taxiomet.finding.RehearsalResult.FindingChange;
import taxiomet.finding.RehearsalResult.LinkActions;
import taxiomet.finding.RehearsalResult.RefusalResult;
import taxiomet.finding.RehearsalResult.TableChange;
import taxiomet.finding.RehearsalResult.TableCount;
import taxiomet.proposal.Change;
import taxiomet.proposal.Proposal;
import taxiomet.rehearse.reach.Effect;
import taxiomet.rehearse.reach.ReachedLink;
import taxiomet.rehearse.reach.ReachedRow;
import taxiomet.rehearse.reach.ReachedRows;
import taxiomet.rehearse.reach.ReachedTable;
import taxiomet.rehearse.reach.RowGatherer;
import taxiomet.rehearse.replay.ChangeOutcome;
import taxiomet.rehearse.replay.Refusals;

/** Turns what became of the changes into a result: counts, sums, and a few rows of each kind by name. */
public final class ResultBuilder {
    /** Beyond so many steps the steps are counted together. */
    private static final int FARTHEST = 9;

    private final Charter charter;
    private final Proposal proposal;
    private final String behaviour;
    private final int examples;
    private final ReachedRows rows;
    private final RowNames names;
    private final TotalsAtStake totals;
    private List<Divergence> elsewhere = List.of();
    private List<FindingChange> added = List.of();
    private List<FindingChange> mended = List.of();
    private final Map<Integer, Integer> passesAfter = new HashMap<>();

    /** @param behaviour whose behaviour was followed, as results name it */
    public ResultBuilder(
            Charter charter,
            Proposal proposal,
            String behaviour,
            int examples,
            ReachedRows rows,
            RowNames names,
            RowGatherer gatherer) {
        this.charter = charter;
        this.proposal = proposal;
        this.behaviour = behaviour;
        this.examples = examples;
        this.rows = rows;
        this.names = names;
        this.totals = new TotalsAtStake(gatherer);
    }

    /** Says where it would end otherwise. */
    public void setElsewhere(List<Divergence> divergences) {
        elsewhere = divergences;
    }

    void setFindings(List<FindingChange> newAdded, List<FindingChange> newMended) {
        added = newAdded;
        mended = newMended;
    }

    /** Says that a refused change would pass if a later one came first; both from 0. */
    public void setPassesAfter(int change, int later) {
        passesAfter.put(change, later + 1);
    }

    /** The result of what became of each change, and of the end behind the last. */
    public RehearsalResult build(List<ChangeOutcome> outcomes) {
        ChangeOutcome end = outcomes.get(outcomes.size() - 1);
        List<ChangeResult> changes = new ArrayList<>();
        Set<ReachedLink> met = new LinkedHashSet<>();
        for (int i = 0; i < outcomes.size() - 1; i++) {
            ChangeOutcome outcome = outcomes.get(i);
            changes.add(change(outcome, passesAfter.getOrDefault(i, 0)));
            addLinksMet(outcome, met);
        }
        addLinksMet(end, met);
        return new RehearsalResult(
                charter.name(),
                behaviour,
                proposal.now().toString(),
                rows.links().stream()
                        .filter(met::contains)
                        .map(ResultBuilder::actions)
                        .toList(),
                changes,
                refusals(end),
                end.isUndone(),
                tables(),
                added,
                mended,
                elsewhere,
                charter.notRead());
    }

    private void addLinksMet(ChangeOutcome outcome, Set<ReachedLink> met) {
        Set<ReachedTable> touched = new LinkedHashSet<>();
        for (Effect effect : outcome.effects()) {
            touched.add(effect.row().table);
            if (effect.link() != null) {
                met.add(effect.link());
            }
        }
        for (ReachedLink link : rows.links()) {
            if (touched.contains(link.parent)) {
                met.add(link);
            }
        }
    }

    private static LinkActions actions(ReachedLink link) {
        return new LinkActions(
                link.link.name(),
                link.link.child(),
                link.link.parent(),
                words(link.link.onDelete()),
                words(link.link.onUpdate()),
                link.link.isEnforced());
    }

    private static String words(Action action) {
        return action.columns().isEmpty()
                ? action.name().sql()
                : action.name().sql() + " (" + String.join(", ", action.columns()) + ")";
    }

    private ChangeResult change(ChangeOutcome outcome, int after) {
        List<Effect> effects = lasting(outcome.effects());
        return new ChangeResult(
                outcome.change().origin().words(),
                outcome.change().origin().place(),
                outcome.isAccepted(),
                outcome.direct(),
                outcome.direct() == 0 && !(outcome.change() instanceof Change.Insert),
                tables(effects),
                counts(effects),
                totals.of(effects),
                refusals(outcome),
                after,
                outcome.keptByTwins().stream().distinct().count());
    }

    /** The effects without those on rows that the same change deletes in the end. */
    private static List<Effect> lasting(List<Effect> effects) {
        boolean isMixed = effects.stream().map(Effect::kind).distinct().count() > 1;
        if (!isMixed) {
            return effects;
        }
        Set<ReachedRow> deleted = new HashSet<>();
        for (Effect effect : effects) {
            if (effect.kind() == EffectKind.DELETED) {
                deleted.add(effect.row());
            }
        }
        return effects.stream()
                .filter(effect -> effect.kind() == EffectKind.DELETED || !deleted.contains(effect.row()))
                .toList();
    }

    /** How many rows the effects of a change delete, change and insert, each row once. */
    private static List<TableCount> tables(List<Effect> effects) {
        Map<ReachedTable, Map<ReachedRow, EffectKind>> kinds = new LinkedHashMap<>();
        for (Effect effect : effects) {
            kinds.computeIfAbsent(effect.row().table, table -> new LinkedHashMap<>())
                    .merge(effect.row(), effect.kind(), (first, later) -> first == EffectKind.INSERTED ? first : later);
        }
        List<TableCount> counts = new ArrayList<>();
        kinds.forEach((table, rows) -> {
            long deleted =
                    rows.values().stream().filter(EffectKind.DELETED::equals).count();
            long inserted =
                    rows.values().stream().filter(EffectKind.INSERTED::equals).count();
            counts.add(new TableCount(table.table().name(), deleted, rows.size() - deleted - inserted, inserted));
        });
        return counts;
    }

    /** Effects that are counted together. */
    private record Group(ReachedTable table, EffectKind kind, ReachedLink link, int steps) {}

    private static final class Count {
        private long writes;
        private int farthest;
        private final Set<ReachedRow> rows = new HashSet<>();
        private final Map<ReachedRow, Effect> examples = new LinkedHashMap<>();
    }

    private List<EffectCount> counts(List<Effect> effects) {
        Map<Group, Count> counts = new LinkedHashMap<>();
        for (Effect effect : effects) {
            Group group =
                    new Group(effect.row().table, effect.kind(), effect.link(), Math.min(effect.steps(), FARTHEST));
            Count count = counts.computeIfAbsent(group, g -> new Count());
            count.writes++;
            count.rows.add(effect.row());
            count.farthest = Math.max(count.farthest, effect.steps());
            if (count.examples.size() < examples || count.examples.containsKey(effect.row())) {
                count.examples.merge(effect.row(), effect, ResultBuilder::both);
            }
        }
        Comparator<Map.Entry<Group, Count>> order =
                Comparator.comparingInt(entry -> entry.getKey().steps());
        return counts.entrySet().stream()
                .sorted(order.thenComparingInt(entry -> entry.getKey().table().place))
                .map(entry -> effectCount(entry.getKey(), entry.getValue()))
                .toList();
    }

    private EffectCount effectCount(Group group, Count count) {
        List<ReachedRow> examples = inOrder(count.examples.keySet());
        return new EffectCount(
                group.table().table().name(),
                group.kind(),
                Optional.ofNullable(group.link()).map(link -> link.link.name()),
                group.steps(),
                count.farthest,
                count.rows.size(),
                count.writes,
                names.of(examples),
                examples.stream()
                        .map(row -> CellsOf.effect(count.examples.get(row)))
                        .toList());
    }

    /** A row written twice: from what it was to what it is. */
    private static Effect both(Effect first, Effect later) {
        return new Effect(
                first.row(), first.kind(), first.link(), first.steps(), first.cause(), first.before(), later.after());
    }

    private static List<ReachedRow> inOrder(Collection<ReachedRow> some) {
        return some.stream().sorted(Comparator.comparingLong(row -> row.ref)).toList();
    }

    private List<RefusalResult> refusals(ChangeOutcome outcome) {
        List<RefusalResult> results = new ArrayList<>();
        boolean isOfKey = outcome.change() != null && Change.changesKeys(outcome.change());
        outcome.refusals().all().forEach((rule, refused) -> {
            List<ReachedRow> first = refused.stream().limit(examples).toList();
            results.add(new RefusalResult(
                    rule.kind(),
                    rule.table().table().name(),
                    rule.name(),
                    refused.size(),
                    names.of(first),
                    totals.owed(rule, refused),
                    isOfKey,
                    remedy(rule, outcome.change())));
        });
        return results;
    }

    private static String remedy(Refusals.Rule rule, Change change) {
        String table = rule.table().table().name();
        return switch (rule.kind()) {
            case STILL_REFERENCED -> {
                if (change instanceof Change.Renumber) {
                    yield "point these rows of " + table + " elsewhere first";
                }
                yield change != null && Change.changesKeys(change)
                        ? "propose a renumbering (do: renumber), which takes these rows of " + table
                                + " along, or declare on_update: cascade"
                        : "delete these rows of " + table + " first, or point them elsewhere";
            }
            case NO_PARENT -> "insert the parent first, or give these rows of " + table + " one that is there";
            case KEY_TAKEN -> "give these rows of " + table + " another key, or free the key first";
            case NULL_NOT_ALLOWED -> "give these rows of " + table + " a value first, or move them elsewhere";
            case HALF_NULL_LINK -> "set all columns of the link, or none";
            case NOT_COMBINED ->
                "say under `combine` how rows of " + table + " become one, or decide about these by hand first";
            case TWO_VALUES -> "let only one of the links write the column";
            case GENERATED_ALWAYS -> "leave the column out";
            default -> "";
        };
    }

    private List<TableChange> tables() {
        List<TableChange> changes = new ArrayList<>();
        for (ReachedTable table : rows.tables()) {
            long deleted = 0;
            long changed = 0;
            for (ReachedRow row : table.rows.inOrder()) {
                if (row.isGone) {
                    deleted++;
                } else if (row.isChanged()) {
                    changed++;
                }
            }
            long made = table.newRows().stream().filter(row -> !row.isGone).count();
            if (deleted + changed + made > 0) {
                long before = table.rowsAsRead();
                changes.add(
                        new TableChange(table.table().name(), before, before - deleted + made, deleted, changed, made));
            }
        }
        return changes;
    }
}
