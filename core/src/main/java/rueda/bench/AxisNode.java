package rueda.bench;

import java.util.LinkedHashMap;
import java.util.Map;
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
    /** null where every frame arrives */
    final FrameLoss frames;
    /** null where the axis has none */
    final GuardDevice guard;
    /** what has been broken while it ran, a bit for each mistake */
    int broken;
    /** levels that inputs show whatever stands behind them, by the names of the terminals */
    private final Map<String, Boolean> forcedInputs = new LinkedHashMap<>();
    /** made anew whenever the device begins anew */
    AxisLine line;

    AxisNode(int number, int firstTag, DeviceMemory device, Mistakes mistakes, StationClock clock, FrameLoss frames, GuardDevice guard) {
        this.guard = guard;
        this.frames = frames;
        this.clock = clock;
        this.number = number;
        this.firstTag = firstTag;
        this.device = device;
        this.mistakes = mistakes;
    }

    /** It takes every cycle at the time of the bus, and gets every frame. */
    boolean inTime() {
        return frames == null && !clock.own();
    }

    /** @param level null to let it go */
    void forceInput(String terminal, Boolean level) {
        if (level == null) {
            forcedInputs.remove(terminal);
        } else {
            forcedInputs.put(terminal, level);
        }
        line.drive.digitalInputs().force(terminal, level);
    }

    /** The device has begun anew: nothing is forced in it yet. */
    void forceInputs() {
        forcedInputs.forEach((terminal, level) -> line.drive.digitalInputs().force(terminal, level));
    }
}
