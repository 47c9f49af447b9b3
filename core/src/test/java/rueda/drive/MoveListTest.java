package rueda.drive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static rueda.machine.MoveEntry.goBy;
import static rueda.machine.MoveEntry.goTo;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import rueda.machine.Axis;
import rueda.machine.Cue;
import rueda.machine.Load;
import rueda.machine.Motor;
import rueda.machine.MoveEntry;
import rueda.machine.MoveList;
import rueda.machine.MoveList.By;
import rueda.machine.MoveList.Does;
import rueda.machine.MoveList.MoveException;
import rueda.machine.MoveList.Passing;
import rueda.machine.MoveList.Starter;
import rueda.machine.MoveList.Zone;
import rueda.machine.Terminal.Function;

/** Moves that live in the drive: entries, their ends, what starts them, exceptions and zones. */
class MoveListTest {

    private static final Cue CUE = Cue.of(Function.CUE, Cue.Edge.RISING);
    private static final Cue CUE_2 = Cue.of(Function.CUE_2, Cue.Edge.RISING);
    /** Window dwell of 5 ms, one bus cycle until it is looked at, and the following error of a stiff axis. */
    private static final double SETTLED = 0.03;

    private static MoveList byCue(MoveEntry... entries) {
        return MoveList.of(entries).withStarters(List.of(new Starter(By.EDGE, CUE, 0, 0)));
    }

    private static ListBench shuttle(double at, MoveList list, Function... inputs) {
        return new ListBench(ListBench.shuttle(at, list, inputs)).enabled();
    }

    /** Common practice, no source: trapezoids from rest to rest and the time they take. */
    @ParameterizedTest
    @CsvSource({"60, 50, 10000, 1.205", "50, 100, 1000, 0.600", "60, 1000, 50000, 0.080"})
    void aMoveTakesTheTimeOfItsTrapezoid(String distance, double speed, double acceleration, double seconds) {
        Axis axis = ListBench.shuttle(500, byCue(goBy(distance).withSpeed(speed).withAcceleration(acceleration).withDeceleration(acceleration)), Function.CUE);
        axis = axis.withLimits(axis.limits().withMax(axis.limits().max().withSpeed(2000).withAcceleration(60_000).withDeceleration(60_000))).withLoad(Load.along(1, 0, 0)).withMotor(new Motor(1e-4, 50, 200, 40_000, 60_000, 200));
        ListBench b = new ListBench(axis).enabled();
        b.input("I2", true);
        b.until(() -> b.list.phase() == MoveListSource.Phase.MOVING, 0.1);
        double took = b.until(() -> b.list.phase() != MoveListSource.Phase.MOVING, 10);
        assertThat(took).isCloseTo(seconds, within(0.0021));
        b.untilStands(2);
        assertThat(b.place()).isEqualTo(500 + Double.parseDouble(distance));
    }

    /** Common practice, no source: one input, two moves; each edge starts its own once. */
    @Test
    void aLevelStartsOneMoveByEachEdge() {
        MoveList list = MoveList.of(goBy("60").withSpeed(600), goTo("500").withSpeed(50)).withStarters(List.of(new Starter(By.LEVEL, CUE, 0, 1)));
        ListBench b = shuttle(500, list, Function.CUE);
        b.bench.run(0.2);
        assertThat(b.place()).as("a level that stands starts nothing").isEqualTo(500);
        b.input("I2", true);
        double out = b.until(() -> b.drive.position() > 559.9, 2);
        b.bench.run(1);
        assertThat(b.place()).as("once").isEqualTo(560);
        b.input("I2", false);
        double back = b.until(() -> b.drive.position() < 500.1, 3);
        b.bench.run(1);
        assertThat(b.place()).isEqualTo(500);
        assertThat(back).isGreaterThan(3 * out);
    }

