package rueda.drive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import rueda.bench.Bench;
import rueda.bench.BenchCondition;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.FollowWatch;
import rueda.machine.FollowWatch.Event;
import rueda.machine.FollowWatch.Reaction;
import rueda.machine.Following;
import rueda.machine.Following.Release;
import rueda.machine.Limits;
import rueda.machine.Machine;
import rueda.machine.Terminal;
import rueda.machine.Mistake;

/** What is watched while a drive follows its encoder, what it then does, its trim by a distance, and what the bus tells and orders. */
class FollowWatchTest {

    private static final String ENABLE = "I5";
    private static final String FOLLOW = "I6";
    private static final String TRIM_FORWARD = "I8";

    private Bench bench;
    private Drive drive;

    @BeforeEach
    void usual() {
        begin(f -> f);
    }

    private void begin(UnaryOperator<Following> changed) {
        Machine demo = DemoMachine.byEncoder();
        Axis axis = demo.axes().get(0);
        start(demo.withAxis(0, axis.withFollowing(changed.apply(axis.following()))));
    }

    private void start(Machine machine) {
        bench = new Bench(machine, 100);
        drive = bench.drive(0);
        level(ENABLE, true);
        bench.run(1);
        assertThat(drive.state()).isEqualTo(PowerState.OPERATION_ENABLED);
    }

    private void level(String terminal, boolean high) {
        drive.digitalInputs().force(terminal, high);
    }

    private void tie() {
        level(FOLLOW, true);
        bench.run(1);
        assertThat(drive.following().locked()).isTrue();
    }

    private void wrong(Mistake mistake) {
        bench.condition(BenchCondition.throughout(Map.of("Brush", Set.of(mistake))));
    }

    private boolean status(int bit) {
        return (drive.dictionary().get(DriveObject.FOLLOW_STATUS) & bit) != 0;
    }

    private boolean event(Event event) {
        return status(1 << FollowStatus.FIRST_EVENT + event.ordinal());
    }

    private static Following watching(Following f, UnaryOperator<FollowWatch> changed) {
        return f.withWatch(changed.apply(f.watch()));
    }

    /** A line breaks: what is chosen happens, and only then. */
    @ParameterizedTest
    @EnumSource(Reaction.class)
    void aLineBreaks(Reaction reaction) {
        begin(f -> watching(f, w -> w.withLine(reaction)));
        tie();
        double speed = drive.demandSpeed();
        wrong(Mistake.MASTER_ENCODER_BROKEN);
        bench.run(0.02);
        assertThat(event(Event.LINE_BROKEN)).isTrue();
        bench.run(1);
        assertThat(drive.following().warnings()).contains("line");
        switch (reaction) {
            case WARN -> {
                assertThat(drive.following().tied()).isTrue();
                assertThat(drive.demandSpeed()).as("its master seems to stand").isCloseTo(0, within(0.5));
                assertThat(drive.dictionary().get(DriveObject.STATUSWORD) & StatusWord.WARNING).isNotZero();
            }
            case RAMP -> {
                assertThat(drive.following().tied()).isFalse();
                assertThat(drive.demandSpeed()).isZero();
                assertThat(status(FollowStatus.REFUSED)).isTrue();
                assertThat(drive.state()).isEqualTo(PowerState.OPERATION_ENABLED);
            }
            case HOLD_SPEED -> {
                assertThat(drive.following().tied()).isFalse();
                assertThat(drive.demandSpeed()).isCloseTo(speed, within(Math.abs(speed) * 0.05));
            }
            case QUICK_STOP -> {
                assertThat(drive.state()).isEqualTo(PowerState.FAULT);
                assertThat((int) drive.dictionary().get(DriveObject.ERROR_CODE)).isEqualTo(DriveFault.MASTER_ENCODER.code());
            }
        }
    }

