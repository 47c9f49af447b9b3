package rueda.bus.wire;

import java.io.IOException;
import java.nio.ByteBuffer;
import rueda.bus.CanOpen;
import rueda.machine.Machine;
import rueda.machine.Station;

/**
 * CANopen (CiA 301): SYNC, then the RPDOs and TPDOs of every node with the identifiers of the predefined connection set. A frame
 * is written as Linux gives it (pcap link type 227): identifier 4 bytes, most significant first, length 1, reserved 3, data.
 */
final class CanOpenFrames implements BusFrames {

    private static final int HEADER = 8;

    private final Machine machine;
    private final int[][] outputBytes;
    private final int[][] inputBytes;
    private final double nanosPerBit;
    private long at;

    CanOpenFrames(Machine machine) {
        this.machine = machine;
        outputBytes = machine.axes().stream().map(a -> CanOpen.pdoBytes(a.station().outputs())).toArray(int[][]::new);
        inputBytes = machine.axes().stream().map(a -> CanOpen.pdoBytes(a.station().inputs())).toArray(int[][]::new);
        nanosPerBit = 1e6 / machine.bus().kiloBits();
    }

    @Override
    public Medium medium() {
        return Medium.CAN;
    }

    @Override
    public void cycle(long nanos, byte[][] outputs, byte[][] inputs, FrameSink sink) throws IOException {
        at = nanos;
        put(CanOpen.SYNC, new byte[0], 0, 0, sink);
        for (int i = 0; i < outputs.length; i++) {
            pdos(i, true, outputBytes[i], outputs[i], sink);
        }
        for (int i = 0; i < inputs.length; i++) {
            pdos(i, false, inputBytes[i], inputs[i], sink);
        }
    }

    private void pdos(int axis, boolean output, int[] bytes, byte[] image, FrameSink sink) throws IOException {
        Station station = machine.axes().get(axis).station();
        int from = 0;
        for (int pdo = 0; pdo < bytes.length; pdo++) {
            if (bytes[pdo] > 0) {
                put(CanOpen.cobId(output, pdo + 1, station.address().number()), image, from, Math.min(8, bytes[pdo]), sink);
            }
            from += bytes[pdo];
        }
    }

    private void put(int identifier, byte[] image, int from, int length, FrameSink sink) throws IOException {
        ByteBuffer frame = ByteBuffer.allocate(HEADER + length);
        frame.putInt(identifier).put((byte) length).put((byte) 0).putShort((short) 0).put(image, from, length);
        sink.frame(at, frame.array());
        at += Math.round(CanOpen.mostBits(length) * nanosPerBit);
    }
}
