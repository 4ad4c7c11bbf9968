package taxiomet.proposal;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;

/** A proposal that cannot be rehearsed: it cannot be read, or does not fit the charter or the rows. */
public final class ProposalException extends RuntimeException {
    private static final long serialVersionUID = 1;

    private final transient List<Fault> faults;

    /**
     * What is wrong.
     *
     * @param place the file and line, or the option
     * @param problem what is wrong there
     * @param remedy what to do about it; may be empty
     */
    public record Fault(String place, String problem, String remedy) {
        @Override
        public String toString() {
            return place + ": " + problem + (remedy.isEmpty() ? "" : "; " + remedy);
        }
    }

    /** @param place the file and line, or the option */
    public ProposalException(String place, String problem, String remedy) {
        this(List.of(new Fault(place, problem, remedy)));
    }

    private ProposalException(List<Fault> faults) {
        super(faults.stream().map(Fault::toString).collect(Collectors.joining("\n")));
        this.faults = List.copyOf(faults);
    }

    /** All that is wrong, as one. */
    public static ProposalException ofAll(List<ProposalException> some) {
        List<Fault> all = new ArrayList<>();
        some.forEach(each -> all.addAll(each.faults()));
        return new ProposalException(all);
    }

    /** At least one. */
    public List<Fault> faults() {
        return faults;
    }
}
