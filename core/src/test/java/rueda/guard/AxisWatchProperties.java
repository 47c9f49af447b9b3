package rueda.guard;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import rueda.machine.StopRules.Restart;
import rueda.machine.StopRules.Watch;
import rueda.machine.SafetyFunction;
import rueda.machine.StopRules;
import rueda.machine.SpeedRules;

/** Whatever the drive does, against limits worked out here in another way: in real numbers, from the speed that the axis really has. */
class AxisWatchProperties {

    /** counts a cycle that the guard does not know: a speed is known to one, and begins of ramps are read from one */
    private static final double NOT_KNOWN = 2;

    private static AxisWatch watch(double flattest, double filter, double window) {
        StopRules stop = new StopRules(Watch.RAMP, 0, 0, flattest, 0, 5, filter, window, 0, 1_000_000, Restart.ACKNOWLEDGED);
        return new AxisWatch(new GuardRules(1_000_000, 0.001, stop, stop, stop, new SpeedRules(0, 50, filter)));
    }

    @Property(tries = 300)
    void torqueIsOffInTimeAndNeverForNothing(@ForAll @Size(min = 1, max = 60) List<@DoubleRange(min = -150, max = 150) Double> speeds, @ForAll @DoubleRange(max = 0.1) double filter,
                                             @ForAll @IntRange(max = 3) int what) {
        double flattest = 2000;
        SafetyFunction asked = List.of(SafetyFunction.SAFELY_LIMITED_SPEED, SafetyFunction.SAFE_STOP_2, SafetyFunction.SAFE_STOP_1, SafetyFunction.SAFE_OPERATING_STOP).get(what);
        AxisWatch watch = watch(flattest, filter, 0.2);
        double place = 0.5;
        double before = Math.abs(speeds.get(0));
        place += speeds.get(0);
        watch.cycle(0, 0, false);
        watch.cycle((long) Math.floor(place), 0, false);
        double surely = 0;
        double perhaps = 0;
        double rest = asked == SafetyFunction.SAFE_OPERATING_STOP ? place : Double.NaN;
        double limit = asked == SafetyFunction.SAFELY_LIMITED_SPEED ? 50 : asked == SafetyFunction.SAFE_OPERATING_STOP ? 5 : before;
        boolean mustBeOff = false;
        boolean mayBeOff = false;
        for (int k = 1; k < speeds.size(); k++) {
            double speed = speeds.get(k);
            place += speed;
            if (k > 1 && asked == SafetyFunction.SAFE_STOP_2 || k > 1 && asked == SafetyFunction.SAFE_STOP_1) {
                limit = Math.max(limit - flattest * 1e-3, 5);
            }
            if (k == 1 && asked != SafetyFunction.SAFELY_LIMITED_SPEED) {
                /* the request comes with this cycle: its ramp begins with the speed, its place is the place */
                limit = asked == SafetyFunction.SAFE_OPERATING_STOP ? 5 : Math.abs(speed);
                rest = place;
            }
            watch.cycle((long) Math.floor(place), asked.bit(), false);
            if (asked != SafetyFunction.SAFELY_LIMITED_SPEED && asked != SafetyFunction.SAFE_OPERATING_STOP && Math.abs(speed) <= 5 + NOT_KNOWN) {
                /* it counts as standing, or nearly: from here on another limit holds, which the others look at */
                return;
            }
            double over = Math.abs(speed) - limit;
            surely = over > NOT_KNOWN ? surely + over - NOT_KNOWN : 0;
            perhaps = over > -NOT_KNOWN ? perhaps + over + NOT_KNOWN : 0;
            boolean left = asked == SafetyFunction.SAFE_OPERATING_STOP && Math.abs(place - rest) > 200 + 1;
            boolean nearlyLeft = asked == SafetyFunction.SAFE_OPERATING_STOP && Math.abs(place - rest) > 200 - 1;
            mustBeOff |= surely > filter * 1000 || left;
            mayBeOff |= perhaps > filter * 1000 || nearlyLeft;
            if (mustBeOff) {
                assertThat(watch.torque()).as("cycle %d, %s at %s, limit %s", k, asked, speed, limit).isFalse();
            }
            if (!mayBeOff) {
                assertThat(watch.torque()).as("cycle %d, %s at %s, limit %s: %s", k, asked, speed, limit, watch.breach()).isTrue();
            }
        }
    }

    /** Once off, nothing but an acknowledge without a request brings torque back. */
    @Property(tries = 300)
    void torqueComesBackOnlyByAnAcknowledge(@ForAll @Size(max = 200) List<@IntRange(max = 255) Integer> asked, @ForAll @Size(max = 200) List<@IntRange(min = -40, max = 40) Integer> moved) {
        AxisWatch watch = watch(2000, 0.05, 0.1);
        long counts = 0;
        boolean off = false;
        for (int k = 0; k < Math.min(asked.size(), moved.size()); k++) {
            counts += moved.get(k);
            watch.cycle(counts, asked.get(k), false);
            assertThat(off && watch.torque()).as("cycle %d", k).isFalse();
            off |= !watch.torque();
            assertThat(watch.brakeMayOpen() && !watch.torque()).isFalse();
            assertThat(watch.torque()).isEqualTo(watch.phase().torque());
        }
    }
}
