package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import rueda.drive.DriveObject;
import rueda.drive.PowerState;
import rueda.guard.Breach;
import rueda.guard.GuardLog;
import rueda.guard.GuardPhase;
import rueda.machine.Axis;
import rueda.machine.AxisGuard;
import rueda.machine.AxisGuard.Ask;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.Protection;
import rueda.machine.SafetyFunction;
import rueda.machine.SafetyRequest;
import rueda.machine.Station;
import rueda.machine.StopRules;
import rueda.machine.StopRules.Restart;
import rueda.machine.StopRules.Watch;
import rueda.plcopen.AxisState;

/** The guard beside the drive: its clock, its contacts, what it takes and what it asks for. */
class GuardOnTheBenchTest {

    private static final String MOVES = """
            PROGRAM P
            VAR P1 : MC_Power; M1 : MC_MoveVelocity; Go : BOOL; END_VAR
            P1(Axis := Shuttle, Enable := TRUE);
            Go := Go OR P1.Status;
            M1(Axis := Shuttle, Execute := Go, Velocity := 500.0, Acceleration := 2500.0, Deceleration := 2500.0);
            END_PROGRAM
            """;
    private static final double MOVING = 1.2;
    private static final StopRules STOP = new StopRules(Watch.RAMP, 20, 0, 1500, 0, 5, 0.5, 1, 0, 200, Restart.ACKNOWLEDGED);

    private static Machine machine(String axisName, SafetyFunction function, UnaryOperator<AxisGuard> how) {
        Machine demo = DemoMachine.create();
        Axis axis = demo.axis(axisName).orElseThrow();
        AxisGuard guard = AxisGuard.suiting(axis).withFitted(true).withStop1(STOP).withStop2(STOP).withStop2Second(STOP).withAsks(List.of(new Ask("Door", function)));
        return demo.withAxes(List.of(axis.withGuard(how.apply(guard)))).withProofs(List.of()).withSafetyRequests(List.of(new SafetyRequest("Door", 0, 4, 50, Protection.NONE, 0)));
    }

    private static Bench moving(SafetyFunction function, UnaryOperator<AxisGuard> how) {
        Bench bench = new Bench(machine("Shuttle", function, how), MOVES, 20_000);
        bench.run(MOVING);
        assertThat(bench.drive(0).plant().speed()).isCloseTo(500, within(5.0));
        return bench;
    }

    private static double value(Bench bench, AxisSignal signal, double time) {
        return bench.recording().value(bench.recording().indexOf(signal.of("Shuttle")), Math.round(time * 1e3) - 1);
    }

