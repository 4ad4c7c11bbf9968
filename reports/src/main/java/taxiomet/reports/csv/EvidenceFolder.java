package taxiomet.reports.csv;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import taxiomet.finding.CheckResult;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.reports.EvidenceFields;
import taxiomet.reports.FileNames;
import taxiomet.reports.OutputException;

/** A folder with a CSV file for each finding, or with a folder of such files for each owner. */
public final class EvidenceFolder {
    /** The folder for rows that nobody owns. */
    public static final String WITHOUT_OWNER = "without owner";

    /** What stands beside the folders of owners, as it is kept for a later comparison. */
    private static final String KEPT = "kept.json.gz";

    private static final int MOST_OWNERS = 10_000;
    /** So many files of owners are kept open at a time. */
    private static final int MOST_OPEN = 128;

    private EvidenceFolder() {}

    /**
     * Names for the files of the findings, each of them different, in the order of the findings.
     *
     * @return such as {@code 03-hive-hive_apiary-orphan.csv}
     */
    public static List<String> fileNames(CheckResult result) {
        List<String> names = new ArrayList<>();
        int digits = Math.max(2, Integer.toString(result.findings().size()).length());
        for (Finding finding : result.findings()) {
            String number = String.format(Locale.ROOT, "%0" + digits + "d", names.size() + 1);
            names.add(number + "-" + FileNames.plain(finding.table()) + "-" + FileNames.plain(finding.at()) + "-"
                    + FileNames.plain(finding.kind().words()) + ".csv");
        }
        return names;
    }

    /**
     * Writes all rows of all findings.
     *
     * @param folder exists
     * @param hasMark whether each file begins with a byte order mark
     * @throws OutputException when a file cannot be written
     */
    public static void write(CheckResult result, Path folder, boolean hasMark) {
        List<String> names = fileNames(result);
        for (int i = 0; i < names.size(); i++) {
            Finding finding = result.findings().get(i);
            if (finding.kind().hasNoRows()) {
                continue;
            }
            Path file = folder.resolve(names.get(i));
            try (FindingRows rows = new FindingRows(file, finding, new EvidenceFields(result, finding), hasMark)) {
                finding.evidence().forEach(row -> rows.write(row, finding));
            } catch (UncheckedIOException e) {
                throw OutputException.of(file.toString(), e.getCause());
            } catch (IOException e) {
                throw OutputException.of(file.toString(), e);
            }
        }
        List<CoverNote.Listed> listed = new ArrayList<>();
        for (int i = 0; i < names.size(); i++) {
            Finding finding = result.findings().get(i);
            if (!finding.kind().hasNoRows()) {
                listed.add(new CoverNote.Listed(names.get(i), finding, finding.rows()));
            }
        }
        CoverNote.write(result, listed, folder);
    }

    /**
     * Writes all rows of all findings, those of each owner into a folder of the owner's name.
     *
     * @param folder exists
     * @param hasMark whether each file begins with a byte order mark
     * @throws OutputException when a file cannot be written, or there are too many owners
     */
    public static void writeByOwner(CheckResult result, Path folder, boolean hasMark) {
        List<String> names = fileNames(result);
        Map<String, String> folders = new HashMap<>();
        Map<String, List<CoverNote.Listed>> listed = new LinkedHashMap<>();
        // The result itself stands beside the folders.
        FileNames different = new FileNames(Set.of("result.json", KEPT, CoverNote.FILE, OwnersCsv.FILE));
        for (int i = 0; i < names.size(); i++) {
            String name = names.get(i);
            if (result.findings().get(i).kind().hasNoRows()) {
                continue;
            }
            try (OwnerFiles files = new OwnerFiles(
                    result,
                    result.findings().get(i),
                    owner -> {
                        String of = folders.computeIfAbsent(
                                owner, o -> different.different(o.isEmpty() ? WITHOUT_OWNER : FileNames.plain(o), ""));
                        return folder.resolve(of).resolve(name);
                    },
                    hasMark)) {
                Finding finding = result.findings().get(i);
                finding.evidence().forEach(files::write);
                files.rows()
                        .forEach((owner, rows) -> listed.computeIfAbsent(folders.get(owner), of -> new ArrayList<>())
                                .add(new CoverNote.Listed(name, finding, rows)));
                if (folders.size() > MOST_OWNERS) {
                    throw new OutputException(
                            folder.toString(),
                            "there are more than " + MOST_OWNERS + " owners",
                            "leave out --per-owner");
                }
            } catch (UncheckedIOException e) {
                throw OutputException.of(folder.toString(), e.getCause());
            }
        }
        listed.forEach((owner, files) -> CoverNote.write(result, files, folder.resolve(owner)));
        try (OwnersCsv owners = new OwnersCsv(folder, hasMark)) {
            folders.entrySet().stream()
                    .sorted(Map.Entry.comparingByValue())
                    .forEach(each -> owners.add(
                            each.getValue(),
                            each.getKey(),
                            listed.get(each.getValue()).stream()
                                    .mapToLong(CoverNote.Listed::rows)
                                    .sum()));
        }
    }

    private interface Places {
        Path of(String owner);
    }

    /** The files of one finding, one for each owner; the rows are buffered for each, and files reopened when there are many. */
    private static final class OwnerFiles implements AutoCloseable {
        private final Finding finding;
        private final EvidenceFields fields;
        private final Places places;
        private final boolean hasMark;
        private final Map<String, FindingRows> open = new LinkedHashMap<>();
        private final Map<String, Long> written = new LinkedHashMap<>();

        OwnerFiles(CheckResult result, Finding finding, Places places, boolean hasMark) {
            this.hasMark = hasMark;
            this.finding = finding;
            this.fields = new EvidenceFields(result, finding);
            this.places = places;
        }

        void write(Evidence row) {
            String owner = fields.table()
                    .ownerColumn()
                    .flatMap(column -> fields.cell(row, column))
                    .or(() -> fields.table().owner())
                    .orElse("");
            FindingRows rows = open.get(owner);
            if (rows == null) {
                if (open.size() >= MOST_OPEN) {
                    String oldest = open.keySet().iterator().next();
                    open.remove(oldest).close();
                }
                rows = open(owner);
            } else {
                open.remove(owner);
            }
            open.put(owner, rows);
            rows.write(row, finding);
            written.merge(owner, 1L, Long::sum);
        }

        /** How many rows each owner has. */
        Map<String, Long> rows() {
            return written;
        }

        private FindingRows open(String owner) {
            try {
                Path file = places.of(owner);
                Files.createDirectories(file.getParent());
                return new FindingRows(file, finding, fields, hasMark);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }

        @Override
        public void close() {
            open.values().forEach(FindingRows::close);
        }
    }
}
