package rueda.guard;

import rueda.machine.AxisGuard;
import rueda.machine.SafetyFunction;
import rueda.machine.SpeedRules;
import rueda.machine.StopRules;

/**
 * All that a guard knows of one axis.
 *
 * @param cycleNanos   its cycle, ns, above 0
 * @param unitsPerCount user units of the axis per count of the guard's own encoder channel, not 0; another value than the axis has is a mistake
 *                     that can be made
 * @param stop1        safe stop 1
 * @param stop2        safe stop 2, also the window of safe operating stop
 * @param stop2Second  the second safe stop 2
 * @param speed        safely limited speed and safe direction
 */
public record GuardRules(long cycleNanos, double unitsPerCount, StopRules stop1, StopRules stop2, StopRules stop2Second, SpeedRules speed) {

    /** What the document says of an axis' guard. */
    public static GuardRules of(AxisGuard guard) {
        return new GuardRules(Math.round(guard.cycle() * 1e6), guard.unitsPerTurn() / guard.countsPerTurn(), guard.stop1(), guard.stop2(), guard.stop2Second(), guard.speed());
    }

    /** Cycles until a time has passed: never less than the time. */
    public int cycles(double millis) {
        return (int) Math.ceil(millis * 1e6 / cycleNanos - 1e-9);
    }

    /** Counts per cycle at a speed, without sign. */
    double countsPerCycle(double speed) {
        return Math.abs(speed / unitsPerCount) * cycleNanos * 1e-9;
    }

    /** By how many counts per cycle the speed changes from one cycle to the next. */
    double countsPerCycleSquared(double acceleration) {
        return countsPerCycle(acceleration) * cycleNanos * 1e-9;
    }

    double counts(double length) {
        return Math.abs(length / unitsPerCount);
    }

    StopRules of(SafetyFunction stop) {
        return switch (stop) {
            case SAFE_STOP_1 -> stop1;
            case SAFE_STOP_2_SECOND -> stop2Second;
            default -> stop2;
        };
    }
}
