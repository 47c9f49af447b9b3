package rueda.plcopen;

import rueda.machine.Dynamics;
import rueda.plc.run.CallPlace;
import rueda.profile.TimedCurve;

/**
 * What function blocks order of an axis by a table over time: places, speeds or accelerations. A table that asks for more than the axis may do
 * is refused as a whole, before anything moves. Orders may allocate; what they order does not. Not thread-safe.
 */
final class TableOrders {

    /** What stands in a table. */
    enum Kind { PLACES, SPEEDS, ACCELERATIONS }

    /**
     * A table as a program gives it.
     *
     * @param seconds  from one value to the next one
     * @param values   user units, units/s or units/s², scaled
     * @param absolute places are those of the axis, else they count from where it is
     */
    record Pairs(Kind kind, double[] seconds, double[] values, boolean absolute) {
        boolean sound() {
            boolean sound = seconds.length > 0;
            for (int i = 0; i < seconds.length; i++) {
                sound = sound && seconds[i] > 0 && Double.isFinite(seconds[i]) && Double.isFinite(values[i]);
            }
            return sound;
        }
    }

    private final MotionAxis axis;
    private final CurveGenerator generator;
    private final AxisSetpoint setpoint;
    private final ProgramPlaces places;
    private final boolean endless;

    TableOrders(MotionAxis axis, CurveGenerator generator, AxisSetpoint setpoint, ProgramPlaces places, boolean endless) {
        this.axis = axis;
        this.generator = generator;
        this.setpoint = setpoint;
        this.places = places;
        this.endless = endless;
    }

    /** @param table null for one that has more pairs than there is room for, or fewer than one  @param mode null for a value that is none */
    void follow(MotionCommand command, Pairs table, BufferMode mode, String block, CallPlace call, long now) {
        if (!axis.moves().waits(command, mode, later -> begin(command, table, block, call, later), block, call, now)) {
            begin(command, table, block, call, now);
        }
    }

    private void begin(MotionCommand command, Pairs table, String block, CallPlace call, long now) {
        MotionError refusal = axis.cannotMove();
        if (refusal == MotionError.NONE && (table == null || !table.sound())) {
            refusal = MotionError.BAD_TABLE;
        }
        if (refusal == MotionError.NONE && table.kind() == Kind.PLACES && !axis.referenced()) {
            refusal = axis.referenceLost() ? MotionError.REFERENCE_LOST : MotionError.NOT_REFERENCED;
        }
        TimedCurve curve = refusal == MotionError.NONE ? curve(table) : null;
        TimedCurve.Extremes most = curve == null ? null : curve.extremes();
        if (most != null) {
            refusal = tooMuch(most);
        }
        if (refusal != MotionError.NONE) {
            axis.refuse(command, refusal, block, call, now, most == null ? Double.NaN : most.speed());
            return;
        }
        axis.leadAlong(command, table.kind() == Kind.PLACES ? AxisState.DISCRETE_MOTION : AxisState.CONTINUOUS_MOTION);
        generator.begin(curve, most.speed());
        double target = table.kind() == Kind.PLACES ? table.values()[table.values().length - 1] : Double.NaN;
        axis.log(now, call, CommandLog.Kind.MOVE, block, target, most.speed(), most.acceleration(), most.deceleration(), 0, curve.duration());
    }

    private TimedCurve curve(Pairs table) {
        double[] seconds = table.seconds();
        double from = setpoint.position;
        return switch (table.kind()) {
            case PLACES -> TimedCurve.throughPlaces(from, setpoint.velocity, seconds, placesOf(table), 0);
            case SPEEDS -> TimedCurve.throughSpeeds(from, setpoint.velocity, seconds, table.values());
            case ACCELERATIONS -> TimedCurve.throughAccelerations(from, setpoint.velocity, setpoint.acceleration, seconds, table.values());
        };
    }

    /** On an endless axis the first place is come to on the shorter way, and the others go on from there. */
    private double[] placesOf(Pairs table) {
        double[] values = table.values().clone();
        double first = values[0];
        double by = !table.absolute() ? setpoint.position : endless ? places.range().target(first, Direction.SHORTEST, setpoint.position, setpoint.position, setpoint.velocity < 0) - first : 0;
        for (int i = 0; i < values.length; i++) {
            values[i] += by;
        }
        return values;
    }

    /** Rounding lets a table that asks for exactly what is allowed be a little above it. */
    private static final double ROUNDING = 1 + 1e-9;

    private MotionError tooMuch(TimedCurve.Extremes most) {
        Dynamics max = places.limits().max();
        if (!(most.speed() <= max.speed() * ROUNDING) || !(most.acceleration() <= max.acceleration() * ROUNDING) || !(most.deceleration() <= max.deceleration() * ROUNDING)) {
            return MotionError.TOO_MUCH;
        }
        boolean outside = !endless && axis.referenced() && (most.lowest() < places.limits().softMin() - places.halfWireUnit() || most.highest() > places.limits().softMax() + places.halfWireUnit());
        return outside ? MotionError.PAST_SOFT_LIMIT : MotionError.NONE;
    }
}
