package taxiomet.cli.output;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import taxiomet.cli.terminal.UsageException;
import taxiomet.finding.settled.Docket;
import taxiomet.finding.settled.Docket.Item;
import taxiomet.reports.FileNames;
import taxiomet.reports.OutputException;
import taxiomet.reports.WholeOutput;
import taxiomet.reports.csv.DocketCsv;
import taxiomet.reports.csv.EvidenceFolder;
import taxiomet.reports.csv.OwnersCsv;
import taxiomet.reports.words.Counted;
import taxiomet.reports.xlsx.DocketWorkbook;

/** The folder that {@code --into} names for a docket: a workbook and a CSV file, of all or for each owner. */
public final class DocketFolder {
    private static final String ALL = "docket";
    private static final int MOST_OWNERS = 5_000;

    private final Path folder;

    public DocketFolder(Path folder) {
        this.folder = folder;
    }

    /** Refuses, before anything is read, what could not be written afterwards. */
    public void requireFree(Outputs outputs) {
        OutputFolder.requireFree(outputs, "--into", folder, "dockets");
    }

    /**
     * Writes the folder, whole or not at all.
     *
     * @return what was written, in words
     */
    public String write(Docket docket, boolean isPerOwner, boolean hasMark) {
        Map<String, List<Item>> byOwner = isPerOwner
                ? docket.items().stream()
                        .collect(Collectors.groupingBy(
                                item -> item.owner().orElse(""), TreeMap::new, Collectors.toList()))
                : Map.of("", docket.items());
        if (byOwner.size() > MOST_OWNERS) {
            throw new UsageException("there are more than " + Counted.grouped(MOST_OWNERS)
                    + " owners; leave out --per-owner, or name tables with --only");
        }
        FileNames names = new FileNames(Set.of(OwnersCsv.FILE));
        String others;
        try (WholeOutput output = new WholeOutput(folder)) {
            Files.createDirectory(output.draft());
            Optional<OwnersCsv> owners =
                    isPerOwner ? Optional.of(new OwnersCsv(output.draft(), hasMark)) : Optional.empty();
            for (Map.Entry<String, List<Item>> each : byOwner.entrySet()) {
                Docket own = new Docket(
                        docket.title(),
                        isPerOwner
                                ? each.getValue().stream()
                                        .map(Item::forItsOwner)
                                        .toList()
                                : each.getValue());
                String plain = !isPerOwner
                        ? ALL
                        : each.getKey().isEmpty() ? EvidenceFolder.WITHOUT_OWNER : FileNames.plain(each.getKey());
                String name = names.different(plain, "");
                DocketWorkbook.write(own, each.getKey(), output.draft().resolve(name + ".docket.xlsx"));
                DocketCsv.write(own, output.draft().resolve(name + ".docket.csv"), hasMark);
                owners.ifPresent(list ->
                        list.add(name + ".docket", each.getKey(), own.items().size()));
            }
            owners.ifPresent(OwnersCsv::close);
            others = OutputFolder.complete(output);
        } catch (IOException e) {
            throw OutputException.of(folder.toString(), e);
        }
        return folder + " (" + Counted.of(byOwner.size(), "docket") + ", each as .xlsx and .csv"
                + (isPerOwner ? ", and " + OwnersCsv.FILE : "") + ")" + others;
    }
}