    /** While the line is broken nothing is tied to it; whole again it can be. */
    @Test
    void isNotTiedToABrokenLine() {
        begin(f -> watching(f, w -> w.withLine(Reaction.RAMP)));
        tie();
        wrong(Mistake.MASTER_ENCODER_BROKEN);
        bench.run(1);
        level(FOLLOW, false);
        bench.run(0.1);
        level(FOLLOW, true);
        bench.run(0.1);
        assertThat(drive.following().tied()).isFalse();
        bench.condition(BenchCondition.SOUND);
        level(FOLLOW, false);
        bench.run(0.1);
        tie();
        assertThat(drive.following().warnings()).isEmpty();
    }

    /** Its own line: the counting ones are whole, and it goes on following. */
    @Test
    void theIndexPulseDoesNotCome() {
        tie();
        bench.run(5);
        assertThat(drive.following().warnings()).isEmpty();
        wrong(Mistake.MASTER_INDEX_BROKEN);
        /* a turn is 240 mm of the belt, at 120 mm/s; told after one and a half */
        bench.run(4);
        assertThat(event(Event.INDEX_MISSING)).isTrue();
        assertThat(drive.following().locked()).isTrue();
        begin(f -> watching(f, w -> w.withIndex(Reaction.QUICK_STOP)));
        tie();
        wrong(Mistake.MASTER_INDEX_BROKEN);
        bench.run(4);
        assertThat((int) drive.dictionary().get(DriveObject.ERROR_CODE)).isEqualTo(DriveFault.MASTER_INDEX.code());
        begin(f -> f.withEncoder(f.encoder().withIndex(false)));
        tie();
        wrong(Mistake.MASTER_INDEX_BROKEN);
        bench.run(6);
        assertThat(drive.following().warnings()).as("an encoder without one").isEmpty();
    }

    /** Interference takes 1 count of 2000, of 8192 a turn: 4 a turn. Forward and back. */
    @ParameterizedTest
    @CsvSource({"120, -1", "-120, 1"})
    void countsAreLost(double speed, int sign) {
        begin(f -> f.withEncoder(f.encoder().withSpeed(speed)));
        tie();
        bench.run(5);
        assertThat(drive.dictionary().get(DriveObject.MASTER_LOST)).isZero();
        wrong(Mistake.MASTER_COUNTS_LOST);
        bench.run(8);
        bench.condition(BenchCondition.SOUND);
        bench.run(3);
        assertThat(event(Event.COUNTS_LOST)).isTrue();
        double turns = 8 * 120 / 240.0;
        assertThat((double) drive.dictionary().get(DriveObject.MASTER_LOST)).isCloseTo(sign * turns * 8192 / 2000, within(2.0));
    }

    /** Turning to and fro over the index loses nothing, though the flanks of both directions lie apart. */
    @Test
    void reversalsLoseNothing() {
        tie();
        for (int i = 0; i < 8; i++) {
            drive.plant().masterShaft().run(i % 2 == 0 ? -100 : 130);
            bench.run(3);
        }
        assertThat(drive.dictionary().get(DriveObject.MASTER_LOST)).isZero();
        assertThat(drive.following().warnings()).isEmpty();
    }

    /** Faster than the follower may be: told, and from 30 ms on. */
    @Test
    void theMasterIsTooFast() {
        begin(f -> watching(f.withSpeed(500), w -> w.withTooFast(Reaction.RAMP)));
        tie();
        /* 1080° for 420 mm: 194.4 mm/s are 500°/s */
        drive.plant().masterShaft().run(190);
        bench.run(1);
        assertThat(drive.following().tied()).isTrue();
        drive.plant().masterShaft().run(200);
        bench.run(1);
        assertThat(event(Event.TOO_FAST)).isTrue();
        assertThat(drive.following().tied()).isFalse();
        assertThat(drive.demandSpeed()).isZero();
    }

