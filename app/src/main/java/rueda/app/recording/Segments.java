package rueda.app.recording;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.util.zip.DataFormatException;
import java.util.zip.Deflater;
import java.util.zip.Inflater;

/** Samples as bytes: doubles, or times each by what it is after the one before, most significant byte first, deflated (RFC 1950) as fast as can be. */
final class Segments {

    private Segments() {
    }

    static byte[] values(double[] values, int count) {
        ByteBuffer bytes = ByteBuffer.allocate(count * Double.BYTES);
        for (int i = 0; i < count; i++) {
            bytes.putDouble(values[i]);
        }
        return deflated(bytes.array());
    }

    static double[] values(byte[] content) {
        ByteBuffer bytes = ByteBuffer.wrap(inflated(content));
        double[] values = new double[bytes.remaining() / Double.BYTES];
        bytes.asDoubleBuffer().get(values);
        return values;
    }

    static byte[] times(long[] nanos, int count) {
        ByteBuffer bytes = ByteBuffer.allocate(count * Long.BYTES);
        long before = 0;
        for (int i = 0; i < count; i++) {
            bytes.putLong(nanos[i] - before);
            before = nanos[i];
        }
        return deflated(bytes.array());
    }

    static long[] times(byte[] content) {
        ByteBuffer bytes = ByteBuffer.wrap(inflated(content));
        long[] nanos = new long[bytes.remaining() / Long.BYTES];
        long before = 0;
        for (int i = 0; i < nanos.length; i++) {
            before += bytes.getLong();
            nanos[i] = before;
        }
        return nanos;
    }

    static byte[] deflated(byte[] raw) {
        Deflater deflater = new Deflater(Deflater.BEST_SPEED);
        try {
            deflater.setInput(raw);
            deflater.finish();
            ByteArrayOutputStream out = new ByteArrayOutputStream(raw.length / 2 + 64);
            byte[] part = new byte[1 << 14];
            while (!deflater.finished()) {
                out.write(part, 0, deflater.deflate(part));
            }
            return out.toByteArray();
        } finally {
            deflater.end();
        }
    }

    static byte[] inflated(byte[] content) {
        Inflater inflater = new Inflater();
        try {
            inflater.setInput(content);
            ByteArrayOutputStream out = new ByteArrayOutputStream(content.length * 3);
            byte[] part = new byte[1 << 14];
            while (!inflater.finished()) {
                int count = inflater.inflate(part);
                if (count == 0 && (inflater.needsInput() || inflater.needsDictionary())) {
                    throw new IllegalStateException("A stored recording is damaged: it ends too early.");
                }
                out.write(part, 0, count);
            }
            return out.toByteArray();
        } catch (DataFormatException damaged) {
            throw new IllegalStateException("A stored recording is damaged.", damaged);
        } finally {
            inflater.end();
        }
    }
}
