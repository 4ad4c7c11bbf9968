package taxiomet.spill;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Iterator;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Bytes as longs, and back. */
class PackedBytesTest {
    @Test
    void bytes_of_any_length_come_back_from_as_few_longs_as_hold_them() {
        Random random = new Random(3);
        for (int length = 0; length < 40; length++) {
            byte[] bytes = new byte[length + 7];
            random.nextBytes(bytes);
            List<Long> longs = new ArrayList<>();
            PackedBytes.write(bytes, 5, length, longs::add);
            assertThat(longs).hasSize((length + 7) / 8);
            Iterator<Long> in = longs.iterator();
            assertThat(PackedBytes.read(in::next, length)).isEqualTo(Arrays.copyOfRange(bytes, 5, 5 + length));
        }
    }

    @Test
    void equal_bytes_have_equal_longs_whatever_stands_behind_them() {
        List<Long> one = new ArrayList<>();
        List<Long> other = new ArrayList<>();
        PackedBytes.write(new byte[] {-1, 2, 3, 4}, 0, 3, one::add);
        PackedBytes.write(new byte[] {9, -1, 2, 3, 7}, 1, 3, other::add);
        assertThat(one).isEqualTo(other).containsExactly(0x0302FFL);
    }
}
