package taxiomet.sources;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.PathMatcher;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import taxiomet.charter.place.DatabaseAddress;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.charter.place.JsonItems;
import taxiomet.charter.place.JsonLines;
import taxiomet.charter.place.ParquetRows;
import taxiomet.charter.place.RowsPlace;
import taxiomet.charter.place.SheetRows;
import taxiomet.charter.place.SqliteRows;
import taxiomet.rows.SourceException;
import taxiomet.sources.csv.Sniffer;
import taxiomet.sources.file.Sniffed;
import taxiomet.sources.json.FieldSniffer;
import taxiomet.sources.json.ListSniffer;
import taxiomet.sources.json.ListSniffer.FoundList;
import taxiomet.sources.parquet.ParquetSource;
import taxiomet.sources.sheet.SheetSource;
import taxiomet.sources.sqlite.SqliteCatalogue;
import taxiomet.survey.profile.FoundTable;

/** Finds the tables in folders and files of which nothing is declared. */
public final class DataFiles {
    private static final Pattern DATA = Pattern.compile(
            "(.+?)\\.(?:csv|tsv|tab|psv|txt|jsonl|ndjson|json|parquet|parq)(?:\\.gz|\\.zst|\\.zip)?",
            Pattern.CASE_INSENSITIVE);
    /** A name with a number or a date at its end, as parts of one table have. */
    private static final Pattern PART = Pattern.compile("(.*?[^0-9_.-])[_.-]?[0-9][0-9_.-]*");

    /** In so many bytes metadata has said what it is. */
    private static final int MOST_OF_CONTEXT = 1 << 14;

    private DataFiles() {}

    /**
     * The tables, in the order named and then of their files' names. Files with the same columns whose names differ in a number
     * at the end alone are one table in parts.
     *
     * @param places folders, whose files are taken, and files
     * @throws SourceException when a place is not there, or there is no table in any of them
     */
    public static Found find(List<Path> places, Optional<Character> delimiter, Optional<String> encoding) {
        List<Path> files = new ArrayList<>();
        List<String> passedOver = new ArrayList<>();
        places.forEach(place -> files.addAll(filesOf(place, passedOver)));
        if (files.isEmpty()) {
            throw new SourceException(
                    places.get(0).toString(),
                    "there is no table in it",
                    "name a folder or files that end in .csv, .tsv, .txt, .json, .jsonl, .parquet, .xlsx, .ods or .sqlite");
        }
        Map<String, List<Path>> parts = new LinkedHashMap<>();
        Map<Path, Sniffed> sniffed = new LinkedHashMap<>();
        List<FoundTable> tables = new ArrayList<>();
        for (Path file : files) {
            Sniffed seen;
            try {
                if (SheetRows.isNamedSo(nameOf(file))) {
                    addSheets(file, tables);
                    continue;
                }
                if (SqliteRows.isNamedSo(nameOf(file))) {
                    addTables(file, tables);
                    continue;
                }
                if (JsonItems.isNamedSo(nameOf(file))) {
                    if (!places.contains(file) && describesOthers(file)) {
                        passedOver.add(
                                file + ": it describes other files (CSVW); `taxiomet vet " + file + "` reads it");
                        continue;
                    }
                    addLists(file, true, tables);
                    continue;
                }
                seen = sniff(file, delimiter, encoding);
            } catch (SourceException e) {
                if (places.contains(file)) {
                    throw e;
                }
                passedOver.add(e.getMessage());
                continue;
            }
            sniffed.put(file, seen);
            Matcher part = PART.matcher(stem(file));
            String group = part.matches() ? "parts of " + part.group(1) : "file " + file.getFileName();
            String kind = file.toAbsolutePath().getParent() + "\0" + group + "\0" + seen.columns() + seen.form();
            parts.computeIfAbsent(kind, k -> new ArrayList<>()).add(file);
        }
        if (parts.isEmpty() && tables.isEmpty()) {
            throw new SourceException(
                    places.get(0).toString(), "no file in it can be read as a table", passedOver.get(0));
        }
        for (List<Path> group : parts.values()) {
            List<String> remarks = new ArrayList<>();
            for (Path file : group) {
                for (String remark : sniffed.get(file).remarks()) {
                    remarks.add(group.size() == 1 ? remark : file.getFileName() + ": " + remark);
                }
            }
            tables.add(table(group, sniffed.get(group.get(0)), tables, remarks));
            if (group.size() == 1 && JsonLines.isNamedSo(nameOf(group.get(0)))) {
                addLists(group.get(0), false, tables);
            }
        }
        return new Found(tables, passedOver);
    }

