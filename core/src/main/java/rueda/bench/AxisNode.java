package rueda.bench;

import rueda.drive.DeviceMemory;
import rueda.plant.Mistakes;

/** One axis on the bench: what its device holds, whether it answers, what is wrong with its wiring, and the line from the PLC to the load as the device began last. */
final class AxisNode {

    final int number;
    /** number of its first tag among those of the environment */
    final int firstTag;
    final DeviceMemory device;
    final DeviceLife life = new DeviceLife();
    final StationClock clock;
    final Mistakes mistakes;
    /** made anew whenever the device begins anew */
    AxisLine line;

    AxisNode(int number, int firstTag, DeviceMemory device, Mistakes mistakes, StationClock clock) {
        this.clock = clock;
        this.number = number;
        this.firstTag = firstTag;
        this.device = device;
        this.mistakes = mistakes;
    }
}
