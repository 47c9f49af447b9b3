package rueda.bus.wire;

import java.io.IOException;
import rueda.machine.Machine;

/** Makes the frames of bus cycles. Keeps counters from cycle to cycle; not thread-safe. */
public interface BusFrames {

    /** What the first byte of a frame is: Ethernet, or a CAN frame of Linux (pcap link types 1 and 227). */
    enum Medium { ETHERNET, CAN }

    static BusFrames of(Machine machine) {
        return switch (machine.bus().family()) {
            case ETHERCAT -> new EtherCatFrames(machine);
            case CANOPEN -> new CanOpenFrames(machine);
            case PROFINET -> new ProfinetFrames(machine);
            case ETHERNET_IP -> new EtherNetIpFrames(machine);
            case MODBUS_TCP -> new ModbusFrames(machine);
        };
    }

    Medium medium();

    /**
     * Frames of one bus cycle.
     *
     * @param nanos   when the cycle begins
     * @param outputs bytes from the PLC, a row each axis
     * @param inputs  bytes to the PLC, a row each axis
     */
    void cycle(long nanos, byte[][] outputs, byte[][] inputs, FrameSink sink) throws IOException;
}