    /**
     * What was found.
     *
     * @param passedOver files in the folders named that are no tables, with what they are where that was found out
     */
    public record Found(List<FoundTable> tables, List<String> passedOver) {
        public Found {
            tables = List.copyOf(tables);
            passedOver = List.copyOf(passedOver);
        }
    }

    private static List<Path> filesOf(Path place, List<String> passedOver) {
        if (!Files.isDirectory(place)) {
            if (DatabaseAddress.isOne(place.toString())) {
                throw new SourceException(
                        DatabaseAddress.masked(place.toString()), DatabaseAddress.PROBLEM, DatabaseAddress.REMEDY);
            }
            if (!Files.exists(place)) {
                throw new SourceException(place.toString(), "there is no such file or folder", "check the name");
            }
            return List.of(place);
        }
        try (Stream<Path> all = Files.list(place)) {
            List<Path> files = all.filter(Files::isRegularFile).sorted().toList();
            files.stream()
                    .filter(file ->
                            !isData(file) && !file.getFileName().toString().startsWith("."))
                    .forEach(file -> passedOver.add(file.toString()));
            return files.stream().filter(DataFiles::isData).toList();
        } catch (NoSuchFileException e) {
            throw new SourceException(place.toString(), "there is no such folder", "check the name");
        } catch (IOException e) {
            throw new SourceException(place.toString(), "it cannot be read (" + e.getMessage() + ")", "");
        } catch (UncheckedIOException e) {
            throw new SourceException(
                    place.toString(), "it cannot be read (" + e.getCause().getMessage() + ")", "");
        }
    }

    private static Sniffed sniff(Path file, Optional<Character> delimiter, Optional<String> encoding) {
        if (JsonLines.isNamedSo(nameOf(file))) {
            return FieldSniffer.sniff(file);
        }
        return ParquetRows.isNamedSo(nameOf(file))
                ? ParquetSource.sniff(file)
                : Sniffer.sniff(file, delimiter, encoding);
    }

    private static boolean isData(Path file) {
        return DATA.matcher(nameOf(file)).matches()
                || SqliteRows.isNamedSo(nameOf(file))
                || SheetRows.isNamedSo(nameOf(file));
    }

    private static String nameOf(Path file) {
        return file.getFileName().toString();
    }

    /** The sheets of a workbook that have names in their first row. */
    private static void addSheets(Path file, List<FoundTable> tables) {
        Path whole = file.toAbsolutePath();
        Map<String, List<String>> sheets = SheetSource.sheetsOf(whole);
        if (sheets.isEmpty()) {
            throw new SourceException(
                    file.toString(), "none of its sheets names columns in its first row", "name another file");
        }
        sheets.forEach((name, columns) -> {
            SheetRows rows = new SheetRows(
                    whole.getParent(),
                    whole.getFileName().toString(),
                    sheets.size() == 1 ? Optional.empty() : Optional.of(name),
                    Optional.empty());
            String called = sheets.size() == 1 ? nameOf(file).replaceAll("\\.[^.]*$", "") : name;
            tables.add(new FoundTable(freeName(called, tables), rows, columns, List.of()));
        });
    }

    /** Whether a document is metadata of delimited text, in the vocabulary of the W3C, and no data. */
    private static boolean describesOthers(Path file) {
        try (InputStream in = Files.newInputStream(file)) {
            return new String(in.readNBytes(MOST_OF_CONTEXT), StandardCharsets.UTF_8)
                    .contains("\"http://www.w3.org/ns/csvw\"");
        } catch (IOException e) {
            // Whoever reads it says so.
            return false;
        }
    }

