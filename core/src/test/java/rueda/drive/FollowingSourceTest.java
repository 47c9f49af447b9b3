package rueda.drive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.math.BigDecimal;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import rueda.bench.Bench;
import rueda.bench.BenchCondition;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Following;
import rueda.machine.Following.Lock;
import rueda.machine.Following.Release;
import rueda.machine.Machine;
import rueda.machine.MachineRules;
import rueda.machine.MasterEncoder.Signal;
import rueda.machine.Mistake;

/** An axis that follows the encoder at its second input, without the PLC. */
class FollowingSourceTest {

    private static final String ENABLE = "I5";
    private static final String FOLLOW = "I6";
    private static final String TRIM_FORWARD = "I8";

    private static Machine demo(UnaryOperator<Following> changed) {
        Machine demo = DemoMachine.byEncoder();
        return demo.withAxis(0, demo.axes().get(0).withFollowing(changed.apply(demo.axes().get(0).following())));
    }

    private static void level(Bench bench, String terminal, boolean high) {
        bench.drive(0).digitalInputs().force(terminal, high);
    }

    /** Enabled; the belt at speed. */
    private static Bench running(Machine machine) {
        Bench bench = new Bench(machine, 100);
        level(bench, ENABLE, true);
        bench.run(1);
        assertThat(bench.drive(0).state()).isEqualTo(PowerState.OPERATION_ENABLED);
        return bench;
    }

    private static FollowingSource following(Bench bench) {
        return bench.drive(0).following();
    }

    @Test
    void theDemoCanBeStored() {
        assertThat(MachineRules.check(DemoMachine.byEncoder())).isEmpty();
    }

    /** The input ties it to the running belt; it makes up what it lost, and follows to the count; let go it ramps down. */
    @Test
    void followsTheBelt() {
        Bench bench = running(demo(f -> f));
        Drive drive = bench.drive(0);
        double from = drive.plant().place();
        double beltFrom = drive.plant().masterShaft().way();
        level(bench, FOLLOW, true);
        bench.run(0.002);
        assertThat(following(bench).tied()).isTrue();
        assertThat((int) drive.dictionary().get(DriveObject.MODE_DISPLAY)).isEqualTo(OperationMode.FOLLOWING);
        bench.run(2);
        assertThat(following(bench).locked()).isTrue();
        assertThat(drive.dictionary().get(DriveObject.STATUSWORD) & StatusWord.MODE_12).isNotZero();
        double ratio = 1080.0 / 420;
        double load = drive.plant().place() - from;
        double belt = drive.plant().masterShaft().way() - beltFrom;
        assertThat(load).as("made up, but for the 2 ms before it was tied, the filter and the sub-step of reading").isCloseTo(ratio * belt, within(1.0));
        level(bench, FOLLOW, false);
        bench.run(0.5);
        assertThat(drive.demandSpeed()).isZero();
        assertThat((int) drive.dictionary().get(DriveObject.MODE_DISPLAY)).as("and its list has it again").isEqualTo(OperationMode.MOVE_LIST);
    }

    /** Where the master stands again the follower is where the ratio says: for ratios of both senses, however long and often it turned round. */
    @ParameterizedTest
    @CsvSource({"7, 2, 2.4", "-1, 1, 1.5", "32767, 65536, 30", "355, -113, 2"})
    void exactAfterReversals(long out, long in, double seconds) {
        long turns = Math.abs(in);
        Machine machine = demo(f -> f.withRatio(Following.FollowRatio.of(in < 0 ? -out : out, turns).withForm(Following.Form.TURNS)));
        Bench bench = running(machine);
        Drive drive = bench.drive(0);
        drive.plant().masterShaft().run(0);
        bench.run(1);
        level(bench, FOLLOW, true);
        bench.run(0.1);
        long counts = drive.plant().masterShaft().read();
        double way = following(bench).way();
        for (double speed : new double[] {90, -200, 60, -5}) {
            drive.plant().masterShaft().run(speed);
            bench.run(seconds);
        }
        drive.plant().masterShaft().run(0);
        bench.run(2);
        long moved = drive.plant().masterShaft().read() - counts;
        java.math.BigInteger exact = java.math.BigInteger.valueOf(moved).multiply(java.math.BigInteger.valueOf((in < 0 ? -out : out) * 131_072 * 5));
        double expected = new BigDecimal(exact).divide(new BigDecimal(turns * 8192), 0, java.math.RoundingMode.HALF_UP).doubleValue() * 360 / (131_072.0 * 5);
        assertThat(following(bench).deviation()).isZero();
        assertThat(following(bench).way() - way).isCloseTo(expected, within(360 / (131_072.0 * 5) * 1.01));
    }

