package taxiomet.browse;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.charter.Table;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyForm;
import taxiomet.work.Secret;

/**
 * The ways in which a child can agree with its parent over one link: in all columns, and where the match is partial in any of them, the
 * others being null in the child.
 */
final class LinkParts {
    /**
     * Some columns of a link.
     *
     * @param places of them in the link, 0 for its first column
     * @param open places of the child's other columns in its table
     */
    @SuppressWarnings("ArrayRecordComponent")
    record Part(int[] places, int[] open, KeyEncoder child, KeyEncoder parent) {}

    private LinkParts() {}

    /** The parts, that of all columns first. */
    static List<Part> of(Charter charter, ForeignKey link, Secret secret) {
        Table child = charter.table(link.child());
        Table parent = charter.table(link.parent());
        List<KeyForm> forms = KeyForm.of(child, parent, link);
        int all = (1 << forms.size()) - 1;
        List<Part> parts = new ArrayList<>();
        for (int bits = all; bits > 0 && (bits == all || link.match() == Match.PARTIAL); bits--) {
            int chosen = bits;
            int[] places = IntStream.range(0, forms.size())
                    .filter(i -> (chosen >> i & 1) == 1)
                    .toArray();
            int[] open = IntStream.range(0, forms.size())
                    .filter(i -> (chosen >> i & 1) == 0)
                    .toArray();
            List<KeyForm> some = Arrays.stream(places).mapToObj(forms::get).toList();
            parts.add(new Part(
                    places,
                    picked(child.indexesOf(link.columns()), open),
                    new KeyEncoder(picked(child.indexesOf(link.columns()), places), some, secret),
                    new KeyEncoder(picked(parent.indexesOf(link.parentColumns()), places), some, secret)));
        }
        return parts;
    }

    private static int[] picked(int[] all, int[] places) {
        return Arrays.stream(places).map(place -> all[place]).toArray();
    }
}
