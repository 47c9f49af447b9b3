package rueda.bus;

import java.util.ArrayList;
import java.util.List;
import rueda.machine.Axis;
import rueda.machine.Bus.Family;
import rueda.machine.Machine;

/**
 * Where a station begins in the process image of the PLC.
 *
 * @param outputs first byte of what the PLC writes, from 0
 * @param inputs  first byte of what it reads, from 0
 */
public record StationPlace(int outputs, int inputs) {

    /**
     * The places of all stations, in the order of the axes. On EtherCAT one logical read-write covers both directions, so a station begins
     * at the same byte in both, as the network information says; on the other buses each direction is counted for itself, a station on 4 bytes.
     */
    public static List<StationPlace> of(Machine machine) {
        List<StationPlace> places = new ArrayList<>();
        int outputs = 0;
        int inputs = 0;
        for (Axis axis : machine.axes()) {
            places.add(new StationPlace(outputs, inputs));
            if (machine.bus().family() == Family.ETHERCAT) {
                outputs += EtherCat.logicalBytes(machine.bus(), axis.station());
                inputs = outputs;
            } else {
                outputs += onFourBytes(BusFamily.bytes(machine.bus(), axis.station().outputs()));
                inputs += onFourBytes(BusFamily.bytes(machine.bus(), axis.station().inputs()));
            }
        }
        return places;
    }

    private static int onFourBytes(int bytes) {
        return (bytes + 3) / 4 * 4;
    }
}