    /** Common practice, no source: six selector inputs say 0 to 63 in binary, and never start anything alone. */
    @ParameterizedTest
    @ValueSource(ints = {0, 1, 2, 21, 42, 63})
    void selectorsSayWhichEntryAndTheCueStartsIt(int number) {
        MoveEntry[] entries = new MoveEntry[64];
        for (int i = 0; i < entries.length; i++) {
            entries[i] = goTo(Integer.toString(400 + i));
        }
        Axis axis = ListBench.shuttle(500, MoveList.of(entries).withStarters(List.of(new Starter(By.SELECTOR, CUE, 0, 0))),
                Function.SELECTOR_1, Function.SELECTOR_2, Function.SELECTOR_4, Function.SELECTOR_8, Function.SELECTOR_16, Function.SELECTOR_32, Function.CUE);
        ListBench b = new ListBench(axis).enabled();
        for (int bit = 0; bit < 6; bit++) {
            b.input("I" + (2 + bit), (number >> bit & 1) != 0);
        }
        b.bench.run(0.3);
        assertThat(b.list.entry()).isEqualTo(-1);
        assertThat(b.place()).isEqualTo(500);
        b.input("I8", true);
        b.bench.run(0.01);
        b.untilStands(3);
        assertThat(b.list.entry()).isEqualTo(number);
        assertThat(b.place()).isEqualTo(400 + number);
    }

    /** Common practice, no source: the first start after power-up runs the configured first entry, whatever was asked for. */
    @Test
    void theFirstStartAfterPowerUpRunsTheFirstEntry() {
        MoveList list = MoveList.of(goTo("500"), goTo("510"), goTo("520")).withFirstEntry(2).withStarters(List.of(new Starter(By.EDGE, CUE, 1, 0)));
        ListBench b = shuttle(500, list, Function.CUE);
        b.pulse("I2");
        b.untilStands(3);
        assertThat(b.list.entry()).isEqualTo(2);
        b.pulse("I2");
        b.untilStands(3);
        assertThat(b.list.entry()).isEqualTo(1);
    }

    @Test
    void theFirstEnableStartsItOnlyWhenChosen() {
        MoveList list = MoveList.of(goTo("520")).withOnFirstEnable(true);
        ListBench b = new ListBench(ListBench.shuttle(500, list));
        b.until(() -> b.place() == 520, 3);
        b.input("I1", false);
        b.bench.run(0.2);
        b.input("I1", true);
        b.bench.run(0.5);
        assertThat(b.list.entry()).as("the second enable starts nothing").isEqualTo(-1);
        ListBench quiet = shuttle(500, list.withOnFirstEnable(false));
        quiet.bench.run(1);
        assertThat(quiet.place()).isEqualTo(500);
    }

    /** Common practice, no source: feed to length, period = move time + settling + delay. */
    @Test
    void feedToLengthHasThePeriodOfMoveSettlingAndDelay() {
        ListBench b = new ListBench(ListBench.doser(byCue(goBy("3.5").thenGoOn(0, 1.25)), Function.CUE)).enabled();
        b.input("I2", true);
        b.until(() -> b.list.rounds() == 2, 10);
        double before = b.drive.demandPosition();
        double three = b.until(() -> b.list.rounds() == 5, 30);
        /* 3.5 g at 2 g/s and 10 g/s²: 3.5/2 + 2/10 s */
        double move = 3.5 / 2 + 2.0 / 10;
        assertThat(three / 3).isBetween(move + 1.25, move + 1.25 + SETTLED);
        assertThat(b.drive.demandPosition() - before).isCloseTo(3 * 3.5, within(1e-9));
    }

    /** Closed form: a round of n trapezoids with rests takes Σ (s/v + v/a + rest) and n settlings. */
    @Test
    void aRoundOfTrapezoidsWithRestsTakesTheirSum() {
        MoveList list = byCue(goBy("90").thenGoOn(1, 0.5), MoveEntry.repeat(0, 4, 2), MoveEntry.output(1, true, 3), MoveEntry.of(MoveEntry.Kind.WAIT).thenGoOn(4, 0.25), MoveEntry.output(1, false, 0));
        ListBench b = new ListBench(ListBench.table(list, Function.CUE)).enabled();
        b.input("I2", true);
        b.until(() -> b.list.rounds() == 1 && b.list.phase() == MoveListSource.Phase.MOVING, 1);
        double round = b.until(() -> b.list.entry() == 3, 60) + b.until(() -> b.list.entry() == 0, 1);
        double move = 90.0 / 60 + 60.0 / 120;
        assertThat(round).isBetween(4 * (move + 0.5) + 0.25 - 0.002, 4 * (move + 0.5 + SETTLED) + 0.25);
        assertThat(b.place()).as("four quarters are a turn").isEqualTo(0);
    }

