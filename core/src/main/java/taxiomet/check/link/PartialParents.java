package taxiomet.check.link;

import java.util.Arrays;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import taxiomet.check.pass.OrderedCheck;
import taxiomet.check.pass.StateExchange;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyTable;
import taxiomet.keys.TypedBatch;
import taxiomet.spill.LongSpool;
import taxiomet.spill.Partitions;
import taxiomet.spill.SpillFolder;
import taxiomet.values.TypedColumn;

/**
 * Parents for match partial: a child with nulls in some columns needs a parent that equals it in the others. Which
 * combinations of columns are asked for is only known when the children have been read, so a fingerprint of each column of
 * each parent is kept, and the keys asked for are made of them afterwards.
 */
public final class PartialParents extends OrderedCheck implements AutoCloseable {
    private static final int BLOCK = 1 << 14;

    private final SpillFolder spill;
    private final KeyEncoder encoder;
    private final int width;
    /** How many longs it takes to say which columns hold a value. */
    private final int maskLongs;
    /** For each parent: a mask of the columns that hold a value, then two longs for each column. */
    private final LongSpool parents;

    /** By the columns asked for, in the order in which they were. */
    private final Map<BitSet, Question> questions = new LinkedHashMap<>();

    /** The children that ask about one combination of columns. */
    private record Question(LinkCheck link, Partitions children) {}

    /** @param encoder of the parent's key, in the forms of the link */
    public PartialParents(SpillFolder spill, KeyEncoder encoder) {
        this.spill = spill;
        this.encoder = encoder;
        this.width = encoder.columns().length;
        this.maskLongs = (width + Long.SIZE - 1) / Long.SIZE;
        this.parents = new LongSpool(spill, BLOCK);
    }

    @Override
    public int[] columns() {
        return encoder.columns();
    }

    @Override
    public void check(TypedBatch batch) {
        encoder.start(batch);
        int[] columns = encoder.columns();
        BitSet mask = new BitSet(width);
        for (int row = 0; row < batch.size(); row++) {
            mask.clear();
            for (int i = 0; i < width; i++) {
                mask.set(i, batch.column(columns[i]).isValue(row));
            }
            long[] words = mask.toLongArray();
            for (int word = 0; word < maskLongs; word++) {
                parents.add(word < words.length ? words[word] : 0);
            }
            for (int i = 0; i < width; i++) {
                if (mask.get(i)) {
                    encoder.encodePart(row, i);
                    parents.add(encoder.high());
                    parents.add(encoder.low());
                } else {
                    parents.add(0);
                    parents.add(0);
                }
            }
        }
    }

    @Override
    public void exchange(StateExchange state) {
        state.longs(parents, maskLongs + 2 * width, StateExchange.NONE);
    }

    /** Hands over the children of a link that wait for an answer, by the columns that they ask about. */
    void exchangeQuestions(LinkCheck link, StateExchange state) {
        List<String> masks = questions.keySet().stream()
                .map(mask -> mask.stream().mapToObj(Integer::toString).collect(Collectors.joining(",")))
                .toList();
        for (String mask : state.texts(masks)) {
            BitSet asked = new BitSet();
            for (String column : mask.split(",")) {
                asked.set(Integer.parseInt(column));
            }
            state.partitions(questionOf(asked, link).children(), 3, 2);
        }
    }

    private Question questionOf(BitSet mask, LinkCheck link) {
        return questions.computeIfAbsent(mask, m -> new Question(link, new Partitions(spill)));
    }

    /** Keeps a child, some of whose cells are null and none ill-typed, until the parents can be asked. */
    void await(LinkCheck link, KeyEncoder child, int row, long ref) {
        BitSet mask = new BitSet(width);
        long high = 0;
        long low = 0;
        for (int i = 0; i < width; i++) {
            if (child.state(row, i) != TypedColumn.NULL) {
                mask.set(i);
                child.encodePart(row, i);
                high = join(high, child.high(), i);
                low = join(low, child.low(), i);
            }
        }
        questionOf(mask, link).children().add(Partitions.of(KeyTable.hash(high, low)), high, low, ref);
    }

    /** Joins the fingerprints of several columns; both halves are joined alike, and stay independent. */
    private static long join(long sum, long fingerprint, int column) {
        return Long.rotateLeft(sum, 23) * 0x9E3779B97F4A7C15L + fingerprint * (2L * column + 1);
    }

    /** Answers the children that waited; all tables have been read. */
    public void resolve() {
        questions.forEach((mask, question) -> {
            try (Partitions keys = keysOf(mask);
                    KeyTable table = new KeyTable(null)) {
                for (int partition = 0; partition < Partitions.COUNT; partition++) {
                    answer(
                            question,
                            table,
                            keys.read(partition),
                            question.children().read(partition));
                }
            }
            question.children().close();
        });
    }

    private Partitions keysOf(BitSet asked) {
        Partitions keys = new Partitions(spill);
        LongSpool.Reader reader = parents.read();
        long[] mask = Arrays.copyOf(asked.toLongArray(), maskLongs);
        while (reader.hasNext()) {
            boolean isComplete = true;
            for (int word = 0; word < maskLongs; word++) {
                isComplete &= (reader.next() & mask[word]) == mask[word];
            }
            long high = 0;
            long low = 0;
            for (int i = 0; i < width; i++) {
                long columnHigh = reader.next();
                long columnLow = reader.next();
                if (asked.get(i)) {
                    high = join(high, columnHigh, i);
                    low = join(low, columnLow, i);
                }
            }
            if (isComplete) {
                keys.add(Partitions.of(KeyTable.hash(high, low)), high, low, 0);
            }
        }
        return keys;
    }

    private static void answer(Question question, KeyTable table, LongSpool.Reader keys, LongSpool.Reader children) {
        table.clear();
        while (keys != null && keys.hasNext()) {
            long high = keys.next();
            long low = keys.next();
            long present = keys.next();
            table.ensureRoom();
            int slot = table.slotOf(high, low);
            if (!table.isUsed(slot)) {
                table.insert(slot, high, low, present);
            }
        }
        while (children != null && children.hasNext()) {
            long high = children.next();
            long low = children.next();
            long ref = children.next();
            if (!table.contains(high, low)) {
                question.link().missing(high, low, ref);
            }
        }
    }

    @Override
    public void close() {
        parents.close();
    }
}
