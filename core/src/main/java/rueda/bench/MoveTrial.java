package rueda.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.DoubleStream;
import rueda.advice.LinearModel;
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
     * @param predictedError following error by linear theory, units
     * @param allowedError   following error that is allowed, units
     * @param peakTorque     N·m
     * @param settled        s after the setpoint stood until the load stayed within a thousandth of the way; NaN when it did not
     * @param inPosition     s after the setpoint stood until the drive reported in position; NaN when it did not
     */
    public record Result(List<Double> time, List<Double> commanded, List<Double> actual, List<Double> followingError, List<Double> torque,
                         List<Double> predictedError, List<Double> allowedError, double peakTorque, double settled, double inPosition) {
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
        return measured(axis, bench, drive, way);
    }

    private static Result measured(Axis axis, Bench bench, Drive drive, double way) {
        List<Double> time = new ArrayList<>();
        List<Double> commanded = new ArrayList<>();
        List<Double> actual = new ArrayList<>();
        List<Double> error = new ArrayList<>();
        List<Double> torque = new ArrayList<>();
        List<Double> allowed = new ArrayList<>();
        double begun = bench.now() * 1e-9;
        double from = drive.plant().place();
        double demandBefore = drive.demandPosition();
        double demand = 0;
        double range = axis.wireModulo() / (double) axis.scale().wireUnitsPerUnit();
        double peak = 0;
        double stood = Double.NaN;
        double inPosition = Double.NaN;
        double outside = begun;
        bench.hand(0).step(way, bench.now());
        double until = begun + LONGEST;
        while (bench.now() * 1e-9 < until) {
            bench.cycle();
            double now = bench.now() * 1e-9;
            double step = drive.demandPosition() - demandBefore;
            demandBefore = drive.demandPosition();
            demand += range == 0 ? step : Math.IEEEremainder(step, range);
            double load = drive.plant().place() - from;
            time.add(now - begun);
            commanded.add(demand);
            actual.add(load);
            error.add(drive.followingError());
            torque.add(drive.torque());
            allowed.add(drive.allowedFollowingError());
            peak = Math.max(peak, Math.abs(drive.torque()));
            outside = Math.abs(load - way) > BAND * Math.abs(way) ? now : outside;
            if (drive.demandSpeed() != 0 || Double.isNaN(stood)) {
                stood = now > begun + 0.01 && drive.demandSpeed() == 0 ? now : Double.NaN;
                inPosition = Double.NaN;
                until = Double.isNaN(stood) ? begun + LONGEST : stood + AFTERWARDS;
            } else if (Double.isNaN(inPosition) && drive.inPosition()) {
                inPosition = now - stood;
            }
        }
        boolean settles = outside < until - 0.02;
        double[] predicted = LinearModel.followingError(axis, commanded.stream().mapToDouble(Double::doubleValue).toArray(), bench.recording().cycleNanos() * 1e-9);
        return new Result(time, commanded, actual, error, torque, DoubleStream.of(predicted).boxed().toList(), allowed, peak, settles ? Math.max(0, outside - stood) : Double.NaN, inPosition);
    }
}