    @Test
    void aRepeatedStretchIsRunSoOftenAltogether() {
        ListBench b = new ListBench(ListBench.table(byCue(goBy("10").thenGoOn(1, 0), MoveEntry.repeat(0, 3, 2), goBy("1")), Function.CUE)).enabled();
        b.input("I2", true);
        b.bench.run(0.01);
        b.until(() -> b.list.phase() == MoveListSource.Phase.IDLE, 10);
        assertThat(b.place()).isEqualTo(31);
    }

    @Test
    void outputsAreSetAndClearedAndGoOffWithTheTorque() {
        ListBench b = shuttle(500, byCue(MoveEntry.output(1, true, 1), MoveEntry.output(2, true, 2), goBy("10").thenGoOn(3, 0), MoveEntry.output(1, false, 4), MoveEntry.of(MoveEntry.Kind.AWAIT).withCue(CUE_2)), Function.CUE, Function.CUE_2);
        b.input("I2", true);
        b.until(() -> b.list.phase() == MoveListSource.Phase.MOVING, 0.1);
        assertThat(b.drive.outputLevels() & 0b0110).isEqualTo(0b0110);
        b.until(() -> b.list.entry() == 4, 3);
        assertThat(b.drive.outputLevels() & 0b0110).isEqualTo(0b0100);
        b.input("I1", false);
        b.bench.run(0.1);
        assertThat(b.drive.outputLevels() & 0b0110).as("without torque nothing may go on brushing").isZero();
    }

    @Test
    void anEntryAwaitsItsCueAfterItsRest() {
        ListBench b = shuttle(500, byCue(goBy("10").thenAwait(CUE_2).withRest(0.2), goBy("-10")), Function.CUE, Function.CUE_2);
        b.pulse("I2");
        b.until(() -> b.list.phase() == MoveListSource.Phase.RESTING, 2);
        b.pulse("I3");
        b.bench.run(0.3);
        assertThat(b.list.phase()).as("a cue during the rest is not the one awaited").isEqualTo(MoveListSource.Phase.AWAITING);
        b.pulse("I3");
        b.until(() -> b.list.phase() == MoveListSource.Phase.IDLE, 2);
        assertThat(b.place()).isEqualTo(500);
    }

    /** Passing on: at the end of the first move the axis has the speed of the second, and does not stand in between. */
    @Test
    void passingOnDoesNotStand() {
        ListBench b = shuttle(500, byCue(goBy("200").withSpeed(400).thenPass(), goBy("100").withSpeed(100)), Function.CUE);
        b.input("I2", true);
        b.until(() -> b.drive.demandPosition() > 650, 3);
        double slowest = Double.MAX_VALUE;
        while (b.drive.demandPosition() < 795) {
            slowest = Math.min(slowest, b.drive.demandSpeed());
            b.bench.cycle();
        }
        assertThat(slowest).isCloseTo(100, within(0.5));
        b.untilStands(3);
        assertThat(b.place()).isEqualTo(800);
    }

    @Test
    void passingOnStandsWhereTheNextEntryGoesBack() {
        ListBench b = shuttle(500, byCue(goBy("100").thenPass(), goBy("-100")), Function.CUE);
        b.input("I2", true);
        b.bench.run(0.01);
        double farthest = 0;
        while (b.list.phase() != MoveListSource.Phase.IDLE) {
            farthest = Math.max(farthest, b.drive.demandPosition());
            b.bench.cycle();
        }
        assertThat(farthest).isLessThanOrEqualTo(600.00002);
        assertThat(b.place()).isEqualTo(500);
    }

    /** Common practice, no source: continuous turning from an entry, 20 rpm at the load behind 100 : 1 are 2000 rpm at the motor. */
    @Test
    void runsUntilTheCueComes() {
        double speed = 20 * 360 / 60.0;
        ListBench b = new ListBench(ListBench.table(byCue(MoveEntry.run(speed, CUE_2)), Function.CUE, Function.CUE_2)).enabled();
        b.input("I2", true);
        b.bench.run(3);
        assertThat(b.drive.demandSpeed()).isCloseTo(speed, within(1e-6));
        double motor = b.drive.plant().speed() / 360 * 60 * 100;
        assertThat(motor).isCloseTo(2000, within(5.0));
        b.input("I3", true);
        b.until(() -> b.list.phase() == MoveListSource.Phase.IDLE, 3);
        assertThat(b.drive.demandSpeed()).isZero();
    }

