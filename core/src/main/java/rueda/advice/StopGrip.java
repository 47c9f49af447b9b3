package rueda.advice;

import java.util.ArrayList;
import java.util.List;
import rueda.machine.Axis;
import rueda.machine.AxisGuard;
import rueda.machine.SafetyFunction;
import rueda.machine.StopRules;
import rueda.machine.StopRules.Watch;

/**
 * Where the drawing of a stop can be taken hold of, and what entry of the guard that changes.
 *
 * @param entry  name of the entry in the rules of the stop
 * @param label  what it is called
 * @param along  what grows when it is moved
 * @param time   where it is, ms since something asked; null for a line that goes on to the end
 * @param height where it is, units/s; of {@link Along#WAY} units from where the axis stands
 * @param value  of the entry now
 * @param from   of {@link Along#SLOPE}: where the ramp begins, ms
 * @param drop   of {@link Along#SLOPE}: by how much the speed falls from there to the grip, units/s: the entry is drop ÷ (time − from)
 */
public record StopGrip(String entry, String label, Along along, Double time, double height, double value, double from, double drop) {

    /** What a grip changes, and by how much for the way that it is moved. */
    public enum Along {
        /** A time: one ms for each. */
        TIME,
        /** A speed: as much as it is moved up. */
        SPEED,
        /** A deceleration: the slope of the line that it ends. */
        SLOPE,
        /** A length: as much as it is moved up. */
        WAY
    }

    /** The grips of a stop by ramp, or by time; none for one in which the torque goes at once. */
    static List<StopGrip> of(GuardPlan plan, Axis axis, SafetyFunction function) {
        List<StopGrip> grips = new ArrayList<>();
        if (function != SafetyFunction.SAFE_STOP_1 && function != SafetyFunction.SAFE_STOP_2) {
            return grips;
        }
        AxisGuard guard = axis.guard();
        StopRules stop = guard.of(function);
        grips.add(time("delay", "Delay", plan.watched(), plan.begins(), stop.delay()));
        if (stop.watch() == Watch.RAMP) {
            ramps(grips, plan, stop);
        } else {
            grips.add(time("time", "Time to stand", plan.watched() + stop.time(), plan.speed() / 2, stop.time()));
        }
        grips.add(new StopGrip("standstillSpeed", "Standstill speed", Along.SPEED, null, stop.standstillSpeed(), stop.standstillSpeed(), 0, 0));
        if (function == SafetyFunction.SAFE_STOP_2) {
            grips.add(new StopGrip("window", "Standstill window", Along.WAY, null, stop.window(), stop.window(), 0, 0));
            return grips;
        }
        grips.add(time("torqueDelay", "Torque off after", plan.torque(), 0, stop.torqueDelay()));
        if (plan.brake() != null && guard.brake()) {
            grips.add(time("brakeDelay", "Brake after", plan.brake(), 0, stop.brakeDelay()));
        }
        return grips;
    }

    private static void ramps(List<StopGrip> grips, GuardPlan plan, StopRules stop) {
        double drop = plan.begins() - stop.standstillSpeed();
        if (drop > 0) {
            grips.add(new StopGrip("flattest", "Flattest ramp", Along.SLOPE, plan.watched() + 1e3 * drop / stop.flattest(), stop.standstillSpeed(), stop.flattest(), plan.watched(), drop));
        }
        if (stop.steepest() > 0 && plan.begins() > 0) {
            grips.add(new StopGrip("steepest", "Steepest ramp", Along.SLOPE, plan.watched() + 1e3 * plan.begins() / stop.steepest(), 0, stop.steepest(), plan.watched(), plan.begins()));
        }
    }

    private static StopGrip time(String entry, String label, double at, double height, double value) {
        return new StopGrip(entry, label, Along.TIME, at, height, value, 0, 0);
    }
}
