package rueda.plcopen;

import rueda.machine.Dynamics;
import rueda.machine.Limits;

/**
 * What a program has written into the limits of an axis with MC_WriteParameter and MC_WriteBoolParameter: soft limits of its own inside those
 * of the document, and what an order takes that leaves a value out. The document's limits, which the drive keeps too, always hold. Places in the
 * numbering of the drive. Not thread-safe.
 */
final class WrittenLimits {

    /** Numbers of PLCopen Motion Control part 1 (from memory). */
    private static final int SOFT_MAX = 2;
    private static final int SOFT_MIN = 3;
    private static final int WATCH_MAX = 4;
    private static final int WATCH_MIN = 5;
    private static final int SPEED = 9;
    private static final int ACCELERATION = 13;
    private static final int DECELERATION = 15;
    private static final int JERK = 17;

    private double softMax = Double.POSITIVE_INFINITY;
    private double softMin = Double.NEGATIVE_INFINITY;
    private boolean watchesMax = true;
    private boolean watchesMin = true;
    /** NaN where nothing is written */
    private double speed = Double.NaN;
    private double acceleration = Double.NaN;
    private double deceleration = Double.NaN;
    private double jerk = Double.NaN;

    /** @param shift what the program has added to the positions of the drive, user units  @param own limits of the document */
    MotionError write(long parameter, double value, double shift, boolean bounded, Limits own) {
        Dynamics max = own.max();
        double place = value - shift;
        boolean fits = switch ((int) parameter) {
            case SOFT_MAX -> bounded && place <= own.softMax() && place > Math.max(own.softMin(), softMin);
            case SOFT_MIN -> bounded && place >= own.softMin() && place < Math.min(own.softMax(), softMax);
            case SPEED -> value > 0 && value <= max.speed();
            case ACCELERATION -> value > 0 && value <= max.acceleration();
            case DECELERATION -> value > 0 && value <= max.deceleration();
            case JERK -> value >= 0 && (max.jerk() == 0 || value > 0 && value <= max.jerk()) && Double.isFinite(value);
            default -> true;
        };
        if (!fits) {
            return MotionError.BAD_VALUE;
        }
        switch ((int) parameter) {
            case SOFT_MAX -> softMax = place;
            case SOFT_MIN -> softMin = place;
            case SPEED -> speed = value;
            case ACCELERATION -> acceleration = value;
            case DECELERATION -> deceleration = value;
            case JERK -> jerk = value;
            default -> {
                return MotionError.READ_ONLY;
            }
        }
        return MotionError.NONE;
    }

    MotionError watch(long parameter, boolean on, boolean bounded) {
        if (parameter != WATCH_MAX && parameter != WATCH_MIN) {
            return MotionError.READ_ONLY;
        }
        if (!bounded) {
            return MotionError.BAD_VALUE;
        }
        if (parameter == WATCH_MAX) {
            watchesMax = on;
        } else {
            watchesMin = on;
        }
        return MotionError.NONE;
    }

    boolean watches(long parameter) {
        return parameter == WATCH_MAX ? watchesMax : watchesMin;
    }

    /** The document's limits, narrowed to what the program has written. */
    Limits within(Limits own) {
        Dynamics normal = own.normal();
        Dynamics max = own.max();
        return own.withSoft(watchesMin ? Math.max(own.softMin(), Math.min(softMin, own.softMax())) : own.softMin(), watchesMax ? Math.min(own.softMax(), Math.max(softMax, own.softMin())) : own.softMax())
                .withNormal(new Dynamics(Math.min(max.speed(), or(speed, normal.speed())), Math.min(max.acceleration(), or(acceleration, normal.acceleration())),
                        Math.min(max.deceleration(), or(deceleration, normal.deceleration())), or(jerk, normal.jerk()), normal.torque()));
    }

    private static double or(double written, double documented) {
        return Double.isNaN(written) ? documented : written;
    }
}