    @Test
    void anAxisWithEndsRunsNoFartherThanItsSoftLimit() {
        ListBench b = shuttle(2200, byCue(MoveEntry.run(600, CUE_2)), Function.CUE, Function.CUE_2);
        b.input("I2", true);
        b.bench.run(0.01);
        b.untilStands(3);
        assertThat(b.list.error()).isEqualTo(ListError.SOFT_LIMIT_MET);
        assertThat(b.place()).isEqualTo(2330);
        assertThat(b.word(DriveObject.LIST_ERROR)).isEqualTo(ListError.SOFT_LIMIT_MET.code());
        assertThat(b.word(DriveObject.STATUSWORD) & StatusWord.MODE_13).isNotZero();
        assertThat(b.drive.state()).as("an entry that cannot go on is no fault of the drive").isEqualTo(PowerState.OPERATION_ENABLED);
    }

    /**
     * Closed form: after a mark the axis stops the set distance behind it. The doubt is speed × response of the input (common practice, no
     * source): on the fast input 2 µs, taken at the next sub-step of 125 µs, at 500 mm/s so less than two sub-steps.
     */
    @ParameterizedTest
    @CsvSource({"I7, PROBE_1", "I3, PROBE_2"})
    void stopsTheSetDistanceAfterAMark(String terminal, Function probe) {
        double speed = 500;
        Function[] inputs = {Function.CUE, terminal.equals("I3") ? probe : Function.NONE, Function.NONE, Function.NONE, Function.NONE, terminal.equals("I7") ? probe : Function.NONE};
        ListBench b = shuttle(500, byCue(MoveEntry.toMark(probe, 100, 900, "120").withSpeed(speed)), inputs);
        b.input("I2", true);
        b.until(() -> b.drive.position() > 550, 3);
        b.pulse(terminal);
        b.until(() -> b.drive.position() > 700, 3);
        double mark = b.drive.position();
        b.input(terminal, true);
        b.bench.run(0.01);
        b.untilStands(3);
        assertThat(b.list.error()).isEqualTo(ListError.NONE);
        double response = terminal.equals("I7") ? 125e-6 : 250e-6;
        assertThat(b.drive.demandPosition() - mark - 120).as("the first mark lay before the window").isBetween(0.0, speed * (response + 125e-6) + 0.001);
        /* v²/2a + v × latency: nearer it could not have stopped */
        assertThat(120.0).isGreaterThan(speed * speed / 2 / 2500 + speed * 0.001);
    }

    @Test
    void withoutAMarkItDoesWhatIsSaidForThat() {
        ListBench stands = shuttle(500, byCue(MoveEntry.toMark(Function.PROBE_1, 10, 50, "5")), Function.CUE);
        stands.input("I2", true);
        stands.bench.run(0.01);
        stands.untilStands(3);
        assertThat(stands.list.error()).isEqualTo(ListError.NO_MARK);
        assertThat(stands.place()).isEqualTo(550);
        ListBench other = shuttle(500, byCue(MoveEntry.toMark(Function.PROBE_1, 10, 50, "5").withEntry(1), goTo("400")), Function.CUE);
        other.input("I2", true);
        other.bench.run(0.01);
        other.untilStands(3);
        assertThat(other.list.error()).isEqualTo(ListError.NONE);
        assertThat(other.place()).isEqualTo(400);
    }

    @Test
    void findsTheZeroAndGoesOn() {
        Axis axis = ListBench.shuttle(0, byCue(goTo("100").thenGoOn(1, 0), MoveEntry.findZero().thenGoOn(2, 0), goTo("30")), Function.CUE);
        axis = axis.withHoming(rueda.machine.Homing.search(37, 120, 12, 800, 0));
        ListBench b = new ListBench(axis).enabled();
        b.pulse("I2");
        assertThat(b.list.error()).as("a position needs the zero first").isEqualTo(ListError.NOT_REFERENCED);
        b.drive.take(axis.withMoves(MoveList.of(MoveEntry.findZero().thenGoOn(1, 0), goTo("30")).withStarters(axis.moves().starters())));
        b.pulse("I2");
        b.until(() -> b.place() == 30 && b.list.phase() == MoveListSource.Phase.IDLE, 5);
        assertThat(b.drive.referenced()).isTrue();
    }

