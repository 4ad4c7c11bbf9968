package taxiomet.charter.place;

import java.util.Arrays;
import java.util.List;

/** JSON Pointers (RFC 6901) by the fields that they lead through. */
public final class FieldPointer {
    private FieldPointer() {}

    /** The pointer to a field at the top; behind another pointer, to a field of what that leads to. */
    public static String to(String field) {
        return "/" + field.replace("~", "~0").replace("/", "~1");
    }

    /** The fields that a pointer leads through; none for the empty one. */
    public static List<String> steps(String pointer) {
        if (pointer.isEmpty()) {
            return List.of();
        }
        return Arrays.stream(pointer.substring(1).split("/", -1))
                .map(step -> step.replace("~1", "/").replace("~0", "~"))
                .toList();
    }
}
