package rueda.trial;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import rueda.advice.LinearModel;
import rueda.bench.Bench;
import rueda.drive.Drive;
import rueda.machine.Axis;
import rueda.machine.Control;
import rueda.machine.Dynamics;
import rueda.machine.Limits;
import rueda.machine.Machine;

/** A short move, or a step of the setpoint, carried out on a bench of its own, to see how the gains follow it. */
public final class MoveTrial {

    /** Share of the way that counts as arrived. */
    private static final double BAND = 0.001;
    private static final double STEP_BAND = 0.02;
    private static final double AFTERWARDS = 0.25;
    /** Torque that a step asks for at its beginning, share of the rated torque: enough to see, too little to be limited. */
    private static final double STEP_TORQUE = 0.3;
    /** Machine time of a trial at most, s: slower gains are not waited for, and the result says so. */
    private static final double LONGEST = 20;
    /** Points of a result; of more every so-manieth is kept. */
    private static final int MOST_POINTS = 4000;
    /** Share of the travel that a step is at most. */
    private static final double STEP_SHARE = 0.1;

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
     * @param settled        s after the setpoint stood until the load stayed within a thousandth of the way, of a step within 2 %; NaN when it did not
     * @param inPosition     s after the setpoint stood until the drive reported in position; NaN when it did not
     * @param cutShort       the axis had not come to rest after the longest time that a trial lasts
     */
    public record Result(List<Double> time, List<Double> commanded, List<Double> actual, List<Double> followingError, List<Double> torque,
                         List<Double> predictedError, List<Double> allowedError, double peakTorque, double settled, double inPosition, boolean cutShort) {
    }

    /** A tenth of a second at the default speed, with the ramps that takes, to the side with more room. */
    public static Result run(Machine machine, int axisNumber) {
        Axis axis = machine.axes().get(axisNumber);
        Bench bench = enabled(machine, axis);
        Dynamics d = axis.limits().normal();
        double way = d.speed() * (0.1 + d.speed() / d.acceleration());
        Drive drive = bench.drive(0);
        if (!axis.endless()) {
            double above = axis.travel().positiveLimit() - drive.plant().place();
            double below = drive.plant().place() - axis.travel().negativeLimit();
            way = Math.min(way, 0.8 * Math.max(above, below)) * (above >= below ? 1 : -1);
        }
        return measured(axis, bench, drive, way, BAND, AFTERWARDS);
    }

    /**
     * A step of the setpoint, made within one bus cycle and without feed-forward, so small that its first torque
     * {@code Kp·Kv·Δθ} is 30 % of the rated one.
     */
    public static Result step(Machine machine, int axisNumber) {
        Axis axis = machine.axes().get(axisNumber);
        Control c = axis.control();
        double cycle = machine.bus().cycleMicros() * 1e-6;
        double wire = 1.0 / axis.scale().wireUnitsPerUnit();
        double angle = STEP_TORQUE * axis.motor().ratedTorque() / (c.velocityGain() * c.positionGain());
        double most = STEP_SHARE * (axis.endless() ? axis.scale().feed().toDouble() : axis.travel().positiveLimit() - axis.travel().negativeLimit());
        double size = Math.max(10, Math.rint(Math.min(most, angle * axis.motorSide().unitsPerRadian()) / wire)) * wire;
        double acceleration = 16 * size / (cycle * cycle);
        Limits l = axis.limits();
        Axis stepping = axis.withControl(new Control(c.positionGain(), c.velocityGain(), c.integralTime(), 0, 0))
                .withLimits(new Limits(l.softMin(), l.softMax(), new Dynamics(acceleration * cycle, acceleration, acceleration, 0, l.normal().torque()), l.max(), l.quickStop()));
        Bench bench = enabled(machine, stepping);
        Drive drive = bench.drive(0);
        boolean down = !axis.endless() && drive.plant().place() > (axis.travel().negativeLimit() + axis.travel().positiveLimit()) / 2;
        return measured(stepping, bench, drive, down ? -size : size, STEP_BAND, Math.min(LONGEST, 0.05 + 8 / c.positionGain()));
    }

    private static Bench enabled(Machine machine, Axis axis) {
        Bench bench = AxisAlone.of(machine, axis, Set.of());
        bench.takeByHand();
        bench.run(0.05);
        bench.hand(0).enable(true);
        bench.run(0.6);
        return bench;
    }

    private static Result measured(Axis axis, Bench bench, Drive drive, double way, double band, double afterwards) {
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
        double last = begun + LONGEST;
        double until = last;
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
            outside = Math.abs(load - way) > band * Math.abs(way) ? now : outside;
            if (drive.demandSpeed() != 0 || Double.isNaN(stood)) {
                stood = demand != 0 && drive.demandSpeed() == 0 ? now : Double.NaN;
                inPosition = Double.NaN;
                until = Double.isNaN(stood) ? last : Math.min(last, stood + afterwards);
            } else if (Double.isNaN(inPosition) && drive.inPosition()) {
                inPosition = now - stood;
            }
        }
        boolean settles = outside < until - 0.02;
        double[] predicted = LinearModel.followingError(axis, commanded.stream().mapToDouble(Double::doubleValue).toArray(), bench.recording().cycleNanos() * 1e-9);
        return new Result(thinned(time), thinned(commanded), thinned(actual), thinned(error), thinned(torque), thinned(DoubleStream.of(predicted).boxed().toList()), thinned(allowed), peak,
                settles ? Math.max(0, outside - stood) : Double.NaN, inPosition, !settles && until >= last);
    }

    /** At most {@link #MOST_POINTS} of the values, evenly. */
    private static List<Double> thinned(List<Double> values) {
        int every = (values.size() + MOST_POINTS - 1) / MOST_POINTS;
        return every <= 1 ? values : IntStream.range(0, values.size() / every).mapToObj(i -> values.get(i * every)).toList();
    }
}
