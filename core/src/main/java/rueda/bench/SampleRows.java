package rueda.bench;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.LongBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.FileChannel.MapMode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import rueda.quantity.InvalidEntry;

/**
 * Rows of 64-bit values, all of one width. A small table lies in the heap; a large one in a file that the system pages in and out and that
 * is gone with the program, so that a long recording takes room on the disk and none that others need.
 *
 * <p>Each value lies beside those of its column in the rows before and after, {@value #BLOCK} at a time: whoever looks through one column touches few others.
 *
 * <p>All room is taken when the table is made; reading and writing a row allocate nothing. Not thread-safe.
 */
final class SampleRows {

    /** Tables up to this lie in the heap, bytes. */
    static final long MOST_IN_HEAP = 32L << 20;
    /** Larger tables are refused, bytes. */
    static final long MOST = 8L << 30;
    private static final int SEGMENT_BYTES = 64 << 20;
    /** rows of which the values of a column lie together, a power of two: two cache lines */
    private static final int BLOCK = 16;

    private final int width;
    private final int rowsPerSegment;
    /** one of both */
    private final long[] heap;
    private final LongBuffer[] segments;

    /**
     * @param rows  1 or more
     * @param width values of a row, 0 or more
     * @param spare room of a table that is not used any more, taken where it suffices; may be null
     * @throws InvalidEntry when it would be larger than {@link #MOST}, or the disk has no room for it
     */
    SampleRows(long rows, int width, long[] spare) {
        this.width = width;
        long bytes = (rows + BLOCK - 1) / BLOCK * BLOCK * width * Long.BYTES;
        if (bytes > MOST) {
            throw new InvalidEntry("duration", String.format("a recording of %.1f GB", bytes / 1e9), String.format("up to %.1f GB", MOST / 1e9), "shorten the proof, or record fewer axes with a longer bus cycle");
        }
        rowsPerSegment = (int) Math.max(1, SEGMENT_BYTES / Math.max(1, width * Long.BYTES) / BLOCK) * BLOCK;
        if (bytes <= MOST_IN_HEAP) {
            int values = (int) (bytes / Long.BYTES);
            heap = spare != null && spare.length >= values ? spare : new long[values];
            segments = null;
            return;
        }
        heap = null;
        segments = new LongBuffer[(int) ((rows + rowsPerSegment - 1) / rowsPerSegment)];
        try {
            map(bytes);
        } catch (IOException failed) {
            throw new UncheckedIOException("The recording could not be laid out on the disk: " + failed.getMessage(), failed);
        }
    }

    /** Its room, for another table once this one is not used any more; null where it lies on the disk. */
    long[] room() {
        return heap;
    }

    private void map(long bytes) throws IOException {
        Path path = Files.createTempFile("rueda-recording-", ".samples");
        long free = Files.getFileStore(path).getUsableSpace();
        if (free < bytes + bytes / 10) {
            Files.delete(path);
            throw new InvalidEntry("duration", String.format("a recording of %.1f GB", bytes / 1e9), String.format("what the disk of temporary files has room for: %.1f GB are free", free / 1e9), "make room there, or shorten the proof");
        }
        /* the file has no name any more once it is mapped; its room is given back when nobody uses the mapping */
        try (FileChannel channel = FileChannel.open(path, StandardOpenOption.READ, StandardOpenOption.WRITE, StandardOpenOption.DELETE_ON_CLOSE)) {
            long segment = (long) rowsPerSegment * width * Long.BYTES;
            for (int i = 0; i < segments.length; i++) {
                ByteBuffer mapped = channel.map(MapMode.READ_WRITE, i * segment, segment);
                segments[i] = mapped.order(ByteOrder.nativeOrder()).asLongBuffer();
            }
        }
    }

    /** @param from a row of this width */
    void put(long row, double[] from) {
        if (heap != null) {
            int at = first((int) row);
            for (int i = 0; i < width; i++) {
                heap[at + i * BLOCK] = Double.doubleToRawLongBits(from[i]);
            }
            return;
        }
        LongBuffer segment = segments[(int) (row / rowsPerSegment)];
        int at = first((int) (row % rowsPerSegment));
        for (int i = 0; i < width; i++) {
            segment.put(at + i * BLOCK, Double.doubleToRawLongBits(from[i]));
        }
    }

    /** @param from a row of this width */
    void put(long row, long[] from) {
        int at = first((int) (heap != null ? row : row % rowsPerSegment));
        for (int i = 0; i < width; i++) {
            if (heap != null) {
                heap[at + i * BLOCK] = from[i];
            } else {
                segments[(int) (row / rowsPerSegment)].put(at + i * BLOCK, from[i]);
            }
        }
    }

    /** Where the first value of a row lies. */
    private int first(int row) {
        return (row & -BLOCK) * width + (row & BLOCK - 1);
    }

    long value(long row, int column) {
        return heap != null ? heap[first((int) row) + column * BLOCK] : segments[(int) (row / rowsPerSegment)].get(first((int) (row % rowsPerSegment)) + column * BLOCK);
    }

    double number(long row, int column) {
        return Double.longBitsToDouble(value(row, column));
    }
}
