package rueda.drive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;
import rueda.bench.Bench;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Homing;
import rueda.machine.Machine;
import rueda.machine.Supervision;
import rueda.plcopen.AxisState;

/** Position window, following error, standstill. What each must do is common practice, no source. */
class SupervisionTest {

    private static final Axis SHUTTLE = DemoMachine.shuttle().withHoming(Homing.search(37, 120, 12, 800, 0));

    private static Bench enabled(Supervision supervision) {
        Machine demo = DemoMachine.create();
        Bench bench = new Bench(new Machine("m", demo.bus(), demo.plc(), List.of(SHUTTLE.withSupervision(supervision)), demo.proofs()), "PROGRAM P END_PROGRAM", 4000);
        bench.takeByHand();
        bench.hand(0).enable(true);
        bench.run(0.2);
        assertThat(bench.hand(0).home(bench.now())).isNull();
        bench.run(0.5);
        return bench;
    }

    private static int status(Bench bench) {
        return (int) bench.drive(0).dictionary().get(DriveObject.STATUSWORD);
    }

    /** Done when inside the window for the dwell. */
    @Test
    void inPositionComesAfterTheDwellAndTheMoveIsDoneWithIt() {
        Supervision s = SHUTTLE.supervision();
        double[] done = new double[2];
        int[] dwells = {5, 105};
        for (int i = 0; i < 2; i++) {
            Bench bench = enabled(s.withPosition(0.05, dwells[i], 500));
            bench.hand(0).goTo(50, bench.now());
            double begun = bench.now() * 1e-9;
            bench.run(0.02);
            assertThat(bench.drive(0).inPosition()).isFalse();
            while (bench.axis(0).state() == AxisState.DISCRETE_MOTION && bench.now() * 1e-9 < begun + 3) {
                bench.cycle();
            }
            assertThat(bench.drive(0).inPosition()).isTrue();
            done[i] = bench.now() * 1e-9 - begun;
        }
        assertThat(done[1] - done[0]).isCloseTo(0.1, within(0.003));
    }

    /** A position window that is too tight never reports "done"; after the tolerance time it is a warning. */
    @Test
    void aTightWindowNeverReportsDone() {
        Bench bench = enabled(SHUTTLE.supervision().withPosition(1e-4, 2000, 300));
        bench.hand(0).goTo(50, bench.now());
        bench.run(0.5);
        assertThat(status(bench) & StatusWord.WARNING).isZero();
        bench.run(0.5);
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.DISCRETE_MOTION);
        assertThat(status(bench) & StatusWord.TARGET_REACHED).isZero();
        assertThat(status(bench) & StatusWord.WARNING).isNotZero();
    }

    /** Allowed error grows linearly from a start speed to its maximum at maximum speed. */
    @Test
    void theAllowedFollowingErrorGrowsWithSpeed() {
        Supervision s = new Supervision(0.05, 5, 500, 1, 5, 150, 20, 0.05, 50);
        assertThat(s.allowedFollowingError(0, 950)).isEqualTo(1);
        assertThat(s.allowedFollowingError(150, 950)).isEqualTo(1);
        assertThat(s.allowedFollowingError(-550, 950)).isEqualTo(3);
        assertThat(s.allowedFollowingError(950, 950)).isEqualTo(5);
        Bench bench = enabled(s);
        bench.hand(0).goTo(900, bench.now());
        bench.run(0.7);
        assertThat(bench.drive(0).demandSpeed()).isCloseTo(600, within(0.5));
        assertThat(bench.drive(0).allowedFollowingError()).isCloseTo(s.allowedFollowingError(600, 950), within(0.01));
    }

    /** Without feed-forward the gap is speed ÷ gain: 600 ÷ 60 = 10 mm. A window that grows to 20 mm lets it through, one of 2 mm does not. */
    @Test
    void theGrowingWindowLetsAGapThroughThatTheFixedOneDoesNot() {
        Axis lagging = SHUTTLE.withControl(new rueda.machine.Control(60, 0.25, 20, 0, 1));
        for (double atSpeed : new double[] {2, 20}) {
            Machine demo = DemoMachine.create();
            Axis axis = lagging.withSupervision(new Supervision(0.05, 5, 500, 2, atSpeed, 50, 20, 0.05, 50));
            Bench bench = new Bench(new Machine("m", demo.bus(), demo.plc(), List.of(axis), demo.proofs()), "PROGRAM P END_PROGRAM", 16);
            bench.takeByHand();
            bench.hand(0).enable(true);
            bench.run(0.2);
            bench.hand(0).step(800, bench.now());
            bench.run(0.6);
            assertThat(bench.drive(0).dictionary().get(DriveObject.ERROR_CODE)).isEqualTo(atSpeed == 2 ? DriveFault.FOLLOWING.code() : 0);
        }
    }

    @Test
    void standstillIsReportedAfterItsDwell() {
        Bench bench = enabled(SHUTTLE.supervision());
        bench.hand(0).goTo(50, bench.now());
        bench.run(0.1);
        assertThat(bench.drive(0).standsStill()).isFalse();
        while (Math.abs(bench.drive(0).plant().speed()) > 1 || bench.drive(0).position() < 49) {
            bench.cycle();
        }
        assertThat(bench.drive(0).standsStill()).as("within the dwell of 50 ms").isFalse();
        bench.run(0.15);
        assertThat(bench.drive(0).standsStill()).isTrue();
    }

    /** What is supervised stands in the recording. */
    @Test
    void theRecordingShowsWhatIsSupervised() {
        Bench bench = enabled(SHUTTLE.supervision());
        for (String signal : List.of("inPosition", "standstill", "allowedFollowingError", "torqueLimited", "brakeOpen")) {
            assertThat(bench.recording().indexOf("Shuttle." + signal)).as(signal).isNotNegative();
        }
        bench.hand(0).goTo(50, bench.now());
        bench.run(1);
        int inPosition = bench.recording().indexOf("Shuttle.inPosition");
        long last = bench.recording().count() - 1;
        assertThat(bench.recording().value(inPosition, last)).isEqualTo(1);
        assertThat(bench.recording().value(inPosition, last - 900)).isZero();
    }

    /** Between its two ends the allowed error rises with the speed and never leaves them. */
    @Property
    void theAllowedErrorRisesWithSpeed(@ForAll @DoubleRange(min = 0, max = 2000) double from, @ForAll @DoubleRange(min = 0.01, max = 10) double fixed, @ForAll @DoubleRange(min = 0, max = 50) double more,
                                       @ForAll @DoubleRange(min = -1500, max = 1500) double speed, @ForAll @DoubleRange(min = 0, max = 200) double faster) {
        Supervision s = new Supervision(0.05, 5, 500, fixed, fixed + more, from, 20, 0.05, 50);
        double here = s.allowedFollowingError(speed, 1000);
        double there = s.allowedFollowingError(Math.abs(speed) + faster, 1000);
        assertThat(here).isBetween(fixed, fixed + more + 1e-12);
        assertThat(there).isGreaterThanOrEqualTo(here - 1e-12);
        assertThat(s.allowedFollowingError(-speed, 1000)).isEqualTo(here);
    }
}