    /** A load that is held leaves no deviation of the setpoint; one that may not accelerate does. */
    @Test
    void thePhaseLeavesItsLimit() {
        begin(f -> watching(f.withAcceleration(200).withDeceleration(200), w -> w.withPhaseLimit(10).withPhase(Reaction.QUICK_STOP)));
        level(FOLLOW, true);
        bench.run(7);
        assertThat(drive.following().locked()).as("coming up is no matter").isTrue();
        assertThat(drive.state()).isEqualTo(PowerState.OPERATION_ENABLED);
        drive.plant().masterShaft().run(240);
        bench.run(2);
        assertThat((int) drive.dictionary().get(DriveObject.ERROR_CODE)).isEqualTo(DriveFault.PHASE.code());
    }

    /** Each edge moves the phase by the distance, exactly; two while it moves by both. Forgotten when it is let go, unless kept. */
    @ParameterizedTest
    @CsvSource({"false", "true"})
    void trimsByADistance(boolean kept) {
        begin(f -> f.withTrimDistance(9).withTrimKept(kept));
        tie();
        for (int i = 0; i < 3; i++) {
            level(TRIM_FORWARD, true);
            bench.run(0.02);
            level(TRIM_FORWARD, false);
            bench.run(0.02);
        }
        bench.run(2);
        assertThat(drive.following().trimmed()).isCloseTo(27, within(3 * 360 / (131_072.0 * 5)));
        assertThat(drive.following().locked()).isTrue();
        level(FOLLOW, false);
        bench.run(1);
        tie();
        assertThat(drive.following().trimmed()).isCloseTo(kept ? 27 : 0, within(0.01));
    }

    /** Let go at its speed, an axis with ends stops within its soft limits. */
    @Test
    void aKeptSpeedEndsAtTheSoftLimit() {
        Machine demo = DemoMachine.create();
        Axis shuttle = demo.axis("Shuttle").orElseThrow();
        shuttle = shuttle.withCommandedBy(Axis.Commander.DRIVE).withHoming(shuttle.homing().withAtPowerUp(rueda.machine.Homing.AtPowerUp.MOTOR_ENCODER)).withLimits(shuttle.limits().withSoftMax(600));
        Following follows = DemoMachine.byEncoder().axes().get(0).following();
        shuttle = shuttle.withFollowing(follows.withRelease(Release.HOLD_SPEED).withRatio(Following.FollowRatio.of(1, 1).withForm(Following.Form.DECIMAL)).withCatchUp(50))
                .withWiring(shuttle.wiring().with("I5", Terminal.Function.ENABLE).with("I6", Terminal.Function.FOLLOW).with(second(shuttle), Terminal.Function.MASTER_ENCODER));
        bench = new Bench(demo.withAxes(java.util.List.of(shuttle)).withProofs(java.util.List.of()).withPlc(demo.plc().withProgram("PROGRAM P VAR x : BOOL; END_VAR x := TRUE; END_PROGRAM")), 100);
        drive = bench.drive(0);
        level(ENABLE, true);
        bench.run(1);
        assertThat(drive.referenced()).isTrue();
        Limits limits = shuttle.limits();
        double toGo = limits.softMax() - drive.position();
        level(FOLLOW, true);
        bench.run(1);
        level(FOLLOW, false);
        bench.run(toGo / 120 + 2);
        assertThat(drive.demandSpeed()).isZero();
        assertThat(drive.demandPosition()).isBetween(limits.softMax() - 1, limits.softMax() + 1e-6);
    }

    private static String second(Axis axis) {
        return axis.wiring().terminals().stream().filter(t -> t.kind() == Terminal.Kind.SECOND_ENCODER).findFirst().orElseThrow().name();
    }

