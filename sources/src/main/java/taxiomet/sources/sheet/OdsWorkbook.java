package taxiomet.sources.sheet;

import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.PushbackInputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import taxiomet.charter.place.SheetRows.Area;
import taxiomet.values.ValueCells;

/** A workbook in the format of OpenDocument (.ods; ISO/IEC 26300, its part on tables). No document type is read, and no entity. */
final class OdsWorkbook implements Workbook {
    private static final String CONTENT = "content.xml";
    private static final String MANIFEST = "META-INF/manifest.xml";
    /** More than any program writes: what says so is damaged, or made to keep a reader busy. */
    private static final long MOST_ROWS = 1 << 24;

    static final String TABLE = "urn:oasis:names:tc:opendocument:xmlns:table:1.0";

    /** Of the order of bytes, which may stand before UTF-8. */
    private static final byte[] MARK = {(byte) 0xEF, (byte) 0xBB, (byte) 0xBF};

    private final ZipFile zip;

    OdsWorkbook(Path file) throws IOException {
        zip = new ZipFile(file.toFile());
        boolean isSound = false;
        try {
            if (zip.getEntry(CONTENT) == null) {
                throw new IOException("it holds no " + CONTENT);
            } else if (isEncrypted()) {
                throw new IOException("it is protected by a password");
            }
            isSound = true;
        } finally {
            if (!isSound) {
                zip.close();
            }
        }
    }

    private boolean isEncrypted() throws IOException {
        ZipEntry manifest = zip.getEntry(MANIFEST);
        if (manifest == null) {
            return false;
        }
        try (InputStream in = zip.getInputStream(manifest)) {
            XMLStreamReader xml = reader(in);
            while (xml.hasNext()) {
                if (xml.next() == XMLStreamConstants.START_ELEMENT
                        && xml.getLocalName().equals("encryption-data")) {
                    return true;
                }
            }
            return false;
        } catch (XMLStreamException e) {
            throw new IOException(e);
        }
    }

    /** Reads XML without document types and entities of its own. */
    static XMLStreamReader reader(InputStream in) throws XMLStreamException {
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_COALESCING, false);
        // Decoded here: of bytes that are no text the parser would tell on standard error, behind everybody's back.
        PushbackInputStream text = new PushbackInputStream(in, MARK.length);
        try {
            byte[] first = text.readNBytes(MARK.length);
            text.unread(Arrays.equals(first, MARK) ? new byte[0] : first);
        } catch (IOException e) {
            throw new XMLStreamException(e);
        }
        return factory.createXMLStreamReader(new InputStreamReader(text, StandardCharsets.UTF_8.newDecoder()));
    }

    @Override
    public List<String> sheets() throws IOException {
        List<String> names = new ArrayList<>();
        try (InputStream in = zip.getInputStream(zip.getEntry(CONTENT))) {
            XMLStreamReader xml = reader(in);
            while (xml.hasNext()) {
                if (isTable(xml, xml.next())) {
                    names.add(String.valueOf(xml.getAttributeValue(TABLE, "name")));
                }
            }
        } catch (XMLStreamException e) {
            throw new IOException(e);
        }
        if (names.isEmpty()) {
            throw new IOException("it holds no sheet");
        }
        return names;
    }

    static boolean isTable(XMLStreamReader xml, int event) {
        return event == XMLStreamConstants.START_ELEMENT
                && xml.getLocalName().equals("table")
                && TABLE.equals(xml.getNamespaceURI());
    }

    @Override
    public Rows rows(String sheet) throws IOException {
        InputStream in = zip.getInputStream(zip.getEntry(CONTENT));
        try {
            XMLStreamReader xml = reader(in);
            while (xml.hasNext()) {
                if (isTable(xml, xml.next()) && sheet.equals(xml.getAttributeValue(TABLE, "name"))) {
                    return new OdsRows(in, xml);
                }
            }
            throw new IOException("there is no sheet " + sheet);
        } catch (XMLStreamException e) {
            in.close();
            throw new IOException(e);
        }
    }

    @Override
    public void close() throws IOException {
        zip.close();
    }

    /** Goes over the rows of a table. */
    private static final class OdsRows implements Rows {
        private final InputStream in;
        private final OdsRow row;
        private final List<Area> merged = new ArrayList<>();
        private long repeats;
        private long number;

        OdsRows(InputStream in, XMLStreamReader xml) {
            this.in = in;
            this.row = new OdsRow(xml);
        }

        @Override
        public boolean next() throws IOException {
            try {
                // Rows without cells are passed over at once: the last of a sheet may stand for a million.
                while (repeats == 0 || row.width() == 0) {
                    number += repeats;
                    repeats = row.read();
                    if (repeats == 0) {
                        return false;
                    }
                    for (Area each : row.merged()) {
                        if (merged.size() < MergedCells.MOST) {
                            merged.add(new Area(
                                    number + 1, number + each.lastRow(), each.firstColumn(), each.lastColumn()));
                        }
                    }
                }
            } catch (XMLStreamException e) {
                throw new IOException(e);
            }
            repeats--;
            number++;
            if (number > MOST_ROWS) {
                throw new IOException("a sheet has more than " + MOST_ROWS + " rows");
            }
            return true;
        }

        @Override
        public long number() {
            return number;
        }

        @Override
        public List<Area> merged() {
            return List.copyOf(merged);
        }

        @Override
        public int width() {
            return row.width();
        }

        @Override
        public boolean isEmpty(int column) {
            return row.cell(column) == null;
        }

        @Override
        public String text(int column) {
            return row.cell(column).text();
        }

        @Override
        public long add(int column, ValueCells into) {
            OdsCell cell = row.cell(column);
            if (cell == null) {
                into.addNull();
                return 1;
            }
            return cell.addTo(into);
        }

        @Override
        public void close() {
            try {
                in.close();
            } catch (IOException e) {
                throw new IllegalStateException("a file that was read cannot be closed", e);
            }
        }
    }
}