    @Test
    void anAbsoluteMoveOutsideTheSoftLimitsIsRefusedWhereItWouldBegin() {
        ListBench b = shuttle(500, byCue(goBy("10").thenGoOn(1, 0), goTo("2400")), Function.CUE);
        b.input("I2", true);
        b.bench.run(0.01);
        b.untilStands(3);
        assertThat(b.list.entry()).isEqualTo(1);
        assertThat(b.list.error()).isEqualTo(ListError.OUTSIDE_SOFT_LIMITS);
        assertThat(b.place()).isEqualTo(510);
    }

    /** Common practice, no source: 350° to 10° by the shorter way is +20°, never more than a turn. */
    @ParameterizedTest
    @CsvSource({"350, 10, SHORTEST, 20", "10, 350, SHORTEST, -20", "350, 10, BACK, -340", "10, 350, FORWARD, 340", "350, 350, FORWARD, 0"})
    void anEndlessAxisGoesTheWayThatIsSaid(String from, String to, MoveEntry.Way way, double turned) {
        ListBench b = new ListBench(ListBench.table(byCue(goTo(from).thenAwait(CUE_2), goTo(to).withWay(way)), Function.CUE, Function.CUE_2)).enabled();
        b.pulse("I2");
        b.until(() -> b.list.phase() == MoveListSource.Phase.AWAITING, 10);
        double before = b.drive.plant().place();
        b.pulse("I3");
        b.until(() -> b.list.phase() == MoveListSource.Phase.IDLE, 10);
        assertThat(b.drive.plant().place() - before).isCloseTo(turned, within(0.1));
    }

    /* ---- exceptions ---- */

    @Test
    void exceptionsHoldInTheirEntriesOnly() {
        List<MoveException> rules = List.of(new MoveException(CUE_2, Does.START, 2, 0, 1, 1));
        ListBench b = shuttle(500, byCue(goBy("100").thenGoOn(1, 0), goBy("100").thenGoOn(0, 0), goTo("480")).withExceptions(rules), Function.CUE, Function.CUE_2);
        b.input("I2", true);
        b.until(() -> b.list.entry() == 0 && b.drive.demandSpeed() > 100, 2);
        b.pulse("I3");
        assertThat(b.list.entry()).isZero();
        b.until(() -> b.list.entry() == 1 && b.drive.demandSpeed() > 100, 2);
        b.pulse("I3");
        b.untilStands(5);
        assertThat(b.list.entry()).isEqualTo(2);
        assertThat(b.place()).isEqualTo(480);
    }

    @Test
    void stopAndGoOnReachTheSamePlace() {
        Cue on = Cue.of(Function.CUE_3, Cue.Edge.RISING);
        List<MoveException> rules = List.of(new MoveException(CUE_2, Does.STOP, 0, 0, 0, 255), new MoveException(on, Does.GO_ON, 0, 0, 0, 255));
        ListBench b = shuttle(500, byCue(goBy("300")).withExceptions(rules), Function.CUE, Function.CUE_2, Function.CUE_3);
        b.input("I2", true);
        b.until(() -> b.drive.demandPosition() > 600, 2);
        b.pulse("I3");
        b.bench.run(1);
        assertThat(b.list.phase()).isEqualTo(MoveListSource.Phase.HELD);
        assertThat(b.drive.demandSpeed()).isZero();
        assertThat(b.drive.demandPosition()).isBetween(600.0, 700.0);
        b.pulse("I4");
        b.untilStands(3);
        assertThat(b.place()).isEqualTo(800);
    }

    @Test
    void speedIsChangedByAnAmountAndTheAxisTurnsRound() {
        Cue round = Cue.of(Function.CUE_3, Cue.Edge.RISING);
        List<MoveException> rules = List.of(new MoveException(CUE_2, Does.CHANGE_SPEED, 0, -40, 0, 255), new MoveException(round, Does.TURN_ROUND, 0, 0, 0, 255));
        ListBench b = new ListBench(ListBench.table(byCue(MoveEntry.run(100, Cue.NEVER)).withExceptions(rules), Function.CUE, Function.CUE_2, Function.CUE_3)).enabled();
        b.input("I2", true);
        b.bench.run(2);
        b.pulse("I3");
        b.bench.run(1);
        assertThat(b.drive.demandSpeed()).isCloseTo(60, within(1e-6));
        b.pulse("I4");
        b.bench.run(2);
        assertThat(b.drive.demandSpeed()).isCloseTo(-60, within(1e-6));
        b.pulse("I3");
        b.pulse("I3");
        b.bench.run(1);
        assertThat(b.drive.demandSpeed()).as("never round to the other side").isBetween(-20.0, 0.0);
    }

