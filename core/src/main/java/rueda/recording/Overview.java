package rueda.recording;

import java.nio.ByteBuffer;
import java.util.Arrays;

/**
 * Of every {@value #BLOCK} samples of a signal, the last block maybe fewer: its begin, and its lowest and highest value, each with its time. Immutable; the arrays are
 * not to be changed. Costs 40 bytes a block, 1.6 MB for ten million samples.
 *
 * @param begins time of the first sample of each block, ns
 * @param lowAt  time of the lowest, ns
 * @param low    NaN where nothing was recorded in the block
 * @param highAt time of the highest, ns
 * @param high   NaN where nothing was recorded in the block
 */
public record Overview(long[] begins, long[] lowAt, double[] low, long[] highAt, double[] high) {

    /** Samples of a block. */
    public static final int BLOCK = 256;

    public int blocks() {
        return begins.length;
    }

    /** Time of the last sample of a signal, of which this is the overview, ns. */
    public long end(Sampled signal) {
        long[] last = {begins[begins.length - 1]};
        signal.read((begins.length - 1L) * BLOCK, signal.samples(), (nanos, value) -> last[0] = nanos);
        return last[0];
    }

    /** Number of the last block that begins before a time; the first where none does. */
    int lastBefore(long nanos) {
        int block = until(nanos);
        while (block > 0 && begins[block] == nanos) {
            block--;
        }
        return block;
    }

    /** Number of the last block that begins at a time or before; the first where none does. */
    int until(long nanos) {
        int found = Arrays.binarySearch(begins, nanos);
        if (found < 0) {
            return Math.max(0, -found - 2);
        }
        while (found + 1 < begins.length && begins[found + 1] == nanos) {
            found++;
        }
        return found;
    }

    /** The same at other times. @param nanos added to each, ns */
    Overview later(long nanos) {
        return new Overview(later(begins, nanos), later(lowAt, nanos), low, later(highAt, nanos), high);
    }

    private static long[] later(long[] times, long nanos) {
        return Arrays.stream(times).map(time -> time + nanos).toArray();
    }

    /** As bytes, most significant first. */
    public byte[] bytes() {
        ByteBuffer bytes = ByteBuffer.allocate(blocks() * 5 * Long.BYTES);
        for (int i = 0; i < blocks(); i++) {
            bytes.putLong(begins[i]).putLong(lowAt[i]).putDouble(low[i]).putLong(highAt[i]).putDouble(high[i]);
        }
        return bytes.array();
    }

    /** Read back. */
    public static Overview of(byte[] written) {
        ByteBuffer bytes = ByteBuffer.wrap(written);
        int blocks = written.length / (5 * Long.BYTES);
        Overview overview = new Overview(new long[blocks], new long[blocks], new double[blocks], new long[blocks], new double[blocks]);
        for (int i = 0; i < blocks; i++) {
            overview.begins[i] = bytes.getLong();
            overview.lowAt[i] = bytes.getLong();
            overview.low[i] = bytes.getDouble();
            overview.highAt[i] = bytes.getLong();
            overview.high[i] = bytes.getDouble();
        }
        return overview;
    }

    /** Makes one while samples come in. Not thread-safe. */
    public static final class Builder implements Sampled.Sink {
        private long[] begins = new long[64];
        private long[] lowAt = new long[64];
        private double[] low = new double[64];
        private long[] highAt = new long[64];
        private double[] high = new double[64];
        private int block = -1;
        private int inBlock = BLOCK;

        @Override
        public void take(long nanos, double value) {
            if (inBlock == BLOCK) {
                begin(nanos);
            }
            inBlock++;
            /* NaN is neither lower nor higher; the first number after one is both */
            if (value < low[block] || Double.isNaN(low[block])) {
                low[block] = value;
                lowAt[block] = nanos;
            }
            if (value > high[block] || Double.isNaN(high[block])) {
                high[block] = value;
                highAt[block] = nanos;
            }
        }

        private void begin(long nanos) {
            inBlock = 0;
            block++;
            if (block == begins.length) {
                int longer = 2 * block;
                begins = Arrays.copyOf(begins, longer);
                lowAt = Arrays.copyOf(lowAt, longer);
                low = Arrays.copyOf(low, longer);
                highAt = Arrays.copyOf(highAt, longer);
                high = Arrays.copyOf(high, longer);
            }
            begins[block] = nanos;
            lowAt[block] = nanos;
            highAt[block] = nanos;
            low[block] = Double.NaN;
            high[block] = Double.NaN;
        }

        public Overview build() {
            int blocks = block + 1;
            return new Overview(Arrays.copyOf(begins, blocks), Arrays.copyOf(lowAt, blocks), Arrays.copyOf(low, blocks), Arrays.copyOf(highAt, blocks), Arrays.copyOf(high, blocks));
        }
    }
}
