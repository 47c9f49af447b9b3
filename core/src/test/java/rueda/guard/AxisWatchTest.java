package rueda.guard;

import static org.assertj.core.api.Assertions.assertThat;
import static rueda.machine.SafetyFunction.SAFELY_LIMITED_SPEED;
import static rueda.machine.SafetyFunction.SAFE_DIRECTION_NEGATIVE;
import static rueda.machine.SafetyFunction.SAFE_DIRECTION_POSITIVE;
import static rueda.machine.SafetyFunction.SAFE_OPERATING_STOP;
import static rueda.machine.SafetyFunction.SAFE_STOP_1;
import static rueda.machine.SafetyFunction.SAFE_STOP_2;
import static rueda.machine.SafetyFunction.SAFE_STOP_2_SECOND;
import static rueda.machine.SafetyFunction.SAFE_TORQUE_OFF;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import rueda.machine.StopRules.Restart;
import rueda.machine.StopRules.Watch;
import rueda.machine.SafetyFunction;
import rueda.machine.StopRules;
import rueda.machine.SpeedRules;

/**
 * Each function against its definition in IEC 61800-5-2 (wording from memory), cycle by cycle. The guard has a cycle of 1 ms and 1000 counts a unit, so that
 * 1 unit/s is 1 count a cycle and 1 unit/s² changes that by 0.001 count a cycle.
 */
class AxisWatchTest {

    private static final long MILLISECOND = 1_000_000;

    private static StopRules ramp(double delay, double flattest, double steepest, double standstill, double filter, double window) {
        return new StopRules(Watch.RAMP, 1e3 * delay, steepest, flattest, 0, standstill, filter, window, 0, 0, Restart.ACKNOWLEDGED);
    }

    private static StopRules time(double delay, double time) {
        return new StopRules(Watch.TIME, 1e3 * delay, 0, 0, 1e3 * time, 5, 0.05, 0.1, 0, 0, Restart.ACKNOWLEDGED);
    }

    private static final StopRules USUAL = ramp(0.01, 1000, 0, 5, 0.05, 0.1);
    private static final StopRules AUTOMATIC = new StopRules(Watch.RAMP, 0, 0, 1000, 0, 5, 0.05, 0.1, 0, 0, Restart.AUTOMATIC);
    private static final SpeedRules SPEED = new SpeedRules(5, 50, 0.02);

    private static AxisWatch watch(StopRules stop1, StopRules stop2, StopRules second) {
        return new AxisWatch(new GuardRules(MILLISECOND, 0.001, stop1, stop2, second, SPEED));
    }

    /** An axis whose encoder moves by whole counts a cycle, as it is told. */
    private static final class Moved {
        private final AxisWatch watch;
        private long counts;
        private double speed;
        private int asked;
        private boolean acknowledge;

        private Moved(AxisWatch watch, double speed) {
            this.watch = watch;
            this.speed = speed;
            cycle();
        }

        private void cycle() {
            counts += Math.round(speed);
            watch.cycle(counts, asked, acknowledge);
        }

        private void cycles(int count) {
            for (int k = 0; k < count; k++) {
                cycle();
            }
        }

        /** Slows down by so much in every cycle in which it has been asked to, and not below 0. */
        private void slowing(double perCycle, int cycles) {
            for (int k = 0; k < cycles; k++) {
                cycle();
                if (watch.asksToStop()) {
                    speed = Math.signum(speed) * Math.max(0, Math.abs(speed) - perCycle);
                }
            }
        }

        private void acknowledge() {
            acknowledge = true;
            cycle();
            acknowledge = false;
            cycle();
        }
    }

