package rueda.bus.wire;

import java.io.IOException;
import java.nio.ByteBuffer;
import rueda.bus.Ethernet;
import rueda.bus.ModbusTcp;
import rueda.machine.Bus.IpNetwork;
import rueda.machine.Machine;

/**
 * Modbus TCP (Modbus messaging on TCP/IP implementation guide V1.0b; application protocol V1.1b3, function 17h): header with
 * transaction, protocol 0, length and unit; request with the registers to read, those to write and their values; answer with the values read.
 */
final class ModbusFrames implements BusFrames {

    private static final int PORT = 502;
    private static final int FIRST_OWN_PORT = 50_000;
    private static final byte READ_WRITE_MULTIPLE = 0x17;

    private final Packet.End[] masters;
    private final Packet.End[] stations;
    private final byte[] units;
    private final int[] asked;
    private final int[] answered;
    private int transaction;

    ModbusFrames(Machine machine) {
        int count = machine.axes().size();
        masters = new Packet.End[count];
        stations = new Packet.End[count];
        units = new byte[count];
        asked = new int[count];
        answered = new int[count];
        for (int i = 0; i < count; i++) {
            masters[i] = new Packet.End(0, IpNetwork.number(machine.bus().plc().address()).orElse(0), FIRST_OWN_PORT + i);
            stations[i] = new Packet.End(i + 1, IpNetwork.number(machine.axes().get(i).station().address().ip().address()).orElse(0), PORT);
            units[i] = (byte) machine.axes().get(i).station().address().number();
            asked[i] = 1;
            answered[i] = 1;
        }
    }

    @Override
    public Medium medium() {
        return Medium.ETHERNET;
    }

    @Override
    public void cycle(long nanos, byte[][] outputs, byte[][] inputs, FrameSink sink) throws IOException {
        transaction++;
        long at = nanos;
        for (int i = 0; i < stations.length; i++) {
            byte[] request = request(units[i], outputs[i], inputs[i].length);
            byte[] frame = Packet.tcp(masters[i], stations[i], transaction, asked[i], answered[i], request);
            sink.frame(at, frame);
            asked[i] += request.length;
            at += Ethernet.nanos(frame.length - Ethernet.HEADER);
            byte[] answer = answer(units[i], inputs[i]);
            frame = Packet.tcp(stations[i], masters[i], transaction, answered[i], asked[i], answer);
            sink.frame(at, frame);
            answered[i] += answer.length;
            at += Ethernet.nanos(frame.length - Ethernet.HEADER);
        }
    }

    private byte[] request(byte unit, byte[] image, int read) {
        ByteBuffer pdu = ByteBuffer.allocate(17 + image.length);
        header(pdu, unit, 11 + image.length);
        pdu.putShort((short) ModbusTcp.READ_FROM).putShort((short) (read / 2)).putShort((short) ModbusTcp.WRITE_FROM).putShort((short) (image.length / 2))
                .put((byte) image.length).put(image);
        return pdu.array();
    }

    private byte[] answer(byte unit, byte[] image) {
        ByteBuffer pdu = ByteBuffer.allocate(9 + image.length);
        header(pdu, unit, 3 + image.length);
        return pdu.put((byte) image.length).put(image).array();
    }

    /** @param length bytes from the unit on */
    private void header(ByteBuffer into, byte unit, int length) {
        into.putShort((short) transaction).putShort((short) 0).putShort((short) length).put(unit).put(READ_WRITE_MULTIPLE);
    }
}
