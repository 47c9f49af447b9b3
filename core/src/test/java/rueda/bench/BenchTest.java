package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.sun.management.ThreadMXBean;
import java.lang.management.ManagementFactory;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.drive.DriveFault;
import rueda.drive.DriveObject;
import rueda.drive.PowerState;
import rueda.machine.Axis;
import rueda.machine.Control;
import rueda.machine.Homing;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.plcopen.AxisState;

class BenchTest {

    static String moves(String body) {
        return "PROGRAM P VAR Power : MC_Power; Home : MC_Home; A, B : MC_MoveAbsolute; R : MC_MoveRelative; H : MC_Halt; Reset : MC_Reset;"
                + " Place : MC_ReadActualPosition; Status : MC_ReadStatus; Go, Go2, Clear : BOOL; n : DINT; END_VAR\n"
                + "Power(Axis := Shuttle, Enable := TRUE); Home(Axis := Shuttle, Execute := Power.Status);\n"
                + "Place(Axis := Shuttle, Enable := TRUE); Status(Axis := Shuttle, Enable := TRUE); n := n + 1;\n" + body + "\nEND_PROGRAM";
    }

    /** Homes where it stands, so that moves can begin at once. */
    static Machine quick() {
        Machine demo = DemoMachine.create();
        return demo.withAxis(0, demo.axes().get(0).withHoming(Homing.search(37, 120, 12, 800, 0)));
    }

    private static double value(Bench bench, String name) {
        return bench.resource().program().variable(name).orElseThrow().number(bench.resource().memory());
    }

    @Test
    void theSameRecordingBitForBit() {
        Bench first = new Bench(DemoMachine.create(), 20_000);
        Bench second = new Bench(DemoMachine.create(), 20_000);
        first.run(14);
        second.run(14);
        for (int s = 0; s < first.recording().signals().size(); s++) {
            for (long k = 0; k < first.recording().count(); k++) {
                assertThat(Double.doubleToRawLongBits(first.recording().value(s, k))).isEqualTo(Double.doubleToRawLongBits(second.recording().value(s, k)));
            }
        }
    }

    @Test
    void aWarmCycleAllocatesNothing() {
        Bench bench = new Bench(DemoMachine.create(), 1000);
        bench.run(13);
        ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
        long thread = Thread.currentThread().getId();
        threads.getThreadAllocatedBytes(thread);
        long before = threads.getThreadAllocatedBytes(thread);
        for (int k = 0; k < 2000; k++) {
            bench.cycle();
        }
        long allocated = threads.getThreadAllocatedBytes(thread) - before;
        assertThat(allocated).as("bytes in 2000 cycles").isLessThan(2000);
    }

    /** Hours of machine time with an axis that goes to and fro; by hand a day: -Drueda.hours=24. Nothing grows with the time that passes. */
    @Test
    void memoryDoesNotGrowWithTheHours() {
        Machine machine = quick();
        Bench bench = new Bench(machine, moves("""
                A(Axis := Shuttle, Execute := Home.Done AND NOT Go, Position := 1500.0, Velocity := 300.0, Acceleration := 1000.0);
                B(Axis := Shuttle, Execute := Go, Position := 1450.0, Velocity := 300.0, Acceleration := 1000.0);
                IF A.Done THEN Go := TRUE; END_IF;
                IF B.Done THEN Go := FALSE; END_IF;
                """), 2000);
        double hours = Double.parseDouble(System.getProperty("rueda.hours", "0.3"));
        ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
        long thread = Thread.currentThread().getId();
        bench.run(60);
        assertThat(bench.log().size()).as("it moves").isGreaterThan(2);
        long before = threads.getThreadAllocatedBytes(thread);
        bench.run(hours * 3600);
        assertThat(bench.stopped()).isFalse();
        assertThat(bench.now()).isGreaterThanOrEqualTo((long) (hours * 3600e9));
        assertThat(threads.getThreadAllocatedBytes(thread) - before).as("bytes in %s hours", hours).isLessThan(200_000);
    }