    /** Whatever does not move brings a moving axis to rest first, with its place going on where its speed says. */
    @ParameterizedTest
    @ValueSource(strings = {"WAIT", "AWAIT", "FIND_ZERO", "OUTPUT"})
    void aRunningAxisComesToRestInAnEntryThatDoesNotMove(MoveEntry.Kind kind) {
        MoveEntry still = (kind == MoveEntry.Kind.OUTPUT ? MoveEntry.output(1, true, 0) : MoveEntry.of(kind)).thenGoOn(2, 0.5).withCue(Cue.NEVER);
        MoveList list = byCue(MoveEntry.run(60, CUE_2).thenPass(), still, goBy("1"));
        Axis table = ListBench.table(list, Function.CUE, Function.CUE_2);
        ListBench b = new ListBench(table.withHoming(rueda.machine.Homing.search(37, 20, 2, 60, 0))).enabled();
        b.input("I2", true);
        b.bench.run(2);
        assertThat(b.drive.demandSpeed()).isCloseTo(60, within(1e-6));
        b.input("I3", true);
        double way = 0;
        double speed = 60;
        for (int k = 0; k < 600; k++) {
            double place = b.drive.demandPosition();
            b.bench.cycle();
            double now = b.drive.demandSpeed();
            assertThat(now).as("no jump").isBetween(speed - 120e-3 * 1.1, 60.0001);
            if (now == 0) {
                break;
            }
            way += (b.drive.demandPosition() - place + 360) % 360;
            speed = now;
        }
        assertThat(b.drive.demandSpeed()).isZero();
        /* v²/2a = 15° */
        assertThat(way).isCloseTo(15, within(0.3));
    }

    @Test
    void aListThatIsStartedWhileTheBusHaltsItWaits() {
        ListBench b = shuttle(500, byCue(goBy("100")), Function.CUE);
        b.list.latch(false, true, 0);
        b.list.start(0);
        assertThat(b.list.phase()).isEqualTo(MoveListSource.Phase.HELD);
        b.list.goOn();
        assertThat(b.list.phase()).isEqualTo(MoveListSource.Phase.MOVING);
    }

    /* ---- inputs ---- */

    @Test
    void anInputIsTakenAtOnceWhenItHasStoodOrWithADelay() {
        MoveList list = MoveList.of(goBy("1"), goBy("2"), goBy("4")).withStarters(List.of(new Starter(By.EDGE, CUE, 0, 0),
                new Starter(By.EDGE, new Cue(Function.CUE_2, Cue.Edge.RISING, Cue.Taken.STOOD, 50), 1, 0), new Starter(By.EDGE, new Cue(Function.CUE_3, Cue.Edge.RISING, Cue.Taken.DELAYED, 50), 2, 0)));
        ListBench b = shuttle(500, list, Function.CUE, Function.CUE_2, Function.CUE_3);
        b.input("I3", true);
        b.bench.run(0.03);
        b.input("I3", false);
        b.bench.run(0.2);
        assertThat(b.list.entry()).as("a bounce").isEqualTo(-1);
        b.pulse("I4");
        b.bench.run(0.03);
        assertThat(b.list.entry()).isEqualTo(-1);
        assertThat(b.until(() -> b.list.entry() == 2, 1)).isBetween(0.005, 0.02);
        b.untilStands(2);
        b.input("I3", true);
        assertThat(b.until(() -> b.list.entry() == 1, 1)).isBetween(0.049, 0.053);
    }

    /** From the edge to the motion: response of the terminal, a sub-step, and the next sub-step makes the setpoint. */
    @Test
    void fromTheCueToTheMotionItIsTheResponseAndTwoSubSteps() {
        ListBench b = shuttle(500, byCue(goBy("100")), Function.CUE);
        b.input("I2", true);
        b.bench.cycle();
        assertThat(b.list.phase()).as("250 µs and a sub-step are within the bus cycle of the edge").isEqualTo(MoveListSource.Phase.MOVING);
        assertThat(b.drive.demandSpeed()).isPositive();
    }