    /** Prevents force-producing power: in the cycle of the request, whatever the axis does; the brake is told with it. */
    @Test
    void safeTorqueOff() {
        AxisWatch watch = watch(USUAL, USUAL, USUAL);
        Moved axis = new Moved(watch, 100);
        assertThat(watch.torque()).isTrue();
        assertThat(watch.brakeMayOpen()).isTrue();
        axis.asked = SAFE_TORQUE_OFF.bit();
        axis.cycle();
        assertThat(watch.phase()).isEqualTo(GuardPhase.OFF);
        assertThat(watch.torque()).isFalse();
        assertThat(watch.brakeMayOpen()).isFalse();
        axis.acknowledge();
        assertThat(watch.torque()).as("an acknowledge while it is asked means nothing").isFalse();
        axis.asked = 0;
        axis.cycles(5);
        assertThat(watch.torque()).as("waits for the acknowledge").isFalse();
        axis.acknowledge();
        assertThat(watch.phase()).isEqualTo(GuardPhase.FREE);
        assertThat(watch.breach()).isEqualTo(Breach.NONE);
    }

    /** -r: the deceleration is watched, and torque goes when the speed is below what counts as standing: delay 10 ms, 100 counts at 2 a cycle, so rest after 48. */
    @Test
    void safeStop1WithItsRampWatched() {
        StopRules stop1 = new StopRules(Watch.RAMP, 10, 0, 1000, 0, 5, 0.05, 0.1, 3, 20, Restart.ACKNOWLEDGED);
        AxisWatch watch = watch(stop1, USUAL, USUAL);
        Moved axis = new Moved(watch, 100);
        axis.asked = SAFE_STOP_1.bit();
        axis.cycles(10);
        assertThat(watch.phase()).isEqualTo(GuardPhase.DELAY);
        assertThat(watch.asksToStop()).isTrue();
        axis.slowing(2, 48);
        assertThat(watch.phase()).isEqualTo(GuardPhase.RAMP);
        axis.cycle();
        assertThat(watch.phase()).as("4 counts a cycle are below 5").isEqualTo(GuardPhase.CLOSING);
        axis.speed = 0;
        axis.cycles(2);
        assertThat(watch.brakeMayOpen()).isTrue();
        axis.cycle();
        assertThat(watch.brakeMayOpen()).as("3 ms after standstill").isFalse();
        axis.cycles(16);
        assertThat(watch.torque()).isTrue();
        axis.cycle();
        assertThat(watch.torque()).as("20 ms after standstill").isFalse();
        assertThat(watch.phase()).isEqualTo(GuardPhase.OFF);
        assertThat(watch.breach()).isEqualTo(Breach.NONE);
    }

    /** -t: torque goes when the time is over, whatever the speed. */
    @ParameterizedTest
    @ValueSource(doubles = {0, 100})
    void safeStop1WithItsTimeWatched(double speed) {
        AxisWatch watch = watch(time(0.004, 0.03), USUAL, USUAL);
        Moved axis = new Moved(watch, speed);
        axis.asked = SAFE_STOP_1.bit();
        axis.cycles(4 + 30);
        assertThat(watch.phase()).isEqualTo(GuardPhase.RAMP);
        axis.cycle();
        assertThat(watch.phase()).isEqualTo(GuardPhase.OFF);
    }

    /** Slows down, then safe operating stop: torque stays, and the place is watched from where it came to rest. */
    @Test
    void safeStop2() {
        AxisWatch watch = watch(USUAL, USUAL, USUAL);
        Moved axis = new Moved(watch, 100);
        axis.asked = SAFE_STOP_2.bit();
        axis.slowing(2, 80);
        assertThat(watch.phase()).isEqualTo(GuardPhase.STANDING);
        assertThat(watch.torque()).isTrue();
        axis.cycles(1000);
        assertThat(watch.phase()).isEqualTo(GuardPhase.STANDING);
        axis.asked = 0;
        axis.acknowledge();
        assertThat(watch.phase()).isEqualTo(GuardPhase.FREE);
    }

