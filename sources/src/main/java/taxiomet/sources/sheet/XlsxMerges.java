package taxiomet.sources.sheet;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import taxiomet.charter.place.SheetRows;
import taxiomet.charter.place.SheetRows.Area;

/**
 * The merged cells of a sheet in a workbook of ECMA-376, which stand behind all of its rows: they are sought in the text of the sheet, since going
 * through its elements would take as long as reading the rows.
 */
final class XlsxMerges {
    /** A text cannot hold the first character of it. */
    private static final Pattern MERGED =
            Pattern.compile("<(?:\\w+:)?mergeCell\\s[^>]*?\\bref=[\"']([^\"'>]{1,40})[\"']");

    private static final int PIECE = 1 << 16;
    /** What is kept of a piece, so that an element across two pieces is found. */
    private static final int OVERLAP = 512;

    private XlsxMerges() {}

    /** Those of a sheet, by its name. */
    static List<Area> of(ZipFile zip, String sheet) throws IOException {
        Optional<String> id = attribute(zip, "xl/workbook.xml", "sheet", "name", sheet, "id");
        Optional<String> target = id.isEmpty()
                ? Optional.empty()
                : attribute(zip, "xl/_rels/workbook.xml.rels", "Relationship", "Id", id.get(), "Target");
        Optional<ZipEntry> entry = target.map(path -> path.startsWith("/") ? path.substring(1) : "xl/" + path)
                .map(zip::getEntry);
        if (entry.isEmpty()) {
            return List.of();
        }
        try (InputStream in = zip.getInputStream(entry.get())) {
            return mergedIn(in);
        }
    }

    /** An attribute of the element of which another has a value. */
    private static Optional<String> attribute(
            ZipFile zip, String entry, String element, String key, String value, String wanted) throws IOException {
        ZipEntry file = zip.getEntry(entry);
        if (file == null) {
            return Optional.empty();
        }
        try (InputStream in = zip.getInputStream(file)) {
            XMLStreamReader xml = OdsWorkbook.reader(in);
            while (xml.hasNext()) {
                if (xml.next() == XMLStreamConstants.START_ELEMENT
                        && xml.getLocalName().equals(element)
                        && value.equals(local(xml, key))) {
                    return Optional.ofNullable(local(xml, wanted));
                }
            }
            return Optional.empty();
        } catch (XMLStreamException e) {
            throw new IOException(e);
        }
    }

    /** An attribute whatever its namespace; of two of the name the one that has one. */
    private static String local(XMLStreamReader xml, String name) {
        String found = null;
        for (int i = 0; i < xml.getAttributeCount(); i++) {
            boolean hasNamespace = xml.getAttributeNamespace(i) != null
                    && !xml.getAttributeNamespace(i).isEmpty();
            if (xml.getAttributeLocalName(i).equals(name) && (found == null || hasNamespace)) {
                found = xml.getAttributeValue(i);
            }
        }
        return found;
    }

    static List<Area> mergedIn(InputStream in) throws IOException {
        List<Area> all = new ArrayList<>();
        String before = "";
        byte[] piece = new byte[PIECE];
        for (int read = in.readNBytes(piece, 0, PIECE);
                read > 0 && all.size() < MergedCells.MOST;
                read = in.readNBytes(piece, 0, PIECE)) {
            String text = before + new String(piece, 0, read, StandardCharsets.ISO_8859_1);
            int seen = 0;
            if (text.contains("mergeCell")) {
                Matcher matcher = MERGED.matcher(text);
                while (matcher.find() && all.size() < MergedCells.MOST) {
                    SheetRows.area(matcher.group(1)).ifPresent(all::add);
                    seen = matcher.end();
                }
            }
            before = text.substring(Math.max(seen, text.length() - OVERLAP));
        }
        return all;
    }
}
