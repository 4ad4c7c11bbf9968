package taxiomet.charters.yaml;

import java.util.List;
import java.util.Optional;
import taxiomet.charters.input.Place;
import taxiomet.charters.input.Places;
import taxiomet.charters.yaml.Node.Entry;
import taxiomet.charters.yaml.Node.MapNode;

/** Places in a document of keys and values: each declaration stands where its key does. */
record NodePlaces(String file, MapNode root) implements Places {
    @Override
    public Place of(List<String> path) {
        Node here = root;
        Place place = new Place(file, root.line(), root.column());
        for (String key : path) {
            Optional<Entry> entry = here instanceof MapNode map
                    ? map.entries().stream()
                            .filter(e -> e.key().text().equals(key))
                            .findFirst()
                    : Optional.empty();
            if (entry.isEmpty()) {
                break;
            }
            place = new Place(file, entry.get().key().line(), entry.get().key().column());
            here = entry.get().value();
        }
        return place;
    }
}
