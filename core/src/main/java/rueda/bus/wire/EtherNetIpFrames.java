package rueda.bus.wire;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import rueda.bus.Ethernet;
import rueda.bus.EtherNetIp;
import rueda.machine.Bus.IpNetwork;
import rueda.machine.Machine;

/**
 * EtherNet/IP implicit messages of class 1 (CIP volume 2, common packet format): UDP port 2222; count of items 2 bytes; sequenced
 * address item 8002h with connection id and sequence number; connected data item 00B1h with a sequence count, to the drive a
 * 32-bit header whose lowest bit says run, and the assembly; least significant byte first.
 */
final class EtherNetIpFrames implements BusFrames {

    private static final int PORT = 2222;
    private static final int SEQUENCED_ADDRESS = 0x8002;
    private static final int CONNECTED_DATA = 0x00B1;
    private static final int FIRST_CONNECTION = 0x5200_0000;
    private static final int RUN = 1;

    private final Packet.End plc;
    private final Packet.End[] stations;
    private int sequence;

    EtherNetIpFrames(Machine machine) {
        plc = end(0, machine.bus().plc());
        stations = new Packet.End[machine.axes().size()];
        for (int i = 0; i < stations.length; i++) {
            stations[i] = end(i + 1, machine.axes().get(i).station().address().ip());
        }
    }

    private static Packet.End end(int station, IpNetwork network) {
        return new Packet.End(station, IpNetwork.number(network.address()).orElse(0), PORT);
    }

    @Override
    public Medium medium() {
        return Medium.ETHERNET;
    }

    @Override
    public void cycle(long nanos, byte[][] outputs, byte[][] inputs, FrameSink sink) throws IOException {
        sequence++;
        long at = nanos;
        for (int i = 0; i < stations.length; i++) {
            byte[] there = Packet.udp(plc, stations[i], sequence, message(FIRST_CONNECTION + 2 * i, true, outputs[i]));
            byte[] back = Packet.udp(stations[i], plc, sequence, message(FIRST_CONNECTION + 2 * i + 1, false, inputs[i]));
            sink.frame(at, there);
            sink.frame(at, back);
            at += Ethernet.nanos(Math.max(there.length, back.length) - Ethernet.HEADER);
        }
    }

    private byte[] message(int connection, boolean header, byte[] image) {
        int data = EtherNetIp.SEQUENCE_COUNT + (header ? EtherNetIp.RUN_IDLE_HEADER : 0) + image.length;
        ByteBuffer message = ByteBuffer.allocate(EtherNetIp.ITEMS + data).order(ByteOrder.LITTLE_ENDIAN);
        message.putShort((short) 2);
        message.putShort((short) SEQUENCED_ADDRESS).putShort((short) 8).putInt(connection).putInt(sequence);
        message.putShort((short) CONNECTED_DATA).putShort((short) data).putShort((short) sequence);
        if (header) {
            message.putInt(RUN);
        }
        return message.put(image).array();
    }
}