    /** Trade facts: leaving the position window cuts torque at once. The window is 100 counts: 100 is inside, 101 is not. */
    @ParameterizedTest
    @ValueSource(longs = {1, -1})
    void theWindowOfStandstillToACount(long sign) {
        AxisWatch watch = watch(USUAL, USUAL, USUAL);
        Moved axis = new Moved(watch, 0);
        axis.asked = SAFE_STOP_2.bit();
        axis.cycles(20);
        axis.speed = sign * 4;
        axis.cycles(25);
        assertThat(watch.phase()).isEqualTo(GuardPhase.STANDING);
        axis.speed = sign;
        axis.cycle();
        assertThat(watch.phase()).isEqualTo(GuardPhase.TRIPPED);
        assertThat(watch.breach()).isEqualTo(Breach.LEFT_WINDOW);
        assertThat(watch.breachLimit()).isEqualTo(0.1);
        assertThat(watch.breachCounts()).isEqualTo(sign * 101);
        assertThat(watch.brakeMayOpen()).isFalse();
    }

    /** Trade facts: moving further than the filter distance above the speed of standstill cuts torque at once: 15 counts a cycle are 10 too many; 50 are allowed, 60 are not. */
    @Test
    void theFilterDistanceAboveStandstill() {
        AxisWatch watch = watch(USUAL, USUAL, ramp(0, 1000, 0, 5, 0.05, 10));
        Moved axis = new Moved(watch, 0);
        axis.asked = SAFE_STOP_2_SECOND.bit();
        axis.cycles(3);
        axis.speed = 15;
        axis.cycles(5);
        assertThat(watch.phase()).isEqualTo(GuardPhase.STANDING);
        axis.cycle();
        assertThat(watch.breach()).isEqualTo(Breach.NOT_STANDING);
        assertThat(watch.breachSpeed()).isEqualTo(15);
        assertThat(watch.breachLimit()).isEqualTo(5);
    }

    /** What was gone too far is forgotten where the speed is kept. */
    @Test
    void theFilterDistanceBeginsAgain() {
        AxisWatch watch = watch(USUAL, USUAL, ramp(0, 1000, 0, 5, 0.05, 10));
        Moved axis = new Moved(watch, 0);
        axis.asked = SAFE_STOP_2_SECOND.bit();
        axis.cycles(3);
        for (int k = 0; k < 20; k++) {
            axis.speed = 15;
            axis.cycles(5);
            axis.speed = 0;
            axis.cycle();
        }
        assertThat(watch.phase()).isEqualTo(GuardPhase.STANDING);
    }

    /** The flattest ramp is 1000 units/s², 1 count a cycle less in every cycle: as flat holds, flatter by the filter distance does not. */
    @Test
    void flatterThanTheFlattest() {
        AxisWatch holds = watch(USUAL, USUAL, USUAL);
        Moved asFlat = new Moved(holds, 100);
        asFlat.asked = SAFE_STOP_2.bit();
        asFlat.cycles(11);
        asFlat.slowing(1, 200);
        assertThat(holds.phase()).isEqualTo(GuardPhase.STANDING);
        AxisWatch tooFlat = watch(USUAL, USUAL, USUAL);
        Moved flatter = new Moved(tooFlat, 100);
        flatter.asked = SAFE_STOP_2.bit();
        flatter.cycles(11);
        flatter.slowing(0.5, 100);
        assertThat(tooFlat.phase()).isEqualTo(GuardPhase.TRIPPED);
        assertThat(tooFlat.breach()).isEqualTo(Breach.FASTER_THAN_RAMP);
        assertThat(tooFlat.breachSpeed()).isGreaterThan(tooFlat.breachLimit());
    }

    @Test
    void steeperThanTheSteepest() {
        AxisWatch watch = watch(USUAL, ramp(0.01, 1000, 4000, 5, 0.05, 0.1), USUAL);
        Moved axis = new Moved(watch, 100);
        axis.asked = SAFE_STOP_2.bit();
        axis.cycles(11);
        axis.slowing(3, 15);
        assertThat(watch.phase()).isEqualTo(GuardPhase.RAMP);
        axis.speed = 6;
        axis.cycles(3);
        assertThat(watch.breach()).isEqualTo(Breach.SLOWER_THAN_RAMP);
    }