    /* ---- zones ---- */

    @Test
    void aZoneSwitchesItsOutputWithHysteresisAndDirection() {
        MoveList list = byCue(goTo("700").thenGoOn(1, 0), goTo("500")).withZones(List.of(new Zone(600, 650, 5, Passing.BOTH, true), new Zone(600, 650, 0, Passing.BACK, true)));
        ListBench b = shuttle(500, list, Function.CUE);
        b.input("I2", true);
        double on = Double.NaN;
        double off = Double.NaN;
        double backOn = Double.NaN;
        boolean forwardOfTheSecond = false;
        while (b.list.phase() != MoveListSource.Phase.IDLE || b.list.entry() < 0) {
            b.bench.cycle();
            boolean first = (b.drive.outputLevels() & 1) != 0;
            boolean second = (b.drive.outputLevels() & 8) != 0;
            forwardOfTheSecond |= second && b.drive.demandSpeed() > 0;
            on = first && Double.isNaN(on) ? b.drive.position() : on;
            off = !first && !Double.isNaN(on) && Double.isNaN(off) ? b.drive.position() : off;
            backOn = first && !Double.isNaN(off) && Double.isNaN(backOn) ? b.drive.position() : backOn;
        }
        assertThat(on).isCloseTo(600, within(0.7));
        assertThat(off).as("it stays on for the hysteresis").isCloseTo(655, within(0.7));
        assertThat(backOn).isCloseTo(650, within(0.7));
        assertThat(forwardOfTheSecond).as("only back").isFalse();
    }

    @Test
    void aZoneReachesAcrossTheModulo() {
        MoveList list = byCue(goTo("340").thenGoOn(1, 0), goTo("20")).withZones(List.of(new Zone(350, 10, 0, Passing.BOTH, true)));
        ListBench b = new ListBench(ListBench.table(list, Function.CUE)).enabled();
        b.input("I2", true);
        b.until(() -> b.list.entry() == 1, 10);
        assertThat(b.drive.inZone(0)).isFalse();
        b.until(() -> b.drive.position() > 355, 3);
        assertThat(b.drive.inZone(0)).isTrue();
        b.until(() -> b.drive.position() < 9 && b.drive.position() > 5, 3);
        assertThat(b.drive.inZone(0)).isTrue();
        b.until(() -> b.list.phase() == MoveListSource.Phase.IDLE, 3);
        assertThat(b.drive.inZone(0)).isFalse();
    }

    /* ---- changes while it runs ---- */

    @Test
    void speedsActAtOnceAndDistancesFromTheNextStart() {
        Axis axis = ListBench.table(byCue(goBy("360").withSpeed(30).thenGoOn(0, 0)), Function.CUE);
        ListBench b = new ListBench(axis).enabled();
        b.input("I2", true);
        b.bench.run(2);
        assertThat(b.drive.demandSpeed()).isCloseTo(30, within(1e-6));
        b.drive.take(axis.withMoves(byCue(goBy("90").withSpeed(60).thenGoOn(0, 0))));
        b.bench.run(1);
        assertThat(b.drive.demandSpeed()).isCloseTo(60, within(1e-6));
        b.until(() -> b.list.rounds() == 2, 10);
        assertThat(b.drive.demandPosition()).as("the running distance was the old one").isCloseTo(0, within(0.5));
        b.until(() -> b.list.rounds() == 3, 10);
        assertThat(b.drive.demandPosition()).isCloseTo(90, within(0.5));
    }

    @Test
    void anEntryThatIsTakenOutWhileItRunsStopsTheAxis() {
        Axis axis = ListBench.table(byCue(goBy("10").thenGoOn(1, 0), goBy("360")), Function.CUE);
        ListBench b = new ListBench(axis).enabled();
        b.input("I2", true);
        b.until(() -> b.list.entry() == 1 && b.drive.demandSpeed() > 10, 5);
        b.drive.take(axis.withMoves(byCue(goBy("10"))));
        b.bench.run(2);
        assertThat(b.list.error()).isEqualTo(ListError.ENTRY_GONE);
        assertThat(b.drive.demandSpeed()).isZero();
    }

