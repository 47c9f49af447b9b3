package rueda.bench;

import java.util.ArrayList;
import java.util.List;
import rueda.drive.Drive;
import rueda.machine.Axis;
import rueda.machine.Dynamics;
import rueda.machine.Machine;

/** A short move carried out on a bench of its own, to see how the gains follow it. */
public final class MoveTrial {

    /** Share of the way that counts as arrived. */
    private static final double BAND = 0.001;
    private static final double AFTERWARDS = 0.25;
    private static final double LONGEST = 20;

    private MoveTrial() {
    }

    /**
     * @param time           s since the move began
     * @param commanded      units
     * @param actual         units, where the load is
     * @param followingError units
     * @param torque         N·m
     * @param peakTorque     N·m
     * @param settled        s after the setpoint stood until the load stayed within a thousandth of the way; NaN when it did not
     */
    public record Result(List<Double> time, List<Double> commanded, List<Double> actual, List<Double> followingError, List<Double> torque,
                         double peakTorque, double settled) {
    }

    /** A tenth of a second at the default speed, with the ramps that takes, to the side with more room. */
    public static Result run(Machine machine, int axisNumber) {
        Axis axis = machine.axes().get(axisNumber);
        Machine alone = new Machine(machine.name(), machine.bus(), machine.plc(), List.of(axis), machine.proof());
        Bench bench = new Bench(alone, "PROGRAM Move\nEND_PROGRAM\n", 16);
        bench.takeByHand();
        bench.run(0.05);
        bench.hand(0).enable(true);
        bench.run(0.6);
        Dynamics d = axis.limits().normal();
        double way = d.speed() * (0.1 + d.speed() / d.acceleration());
        Drive drive = bench.drive(0);
        if (!axis.endless()) {
            double above = axis.travel().positiveLimit() - drive.plant().place();
            double below = drive.plant().place() - axis.travel().negativeLimit();
            way = Math.min(way, 0.8 * Math.max(above, below)) * (above >= below ? 1 : -1);
        }
        return measured(bench, drive, way);
    }

    private static Result measured(Bench bench, Drive drive, double way) {
        List<Double> time = new ArrayList<>();
        List<Double> commanded = new ArrayList<>();
        List<Double> actual = new ArrayList<>();
        List<Double> error = new ArrayList<>();
        List<Double> torque = new ArrayList<>();
        double begun = bench.now() * 1e-9;
        double from = drive.plant().place();
        double demandFrom = drive.demandPosition();
        double peak = 0;
        double stood = Double.NaN;
        double outside = begun;
        bench.hand(0).step(way, bench.now());
        double until = begun + LONGEST;
        while (bench.now() * 1e-9 < until) {
            bench.cycle();
            double now = bench.now() * 1e-9;
            double demand = drive.demandPosition() - demandFrom;
            double load = drive.plant().place() - from;
            time.add(now - begun);
            commanded.add(demand);
            actual.add(load);
            error.add(drive.followingError());
            torque.add(drive.torque());
            peak = Math.max(peak, Math.abs(drive.torque()));
            outside = Math.abs(load - way) > BAND * Math.abs(way) ? now : outside;
            if (Double.isNaN(stood) && bench.hand(0).stands() && now > begun + 0.01) {
                stood = now;
                until = now + AFTERWARDS;
            }
        }
        boolean settles = outside < until - 0.02;
        return new Result(time, commanded, actual, error, torque, peak, settles ? Math.max(0, outside - stood) : Double.NaN);
    }
}