    @Test
    void safelyLimitedSpeedAfterItsDelay() {
        AxisWatch watch = watch(USUAL, USUAL, USUAL);
        Moved axis = new Moved(watch, 60);
        axis.asked = SAFELY_LIMITED_SPEED.bit();
        axis.cycles(5);
        assertThat(watch.phase()).isEqualTo(GuardPhase.FREE);
        axis.cycles(2);
        assertThat(watch.phase()).as("20 of 20 counts above it").isEqualTo(GuardPhase.FREE);
        axis.cycle();
        assertThat(watch.breach()).isEqualTo(Breach.FASTER_THAN_LIMIT);
        AxisWatch kept = watch(USUAL, USUAL, USUAL);
        Moved slow = new Moved(kept, 50);
        slow.asked = SAFELY_LIMITED_SPEED.bit();
        slow.cycles(1000);
        assertThat(kept.torque()).isTrue();
    }

    @Test
    void safeDirection() {
        for (SafetyFunction direction : List.of(SAFE_DIRECTION_POSITIVE, SAFE_DIRECTION_NEGATIVE)) {
            double right = direction == SAFE_DIRECTION_POSITIVE ? 3 : -3;
            AxisWatch watch = watch(USUAL, USUAL, USUAL);
            Moved axis = new Moved(watch, right);
            axis.asked = direction.bit();
            axis.cycles(100);
            assertThat(watch.torque()).isTrue();
            axis.speed = -right;
            axis.cycles(7);
            assertThat(watch.torque()).as("21 counts, 20 and the one that is not known").isTrue();
            axis.cycle();
            assertThat(watch.breach()).isEqualTo(Breach.WRONG_DIRECTION);
        }
    }

    /** Every pair in every order, the second at any moment of the first: the one that wins gets its way in its own time, and no torque comes back. */
    static Stream<Arguments> pairs() {
        SafetyFunction[] stops = {SAFE_TORQUE_OFF, SAFE_STOP_1, SAFE_STOP_2, SAFE_STOP_2_SECOND, SAFE_OPERATING_STOP};
        List<Arguments> pairs = new ArrayList<>();
        for (SafetyFunction first : stops) {
            for (SafetyFunction second : stops) {
                for (int later : new int[] {0, 1, 9, 10, 11, 30, 60, 61, 62, 100}) {
                    pairs.add(Arguments.of(first, second, later));
                }
            }
        }
        return pairs.stream();
    }

    @ParameterizedTest
    @MethodSource("pairs")
    void pairsOfRequests(SafetyFunction first, SafetyFunction second, int later) {
        StopRules stop1 = new StopRules(Watch.RAMP, 10, 0, 1000, 0, 5, 0.05, 0.1, 0, 20, Restart.ACKNOWLEDGED);
        AxisWatch watch = watch(stop1, USUAL, ramp(0.01, 1500, 0, 5, 0.05, 0.1));
        /* safe operating stop does not slow down: it is asked of an axis that stands */
        boolean stands = first == SAFE_OPERATING_STOP || second == SAFE_OPERATING_STOP;
        Moved axis = new Moved(watch, stands ? 0 : 100);
        axis.asked = first.bit();
        axis.slowing(2, later);
        axis.asked |= second.bit();
        boolean torqueBefore = watch.torque();
        axis.slowing(2, 200);
        SafetyFunction wins = rank(second) > rank(first) ? second : rank(first) > rank(second) || later > 0 ? first : first.ordinal() <= second.ordinal() ? first : second;
        assertThat(watch.leading()).isEqualTo(wins);
        assertThat(watch.phase()).isEqualTo(rank(wins) == 1 ? GuardPhase.STANDING : GuardPhase.OFF);
        assertThat(watch.breach()).isEqualTo(Breach.NONE);
        assertThat(torqueBefore || !watch.torque()).as("torque that was off stays off").isTrue();
        axis.asked = 0;
        axis.cycles(3);
        assertThat(watch.phase()).isNotEqualTo(GuardPhase.FREE);
        axis.acknowledge();
        assertThat(watch.phase()).isEqualTo(GuardPhase.FREE);
    }