    /** Tied by speed what it lost stays lost: v²/2a; with the speed kept it goes on when let go. */
    @Test
    void bySpeedAndKeepingIt() {
        Bench bench = running(demo(f -> f.withLock(Lock.SPEED).withAcceleration(1000).withRelease(Release.HOLD_SPEED)));
        level(bench, FOLLOW, true);
        bench.run(1.5);
        double speed = 120 * 1080.0 / 420;
        assertThat(following(bench).lost()).isCloseTo(speed * speed / 2000, within(2.0));
        assertThat(bench.drive(0).demandSpeed()).isCloseTo(speed, within(3.0));
        level(bench, FOLLOW, false);
        bench.run(1);
        assertThat(bench.drive(0).demandSpeed()).isCloseTo(speed, within(3.0));
    }

    /** Common practice, no source: trim speed × time is the shift of the phase, while the input is on. */
    @Test
    void trimmedByAnInput() {
        Bench bench = running(demo(f -> f));
        level(bench, FOLLOW, true);
        bench.run(1);
        level(bench, TRIM_FORWARD, true);
        bench.run(0.5);
        level(bench, TRIM_FORWARD, false);
        bench.run(0.5);
        assertThat(following(bench).trimmed()).isCloseTo(60 * 0.5, within(0.2));
        assertThat(following(bench).locked()).isTrue();
    }

    /** Common practice, no source: a cable that was never connected faults at once; one that breaks while it follows does too, and cannot be reset. */
    @ParameterizedTest
    @EnumSource(Signal.class)
    void aBrokenLine(Signal signal) {
        Machine machine = demo(f -> f.withEncoder(f.encoder().withSignal(signal)));
        Bench never = new Bench(machine, machine.plc().program(), 100, BenchCondition.throughout(Map.of("Brush", Set.of(Mistake.MASTER_ENCODER_BROKEN))));
        never.run(0.1);
        assertThat((int) never.drive(0).dictionary().get(DriveObject.ERROR_CODE)).isEqualTo(DriveFault.MASTER_ENCODER.code());
        Bench bench = running(machine);
        level(bench, FOLLOW, true);
        bench.run(1);
        bench.condition(BenchCondition.throughout(Map.of("Brush", Set.of(Mistake.MASTER_ENCODER_BROKEN))));
        long read = bench.drive(0).plant().masterShaft().read();
        bench.run(1);
        assertThat(bench.drive(0).state()).isEqualTo(PowerState.FAULT);
        assertThat(bench.drive(0).plant().speed()).isCloseTo(0, within(1.0));
        assertThat(bench.drive(0).plant().masterShaft().read()).isCloseTo(read, within(10L));
        bench.condition(BenchCondition.SOUND);
        bench.run(0.001);
        long gap = bench.drive(0).plant().masterShaft().read() - read;
        assertThat(gap).as("an absolute one is read anew, the others have lost what they did not count").isBetween(signal == Signal.ABSOLUTE ? 4000L : 0L, signal == Signal.ABSOLUTE ? 4200L : 20L);
    }

    /** Enabling moves nothing: an input that stands already must go and come again. */
    @Test
    void enablingDoesNotTie() {
        Bench bench = new Bench(demo(f -> f), 100);
        level(bench, FOLLOW, true);
        level(bench, ENABLE, true);
        bench.run(0.5);
        assertThat(bench.drive(0).state()).isEqualTo(PowerState.OPERATION_ENABLED);
        assertThat(following(bench).tied()).isFalse();
        assertThat(bench.drive(0).demandSpeed()).isZero();
        level(bench, FOLLOW, false);
        bench.run(0.01);
        level(bench, FOLLOW, true);
        bench.run(0.01);
        assertThat(following(bench).tied()).isTrue();
        level(bench, ENABLE, false);
        bench.run(1);
        level(bench, ENABLE, true);
        bench.run(0.5);
        assertThat(following(bench).tied()).as("after it was switched off and on").isFalse();
    }

