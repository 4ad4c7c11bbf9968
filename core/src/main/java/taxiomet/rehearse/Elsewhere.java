package taxiomet.rehearse;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.Server;
import taxiomet.finding.RehearsalResult.Divergence;
import taxiomet.proposal.Proposal;
import taxiomet.proposal.ProposalException;
import taxiomet.rehearse.reach.ReachedLink;
import taxiomet.rehearse.reach.ReachedRow;
import taxiomet.rehearse.reach.ReachedRows;
import taxiomet.rehearse.replay.ChangeOutcome;
import taxiomet.rehearse.replay.Refusals;
import taxiomet.rehearse.result.EndState;
import taxiomet.rehearse.result.ResultBuilder;
import taxiomet.rehearse.result.RowNames;

/** Replays a proposal as others would carry it out, and tells where it ends differently. */
final class Elsewhere {
    /** In the order in which results name them. */
    private static final List<Server> ALL = List.of(Server.STANDARD, Server.POSTGRESQL, Server.SQLITE, Server.MARIADB);

    private final RehearsalRun run;
    private final RehearsalOptions options;
    private final Proposal proposal;
    private final ReachedRows rows;
    private final RowNames names;
    private final List<Divergence> divergences = new ArrayList<>();

    Elsewhere(RehearsalRun run, RehearsalOptions options, Proposal proposal, ReachedRows rows, RowNames names) {
        this.run = run;
        this.options = options;
        this.proposal = proposal;
        this.rows = rows;
        this.names = names;
    }

    /** Behind the rehearsal itself: the rows stand as it left them. */
    void look(List<ChangeOutcome> own, ResultBuilder builder) {
        if (!rows.charter().withComparableLinks().equals(rows.charter())) {
            // Nobody else has such links.
            return;
        }
        EndState ownEnd = new EndState(rows);
        List<ReachedLink> reversed = new ArrayList<>(rows.links());
        Collections.reverse(reversed);
        for (Server behaviour : ALL) {
            if (behaviour != options.behaviour()) {
                compare(own, ownEnd, behaviour, rows.links());
            }
        }
        if (options.behaviour() == Server.POSTGRESQL || options.behaviour() == Server.SQLITE) {
            compare(own, ownEnd, options.behaviour(), reversed);
        }
        ownEnd.forget();
        builder.setElsewhere(divergences);
    }

    private void compare(List<ChangeOutcome> own, EndState ownEnd, Server behaviour, List<ReachedLink> order) {
        boolean isReordered = !order.equals(rows.links());
        String where = behaviour.title() + (isReordered ? ", were the links declared the other way round," : "");
        List<ChangeOutcome> there;
        try {
            there = run.replay(behaviour, order, proposal);
        } catch (ProposalException e) {
            divergences.add(new Divergence(where, "cannot be rehearsed: " + e.getMessage(), 0, List.of()));
            return;
        }
        List<ReachedRow> different = ownEnd.differences(rows);
        List<String> words = new ArrayList<>();
        for (int i = 0; i < own.size(); i++) {
            if (own.get(i).isAccepted() != there.get(i).isAccepted()) {
                words.add(words(i, own.size() - 1, there.get(i), behaviour, order));
            }
        }
        if (words.isEmpty() && different.isEmpty()) {
            return;
        }
        if (words.isEmpty()) {
            words.add("ends with other rows");
        }
        divergences.add(new Divergence(
                where,
                String.join("; ", words),
                different.size(),
                names.of(different.subList(0, Math.min(options.examples(), different.size())))));
    }

    private String words(int place, int end, ChangeOutcome there, Server behaviour, List<ReachedLink> order) {
        String what = place == end ? "the whole at its end" : end == 1 ? "the change" : "change " + (place + 1);
        if (there.isAccepted()) {
            return "accepts " + what;
        }
        Refusals.Rule rule = there.refusals().first();
        return "refuses " + what + ": " + rule.kind().words() + " (" + rule.name() + ")"
                + because(place, rule, there, behaviour, order)
                        .map(why -> ", because " + why)
                        .orElse("");
    }

    /** Whether the order of the links decides: with the refusing link declared last, it passes. */
    private Optional<String> because(
            int place, Refusals.Rule rule, ChangeOutcome refused, Server behaviour, List<ReachedLink> order) {
        Optional<ReachedLink> refusing = order.stream()
                .filter(link -> link.child == rule.table() && link.link.name().equals(rule.name()))
                .findFirst();
        if (behaviour != Server.POSTGRESQL || refusing.isEmpty()) {
            return Optional.empty();
        }
        Set<ReachedRow> blocking = new HashSet<>(refused.refusals().all().get(rule));
        List<ReachedLink> moved = new ArrayList<>(order);
        moved.remove(refusing.get());
        moved.add(refusing.get());
        List<ChangeOutcome> then = run.replay(behaviour, moved, proposal);
        if (!then.get(place).isAccepted()) {
            return Optional.empty();
        }
        return then.get(place).effects().stream()
                .filter(effect -> blocking.contains(effect.row()) && effect.link() != null)
                .findFirst()
                .map(effect -> "the link " + rule.name() + " is declared before "
                        + effect.link().link.name() + ", by which the rows would go");
    }
}
