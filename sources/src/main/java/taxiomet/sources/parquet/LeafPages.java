package taxiomet.sources.parquet;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.HexFormat;
import org.apache.parquet.bytes.ByteBufferInputStream;
import org.apache.parquet.bytes.BytesInput;
import org.apache.parquet.column.Dictionary;
import org.apache.parquet.column.Encoding;
import org.apache.parquet.column.ValuesType;
import org.apache.parquet.column.page.DataPage;
import org.apache.parquet.column.page.DataPageV1;
import org.apache.parquet.column.page.DataPageV2;
import org.apache.parquet.column.page.DictionaryPage;
import org.apache.parquet.column.page.PageReader;
import org.apache.parquet.column.values.ValuesReader;
import taxiomet.sources.file.Utf8;
import taxiomet.values.CellColumn;
import taxiomet.values.ValueCells;

/**
 * The pages of a column in a row group, one after the other. Numbers and texts, plain or by a dictionary, are taken apart here, a page at
 * once and texts where they stand; all else is left to the library, value by value.
 */
final class LeafPages {
    private final Leaf leaf;
    private final PageReader pages;
    private final int present;

    /** The dictionary, as its values are: longs, or spans of its bytes. */
    private final DictionaryPage dictionaryPage;

    private Dictionary dictionary;
    private long[] inDictionary;
    private byte[] dictionaryBytes;

    private int rows;
    private int at;
    /** Which rows of the page have a value; null where all have. */
    private boolean[] isThere;

    /** Of the values that are there: longs, or spans of {@link #bytes}. */
    private long[] values;

    private byte[] bytes;
    /** Whether they stand one behind the other, as they do but for those of a dictionary. */
    private boolean areInOrder;

    private int valueAt;
    /** Levels, or places in the dictionary, for as long as a page is opened. */
    private int[] numbers = new int[0];

    private ValuesReader byLibrary;

    LeafPages(Leaf leaf, PageReader pages) throws IOException {
        this.leaf = leaf;
        this.pages = pages;
        this.present = leaf.descriptor().getMaxDefinitionLevel();
        DictionaryPage first = pages.readDictionaryPage();
        // A copy: the place into which it was unpacked serves the pages that follow.
        this.dictionaryPage = first == null ? null : first.copy();
    }

    /** How many rows are left in the page; the next one is opened where there are none. 0 at the end of the group. */
    private int left() throws IOException {
        while (at == rows) {
            DataPage page = pages.readPage();
            if (page == null) {
                return 0;
            }
            open(page);
        }
        return rows - at;
    }

    /** Takes the next rows, and gives about how many bytes they take. */
    long take(ValueCells into, int count) throws IOException {
        long size = 0;
        int more = count;
        while (more > 0) {
            int some = Math.min(more, left());
            if (some == 0) {
                throw endsTooEarly();
            }
            size += takeOfPage(into, some);
            at += some;
            more -= some;
        }
        return size;
    }

    private static IOException endsTooEarly() {
        return new IOException("a column ends before its row group");
    }

    private long takeOfPage(ValueCells into, int count) {
        if (byLibrary != null) {
            return takeByLibrary(into, count);
        } else if (isThere == null) {
            long size = leaf.areLongs() ? (long) count * Long.BYTES : sizeOf(count);
            takeAll(into, count);
            return size;
        }
        for (int i = at; i < at + count; i++) {
            if (isThere[i]) {
                takeAll(into, 1);
            } else {
                into.addNull();
            }
        }
        return (long) count * Long.BYTES;
    }

    private void takeAll(ValueCells into, int count) {
        if (leaf.areLongs()) {
            leaf.add(values, valueAt, count, into);
        } else if (areInOrder) {
            into.addAll(bytes, values, valueAt, count);
        } else {
            for (int i = valueAt; i < valueAt + count; i++) {
                into.add(bytes, (int) (values[i] >>> Integer.SIZE), (int) values[i]);
            }
        }
        valueAt += count;
    }

    private long sizeOf(int count) {
        long size = 0;
        for (int i = valueAt; i < valueAt + count; i++) {
            size += (int) values[i];
        }
        return size;
    }