    /** Common practice, no source: gap = speed / gain without feed-forward. */
    @Test
    void followingErrorIsSpeedOverPositionGain() {
        Machine machine = quick();
        Axis axis = machine.axes().get(0).withControl(new Control(60, 0.25, 20, 0, 0));
        axis = axis.withSupervision(axis.supervision().withFollowingErrors(50));
        Bench bench = new Bench(machine.withAxis(0, axis), moves("A(Axis := Shuttle, Execute := Home.Done, Position := 1500.0, Velocity := 300.0, Acceleration := 1000.0);"), 8000);
        bench.run(3);
        assertThat(bench.drive(0).demandSpeed()).isCloseTo(300, within(0.5));
        int error = bench.recording().indexOf("Shuttle.followingError");
        double mean = 0;
        for (long k = 2000; k < 3000; k++) {
            mean += bench.recording().value(error, k) / 1000;
        }
        assertThat(mean).isCloseTo(300.0 / 60, within(0.05));
    }

    @Test
    void moveAndItsOutputs() {
        Bench bench = new Bench(quick(), moves("A(Axis := Shuttle, Execute := Home.Done, Position := 200.0, Velocity := 400.0, Acceleration := 2000.0);"), 4000);
        while (value(bench, "A.Busy") == 0) {
            bench.cycle();
        }
        assertThat(value(bench, "A.Active")).isEqualTo(1);
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.DISCRETE_MOTION);
        double begun = bench.now();
        while (value(bench, "A.Done") == 0) {
            bench.cycle();
        }
        assertThat(value(bench, "A.Busy")).isZero();
        assertThat(value(bench, "Status.Standstill")).isEqualTo(1);
        double planned = bench.log().entry(bench.log().size() - 1).duration();
        double dwell = quick().axes().get(0).supervision().positionDwell() * 1e-3;
        assertThat((bench.now() - begun) * 1e-9).as("planned, then in position for its dwell, and the way over the bus").isCloseTo(planned + dwell, within(0.008));
        bench.run(0.3);
        assertThat(value(bench, "Place.Position")).isCloseTo(200, within(0.01));
    }

    /** PLCopen part 1: a new move takes over, the running one reports CommandAborted. */
    @Test
    void aNewMoveTakesOver() {
        Bench bench = new Bench(quick(), moves("A(Axis := Shuttle, Execute := Home.Done, Position := 1500.0, Velocity := 400.0);\n"
                + "B(Axis := Shuttle, Execute := n > 400, Position := 100.0, Velocity := 300.0);"), 8000);
        bench.run(0.81);
        assertThat(value(bench, "A.CommandAborted")).isEqualTo(1);
        assertThat(value(bench, "A.Busy")).isZero();
        assertThat(value(bench, "B.Busy")).isEqualTo(1);
        bench.run(5);
        assertThat(value(bench, "B.Done")).isEqualTo(1);
        assertThat(bench.drive(0).position()).isCloseTo(100, within(0.01));
    }

    /** Done stays for at least one call when Execute has fallen before the end. */
    @Test
    void doneIsSeenForOneCallAfterExecuteHasFallen() {
        Bench bench = new Bench(quick(), moves("A(Axis := Shuttle, Execute := n > 200 AND n < 205, Position := 20.0, Velocity := 400.0);"), 8000);
        bench.run(2);
        int done = bench.recording().indexOf("A.Done");
        int seen = 0;
        for (long k = 0; k < bench.recording().count(); k++) {
            seen += bench.recording().value(done, k) != 0 ? 1 : 0;
        }
        assertThat(seen).as("bus cycles of one task interval").isEqualTo(2);
    }

    @Test
    void haltAndRelativeMove() {
        Bench bench = new Bench(quick(), moves("R(Axis := Shuttle, Execute := Home.Done, Distance := 900.0, Velocity := 400.0);\nH(Axis := Shuttle, Execute := n > 500);"), 8000);
        bench.run(3);
        assertThat(value(bench, "R.CommandAborted")).isEqualTo(1);
        assertThat(value(bench, "H.Done")).isEqualTo(1);
        assertThat(bench.drive(0).position()).isBetween(10.0, 880.0);
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.STANDSTILL);
    }

    @Test
    void movePastASoftLimitIsRefused() {
        Bench bench = new Bench(quick(), moves("A(Axis := Shuttle, Execute := Home.Done, Position := 2600.0, Velocity := 400.0);"), 2000);
        bench.run(1);
        assertThat(value(bench, "A.Error")).isEqualTo(1);
        assertThat(value(bench, "A.ErrorID")).isEqualTo(0x0102);
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.STANDSTILL);
    }

    /** A limit switch met in motion: fault 8612h, ramp, fault; after reset and enabling the axis can leave the switch. */
    @Test
    void limitSwitchInMotionAndReset() {
        Machine machine = quick();
        /* homing "here" at 620 mm puts the switch at 40 mm to −580: inside generous soft limits */
        Axis axis = machine.axes().get(0);
        axis = axis.withLimits(axis.limits().withSoft(-2000, 2330));
        String source = moves("A(Axis := Shuttle, Execute := Home.Done AND n < 2500, Position := -700.0, Velocity := 200.0);\n"
                + "Reset(Axis := Shuttle, Execute := n > 2600); B(Axis := Shuttle, Execute := n > 2700, Position := -400.0, Velocity := 200.0);");
        Bench bench = new Bench(machine.withAxis(0, axis), source.replace("Home(Axis := Shuttle, Execute := Power.Status)", "Home(Axis := Shuttle, Execute := Power.Status AND n < 500)")
                .replace("Home.Done AND n < 2500", "n > 400 AND n < 2500"), 12_000);
        bench.run(5);
        assertThat(bench.drive(0).state()).isEqualTo(PowerState.FAULT);
        assertThat(bench.drive(0).dictionary().get(DriveObject.ERROR_CODE)).isEqualTo(DriveFault.LIMIT_SWITCH.code());
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.ERROR_STOP);
        assertThat(value(bench, "A.Error")).isZero();
        bench.run(5);
        assertThat(bench.drive(0).state()).isEqualTo(PowerState.OPERATION_ENABLED);
        assertThat(value(bench, "B.Done")).isEqualTo(1);
        assertThat(bench.drive(0).position()).isCloseTo(-400, within(0.01));
    }

    @Test
    void stopAllAxesIsAQuickStop() {
        Bench bench = new Bench(quick(), moves("A(Axis := Shuttle, Execute := Home.Done, Position := 1500.0, Velocity := 900.0);"), 8000);
        bench.run(1.2);
        double speed = bench.drive(0).plant().speed();
        double from = bench.drive(0).position();
        assertThat(speed).isGreaterThan(850);
        bench.stopAllAxes();
        bench.run(1);
        assertThat(bench.drive(0).state()).isEqualTo(PowerState.SWITCH_ON_DISABLED);
        assertThat(bench.drive(0).plant().speed()).isZero();
        /* v²/2a, and what peak torque and the following error add */
        assertThat(bench.drive(0).position() - from).isBetween(speed * speed / 2 / 6000 * 0.9, speed * speed / 2 / 6000 * 1.5);
    }

    /**
     * Measured cycle by cycle on a move: the target that the program's block makes in cycle n is the drive's at the end of cycle n + the
     * interpolation, and the position that the drive measures in cycle n is what the program reads in cycle n + 1.
     */
    @Test
    void latencyOfTheChain() {
        Machine machine = quick();
        machine = machine.withPlc(machine.plc().withTaskIntervalMicros(machine.bus().cycleMicros()));
        Bench bench = new Bench(machine, moves("A(Axis := Shuttle, Execute := Home.Done, Position := 200.0, Velocity := 400.0);"), 4000);
        while (bench.log().size() < 2) {
            bench.cycle();
        }
        long ordered = bench.log().entry(1).time();
        assertThat(bench.now() - ordered).as("the order is of the cycle that has just passed").isEqualTo(1_000_000);
        int commanded = bench.recording().indexOf("Shuttle.commandedPosition");
        int actual = bench.recording().indexOf("Shuttle.position");
        List<Double> targets = new ArrayList<>();
        List<Double> demands = new ArrayList<>();
        List<Double> positions = new ArrayList<>();
        List<Double> read = new ArrayList<>();
        for (int k = 0; k < 400; k++) {
            bench.cycle();
            long last = bench.recording().count() - 1;
            targets.add(bench.axis(0).targetWire() * 1e-4);
            demands.add(bench.recording().value(commanded, last));
            positions.add(bench.recording().value(actual, last));
            read.add(value(bench, "Place.Position"));
        }
        assertThat(delay(targets, demands)).as("cycles from the target to the drive's setpoint").isZero();
        assertThat(delay(positions, read)).as("cycles from the position to the program").isEqualTo(1);
    }

    /** By how many samples one row comes later than the other: where the two differ least. */
    private static int delay(List<Double> first, List<Double> later) {
        double least = Double.MAX_VALUE;
        int found = -1;
        for (int delay = 0; delay <= 5; delay++) {
            double worst = 0;
            for (int k = 10; k + delay < first.size(); k++) {
                worst = Math.max(worst, Math.abs(first.get(k) - later.get(k + delay)));
            }
            if (worst < least) {
                least = worst;
                found = delay;
            }
        }
        assertThat(least).as("it is the same row").isLessThan(2e-4);
        return found;
    }

    @Test
    void aRunawayLoopStopsTheTaskAndTheAxes() {
        Bench bench = new Bench(quick(), moves("IF n > 300 THEN\nWHILE TRUE DO\nn := n + 0;\nEND_WHILE\nEND_IF"), 2000);
        bench.run(1.5);
        assertThat(bench.resource().fault()).isNotNull();
        assertThat(bench.resource().fault().line()).isBetween(5, 6);
        assertThat(bench.drive(0).state()).isEqualTo(PowerState.SWITCH_ON_DISABLED);
    }

    /** An optional input holds no number until the program gives it one, and says so in words. */
    @Test
    void anInputThatIsNotGivenIsToldInWords() {
        Bench bench = new Bench(DemoMachine.create(), "PROGRAM P\nVAR Homing : MC_Home; x : LREAL; END_VAR\nHoming(Axis := Shuttle, Execute := FALSE);\nIF x > 0.0 THEN Homing(Axis := Shuttle, Position := 1.5); END_IF\nEND_PROGRAM", 10);
        bench.cycle();
        assertThat(bench.resource().text(bench.resource().program().variable("Homing.Position").orElseThrow())).isEqualTo("not given");
        assertThat(bench.resource().text(bench.resource().program().variable("x").orElseThrow())).isEqualTo("0.0");
    }

    /** The demo's program has the Brush follow the Table while it turns once, 7 for 2. */
    @Test
    void theDemoBrushesWhileItTurns() {
        Bench bench = new Bench(DemoMachine.create(), 60_000);
        int follower = 3;
        double turned = 0;
        double from = 0;
        while (bench.now() < 40e9) {
            bench.cycle();
            boolean follows = bench.axis(follower).followState().follows();
            if (follows && turned == 0) {
                from = bench.drive(follower).plant().place();
                turned = 1e-9;
            } else if (follows) {
                turned = bench.drive(follower).plant().place() - from;
            }
        }
        assertThat(turned).isCloseTo(360 * 3.5, within(1.0));
        assertThat(bench.resource().program().variable("Care").orElseThrow().number(bench.resource().memory())).isEqualTo(50);
    }
}
