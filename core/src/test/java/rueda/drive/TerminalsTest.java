package rueda.drive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.bench.Bench;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Dynamics;
import rueda.machine.Homing;
import rueda.machine.Limits;
import rueda.machine.Machine;
import rueda.machine.MoveList;
import rueda.machine.Terminal.Function;
import rueda.machine.Wiring;

/** What terminals can do to a drive, seen from outside: they stop and reset it, and never start it. */
class TerminalsTest {

    private static Bench bench(Axis axis) {
        Machine demo = DemoMachine.create();
        Bench bench = new Bench(new Machine("m", demo.bus(), demo.plc(), List.of(axis), demo.proofs()), "PROGRAM P END_PROGRAM", 16);
        bench.takeByHand();
        bench.run(0.01);
        return bench;
    }

    private static Bench wired(Function... inputs) {
        return bench(DemoMachine.shuttle().withWiring(Wiring.of(List.of(inputs), List.of(Function.READY, Function.FAULT, Function.MOVING, Function.REFERENCED))));
    }

    private static Drive enabled(Bench bench) {
        bench.hand(0).enable(true);
        bench.run(0.1);
        assertThat(bench.drive(0).state()).isEqualTo(PowerState.OPERATION_ENABLED);
        return bench.drive(0);
    }

    @Test
    void enableOpenedStopsOperationAndClosedAgainDoesNotStartItByItself() {
        Bench bench = wired(Function.ENABLE);
        Drive drive = enabled(bench);
        drive.digitalInputs().force("I1", false);
        bench.run(0.1);
        assertThat(drive.state()).isNotEqualTo(PowerState.OPERATION_ENABLED);
        assertThat(bench.hand(0).jog(1, false, bench.now())).contains("not enabled");
        drive.digitalInputs().force("I1", null);
        bench.hand(0).enable(false);
        bench.run(0.1);
        assertThat(drive.state()).as("nobody orders it").isNotEqualTo(PowerState.OPERATION_ENABLED);
        enabled(bench);
    }

    @Test
    void quickStopBringsAMovingAxisToRest() {
        Bench bench = wired(Function.NONE, Function.QUICK_STOP);
        Drive drive = enabled(bench);
        bench.hand(0).jog(1, true, bench.now());
        bench.run(0.5);
        assertThat(drive.says(Function.MOVING)).isTrue();
        double speed = drive.plant().speed();
        double place = drive.plant().place();
        drive.digitalInputs().force("I2", false);
        bench.run(0.4);
        assertThat(drive.plant().speed()).isZero();
        assertThat(drive.says(Function.MOVING)).isFalse();
        /* v²/2a with the quick-stop deceleration, and what it went on before the input answered and the bus cycle began */
        assertThat(drive.plant().place() - place).isCloseTo(speed * speed / 2 / 5000, within(speed * 0.004));
    }

    @Test
    void faultResetClearsAFaultOnItsEdgeOnly() {
        Bench bench = wired(Function.NEGATIVE_LIMIT, Function.NONE, Function.FAULT_RESET);
        Drive drive = enabled(bench);
        drive.digitalInputs().force("I1", false);
        bench.hand(0).jog(-1, false, bench.now());
        bench.run(0.5);
        assertThat(drive.state()).isEqualTo(PowerState.FAULT);
        assertThat(drive.says(Function.FAULT)).isTrue();
        assertThat(drive.says(Function.READY)).isFalse();
        drive.digitalInputs().force("I3", true);
        bench.run(0.1);
        assertThat(drive.says(Function.FAULT)).isFalse();
        assertThat(drive.state()).isNotEqualTo(PowerState.FAULT);
        /* held on, it clears no later fault: that takes another edge */
        bench.hand(0).reset();
        bench.run(0.1);
        enabled(bench);
        bench.hand(0).jog(-1, false, bench.now());
        bench.run(1);
        assertThat(drive.state()).isEqualTo(PowerState.FAULT);
        drive.digitalInputs().force("I3", false);
        bench.run(0.1);
        assertThat(drive.state()).as("a falling edge is none").isEqualTo(PowerState.FAULT);
        drive.digitalInputs().force("I3", true);
        bench.run(0.1);
        assertThat(drive.state()).isNotEqualTo(PowerState.FAULT);
    }