    /** Torque off wins over safe stop 1 (IEC 61800-5-2, from memory), that over safe stop 2 (trade facts). */
    private static int rank(SafetyFunction stop) {
        return switch (stop) {
            case SAFE_TORQUE_OFF -> 3;
            case SAFE_STOP_1 -> 2;
            default -> 1;
        };
    }

    /** Trade facts: safe stop 1 during safe stop 2 wins; until its own ramp begins the other's is watched on. */
    @Test
    void noDelayOpensAGap() {
        AxisWatch watch = watch(ramp(0.1, 1000, 0, 5, 0.05, 0.1), USUAL, USUAL);
        Moved axis = new Moved(watch, 100);
        axis.asked = SAFE_STOP_2.bit();
        axis.slowing(2, 20);
        axis.asked |= SAFE_STOP_1.bit();
        axis.cycle();
        assertThat(watch.leading()).isEqualTo(SAFE_STOP_1);
        axis.speed = 100;
        axis.cycles(2);
        assertThat(watch.breach()).isEqualTo(Breach.FASTER_THAN_RAMP);
    }

    /** Safe stop 2 comes to rest while safe stop 1 still waits for its ramp: the place is watched meanwhile. */
    @Test
    void thePlaceIsWatchedInTheDelayOfTheNext() {
        AxisWatch watch = watch(ramp(0.5, 1000, 0, 5, 0.05, 0.1), USUAL, USUAL);
        Moved axis = new Moved(watch, 100);
        axis.asked = SAFE_STOP_2.bit();
        axis.slowing(2, 20);
        axis.asked |= SAFE_STOP_1.bit();
        axis.slowing(2, 80);
        assertThat(watch.phase()).isEqualTo(GuardPhase.DELAY);
        axis.speed = 4;
        axis.cycles(30);
        assertThat(watch.breach()).isEqualTo(Breach.LEFT_WINDOW);
    }

    @Test
    void theOtherWindowCountsWhereOnlyThatIsAskedStill() {
        AxisWatch watch = watch(USUAL, ramp(0, 1000, 0, 5, 0.05, 10), ramp(0, 1000, 0, 5, 0.05, 0.01));
        Moved axis = new Moved(watch, 0);
        axis.asked = SafetyFunction.mask(SAFE_STOP_2, SAFE_STOP_2_SECOND);
        axis.cycles(5);
        axis.speed = 4;
        axis.cycles(10);
        assertThat(watch.phase()).isEqualTo(GuardPhase.STANDING);
        axis.speed = 0;
        axis.asked = SAFE_STOP_2_SECOND.bit();
        axis.cycle();
        assertThat(watch.breach()).isEqualTo(Breach.LEFT_WINDOW);
    }

    @Test
    void restartByItself() {
        AxisWatch watch = watch(USUAL, AUTOMATIC, USUAL);
        Moved axis = new Moved(watch, 0);
        axis.asked = SAFE_STOP_2.bit();
        axis.cycles(5);
        axis.asked = 0;
        axis.cycle();
        assertThat(watch.phase()).isEqualTo(GuardPhase.FREE);
    }

    /** A breach waits for the requests to go and for an acknowledge that comes after that, also where the stop ends by itself. */
    @Test
    void aBreachIsAcknowledged() {
        AxisWatch watch = watch(USUAL, AUTOMATIC, USUAL);
        Moved axis = new Moved(watch, 0);
        axis.asked = SAFE_STOP_2.bit();
        axis.cycles(5);
        axis.speed = 200;
        axis.cycle();
        assertThat(watch.phase()).isEqualTo(GuardPhase.TRIPPED);
        Breach first = watch.breach();
        axis.cycles(10);
        assertThat(watch.breach()).isEqualTo(first);
        axis.speed = 0;
        axis.acknowledge = true;
        axis.cycles(5);
        axis.asked = 0;
        axis.cycles(5);
        assertThat(watch.phase()).as("the level does not count, its edge does").isEqualTo(GuardPhase.TRIPPED);
        axis.acknowledge = false;
        axis.cycle();
        axis.acknowledge();
        assertThat(watch.phase()).isEqualTo(GuardPhase.FREE);
    }
}