    @Test
    void anEntryThatIsMadeAnotherWhileItRunsStopsTheAxisAndOneThatRestedDoesNotMatter() {
        Axis axis = ListBench.table(byCue(goBy("10"), goBy("20")), Function.CUE);
        ListBench b = new ListBench(axis).enabled();
        b.pulse("I2");
        b.until(() -> b.list.phase() == MoveListSource.Phase.IDLE, 5);
        b.drive.take(axis.withMoves(MoveList.EMPTY));
        assertThat(b.list.error()).as("nothing ran").isEqualTo(ListError.NONE);
        b.drive.take(axis);
        b.pulse("I2");
        b.until(() -> b.drive.demandSpeed() > 5, 5);
        b.drive.take(axis.withMoves(byCue(MoveEntry.run(30, Cue.NEVER), goBy("20"))));
        b.bench.run(2);
        assertThat(b.list.error()).isEqualTo(ListError.ENTRY_GONE);
        assertThat(b.drive.demandSpeed()).isZero();
    }

    /* ---- exactness ---- */

    /** A distance that is a whole number of wire units does not drift, whatever part of a count it is: 10⁴ moves of 0.0001 mm here, and the sum to the count. */
    @Test
    void repeatedDistancesAddUpExactly() {
        MoveList list = byCue(goBy("0.0007").thenGoOn(1, 0), MoveEntry.repeat(0, 1_000_000, 2), MoveEntry.output(2, true, 0));
        Axis axis = ListBench.table(list, Function.CUE);
        ListBench b = new ListBench(axis).enabled();
        b.input("I2", true);
        b.until(() -> b.list.repeats(1) >= 2000, 300);
        b.list.stepwise(true);
        b.until(() -> b.list.phase() == MoveListSource.Phase.HELD && b.list.entry() == 0, 1);
        assertThat(Math.round(b.drive.demandPosition() * 10_000)).isEqualTo(7L * (b.list.repeats(1) + 1));
    }

    @Test
    void theSameListTwiceIsTheSameBitForBit() {
        double[] ends = new double[2];
        for (int k = 0; k < 2; k++) {
            ListBench b = shuttle(500, byCue(goBy("13.37").thenPass(), goBy("50").thenGoOn(2, 0.1), goTo("200.01")), Function.CUE);
            b.input("I2", true);
            b.bench.run(0.01);
            b.untilStands(5);
            ends[k] = b.drive.plant().place() + b.bench.now();
        }
        assertThat(ends[0]).isEqualTo(ends[1]);
    }

    /* ---- power ---- */

    /** "Switch on" wants a rising edge: after a fault the enable input must go off and on again (common practice, no source). */
    @Test
    void afterAFaultTheEnableInputMustGoOffAndOnAgain() {
        Axis axis = ListBench.shuttle(500, byCue(goBy("100")), Function.CUE, Function.FAULT_RESET);
        ListBench b = new ListBench(axis.withSupervision(axis.supervision().withFollowingErrors(0.001))).enabled();
        b.input("I2", true);
        b.until(() -> b.drive.state() == PowerState.FAULT, 3);
        b.pulse("I3");
        b.bench.run(0.5);
        assertThat(b.drive.state()).isNotIn(PowerState.FAULT, PowerState.OPERATION_ENABLED);
        b.input("I1", false);
        b.bench.run(0.01);
        b.input("I1", true);
        b.bench.run(0.05);
        assertThat(b.drive.state()).isEqualTo(PowerState.OPERATION_ENABLED);
        assertThat(b.list.entry()).as("the list does not go on by itself").isEqualTo(-1);
    }

    @Test
    void aWarmListAllocatesNothing() {
        MoveList list = byCue(goBy("20").thenPass(), goBy("10").thenGoOn(2, 0.01), MoveEntry.output(1, true, 3), goBy("-30").thenGoOn(0, 0)).withZones(List.of(new Zone(500, 510, 1, Passing.BOTH, true)));
        ListBench b = shuttle(500, list, Function.CUE);
        b.input("I2", true);
        b.bench.run(6);
        com.sun.management.ThreadMXBean threads = (com.sun.management.ThreadMXBean) java.lang.management.ManagementFactory.getThreadMXBean();
        long thread = Thread.currentThread().getId();
        threads.getThreadAllocatedBytes(thread);
        long before = threads.getThreadAllocatedBytes(thread);
        b.bench.run(2);
        assertThat(threads.getThreadAllocatedBytes(thread) - before).isLessThan(2000);
        assertThat(b.list.rounds()).isGreaterThan(3);
    }
}
