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
 * <p>All room is taken when the table is made; reading and writing a row allocate nothing. Not thread-safe.
 */
final class SampleRows {

    /** Tables up to this lie in the heap, bytes. */
    static final long MOST_IN_HEAP = 32L << 20;
    /** Larger tables are refused, bytes. */
    static final long MOST = 8L << 30;
    private static final int SEGMENT_BYTES = 64 << 20;

    private final int width;
    private final int rowsPerSegment;
    /** one of both */
    private final long[] heap;
    private final LongBuffer[] segments;

    /**
     * @param rows  1 or more
     * @param width values of a row, 0 or more
     * @throws InvalidEntry when it would be larger than {@link #MOST}, or the disk has no room for it
     */
    SampleRows(long rows, int width) {
        this.width = width;
        long bytes = rows * width * Long.BYTES;
        if (bytes > MOST) {
            throw new InvalidEntry("duration", String.format("a recording of %.1f GB", bytes / 1e9), String.format("up to %.1f GB", MOST / 1e9), "shorten the proof, or record fewer axes with a longer bus cycle");
        }
        rowsPerSegment = (int) Math.max(1, Math.min(rows, SEGMENT_BYTES / Math.max(1, width * Long.BYTES)));
        if (bytes <= MOST_IN_HEAP) {
            heap = new long[(int) rows * width];
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
            int at = (int) row * width;
            for (int i = 0; i < width; i++) {
                heap[at + i] = Double.doubleToRawLongBits(from[i]);
            }
            return;
        }
        LongBuffer segment = segments[(int) (row / rowsPerSegment)];
        int at = (int) (row % rowsPerSegment) * width;
        for (int i = 0; i < width; i++) {
            segment.put(at + i, Double.doubleToRawLongBits(from[i]));
        }
    }

    /** @param from a row of this width */
    void put(long row, long[] from) {
        if (heap != null) {
            System.arraycopy(from, 0, heap, (int) row * width, width);
        } else {
            segments[(int) (row / rowsPerSegment)].put((int) (row % rowsPerSegment) * width, from, 0, width);
        }
    }

    long value(long row, int column) {
        return heap != null ? heap[(int) row * width + column] : segments[(int) (row / rowsPerSegment)].get((int) (row % rowsPerSegment) * width + column);
    }

    double number(long row, int column) {
        return Double.longBitsToDouble(value(row, column));
    }
}