    /** Category 1: the drive slows down on its ramp of 6085h, the torque goes the delay after it stands. */
    @Test
    void safeStop1SlowsDownAndThenTakesTheTorque() {
        Bench bench = moving(SafetyFunction.SAFE_STOP_1, g -> g);
        bench.ask(0, false, false);
        bench.run(0.05);
        assertThat(bench.watch(0).phase()).isEqualTo(GuardPhase.RAMP);
        assertThat(bench.drive(0).state()).isEqualTo(PowerState.QUICK_STOP_ACTIVE);
        bench.run(1);
        assertThat(bench.watch(0).phase()).isEqualTo(GuardPhase.OFF);
        assertThat(bench.drive(0).enabled()).isFalse();
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.DISABLED);
        double stands = bench.guardLog().stream().filter(e -> e.phase() == GuardPhase.CLOSING).findFirst().orElseThrow().time() * 1e-9;
        double off = bench.guardLog().stream().filter(e -> e.phase() == GuardPhase.OFF).findFirst().orElseThrow().time() * 1e-9;
        assertThat(off - stands).as("the delay of the torque, to a cycle of the guard").isCloseTo(0.2, within(0.0021));
        /* the order of the quick stop reaches the drive within its filter, its own cycle and a bus cycle */
        double ramp = 500 / DemoMachine.create().axes().get(0).limits().quickStop();
        assertThat(stands - MOVING).isBetween(ramp, ramp + 0.06);
        assertThat(value(bench, AxisSignal.GUARD, off + 0.01)).isEqualTo(GuardPhase.OFF.ordinal());
    }

    /** Category 2: the torque stays, the place is watched, and pushing the load out of its window takes it at once. */
    @Test
    void safeStop2HoldsThePlaceWithTorque() {
        Bench bench = moving(SafetyFunction.SAFE_STOP_2, g -> g);
        bench.ask(0, false, false);
        bench.run(1);
        assertThat(bench.watch(0).phase()).isEqualTo(GuardPhase.STANDING);
        assertThat(bench.drive(0).enabled()).isTrue();
        assertThat(bench.axis(0).state()).as("the program cannot move it").isEqualTo(AxisState.DISABLED);
        double stood = bench.drive(0).plant().place();
        bench.run(1);
        assertThat(bench.drive(0).plant().place()).isCloseTo(stood, within(0.1));
        /* the request goes and is acknowledged: the drive is enabled again, and moves only by a new order */
        bench.ask(0, true, true);
        bench.run(0.1);
        assertThat(bench.watch(0).phase()).isEqualTo(GuardPhase.STANDING);
        bench.acknowledge(true);
        for (int k = 0; k < 500; k++) {
            bench.cycle();
            assertThat(bench.drive(0).enabled()).as("the torque never goes").isTrue();
        }
        assertThat(bench.watch(0).phase()).isEqualTo(GuardPhase.FREE);
        assertThat(bench.drive(0).state()).isEqualTo(PowerState.OPERATION_ENABLED);
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.STANDSTILL);
        assertThat(bench.drive(0).plant().place()).isCloseTo(stood, within(0.1));
    }

    /** 64 guards stop at once: more changes than one log keeps, and none of an axis is lost. */
    @Test
    void eachOfManyGuardsKeepsWhatItDid() {
        Machine one = machine("Shuttle", SafetyFunction.SAFE_STOP_1, g -> g);
        Machine many = one.withAxes(IntStream.range(0, 64).mapToObj(i -> one.axes().get(0).withName("D" + i).withStation(Station.usual("D" + i, i + 1))).toList()).withProgram("PROGRAM P END_PROGRAM");
        Bench bench = new Bench(many, 1000);
        bench.ask(0, false, false);
        bench.run(0.5);
        for (int i = 0; i < 64; i++) {
            int number = i;
            assertThat(bench.guardLog(i)).extracting(GuardLog.Entry::phase).startsWith(GuardPhase.DELAY).endsWith(GuardPhase.OFF);
            assertThat(bench.guardLog(i)).allMatch(e -> e.axis() == number);
        }
        assertThat(bench.guardLog()).hasSize(GuardLog.KEPT).isSortedAccordingTo(Comparator.comparingLong(GuardLog.Entry::time));
        assertThat(bench.guardChanges()).isGreaterThan(GuardLog.KEPT);
    }

    /** 2060h:01 to :05 in the device: what Map lets travel. Numbers of phases, functions and broken limits are their places, bits of requests and functions too. */
    @Test
    void theGuardSaysOnTheBusWhoAsksAndWhatIsInForce() {
        Bench bench = moving(SafetyFunction.SAFE_STOP_2, g -> g);
        assertThat(words(bench)).containsExactly(GuardPhase.FREE.ordinal(), 0, 0, 0, 0);
        bench.ask(0, false, false);
        bench.run(0.05);
        int stop2 = SafetyFunction.SAFE_STOP_2.ordinal() + 1;
        assertThat(words(bench)).containsExactly(GuardPhase.RAMP.ordinal(), stop2, 0, 1, SafetyFunction.SAFE_STOP_2.bit());
        bench.run(1);
        assertThat(words(bench)).containsExactly(GuardPhase.STANDING.ordinal(), stop2, 0, 1, SafetyFunction.SAFE_STOP_2.bit() | SafetyFunction.SAFE_OPERATING_STOP.bit());
        bench.ask(0, true, true);
        bench.run(0.1);
        assertThat(words(bench)).as("it stands until it is acknowledged").containsExactly(GuardPhase.STANDING.ordinal(), stop2, 0, 0, SafetyFunction.SAFE_STOP_2.bit() | SafetyFunction.SAFE_OPERATING_STOP.bit());
        bench.push(0, 20_000);
        bench.run(0.5);
        assertThat(words(bench)).containsExactly(GuardPhase.TRIPPED.ordinal(), stop2, bench.watch(0).breach().ordinal(), 0, SafetyFunction.SAFE_STOP_2.bit() | SafetyFunction.SAFE_TORQUE_OFF.bit());
        assertThat(bench.watch(0).breach()).isIn(Breach.LEFT_WINDOW, Breach.NOT_STANDING);
    }

    /** Where the program is to slow down it reads the word of requests as a tag; one that does not look loses its torque. */
    @Test
    void theProgramSlowsDownByTheWordOfRequests() {
        Machine machine = machine("Shuttle", SafetyFunction.SAFE_STOP_2, g -> g.withSlowing(AxisGuard.Slowing.PROGRAM).withStop2(STOP.withDelay(60).withFlattest(800)));
        Axis shuttle = machine.axes().get(0);
        List<Station.Entry> inputs = new ArrayList<>(shuttle.station().inputs());
        inputs.add(new Station.Entry(inputs.get(inputs.size() - 1).pdo(), DriveObject.GUARD_REQUESTS.index(), DriveObject.GUARD_REQUESTS.subIndex(), 32, "", "GuardRequests", "UDINT", "", BigDecimal.ONE));
        machine = machine.withAxes(List.of(shuttle.withStation(shuttle.station().withInputs(inputs))));
        String looks = MOVES.replace("M1 : MC_MoveVelocity;", "M1 : MC_MoveVelocity; S1 : MC_Stop;").replace("END_PROGRAM", "S1(Axis := Shuttle, Execute := GuardRequests <> 0);\nEND_PROGRAM");
        for (boolean slows : new boolean[] {true, false}) {
            Bench bench = new Bench(machine, slows ? looks : MOVES, 20_000);
            bench.run(MOVING);
            bench.ask(0, false, false);
            bench.run(1);
            assertThat(bench.watch(0).phase()).isEqualTo(slows ? GuardPhase.STANDING : GuardPhase.TRIPPED);
            assertThat(bench.drive(0).enabled()).isEqualTo(slows);
            if (slows) {
                /* v/a + a/j = 200 + 100 ms with the document's 2500 mm/s² and 25 000 mm/s³, after filter, guard, task and bus; 5 mm/s count as standing: ½·j·t², 20 ms before the end */
                double stands = bench.guardLog().stream().filter(e -> e.phase() == GuardPhase.STANDING).findFirst().orElseThrow().time() * 1e-9 - MOVING;
                assertThat(stands).isBetween(0.28, 0.28 + 0.015);
            }
            assertThat(bench.drive(0).state() == PowerState.OPERATION_ENABLED).as("the drive itself was not asked").isEqualTo(slows);
        }
    }

    /** A limited speed is in force once its delay is over, and only as long as it is asked for. */
    @Test
    void aLimitedSpeedIsInForceAfterItsDelay() {
        Bench bench = moving(SafetyFunction.SAFELY_LIMITED_SPEED, g -> g.withSpeed(g.speed().withDelay(100).withLimit(700)));
        bench.ask(0, false, false);
        bench.run(0.05);
        assertThat(words(bench)).containsExactly(GuardPhase.FREE.ordinal(), 0, 0, 1, 0);
        bench.run(0.1);
        assertThat(words(bench)).containsExactly(GuardPhase.FREE.ordinal(), 0, 0, 1, SafetyFunction.SAFELY_LIMITED_SPEED.bit());
        bench.ask(0, true, true);
        bench.run(0.1);
        assertThat(words(bench)).containsExactly(GuardPhase.FREE.ordinal(), 0, 0, 0, 0);
    }

    private static List<Integer> words(Bench bench) {
        return Stream.of(DriveObject.GUARD_PHASE, DriveObject.GUARD_FUNCTION, DriveObject.GUARD_BREACH, DriveObject.GUARD_REQUESTS, DriveObject.GUARD_IN_FORCE).map(object -> (int) bench.drive(0).dictionary().get(object)).toList();
    }

    @Test
    void leavingTheWindowTakesTheTorque() {
        Bench bench = moving(SafetyFunction.SAFE_STOP_2, g -> g);
        bench.ask(0, false, false);
        bench.run(1);
        bench.push(0, 20_000);
        bench.run(0.3);
        assertThat(bench.watch(0).breach()).isIn(Breach.LEFT_WINDOW, Breach.NOT_STANDING);
        assertThat(bench.drive(0).torque()).isZero();
        assertThat(bench.drive(0).state()).isNotEqualTo(PowerState.QUICK_STOP_ACTIVE);
        bench.push(0, 0);
        bench.ask(0, true, true);
        bench.run(0.1);
        bench.acknowledge(true);
        bench.run(1);
        assertThat(bench.watch(0).phase()).isEqualTo(GuardPhase.FREE);
    }

    /** The program is told only, and does nothing: the guard takes the torque when the ramp is left. */
    @Test
    void whoDoesNotSlowDownLosesItsTorque() {
        Bench bench = moving(SafetyFunction.SAFE_STOP_1, g -> g.withSlowing(AxisGuard.Slowing.PROGRAM));
        bench.ask(0, false, false);
        bench.run(0.1);
        assertThat(bench.watch(0).breach()).isEqualTo(Breach.FASTER_THAN_RAMP);
        assertThat(bench.drive(0).enabled()).isFalse();
        /* filter 4 ms, delay 20 ms, then v₀ − a·t is left by the filter distance: 0.5 mm = a·t²/2, t = 26 ms; cycles of the guard besides */
        double tripped = bench.guardLog().stream().filter(e -> e.phase() == GuardPhase.TRIPPED).findFirst().orElseThrow().time() * 1e-9 - MOVING;
        assertThat(tripped).isBetween(0.050, 0.062);
    }

    @Test
    void oneChannelIsEnoughAndAFaultGoesOn() {
        Bench bench = moving(SafetyFunction.SAFE_TORQUE_OFF, g -> g);
        bench.ask(0, false, true);
        bench.run(0.01);
        assertThat(bench.drive(0).enabled()).isFalse();
        bench.run(0.1);
        bench.ask(0, true, true);
        bench.acknowledge(true);
        bench.run(0.5);
        assertThat(bench.watch(0).phase()).as("the channels have differed for too long").isEqualTo(GuardPhase.OFF);
    }

    /** A guard that has the wrong scale sees another speed than there is. */
    @Test
    void aWrongScaleOfItsEncoderShows() {
        Bench bench = moving(SafetyFunction.SAFELY_LIMITED_SPEED, g -> g.withSpeed(g.speed().withLimit(600).withDelay(0)));
        bench.ask(0, false, false);
        bench.run(0.1);
        assertThat(bench.watch(0).breach()).isEqualTo(Breach.NONE);
        Bench wrong = moving(SafetyFunction.SAFELY_LIMITED_SPEED, g -> g.withSpeed(g.speed().withLimit(600).withDelay(0)).withUnitsPerTurn(2 * g.unitsPerTurn()));
        wrong.ask(0, false, false);
        wrong.run(0.1);
        assertThat(wrong.watch(0).breach()).isEqualTo(Breach.FASTER_THAN_LIMIT);
    }

    /** s = ½·g·t² while nothing holds it (textbook), t from the torque going until the brake holds; friction and the motor's inertia slow the fall. */
    @Test
    void aHangingLoadSagsWhileNothingHoldsIt() {
        Axis lift = DemoMachine.create().axis("Lift").orElseThrow();
        double close = lift.brake().closeMillis() * 1e-3;
        String program = "PROGRAM P\nVAR P1 : MC_Power; END_VAR\nP1(Axis := Lift, Enable := TRUE);\nEND_PROGRAM";
        double early = sag(program, 0);
        double late = sag(program, lift.brake().closeMillis() + 10);
        assertThat(early).isGreaterThan(0.01).isLessThan(0.5 * 9.81 * close * close * 1e3);
        assertThat(late).as("the brake holds before the torque goes").isLessThan(early / 20);
    }

    private static double sag(String program, double torqueDelay) {
        Bench bench = new Bench(machine("Lift", SafetyFunction.SAFE_STOP_1, g -> g.withStop1(STOP.withTorqueDelay(torqueDelay))), program, 4000);
        bench.run(1.5);
        assertThat(bench.drive(0).enabled()).isTrue();
        double stood = bench.drive(0).plant().place();
        bench.ask(0, false, false);
        bench.run(1);
        assertThat(bench.watch(0).phase()).isEqualTo(GuardPhase.OFF);
        return stood - bench.drive(0).plant().place();
    }
}