    /** The lists in a document, or inside the lines of a file, that have elements with values. */
    private static void addLists(Path file, boolean withOuter, List<FoundTable> tables) {
        List<FoundList> lists = ListSniffer.sniff(file, withOuter);
        if (lists.isEmpty() && withOuter) {
            throw new SourceException(file.toString(), "there is no list with values in it", "name another file");
        }
        for (FoundList list : lists) {
            // The only list of a document is what the document is called.
            boolean isOnly = withOuter && (list.name().isEmpty() || lists.size() == 1);
            String called = isOnly ? stem(file) : withOuter ? list.name() : stem(file) + "_" + list.name();
            tables.add(new FoundTable(
                    freeName(called, tables), list.rows().rows(), list.rows().columns(), List.of()));
        }
    }

    /** The tables and views of a database. */
    private static void addTables(Path file, List<FoundTable> tables) {
        Path whole = file.toAbsolutePath();
        SqliteCatalogue.tablesOf(whole).forEach((name, columns) -> {
            SqliteRows rows =
                    new SqliteRows(whole.getParent(), whole.getFileName().toString(), name);
            tables.add(new FoundTable(freeName(name, tables), rows, columns, List.of()));
        });
    }

    private static String stem(Path file) {
        String name = file.getFileName().toString();
        Matcher data = DATA.matcher(name);
        return data.matches() ? data.group(1) : name.replaceAll("\\.[^.]*$", "");
    }

    private static FoundTable table(List<Path> files, Sniffed first, List<FoundTable> others, List<String> remarks) {
        String stem = stem(files.get(0));
        RowsPlace rows = first.rows();
        if (files.size() > 1) {
            Matcher part = PART.matcher(stem);
            stem = part.matches() ? part.group(1) : stem;
            String glob = globOf(files);
            if (rows instanceof JsonLines lines) {
                rows = lines.at(rows.folder(), glob);
            } else if (rows instanceof ParquetRows parquet) {
                rows = parquet.at(rows.folder(), glob);
            } else {
                rows = ((DelimitedFiles) rows).at(rows.folder(), glob);
            }
        }
        return new FoundTable(freeName(stem, others), rows, first.columns(), remarks);
    }

    private static String freeName(String stem, List<FoundTable> others) {
        String name = stem;
        for (int i = 2; isTaken(name, others); i++) {
            name = stem + "_" + i;
        }
        return name;
    }

    /** A glob that takes these files of one folder and no others: what all names begin with and, where it can be, their ending. */
    private static String globOf(List<Path> files) {
        List<String> names =
                files.stream().map(file -> file.getFileName().toString()).toList();
        String prefix = names.get(0);
        for (String name : names) {
            while (!name.startsWith(prefix)) {
                prefix = prefix.substring(0, prefix.length() - 1);
            }
        }
        String ending = names.get(0).substring(stem(files.get(0)).length()).replaceAll("\\.(?:gz|zip)$", "");
        boolean haveOne = names.stream().allMatch(name -> name.endsWith(ending));
        boolean haveIt = names.stream().allMatch(name -> name.contains(ending));
        String behind = haveOne ? ending : haveIt ? ending + "*" : "";
        // Next year's file has another number: the digits that all have are none of the name.
        String beginning = prefix.replaceAll("[0-9]+$", "");
        Path folder = files.get(0).toAbsolutePath().getParent();
        return Stream.of(beginning + "*" + behind, prefix + "*" + behind)
                .filter(glob -> !glob.replace("*", "").matches(".*[?{\\[\\\\].*"))
                .filter(glob -> filesOf(folder, glob) == files.size())
                .findFirst()
                .orElse("{" + String.join(",", names) + "}");
    }

    private static long filesOf(Path folder, String glob) {
        PathMatcher matcher = folder.getFileSystem().getPathMatcher("glob:" + glob);
        try (Stream<Path> all = Files.list(folder)) {
            return all.filter(file -> matcher.matches(file.getFileName())).count();
        } catch (IOException e) {
            throw new SourceException(folder.toString(), "it cannot be read (" + e.getMessage() + ")", "");
        }
    }

    private static boolean isTaken(String name, List<FoundTable> others) {
        return others.stream().anyMatch(other -> other.name().equals(name));
    }
}