    @Test
    void aFilterHoldsAChangeBackForItsTime() {
        Axis shuttle = DemoMachine.shuttle();
        Wiring slow = shuttle.wiring().withTerminals(shuttle.wiring().terminals().stream().map(t -> t.name().equals("I1")
                ? new rueda.machine.Terminal(t.name(), t.kind(), t.function(), t.normallyClosed(), 10_000) : t).toList());
        Bench bench = bench(shuttle.withWiring(slow));
        DigitalInputs inputs = bench.drive(0).digitalInputs();
        inputs.force("I1", false);
        bench.run(0.010);
        assertThat(inputs.activeTerminals() & 1).isZero();
        bench.run(0.001);
        assertThat(inputs.activeTerminals() & 1).isEqualTo(1);
        assertThat(inputs.force("I99", true)).isFalse();
    }

    /** 6072h: the drive starts with the default torque; the master may raise it, but not above the highest. */
    @Test
    void torqueLimitsDefaultAndHighest() {
        Axis shuttle = DemoMachine.shuttle();
        Limits l = shuttle.limits();
        Dynamics n = l.normal();
        Dynamics m = l.max();
        Axis limited = shuttle.withLimits(new Limits(l.softMin(), l.softMax(), new Dynamics(n.speed(), n.acceleration(), n.deceleration(), n.jerk(), 60),
                new Dynamics(m.speed(), m.acceleration(), m.deceleration(), m.jerk(), 90), l.quickStop())).withSupervision(shuttle.supervision().withFollowingErrors(500)).withHoming(Homing.search(37, 120, 12, 800, 0));
        Bench bench = bench(limited);
        Drive drive = enabled(bench);
        assertThat(drive.dictionary().get(DriveObject.MAX_TORQUE)).isEqualTo(600);
        assertThat(highest(bench, drive)).isCloseTo(0.6 * 0.95, within(1e-6));
        drive.dictionary().set(DriveObject.MAX_TORQUE, 3000);
        assertThat(highest(bench, drive)).isCloseTo(0.9 * 0.95, within(1e-6));
    }

    private static double highest(Bench bench, Drive drive) {
        double highest = 0;
        for (int direction = 1; direction >= -1; direction -= 2) {
            bench.hand(0).jog(direction, true, bench.now());
            for (int k = 0; k < 400; k++) {
                bench.cycle();
                highest = Math.max(highest, Math.abs(drive.torque()));
            }
        }
        return highest;
    }

    @Test
    void aNewSearchClearsTheErrorOfTheLast() {
        Bench bench = bench(DemoMachine.shuttle().withHoming(Homing.search(11, 120, 12, 800, 0).withTimeLimit(0.3)));
        Drive drive = enabled(bench);
        bench.hand(0).home(bench.now());
        bench.run(1);
        assertThat(drive.dictionary().get(DriveObject.ERROR_CODE)).isEqualTo(HomingFailure.TIME_OUT.code());
        assertThat(DriveError.words(HomingFailure.TIME_OUT.code())).isEqualTo("the search took longer than its time limit");
        bench.hand(0).reset();
        bench.run(0.1);
        enabled(bench);
        bench.hand(0).home(bench.now());
        bench.run(0.1);
        assertThat(drive.dictionary().get(DriveObject.ERROR_CODE)).isZero();
    }

    /** IEC 61800-5-2, safe torque off: torque-producing power is taken away at once; the axis coasts. */
    @Test
    void safeTorqueOffTakesTheTorqueAwayAtOnce() {
        Bench bench = wired();
        Drive drive = enabled(bench);
        bench.hand(0).jog(1, true, bench.now());
        bench.run(0.5);
        double speed = drive.plant().speed();
        drive.digitalInputs().force("STO", false);
        bench.run(0.003);
        assertThat(drive.torque()).isZero();
        assertThat(drive.state()).isEqualTo(PowerState.SWITCH_ON_DISABLED);
        assertThat(drive.plant().speed()).as("nothing brakes it but friction").isGreaterThan(0.9 * speed);
        bench.run(0.1);
        assertThat(bench.hand(0).jog(1, false, bench.now())).contains("not enabled");
    }

