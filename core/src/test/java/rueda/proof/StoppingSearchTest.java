package rueda.proof;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import rueda.advice.GuardPlan;
import rueda.drive.DriveObject;
import rueda.guard.Breach;
import rueda.guard.GuardPhase;
import rueda.guard.StopLink;
import rueda.machine.Axis;
import rueda.machine.AxisGuard;
import rueda.machine.DemoMachine;
import rueda.machine.Encoder;
import rueda.machine.Homing;
import rueda.machine.Machine;
import rueda.machine.MoveEntry;
import rueda.machine.MoveList;
import rueda.machine.Proof;
import rueda.machine.SafetyFunction;
import rueda.machine.Station;
import rueda.machine.Terminal;
import rueda.machine.Wiring;
import rueda.proof.StoppingSearch.Passed;
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
        assertThat(stopped.reaction()).isBetween(knew - 1e-9, 0.0172);
        Map<StopLink, Double> chain = links(stopped);
        assertThat(chain.keySet()).containsExactlyInAnyOrder(StopLink.SENSOR, StopLink.FILTER, StopLink.GUARD, StopLink.DRIVE, StopLink.RAMP);
        assertThat(chain.get(StopLink.SENSOR)).isCloseTo(10, within(1e-9));
        assertThat(chain.get(StopLink.FILTER)).isCloseTo(4, within(1e-9));
        assertThat(chain.get(StopLink.GUARD)).as("up to one cycle of 2 ms").isBetween(0.0, 2.0);
        assertThat(chain.get(StopLink.DRIVE)).isBetween(0.0, 1.125);
        assertThat(chain.values().stream().mapToDouble(v -> v).sum()).as("they follow each other without a gap").isCloseTo(1e3 * stopped.stoppingTime(), within(1e-6));
        assertThat(stopped.away()).as("S = 1600·T + 120 mm, T the longest (ISO 13855:2010, 9; from memory)").isCloseTo(1600 * stopped.longest() + 120, within(1e-9));
        assertThat(stopped.awayWords()).contains("ISO 13855, 9");
        assertThat(stopped.phases().stream().map(StoppingSearch.Entered::phase)).containsSubsequence(GuardPhase.DELAY, GuardPhase.RAMP, GuardPhase.STANDING);
        assertThat(stopped.stand()).as("inside its window").allMatch(way -> Math.abs(way) < 1.3);
        assertThat(stopped.referenced()).isTrue();
        assertThat(stopped.lost()).containsExactly("the running move");
        assertThat(stopped.movedAgain()).as("what ran is not ordered again").isZero();
        assertThat(stopped.state()).isEqualToIgnoringCase("disabled");
    }

    /** The word of requests reaches the program in its input image, the program orders MC_Stop in its task, and the setpoint falls in the cycle after. */
    @Test
    void aProgramThatSlowsItDownIsToldLinkByLink() {
        Machine demo = DemoMachine.create();
        Axis shuttle = demo.axes().get(0);
        List<Station.Entry> inputs = new ArrayList<>(shuttle.station().inputs());
        inputs.add(new Station.Entry(inputs.get(inputs.size() - 1).pdo(), DriveObject.GUARD_REQUESTS.index(), DriveObject.GUARD_REQUESTS.subIndex(), 32, "", "GuardRequests", "UDINT", "", BigDecimal.ONE));
        AxisGuard guard = shuttle.guard().withSlowing(AxisGuard.Slowing.PROGRAM);
        Axis slowed = shuttle.withStation(shuttle.station().withInputs(inputs)).withGuard(guard.withStop2(guard.stop2().withDelay(200).withFlattest(800)));
        Machine machine = demo.withAxes(List.of(slowed)).withProofs(List.of()).withProgram("""
                PROGRAM P
                VAR P1 : MC_Power; M1 : MC_MoveVelocity; S1 : MC_Stop; Go : BOOL; END_VAR
                P1(Axis := Shuttle, Enable := TRUE);
                Go := Go OR P1.Status;
                M1(Axis := Shuttle, Execute := Go, Velocity := 500.0, Acceleration := 2500.0, Deceleration := 2500.0);
                S1(Axis := Shuttle, Execute := GuardRequests <> 0);
                END_PROGRAM
                """);
        Stopped stopped = StoppingSearch.run(machine, new Proof("p", 2, List.of()), 0, DOOR, SafetyFunction.SAFE_STOP_2);
        assertThat(stopped.breach()).as(stopped.breachWords()).isEqualTo(Breach.NONE);
        Map<StopLink, Double> chain = links(stopped);
        GuardPlan.of(machine, slowed, SafetyFunction.SAFE_STOP_2, machine.safetyRequests().get(DOOR)).chain().forEach(most -> {
            if (most.reaction() && most.of() != StopLink.BUS_TO_DRIVE && most.of() != StopLink.DRIVE) {
                assertThat(chain.get(most.of())).as("%s, at most %s ms", most.words(), most.millis()).isBetween(0.0, most.millis() + 1e-9);
            }
        });
        assertThat(stopped.reaction()).as("the order").isCloseTo(1e-3 * chain.entrySet().stream().filter(e -> e.getKey() != StopLink.RAMP).mapToDouble(Map.Entry::getValue).sum(), within(1e-9));
        /* from 500 mm/s v/a + a/j = 200 + 100 ms; asked while it speeds up it must first give up its acceleration, a/j = 100 ms, and gains a²/2j = 125 mm/s: at most 350 + 100 ms more */
        assertThat(chain.get(StopLink.RAMP)).isBetween(270.0, 450.0);
        assertThat(chain.values().stream().mapToDouble(v -> v).sum()).isCloseTo(1e3 * stopped.stoppingTime(), within(1e-6));
    }

    private static Map<StopLink, Double> links(Stopped stopped) {
        return stopped.chain().stream().collect(Collectors.toMap(Passed::of, Passed::millis));
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
        /* the guard's limit begins with the speed that is there when its watch does */
        assertThat(stopped.limit().get(0)).isCloseTo(900 - 5000 * (stopped.limitTime().get(0) - stopped.reaction()), within(25.0));
    }

    @Test
    void theLiftSagsAsReckoned() {
        Machine demo = DemoMachine.create();
        Proof care = demo.proofs().stream().filter(p -> p.name().startsWith("Shuttle and Lift")).findFirst().orElseThrow();
        Stopped sags = StoppingSearch.run(demo, care.withScript(List.of()), 1, EMERGENCY_STOP, SafetyFunction.SAFE_STOP_1);
        double reckoned = GuardPlan.of(demo, demo.axes().get(1), SafetyFunction.SAFE_STOP_1, demo.safetyRequests().get(EMERGENCY_STOP)).sag();
        /* the brake's 40 ms and the guard's cycle, and the torque that goes 20 ms after standstill */
        assertThat(links(sags).get(StopLink.HOLDS)).isBetween(40 - 1e-6, 42 + 1e-6);
        assertThat(links(sags).get(StopLink.TORQUE)).as("from the standstill that the guard saw, between the bus cycles").isBetween(19.0, 22.0);
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

    /** A follower loses its lock with its torque, and one that searches its search: the demo's Brush follows the Table, its Lift searches first. */
    @Test
    void whatIsLostIsTold() {
        Machine demo = DemoMachine.create();
        Proof brushes = demo.proofs().stream().filter(p -> p.expectations().stream().anyMatch(e -> "Brush".equals(e.axis()))).findFirst().orElseThrow();
        assertThat(StoppingSearch.run(demo, brushes, 3, DOOR, SafetyFunction.SAFE_STOP_1).lost()).contains("the lock to its master");
        assertThat(StoppingSearch.run(demo, new Proof("p", 2.5, List.of()), 1, DOOR, SafetyFunction.SAFE_STOP_1).lost()).containsExactly("the search for its reference");
    }

    /** An axis that runs its own list loses the entry. */
    @Test
    void theEntryOfAListIsLost() {
        Machine demo = DemoMachine.create();
        Axis table = DemoMachine.table();
        Axis alone = table.withEncoder(Encoder.absolute(20, 12)).withHoming(table.homing().withAtPowerUp(Homing.AtPowerUp.MOTOR_ENCODER, -table.travel().parkedAt())).withWiring(Wiring.of(List.of(Terminal.Function.ENABLE), List.of()))
                .withMoves(MoveList.of(MoveEntry.goBy("720").withSpeed(30).thenGoOn(0, 0)).withOnFirstEnable(true)).withCommandedBy(Axis.Commander.DRIVE);
        Machine machine = demo.withAxes(List.of(alone.withGuard(AxisGuard.suiting(alone).withFitted(true).withAsks(List.of(new AxisGuard.Ask("Door", SafetyFunction.SAFE_STOP_1)))))).withProofs(List.of()).withProgram("PROGRAM P END_PROGRAM");
        Stopped stopped = StoppingSearch.run(machine, new Proof("p", 3, List.of()), 0, DOOR, SafetyFunction.SAFE_STOP_1);
        assertThat(stopped.lost()).containsExactly("entry 0 of the move list");
    }

    @Test
    void aRampThatIsLeftIsToldWithItsNumbers() {
        Machine demo = DemoMachine.create();
        AxisGuard guard = demo.axes().get(0).guard();
        Machine tight = demo.withAxis(0, demo.axes().get(0).withGuard(guard.withStop2(guard.stop2().withFlattest(6000))));
        Stopped stopped = StoppingSearch.run(tight, FETCH, 0, DOOR, SafetyFunction.SAFE_STOP_2);
        assertThat(stopped.breach()).isEqualTo(Breach.FASTER_THAN_RAMP);
        assertThat(stopped.breachWords()).containsPattern("ms after the request, at \\d+.* mm: faster than the flattest ramp allows").contains("mm/s, allowed");
        assertThat(StoppingSearch.run(demo, FETCH, 4, DOOR, SafetyFunction.SAFE_STOP_1).moment()).as("the doser does not move in these 14 s").isNull();
    }
}
