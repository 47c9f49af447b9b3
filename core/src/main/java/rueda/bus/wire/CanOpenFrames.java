package rueda.bus.wire;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import rueda.bus.CanOpen;
import rueda.machine.Machine;
import rueda.machine.Station;

/**
 * CANopen (CiA 301): SYNC, then the RPDOs and TPDOs of every node with the identifiers of the predefined connection set, by
 * priority. A frame
 * is written as Linux gives it (pcap link type 227): identifier 4 bytes, most significant first, length 1, reserved 3, data.
 */
final class CanOpenFrames implements BusFrames {

    private static final int HEADER = 8;

    /** One PDO. @param from its first byte in the image of its direction @param length bytes, 1 to 8 */
    private record Pdo(int identifier, int axis, boolean output, int from, int length) {
    }

    /** The lowest identifier first: all are due at once after SYNC, and the arbitration of CAN lets it pass (ISO 11898-1). */
    private final List<Pdo> pdos = new ArrayList<>();
    private final double nanosPerBit;
    private long at;

    CanOpenFrames(Machine machine) {
        for (int i = 0; i < machine.axes().size(); i++) {
            Station station = machine.axes().get(i).station();
            add(i, true, station.address().number(), CanOpen.pdoBytes(station.outputs()));
            add(i, false, station.address().number(), CanOpen.pdoBytes(station.inputs()));
        }
        pdos.sort(Comparator.comparingInt(Pdo::identifier));
        nanosPerBit = 1e6 / machine.bus().kiloBits();
    }

    private void add(int axis, boolean output, int node, int[] bytes) {
        int from = 0;
        for (int pdo = 0; pdo < bytes.length; pdo++) {
            if (bytes[pdo] > 0) {
                pdos.add(new Pdo(CanOpen.cobId(output, pdo + 1, node), axis, output, from, Math.min(8, bytes[pdo])));
            }
            from += bytes[pdo];
        }
    }

    @Override
    public Medium medium() {
        return Medium.CAN;
    }

    @Override
    public void cycle(long nanos, byte[][] outputs, byte[][] inputs, FrameSink sink) throws IOException {
        at = nanos;
        put(CanOpen.SYNC, new byte[0], 0, 0, sink);
        for (Pdo pdo : pdos) {
            put(pdo.identifier(), (pdo.output() ? outputs : inputs)[pdo.axis()], pdo.from(), pdo.length(), sink);
        }
    }

    private void put(int identifier, byte[] image, int from, int length, FrameSink sink) throws IOException {
        ByteBuffer frame = ByteBuffer.allocate(HEADER + length);
        frame.putInt(identifier).put((byte) length).put((byte) 0).putShort((short) 0).put(image, from, length);
        sink.frame(at, frame.array());
        at += Math.round(CanOpen.mostBits(length) * nanosPerBit);
    }
}