    /** Capture: the position doubt is speed × response time; at 1 m/s 2 µm for a fast input and 250 µm for an ordinary one (common practice, no source). */
    @Test
    void aProbeKeepsThePositionOfItsEdge() {
        Axis shuttle = DemoMachine.shuttle();
        Bench bench = bench(shuttle.withWiring(shuttle.wiring().with("I7", Function.PROBE_1).with("I5", Function.PROBE_2)));
        Drive drive = enabled(bench);
        bench.hand(0).jog(1, true, bench.now());
        bench.run(0.6);
        long before = drive.dictionary().get(DriveObject.POSITION_ACTUAL);
        assertThat(drive.dictionary().get(DriveObject.PROBE_STATUS)).isEqualTo(1 | 1 << 8);
        drive.digitalInputs().force("I7", true);
        drive.digitalInputs().force("I5", true);
        bench.cycle();
        long after = drive.dictionary().get(DriveObject.POSITION_ACTUAL);
        long fast = drive.dictionary().get(DriveObject.PROBE_1_POSITION);
        long ordinary = drive.dictionary().get(DriveObject.PROBE_2_POSITION);
        assertThat(drive.dictionary().get(DriveObject.PROBE_STATUS)).isEqualTo(3 | 3 << 8);
        assertThat(fast).isBetween(before, ordinary - 1);
        assertThat(ordinary).isLessThan(after);
        /* sampled every 125 µs: one sub-step against two, at 600 mm/s and 0.1 µm a wire unit */
        assertThat((ordinary - fast) / 1e4).isCloseTo(600 * 125e-6, org.assertj.core.api.Assertions.within(0.01));
    }

    @Test
    void jogInputsJogWhileAPersonHasControl() {
        Axis shuttle = DemoMachine.shuttle();
        Bench bench = bench(shuttle.withWiring(shuttle.wiring().with("I5", Function.JOG_NEGATIVE)));
        Drive drive = enabled(bench);
        double from = drive.plant().place();
        drive.digitalInputs().force("I5", true);
        bench.run(0.5);
        assertThat(drive.plant().speed()).isCloseTo(-60, org.assertj.core.api.Assertions.within(2.0));
        drive.digitalInputs().force("I5", null);
        bench.run(0.5);
        assertThat(drive.plant().speed()).isCloseTo(0, org.assertj.core.api.Assertions.within(0.5));
        assertThat(drive.plant().place()).isLessThan(from - 20);
    }

    /** Functions without an effect in the drive stand in 2033h, whatever terminal they are wired to. */
    @Test
    void functionsOfInputsHaveABitOfTheirOwn() {
        Axis shuttle = DemoMachine.shuttle();
        Bench bench = bench(shuttle.withWiring(shuttle.wiring().with("I5", Function.CUE).with("I6", Function.SELECTOR_4)));
        Drive drive = bench.drive(0);
        assertThat(drive.dictionary().get(DriveObject.INPUT_FUNCTIONS)).isZero();
        drive.digitalInputs().force("I5", true);
        bench.run(0.002);
        assertThat(drive.dictionary().get(DriveObject.INPUT_FUNCTIONS)).isEqualTo(1 << Function.CUE.bit());
        drive.digitalInputs().force("I6", true);
        bench.run(0.002);
        assertThat(drive.dictionary().get(DriveObject.INPUT_FUNCTIONS)).isEqualTo(1 << Function.CUE.bit() | 1 << Function.SELECTOR_4.bit());
    }

    @Test
    void aForcedOutputShowsTheForcedLevelUntilReleased() {
        Bench bench = wired();
        Drive drive = bench.drive(0);
        assertThat(drive.outputLevels() & 2).as("no fault").isZero();
        assertThat(drive.digitalOutputs().force("Q2", true)).isTrue();
        assertThat(drive.digitalOutputs().force("Q9", true)).isFalse();
        assertThat(drive.outputLevels() & 2).isNotZero();
        assertThat(drive.digitalOutputs().forced()).isEqualTo(2);
        drive.releaseForces();
        assertThat(drive.outputLevels() & 2).isZero();
    }

    /** The brake hangs on its output: forced open without torque, the load falls. */
    @Test
    void aForcedBrakeOutputLetsTheLoadFall() {
        Bench bench = bench(DemoMachine.lift());
        double parked = bench.drive(0).plant().place();
        bench.run(0.2);
        assertThat(bench.drive(0).plant().place()).isEqualTo(parked);
        bench.drive(0).digitalOutputs().force("Q3", true);
        bench.run(0.2);
        assertThat(bench.drive(0).plant().place()).isLessThan(parked - 5);
    }