    /** The belt has run long before the mode is chosen: what was counted meanwhile is no speed, and the follower takes no leap. */
    @Test
    void whatWasCountedBeforeIsNoSpeed() {
        begin(f -> f.withLock(Following.Lock.LOOSE));
        bench.run(3);
        level(FOLLOW, true);
        double fastest = 0;
        for (int i = 0; i < 500; i++) {
            bench.run(0.001);
            fastest = Math.max(fastest, Math.abs(drive.demandSpeed()));
        }
        /* 308.6 °/s, and what the filter leaves of single counts */
        assertThat(fastest).isBetween(300.0, 330.0);
    }

    /** Over the bus: the ratio is taken at an edge of its bit, without a step; one that is none leaves the one that holds. */
    @Test
    void anotherRatioOverTheBus() {
        tie();
        ObjectDictionary objects = drive.dictionary();
        assertThat(objects.get(DriveObject.MASTER_SPEED)).isCloseTo(Math.round(120 / 240.0 * 8192), within(1100L));
        double before = drive.demandSpeed();
        objects.set(DriveObject.FOLLOW_OUT, -3);
        objects.set(DriveObject.FOLLOW_IN, 2);
        bench.run(0.5);
        assertThat(drive.demandSpeed()).as("not yet taken").isCloseTo(before, within(3.0));
        objects.set(DriveObject.FOLLOW_TAKE, 1);
        bench.run(0.005);
        assertThat(Math.abs(drive.demandSpeed() - before)).as("without a step").isLessThan(Math.abs(before) * 0.5);
        bench.run(1.5);
        assertThat(drive.demandSpeed()).isCloseTo(-3 / 2.0 * 120 / 240 * 360, within(3.0));
        assertThat(status(FollowStatus.LOCKED)).isTrue();
        assertThat(drive.following().warnings()).as("a place that counts from elsewhere is no speed").isEmpty();
        objects.set(DriveObject.FOLLOW_TAKE, 0);
        objects.set(DriveObject.FOLLOW_OUT, 0);
        bench.run(0.01);
        objects.set(DriveObject.FOLLOW_TAKE, 1);
        bench.run(0.5);
        assertThat(status(FollowStatus.RATIO_REFUSED)).isTrue();
        assertThat(drive.demandSpeed()).isCloseTo(-3 / 2.0 * 120 / 240 * 360, within(3.0));
        /* written parameters leave it, unless they bring another ratio */
        drive.take(bench.machine().axes().get(0).withFollowing(bench.machine().axes().get(0).following().withGain(60)));
        bench.run(0.5);
        assertThat(drive.demandSpeed()).isCloseTo(-270, within(3.0));
    }

    /** Trim over the bus: as long as its bit stands, by a way at an edge, forgotten at an edge; at the speed of 2052h:03 where that is given. */
    @Test
    void trimOverTheBus() {
        tie();
        ObjectDictionary objects = drive.dictionary();
        double wire = bench.machine().axes().get(0).scale().wireUnitsPerUnit();
        objects.set(DriveObject.TRIM_SPEED, Math.round(30 * wire));
        objects.set(DriveObject.TRIM_ORDER, 2);
        bench.run(1);
        objects.set(DriveObject.TRIM_ORDER, 0);
        bench.run(0.5);
        assertThat(objects.get(DriveObject.FOLLOW_TRIMMED) / wire).isCloseTo(-30, within(0.2));
        double from = objects.get(DriveObject.FOLLOW_TRIMMED) / wire;
        objects.set(DriveObject.TRIM_WAY, Math.round(12.5 * wire));
        objects.set(DriveObject.TRIM_ORDER, 4);
        bench.run(0.1);
        assertThat(status(FollowStatus.TRIMMING)).isTrue();
        bench.run(2);
        assertThat(objects.get(DriveObject.FOLLOW_TRIMMED) / wire).isCloseTo(from + 12.5, within(2 / wire));
        objects.set(DriveObject.TRIM_ORDER, 8);
        bench.run(2);
        assertThat(objects.get(DriveObject.FOLLOW_TRIMMED)).isZero();
        assertThat(status(FollowStatus.TRIMMING)).isFalse();
    }
}