    /** Goes over rows that are not wanted. */
    void pass(long count) throws IOException {
        long more = count;
        while (more > 0) {
            int some = (int) Math.min(more, left());
            if (some == 0) {
                throw endsTooEarly();
            }
            int valuesPassed = valuesIn(some);
            if (byLibrary != null) {
                byLibrary.skip(valuesPassed);
            }
            valueAt += valuesPassed;
            at += some;
            more -= some;
        }
    }

    private int valuesIn(int count) {
        if (isThere == null) {
            return count;
        }
        int there = 0;
        for (int i = at; i < at + count; i++) {
            there += isThere[i] ? 1 : 0;
        }
        return there;
    }

    private long takeByLibrary(ValueCells into, int count) {
        long size = 0;
        for (int i = at; i < at + count; i++) {
            if (isThere == null || isThere[i]) {
                size += leaf.add(byLibrary, into);
            } else {
                into.addNull();
            }
        }
        return size;
    }

    private void open(DataPage page) throws IOException {
        rows = page.getValueCount();
        at = 0;
        valueAt = 0;
        isThere = null;
        byLibrary = null;
        if (page instanceof DataPageV1 first) {
            Content all = Content.of(first.getBytes());
            if (present > 0) {
                requireRle(first.getDlEncoding());
                int length = all.length() < Integer.BYTES ? -1 : all.intAt(all.from);
                if (length < 0 || length > all.length() - Integer.BYTES) {
                    throw new IOException("a page ends within its levels");
                }
                int start = all.from + Integer.BYTES;
                readLevels(new Content(all.array, start, start + length));
                all = new Content(all.array, start + length, all.to);
            }
            openValues(all, first.getValueEncoding());
        } else if (page instanceof DataPageV2 second) {
            if (present > 0) {
                readLevels(Content.of(second.getDefinitionLevels()));
            }
            openValues(Content.of(second.getData()), second.getDataEncoding());
        } else {
            throw new IOException("a page of a version that is not known");
        }
    }

    private static void requireRle(Encoding levels) throws IOException {
        if (levels != Encoding.RLE) {
            throw new IOException("levels are encoded as " + levels + ", which is not read");
        }
    }

    /** Bytes from one place of an array to another, exclusive. */
    @SuppressWarnings("ArrayRecordComponent")
    private record Content(byte[] array, int from, int to) {
        static Content of(BytesInput input) throws IOException {
            ByteBuffer page = input.toInputStream().slice((int) input.size());
            if (page.hasArray()) {
                int from = page.arrayOffset() + page.position();
                return new Content(page.array(), from, from + page.remaining());
            }
            byte[] copy = new byte[page.remaining()];
            page.get(copy);
            return new Content(copy, 0, copy.length);
        }

        int length() {
            return to - from;
        }

        int intAt(int place) {
            return (array[place] & 0xFF)
                    | (array[place + 1] & 0xFF) << 8
                    | (array[place + 2] & 0xFF) << 16
                    | (array[place + 3] & 0xFF) << 24;
        }
    }

    private void readLevels(Content page) {
        numbers = room(numbers, rows);
        int[] levels = numbers;
        int width = Integer.SIZE - Integer.numberOfLeadingZeros(present);
        HybridInts.read(page.array, page.from, page.to, width, levels, rows);
        boolean[] there = new boolean[rows];
        boolean areAll = true;
        for (int i = 0; i < rows; i++) {
            there[i] = levels[i] == present;
            areAll &= there[i];
        }
        isThere = areAll ? null : there;
    }

    private void openValues(Content page, Encoding encoding) throws IOException {
        int count = valuesIn(rows);
        boolean isDictionary = encoding.usesDictionary();
        if ((leaf.areLongs() || leaf.areTexts()) && isDictionary) {
            openByDictionary(page, count);
        } else if (leaf.areLongs() && encoding == Encoding.PLAIN) {
            ensureValues(count);
            readLongs(page, count, values);
        } else if (leaf.areTexts() && encoding == Encoding.PLAIN) {
            bytes = page.array;
            areInOrder = true;
            ensureValues(count);
            readTexts(page, count, values);
        } else {
            byLibrary = isDictionary
                    ? encoding.getDictionaryBasedValuesReader(leaf.descriptor(), ValuesType.VALUES, dictionary())
                    : encoding.getValuesReader(leaf.descriptor(), ValuesType.VALUES);
            byLibrary.initFromPage(
                    count, ByteBufferInputStream.wrap(ByteBuffer.wrap(page.array, page.from, page.length())));
        }
    }