    @Test
    void inPositionAndInZoneAtTheOutputs() {
        Axis shuttle = DemoMachine.shuttle();
        Axis axis = shuttle.withHoming(Homing.search(37, 120, 12, 800, 0)).withWiring(shuttle.wiring().with("Q3", Function.IN_POSITION).with("Q4", Function.ZONE_1)).withMoves(MoveList.EMPTY.withZones(List.of(new MoveList.Zone(40, 60, 0, MoveList.Passing.BOTH, true))));
        Bench bench = bench(axis);
        Drive drive = enabled(bench);
        bench.hand(0).home(bench.now());
        bench.run(0.5);
        assertThat(drive.outputLevels() & 0b1100).isEqualTo(0b0100);
        bench.hand(0).goTo(50, bench.now());
        bench.run(0.1);
        assertThat(drive.outputLevels() & 0b0100).isZero();
        bench.run(1);
        assertThat(drive.outputLevels() & 0b1100).isEqualTo(0b1100);
    }

    /** Torque limits from outside: 6072h in the process data begins with what the drive holds, and the program lowers it. */
    @Test
    void theProgramLowersTheTorqueLimitOverTheBus() {
        Axis shuttle = DemoMachine.shuttle().withHoming(Homing.search(37, 120, 12, 800, 0));
        java.util.List<rueda.machine.Station.Entry> outputs = new java.util.ArrayList<>(shuttle.station().outputs());
        outputs.add(new rueda.machine.Station.Entry(0x6072, 0, 16, "Shuttle.Cmd.MaxTorque", "UINT"));
        Machine demo = DemoMachine.create();
        Axis axis = shuttle.withStation(new rueda.machine.Station(outputs, shuttle.station().inputs()));
        Bench bench = new Bench(new Machine("m", demo.bus(), demo.plc(), List.of(axis), demo.proofs()),
                "PROGRAM P VAR n : UDINT; END_VAR n := n + 1; IF n > 100 THEN Shuttle.Cmd.MaxTorque := 900; END_IF; END_PROGRAM", 16);
        bench.run(0.1);
        assertThat(bench.drive(0).dictionary().get(DriveObject.MAX_TORQUE)).isEqualTo(2526);
        bench.run(0.3);
        assertThat(bench.drive(0).dictionary().get(DriveObject.MAX_TORQUE)).isEqualTo(900);
    }

    @Test
    void anOutputThatIsLowWhenActive() {
        Axis shuttle = DemoMachine.shuttle();
        Bench bench = bench(shuttle.withWiring(shuttle.wiring().withTerminals(shuttle.wiring().terminals().stream()
                .map(t -> t.name().equals("Q2") ? new rueda.machine.Terminal("Q2", t.kind(), t.function(), true, 0) : t).toList())));
        assertThat(bench.drive(0).outputLevels() & 0b1111).as("ready is high; no fault is high; without a function low").isEqualTo(0b0011);
        bench.drive(0).digitalOutputs().force("Q2", false);
        assertThat(bench.drive(0).outputLevels() & 0b1111).isEqualTo(0b0001);
    }

    /** A brake hangs on the level of its output: turned over, it opens while the drive is off. */
    @Test
    void aBrakeOutputTurnedOverLetsTheLoadFall() {
        Axis lift = DemoMachine.lift();
        Bench bench = bench(lift.withWiring(lift.wiring().withTerminals(lift.wiring().terminals().stream()
                .map(t -> t.name().equals("Q3") ? new rueda.machine.Terminal("Q3", t.kind(), t.function(), true, 0) : t).toList())));
        bench.run(0.3);
        assertThat(bench.drive(0).plant().place()).isLessThan(lift.travel().parkedAt() - 5);
    }

    /** Standing on its positive limit an axis can be enabled and moved out of it, not into it. */
    @Test
    void outOfAnActiveLimitButNotIntoIt() {
        Axis shuttle = DemoMachine.shuttle();
        rueda.machine.Travel t = shuttle.travel();
        for (int direction = -1; direction <= 1; direction += 2) {
            Bench bench = bench(shuttle.withTravel(new rueda.machine.Travel(t.length(), t.negativeLimit(), t.positiveLimit(), t.camFrom(), t.camTo(), t.positiveLimit() + 10)));
            Drive drive = enabled(bench);
            bench.hand(0).step(direction * 5, bench.now());
            bench.run(1);
            assertThat(drive.dictionary().get(DriveObject.ERROR_CODE)).isEqualTo(direction > 0 ? DriveFault.LIMIT_SWITCH.code() : 0);
        }
    }
}
