package taxiomet.cli;

import java.util.ArrayList;
import java.util.List;

/** The words that an option can be, as users type them: for help and completion. */
abstract class WordList extends ArrayList<String> {
    private static final long serialVersionUID = 1L;

    WordList(List<String> words) {
        super(words);
    }
}
