package taxiomet.cli.option;

import java.util.ArrayList;
import java.util.List;

/** The words that an option can be, as users type them: for help and completion. */
public abstract class WordList extends ArrayList<String> {
    private static final long serialVersionUID = 1L;

    public WordList(List<String> words) {
        super(words);
    }
}
