package rueda.bus;

import java.util.ArrayList;
import java.util.List;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.Machine;

/**
 * Clocks of the stations against the reference station. Every oscillator is off by up to 50 ppm; each bus cycle the reference time is
 * given out, and a station turns its own clock by a share of the deviation and of its mean drift (ETG.1000.4, distributed clocks: the
 * control loop is the maker's). A clock counts in steps of 10 ns.
 */
public final class ClockDrift {

    private static final double STEP_NANOS = 10;
    private static final double PROPORTIONAL = 0.25;
    private static final double INTEGRAL = 0.02;
    private static final double MOST_PPM = 50;
    private static final int KEPT = 400;

    private ClockDrift() {
    }

    /**
     * One station.
     *
     * @param axis      name of the axis
     * @param ppm       how much its oscillator is off against true time
     * @param deviation from the reference, ns, samples over the run
     * @param settled   largest deviation in the second half of the run, ns
     * @param inTime    from when on it stays within the window, s; −1 when it does not
     */
    public record StationClock(String axis, double ppm, List<Double> deviation, double settled, double inTime) {
    }

    /** @param reference axis whose station gives the time, empty when there is no station  @param sampleSeconds between two samples */
    public record Drift(String reference, double sampleSeconds, List<StationClock> stations) {
    }

    /** Lets the clocks run from power-up. @param seconds 0.1 to 60 */
    public static Drift run(Machine machine, double seconds) {
        int stride = Math.max(1, cycles(machine, seconds) / KEPT);
        List<StationClock> stations = new ArrayList<>();
        for (int i = 0; i < machine.axes().size(); i++) {
            stations.add(station(machine, i, seconds));
        }
        return new Drift(machine.axes().isEmpty() ? "" : machine.axes().get(reference(machine)).name(), stride * machine.bus().cycleMicros() * 1e-6, stations);
    }

    private static int cycles(Machine machine, double seconds) {
        return (int) Math.max(2 * KEPT, seconds * 1e6 / machine.bus().cycleMicros());
    }

    private static int reference(Machine machine) {
        return Math.max(0, machine.axes().stream().map(Axis::name).toList().indexOf(machine.bus().clock().reference()));
    }

    /** One station's clock from power-up. @param number of its axis */
    public static StationClock station(Machine machine, int number, double seconds) {
        int cycles = cycles(machine, seconds);
        return station(machine.axes().get(number).name(), number, reference(machine), machine.bus(), machine.bus().cycleMicros() * 1000.0, cycles, Math.max(1, cycles / KEPT));
    }

    private static StationClock station(String name, int number, int reference, Bus bus, double cycle, int cycles, int stride) {
        double drift = (ppm(number) - ppm(reference)) * 1e-6 * cycle;
        /* at power-up clocks differ by what passed between switching on */
        double deviation = number == reference ? 0 : 900 * Math.sin(1 + number);
        double learned = 0;
        double settled = 0;
        double inTime = -1;
        List<Double> samples = new ArrayList<>();
        for (int k = 0; k < cycles; k++) {
            if (number != reference) {
                deviation += drift;
                double measured = Math.rint(deviation / STEP_NANOS) * STEP_NANOS;
                learned += INTEGRAL * measured;
                deviation -= PROPORTIONAL * measured + learned;
            }
            /* worst within the cycle: before the correction */
            double worst = Math.abs(deviation) + (number == reference ? 0 : Math.abs(drift));
            if (k >= cycles / 2) {
                settled = Math.max(settled, worst);
            }
            boolean within = bus.clock().windowNanos() == 0 || worst <= bus.clock().windowNanos();
            inTime = within ? inTime < 0 ? k * cycle * 1e-9 : inTime : -1;
            if (k % stride == 0 && samples.size() < KEPT) {
                samples.add(deviation);
            }
        }
        return new StationClock(name, ppm(number), samples, settled, inTime);
    }

    /** Oscillators differ, the same ones each time. */
    public static double ppm(int number) {
        long mixed = (number + 1) * 0x9E37_79B9_7F4A_7C15L;
        return ((mixed >>> 40) / (double) (1 << 24) * 2 - 1) * MOST_PPM;
    }
}
