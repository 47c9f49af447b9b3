package rueda.proof;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.advice.GuardPlan;
import rueda.guard.Breach;
import rueda.guard.GuardPhase;
import rueda.machine.AxisGuard;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.machine.SafetyFunction;
import rueda.proof.StoppingSearch.Stopped;

/** What the bench measures beside what is reckoned: v·t + v²/2a, ½·g·t². */
class StoppingSearchTest {

    private static final int DOOR = 0;
    private static final int EMERGENCY_STOP = 1;

    private static final Proof FETCH = new Proof("p", 14, List.of());

    @Test
    void theShuttleStopsWhereItIsReckoned() {
        Machine demo = DemoMachine.create();
        Stopped stopped = StoppingSearch.run(demo, FETCH, 0, DOOR, SafetyFunction.SAFE_STOP_2);
        assertThat(stopped.breach()).as(stopped.breachWords()).isEqualTo(Breach.NONE);
        assertThat(stopped.load()).as("the heaviest of the proofs' conditions").isEqualTo(190);
        assertThat(stopped.runs()).isGreaterThan(5);
        assertThat(stopped.speed()).as("at the highest speed of the program, which the heavy load overshoots").isBetween(890.0, 1100.0);
        assertThat(stopped.longest()).isBetween(0.19, 0.24);
        /* sensor, filter and the guard's cycle, then bus cycle and drive: at most what is reckoned */
        double knew = stopped.phases().get(0).time();
        assertThat(knew).isBetween(0.0125, 0.0161);
        assertThat(stopped.slows()).isBetween(knew - 1e-9, 0.0172);
        assertThat(stopped.phases().stream().map(StoppingSearch.Entered::phase)).containsSubsequence(GuardPhase.DELAY, GuardPhase.RAMP, GuardPhase.STANDING);
        assertThat(stopped.stand()).as("inside its window").allMatch(way -> Math.abs(way) < 1.3);
        assertThat(stopped.referenced()).isTrue();
        assertThat(stopped.movedAgain()).as("what ran is not ordered again").isZero();
        assertThat(stopped.state()).isEqualToIgnoringCase("disabled");
    }

    /** v·t + v²/2a with the 900 mm/s that are ordered: the reaction is the worst, so it may be shorter by the cycles of guard and bus. */
    @Test
    void theDistanceIsThatOfReactionAndRamp() {
        Machine demo = DemoMachine.create();
        Machine soft = demo.withProgram(demo.plc().program().replace("Acceleration := 6000.0", "Acceleration := 2000.0")).withProofs(List.of(FETCH));
        Stopped stopped = StoppingSearch.run(soft, FETCH, 0, DOOR, SafetyFunction.SAFE_STOP_2);
        assertThat(stopped.load()).isEqualTo(160);
        assertThat(stopped.speed()).isBetween(899.0, 903.0);
        double most = 900 * 17.125e-3 + 900 * 900 / 10_000.0;
        assertThat(stopped.distance()).isBetween(most - 900 * 0.004, most + 900 * 0.001);
    }

    @Test
    void theLiftSagsAsReckoned() {
        Machine demo = DemoMachine.create();
        Proof care = demo.proofs().stream().filter(p -> p.name().startsWith("Shuttle and Lift")).findFirst().orElseThrow();
        Stopped sags = StoppingSearch.run(demo, care.withScript(List.of()), 1, EMERGENCY_STOP, SafetyFunction.SAFE_STOP_1);
        double reckoned = GuardPlan.of(demo, demo.axes().get(1), SafetyFunction.SAFE_STOP_1, demo.safetyRequests().get(EMERGENCY_STOP)).sag();
        assertThat(sags.sag()).isBetween(0.5 * reckoned, 2.5 * reckoned);
        AxisGuard guard = demo.axes().get(1).guard();
        Machine mended = demo.withAxis(1, demo.axes().get(1).withGuard(guard.withStop1(guard.stop1().withTorqueDelay(44))));
        assertThat(StoppingSearch.run(mended, care.withScript(List.of()), 1, EMERGENCY_STOP, SafetyFunction.SAFE_STOP_1).sag()).isLessThan(reckoned / 4);
    }

    /** The demo's program begins the Lift's search whenever its power comes: an acknowledge is enough, and it moves. */
    @Test
    void aProgramThatMovesByItselfAfterwardsIsTold() {
        Machine demo = DemoMachine.create();
        Stopped stopped = StoppingSearch.run(demo, FETCH, 1, DOOR, SafetyFunction.SAFE_STOP_1);
        assertThat(stopped.movedAgain()).isGreaterThan(1);
    }

    @Test
    void aRampThatIsLeftIsToldWithItsNumbers() {
        Machine demo = DemoMachine.create();
        AxisGuard guard = demo.axes().get(0).guard();
        Machine tight = demo.withAxis(0, demo.axes().get(0).withGuard(guard.withStop2(guard.stop2().withFlattest(6000))));
        Stopped stopped = StoppingSearch.run(tight, FETCH, 0, DOOR, SafetyFunction.SAFE_STOP_2);
        assertThat(stopped.breach()).isEqualTo(Breach.FASTER_THAN_RAMP);
        assertThat(stopped.breachWords()).contains("ms after the request: faster than the flattest ramp allows", "mm/s, allowed");
        assertThat(StoppingSearch.run(demo, FETCH, 4, DOOR, SafetyFunction.SAFE_STOP_1).moment()).as("the doser does not move in these 14 s").isNull();
    }
}
