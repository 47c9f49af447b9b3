package rueda.bus.wire;

import java.io.IOException;
import java.util.Arrays;
import rueda.bus.BusFamily;
import rueda.machine.Axis;
import rueda.machine.Machine;

/**
 * Keeps the process images of the last bus cycles; frames are made of them when they are asked for. Keeping allocates nothing.
 * Not thread-safe.
 */
public final class BusCapture {

    private final Machine machine;
    private final int[] outputBytes;
    private final int[] inputBytes;
    private final int perCycle;
    private final byte[] kept;
    private final long[] times;
    private int place;
    private long count;
    private int at;

    /** @param cycles how many are kept */
    public BusCapture(Machine machine, int cycles) {
        this.machine = machine;
        outputBytes = machine.axes().stream().mapToInt(a -> bytes(a, true)).toArray();
        inputBytes = machine.axes().stream().mapToInt(a -> bytes(a, false)).toArray();
        perCycle = Arrays.stream(outputBytes).sum() + Arrays.stream(inputBytes).sum();
        kept = new byte[perCycle * cycles];
        times = new long[cycles];
    }

    private int bytes(Axis axis, boolean output) {
        return BusFamily.bytes(machine.bus(), output ? axis.station().outputs() : axis.station().inputs());
    }

    /** A bus cycle begins; {@link #axis} follows once for every axis, in order. @param nanos since the start */
    public void cycle(long nanos) {
        place = (int) (count % times.length);
        times[place] = nanos;
        at = place * perCycle;
        count++;
    }

    /** What an axis exchanged. */
    public void axis(byte[] outputs, byte[] inputs) {
        System.arraycopy(outputs, 0, kept, at, outputs.length);
        at += outputs.length;
        System.arraycopy(inputs, 0, kept, at, inputs.length);
        at += inputs.length;
    }

    /** Cycles that are kept. */
    public int cycles() {
        return (int) Math.min(count, times.length);
    }

    public Machine machine() {
        return machine;
    }

    /** Makes the frames of all kept cycles, oldest first. */
    public void frames(BusFrames frames, FrameSink sink) throws IOException {
        byte[][] outputs = new byte[outputBytes.length][];
        byte[][] inputs = new byte[inputBytes.length][];
        for (long k = count - cycles(); k < count; k++) {
            int row = (int) (k % times.length);
            int from = row * perCycle;
            for (int i = 0; i < outputs.length; i++) {
                outputs[i] = Arrays.copyOfRange(kept, from, from += outputBytes[i]);
                inputs[i] = Arrays.copyOfRange(kept, from, from += inputBytes[i]);
            }
            frames.cycle(times[row], outputs, inputs, sink);
        }
    }
}
