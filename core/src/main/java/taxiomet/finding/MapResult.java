package taxiomet.finding;

import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;

/**
 * The tables of a charter and the links between them, to be drawn.
 *
 * @param title what the charter is called
 * @param tables as declared
 * @param links in the order declared, those between the tables shown
 * @param left how many tables are left out, since a part was asked for
 */
public record MapResult(String title, List<MapTable> tables, List<MapLink> links, int left) {
    public MapResult {
        tables = List.copyOf(tables);
        links = List.copyOf(links);
    }

    /**
     * One table.
     *
     * @param area the lane that it stands in
     * @param label the columns that name a row to a person
     * @param rows how many it has, where they were counted
     * @param health what a check found, where one was asked
     */
    public record MapTable(
            String name,
            Optional<String> area,
            List<String> label,
            List<MapColumn> columns,
            OptionalLong rows,
            Optional<Health> health) {
        public MapTable {
            label = List.copyOf(label);
            columns = List.copyOf(columns);
        }
    }

    /**
     * One column.
     *
     * @param type as SQL has it
     * @param keys the keys that it is part of, by name
     * @param isOfLink whether a link starts from it
     */
    public record MapColumn(
            String name, String type, boolean isOfPrimaryKey, List<String> keys, boolean isRequired, boolean isOfLink) {
        public MapColumn {
            keys = List.copyOf(keys);
        }
    }

    /**
     * One link.
     *
     * @param parents how many parents a child has, in words
     * @param children how many children a parent has, in words
     * @param onDelete what deleting a parent does, in words
     * @param sentence what the link means
     * @param health what a check found, where one was asked
     */
    public record MapLink(
            String name,
            String child,
            List<String> columns,
            String parent,
            List<String> parentColumns,
            String parents,
            String children,
            String onDelete,
            String sentence,
            boolean isEnforced,
            Optional<Health> health) {
        public MapLink {
            columns = List.copyOf(columns);
            parentColumns = List.copyOf(parentColumns);
        }
    }

    /**
     * How it stands with a table's rows, or with those that a link is about.
     *
     * @param rows all rows of the table, or those judged over the link
     * @param faulty those at fault; of a link those without a parent
     * @param findings the kinds of findings there, with their rows, as words
     */
    public record Health(long rows, long faulty, List<String> findings) {
        public Health {
            findings = List.copyOf(findings);
        }

        /** Whether nothing was found that is an error or a warning. */
        public boolean isSound() {
            return findings.isEmpty();
        }
    }
}
