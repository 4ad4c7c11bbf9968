package taxiomet.finding.settled;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.finding.FindingKind;

/**
 * Faulty rows laid out for the people who decide about them. What is shown is told as everywhere: personal values as pseudonyms unless they
 * are revealed; what a choice would do holds the values themselves.
 *
 * @param title what the charter is called
 * @param items finding by finding, rows as they stand
 */
public record Docket(String title, List<Item> items) {
    public Docket {
        items = List.copyOf(items);
    }

    /**
     * One row of one finding.
     *
     * @param reference stands for the finding and the row, and behind a hyphen for all that the row holds
     * @param ownersReference the same as it stands in a docket that is made for its owner alone: one is not made of the other without the key
     * @param columns those in which the fault stands
     * @param place where the row stands, to be found again
     * @param name how the row is called: its key and its label
     * @param holds what stands in the columns at fault
     * @param problem what is wrong, in words
     * @param owner who decides about it; empty where nobody does
     * @param cells all of its cells, null for null; none for one that cannot be taken apart
     * @param hasProposal whether the first choice is proposed
     * @param choices what can be decided
     */
    public record Item(
            String reference,
            String ownersReference,
            FindingKind kind,
            String table,
            String at,
            List<String> columns,
            Place place,
            String name,
            String holds,
            String problem,
            Optional<String> owner,
            Map<String, String> cells,
            boolean hasProposal,
            List<Choice> choices) {
        public Item {
            columns = List.copyOf(columns);
            choices = List.copyOf(choices);
            cells = Collections.unmodifiableMap(new LinkedHashMap<>(cells));
        }

        /** The item as it stands in a docket that is made for its owner alone. */
        public Item forItsOwner() {
            return new Item(
                    ownersReference,
                    ownersReference,
                    kind,
                    table,
                    at,
                    columns,
                    place,
                    name,
                    holds,
                    problem,
                    owner,
                    cells,
                    hasProposal,
                    choices);
        }
    }

    /**
     * Where a row stands.
     *
     * @param part its file
     * @param row its number in it
     * @param key what stands in the columns that name it, null for null
     */
    public record Place(String part, long row, Map<String, String> key) {
        public Place {
            key = Collections.unmodifiableMap(new LinkedHashMap<>(key));
        }
    }

    /** What can be decided, in words that no other choice of the item has. */
    public record Choice(String words, Deed deed) {}

    /** What a decision does. */
    public sealed interface Deed {
        /** Other values, null for null. */
        record Write(Map<String, String> cells) implements Deed {
            public Write {
                cells = Collections.unmodifiableMap(new LinkedHashMap<>(cells));
            }
        }

        /** Another value that whoever decides writes down. */
        record WriteGiven(String column) implements Deed {}

        /** The parent that is missing, with its key alone. */
        record CreateParent(String table, Map<String, String> key) implements Deed {
            public CreateParent {
                key = Collections.unmodifiableMap(new LinkedHashMap<>(key));
            }
        }

        /** The end of the row. */
        record Delete() implements Deed {}

        /** The row is another one: what points at it shall point there. */
        record Merge(List<String> goes, List<String> stays) implements Deed {
            public Merge {
                goes = List.copyOf(goes);
                stays = List.copyOf(stays);
            }
        }

        /** The fault is borne for a while. */
        record Bear() implements Deed {}

        /**
         * The row and those that it is like are different things, for good.
         *
         * @param keys of the row, and of another that is like this one alone
         */
        record Apart(List<List<String>> keys) implements Deed {
            public Apart {
                keys = keys.stream().map(List::copyOf).toList();
            }
        }

        /** It is mended where the row comes from. */
        record Elsewhere() implements Deed {}
    }
}