    private static int[] room(int[] numbers, int count) {
        return numbers.length < count ? new int[count] : numbers;
    }

    /** What is taken of them is copied: the array serves page after page. */
    private void ensureValues(int count) {
        if (values == null || values.length < count) {
            values = new long[count];
        }
    }

    private Dictionary dictionary() throws IOException {
        if (dictionary == null) {
            requireDictionary();
            dictionary = dictionaryPage.getEncoding().initDictionary(leaf.descriptor(), dictionaryPage);
        }
        return dictionary;
    }

    private void requireDictionary() throws IOException {
        if (dictionaryPage == null) {
            throw new IOException("a page refers to a dictionary, and there is none");
        }
    }

    private void openByDictionary(Content page, int count) throws IOException {
        if (inDictionary == null) {
            requireDictionary();
            Content all = Content.of(dictionaryPage.getBytes());
            inDictionary = new long[dictionaryPage.getDictionarySize()];
            if (leaf.areLongs()) {
                readLongs(all, inDictionary.length, inDictionary);
            } else {
                bytes = all.array;
                readTexts(all, inDictionary.length, inDictionary);
                dictionaryBytes = bytes;
            }
        }
        bytes = dictionaryBytes;
        areInOrder = false;
        numbers = room(numbers, count);
        int[] places = numbers;
        if (count > 0) {
            if (page.length() == 0) {
                throw new IOException("a page ends within its values");
            }
            HybridInts.read(page.array, page.from + 1, page.to, page.array[page.from], places, count);
        }
        ensureValues(count);
        for (int i = 0; i < count; i++) {
            if (places[i] < 0 || places[i] >= inDictionary.length) {
                throw new IOException(
                        "a page refers to value " + places[i] + " of a dictionary of " + inDictionary.length);
            }
            values[i] = inDictionary[places[i]];
        }
    }

    private void readLongs(Content page, int count, long[] all) throws IOException {
        int each = leaf.longBytes();
        if ((long) count * each > page.length()) {
            throw new IOException("a page ends within its values");
        }
        if (each == Long.BYTES) {
            ByteBuffer.wrap(page.array, page.from, page.length())
                    .order(ByteOrder.LITTLE_ENDIAN)
                    .asLongBuffer()
                    .get(all, 0, count);
        } else {
            for (int i = 0; i < count; i++) {
                all[i] = page.intAt(page.from + i * Integer.BYTES);
            }
        }
    }

    /** The texts of a page as spans of {@link #bytes}; those that are no UTF-8 are told in hexadecimal digits, in other bytes. */
    private void readTexts(Content page, int count, long[] spans) throws IOException {
        byte[] in = page.array;
        int place = page.from;
        boolean areUtf8 = true;
        boolean areAscii = Utf8.isAscii(in, page.from, page.to);
        for (int i = 0; i < count; i++) {
            if (place + Integer.BYTES > page.to) {
                throw new IOException("a page ends within its texts");
            }
            int length = page.intAt(place);
            place += Integer.BYTES;
            if (length < 0 || length > page.to - place) {
                throw new IOException("a page ends within a text");
            }
            spans[i] = CellColumn.span(place, length);
            areUtf8 &= areAscii || Utf8.isValid(in, place, place + length);
            place += length;
        }
        if (!areUtf8) {
            tellOddOnes(spans, count);
        }
    }

    private void tellOddOnes(long[] spans, int count) {
        CellColumn told = new CellColumn(count);
        for (int i = 0; i < count; i++) {
            long span = spans[i];
            int start = (int) (span >>> Integer.SIZE);
            int length = (int) span;
            if (Utf8.isValid(bytes, start, start + length)) {
                told.add(bytes, start, length);
            } else {
                told.add(HexFormat.of().formatHex(bytes, start, start + length));
            }
        }
        bytes = told.bytes();
        System.arraycopy(told.spans(count), 0, spans, 0, count);
    }
}
