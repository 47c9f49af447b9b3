package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.math.BigDecimal;
import java.math.MathContext;
import java.util.List;
import rueda.machine.StopRules.Restart;
import rueda.machine.StopRules.Watch;

/**
 * The watch over an axis: a device with a clock, an encoder channel and inputs of its own.
 *
 * @param fitted        the axis has one
 * @param cycle         its cycle, ms, {@link #SHORTEST_CYCLE} to {@link #LONGEST_CYCLE} in steps of 0.125 ms
 * @param countsPerTurn resolution of its encoder channel, counts per turn of the motor, 1 to 2³¹ − 1
 * @param unitsPerTurn  user units per turn of the motor as it has them, not 0; another value than the axis has is a mistake that can be made
 * @param slowing       who slows the axis down when it is asked to
 * @param brake         it closes the holding brake (safe brake control)
 * @param stop1         safe stop 1
 * @param stop2         safe stop 2, also the window of safe operating stop
 * @param stop2Second   the second safe stop 2
 * @param speed         safely limited speed and safe direction
 * @param asks          which request asks for what
 */
@RecordBuilder
public record AxisGuard(boolean fitted, double cycle, int countsPerTurn, double unitsPerTurn, Slowing slowing, boolean brake, StopRules stop1, StopRules stop2, StopRules stop2Second, SpeedRules speed, List<Ask> asks) implements AxisGuardBuilder.With {

    /** What whoever looks at a simulated guard must know. */
    public static final String NOTE = "For planning and for finding mistakes: a simulated guard replaces no validation on the machine.";

    public static final double SHORTEST_CYCLE = 0.25;
    public static final double LONGEST_CYCLE = 20;
    /** The cycle is a multiple of it, ms. */
    public static final double CYCLE_STEP = 0.125;

    private static final int USUAL_COUNTS = 4096;
    private static final double USUAL_CYCLE = 2;

    public AxisGuard {
        asks = asks == null ? List.of() : List.copyOf(asks);
    }

    /** @param request name of a {@link SafetyRequest}  @param function what it asks for */
    public record Ask(String request, SafetyFunction function) {
    }

    /** Who slows the axis down; the guard only watches. */
    public enum Slowing {
        /** Its quick-stop ramp, and after safe stop 2 it holds its place with torque. */
        DRIVE("the drive, quick stop"),
        /** The program is told over the bus, and does it by its own orders. */
        PROGRAM("the program");

        private final String words;

        Slowing(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** No guard; what it begins with is for an axis in mm. */
    public static final AxisGuard NONE = usual(10, 1000);

    /** With values that suit an axis whose scale is sound. @throws rueda.quantity.InvalidEntry when the entries of its scale make none */
    public static AxisGuard suiting(Axis axis) {
        return usual(axis.motorSide().unitsPerRadian() * 2 * Math.PI, axis.limits().quickStop());
    }

    /** Not fitted yet, with values that suit an axis. @param unitsPerTurn user units per turn of the motor  @param deceleration of its quick stop, units/s² */
    public static AxisGuard usual(double unitsPerTurn, double deceleration) {
        /* some four times the speed that is one count a cycle: less cannot be told from standing */
        double standing = rounded(4 * Math.abs(unitsPerTurn) / USUAL_COUNTS / (USUAL_CYCLE * 1e-3));
        StopRules stop = new StopRules(Watch.RAMP, 20, 0, rounded(0.8 * deceleration), 500, standing, rounded(standing / 10), rounded(standing / 5), 0, 200, Restart.ACKNOWLEDGED);
        return new AxisGuard(false, USUAL_CYCLE, USUAL_COUNTS, unitsPerTurn, Slowing.DRIVE, true, stop, stop, stop, new SpeedRules(100, rounded(10 * standing), rounded(standing / 10)), List.of());
    }

    /** To two digits. */
    private static double rounded(double value) {
        return new BigDecimal(value).round(new MathContext(2)).doubleValue();
    }

    /** Name of the entry that says how a function is watched; empty for safe torque off, which has none of its own. */
    public static String entry(SafetyFunction function) {
        return switch (function) {
            case SAFE_TORQUE_OFF -> "";
            case SAFE_STOP_1 -> "stop1";
            case SAFE_STOP_2, SAFE_OPERATING_STOP -> "stop2";
            case SAFE_STOP_2_SECOND -> "stop2Second";
            case SAFELY_LIMITED_SPEED, SAFE_DIRECTION_POSITIVE, SAFE_DIRECTION_NEGATIVE -> "speed";
        };
    }

    /** How a stop is watched. @param stop safe stop 1 or 2; safe operating stop and all others have the window of safe stop 2 */
    public StopRules of(SafetyFunction stop) {
        return switch (stop) {
            case SAFE_STOP_1 -> stop1;
            case SAFE_STOP_2_SECOND -> stop2Second;
            default -> stop2;
        };
    }
}
