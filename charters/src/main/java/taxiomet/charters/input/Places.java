package taxiomet.charters.input;

import java.util.List;

/** Finds declarations in the file that a charter was read from. */
public interface Places {
    /**
     * The place of a declaration.
     *
     * @param path the keys that lead to it, such as tables, hive, foreign_keys, hive_apiary; where the last of them are
     *     not there, what stands before them is found
     */
    Place of(List<String> path);
}