    /** By hand: switched off it is let go, and follows again only when it is asked to. */
    @Test
    void byHand() {
        Bench bench = new Bench(demo(f -> f), 100);
        bench.takeByHand();
        bench.run(0.05);
        bench.hand(0).enable(true);
        bench.run(0.6);
        assertThat(bench.followByHand(0)).isNull();
        bench.run(1);
        assertThat(following(bench).locked()).isTrue();
        assertThat(bench.hand(0).jog(1, true, bench.now())).contains("follows its master encoder");
        bench.hand(0).enable(false);
        bench.run(1);
        bench.hand(0).enable(true);
        bench.run(0.6);
        assertThat(following(bench).tied()).isFalse();
        assertThat(bench.drive(0).demandSpeed()).isZero();
        assertThat(bench.followByHand(0)).isNull();
        bench.run(0.5);
        assertThat(following(bench).tied()).isTrue();
        assertThat(bench.hand(0).letGo(bench.now())).isNull();
        bench.run(0.5);
        assertThat(bench.drive(0).demandSpeed()).isZero();
        assertThat(bench.hand(0).step(10, bench.now())).isNull();
        bench.run(1);
        assertThat(bench.axis(0).state()).isEqualTo(rueda.plcopen.AxisState.STANDSTILL);
    }

    /** Over the bus: mode −2, and bit 4 ties it. */
    @Test
    void overTheBus() {
        Axis axis = DemoMachine.byEncoder().axes().get(0).withCommandedBy(Axis.Commander.PROGRAM);
        axis = axis.withStation(axis.station().withEntries(java.util.List.of(), java.util.List.of())).withWiring(axis.wiring().with("I5", rueda.machine.Terminal.Function.NONE));
        Drive drive = new Drive(axis, new rueda.plant.ServoPlant(axis, 125e-6), 125_000, 8);
        drive.dictionary().set(DriveObject.MODE, OperationMode.FOLLOWING);
        byte[] nothing = {};
        for (int word : new int[] {ControlWord.SHUTDOWN, ControlWord.SHUTDOWN, ControlWord.SWITCHED_ON, ControlWord.OPERATION_ENABLED, ControlWord.OPERATION_ENABLED}) {
            drive.dictionary().set(DriveObject.CONTROLWORD, word);
            drive.cycle(nothing, nothing);
        }
        assertThat(drive.state()).isEqualTo(PowerState.OPERATION_ENABLED);
        assertThat(drive.following().tied()).isFalse();
        drive.dictionary().set(DriveObject.CONTROLWORD, ControlWord.OPERATION_ENABLED | ControlWord.NEW_SETPOINT);
        for (int i = 0; i < 2000; i++) {
            drive.cycle(nothing, nothing);
        }
        assertThat(drive.dictionary().get(DriveObject.STATUSWORD) & StatusWord.MODE_12).as("locked").isNotZero();
        drive.dictionary().set(DriveObject.CONTROLWORD, ControlWord.OPERATION_ENABLED | ControlWord.NEW_SETPOINT | ControlWord.HALT);
        for (int i = 0; i < 500; i++) {
            drive.cycle(nothing, nothing);
        }
        assertThat(drive.demandSpeed()).isZero();
        assertThat(drive.dictionary().get(DriveObject.STATUSWORD) & StatusWord.TARGET_REACHED).isNotZero();
    }

    /** Not wired it is not followed. */
    @Test
    void notWired() {
        Machine machine = demo(f -> f);
        Axis brush = machine.axes().get(0);
        Bench bench = running(machine.withAxis(0, brush.withWiring(brush.wiring().with("X2", rueda.machine.Terminal.Function.NONE))));
        level(bench, FOLLOW, true);
        bench.run(0.2);
        assertThat(following(bench).tied()).isFalse();
        assertThat(bench.drive(0).demandSpeed()).isZero();
    }
}
