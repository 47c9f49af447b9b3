package rueda.trial;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.advice.Finding;
import rueda.bench.Bench;
import rueda.bench.BenchCondition;
import rueda.drive.DriveObject;
import rueda.drive.HomingFailure;
import rueda.machine.Axis;
import rueda.machine.Travel;
import rueda.machine.Homing;
import rueda.machine.Homing.AtPowerUp;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.Mistake;
import rueda.plcopen.AxisState;
import rueda.plcopen.MotionError;

/** Where IEC 61800-7-201 puts the zero of methods 11, 17 and 37, stated from the geometry alone. */
class HomingTest {

    private static Machine with(Homing homing, Travel travel) {
        Machine demo = DemoMachine.create();
        return demo.withAxis(0, demo.axes().get(0).withHoming(homing).withTravel(travel));
    }

    private static Homing method(int number) {
        return Homing.search(number, 120, 12, 800, 0);
    }

    private static Travel travel(double camFrom, double camTo) {
        return new Travel(2560, 40, 2520, camFrom, camTo, 620);
    }

    /** Method 11: the first index pulse on the positive side of the cam. Starts right of it, on it, left of it, on the limit switch. */
    @ParameterizedTest
    @CsvSource({"620, 100, 160", "2400, 100, 160", "130, 100, 160", "70, 100, 160", "20, 100, 160", "900, 700, 777", "300, 700, 777", "161, 100, 160"})
    void camWithIndex(double start, double camFrom, double camTo) {
        HomingTrial.Result result = HomingTrial.run(with(method(11), travel(camFrom, camTo)), 0, start);
        double turn = 120.0 * 10 / 91;
        assertThat(result.found()).as(result.message()).isTrue();
        assertThat(result.zero()).isCloseTo(Math.ceil(camTo / turn) * turn, within(0.0001));
        assertThat(result.rest()).as("it does not stop on the zero, but where its deceleration ends").isGreaterThan(result.zero());
    }

    /** Method 17: the place where the negative limit switch turns off, in positive direction; exact to creep speed × the response time of its input, 250 µs in sub-steps of 125. */
    @ParameterizedTest
    @CsvSource({"620", "2400", "20", "39", "130"})
    void negativeLimit(double start) {
        HomingTrial.Result result = HomingTrial.run(with(method(17), travel(100, 160)), 0, start);
        assertThat(result.found()).as(result.message()).isTrue();
        assertThat(result.zero()).isCloseTo(40, within(12 * 3 * 125e-6));
    }

    /** Method 37: here. */
    @ParameterizedTest
    @CsvSource({"620", "20", "2400"})
    void here(double start) {
        HomingTrial.Result result = HomingTrial.run(with(method(37), travel(100, 160)), 0, start);
        assertThat(result.found()).isTrue();
        assertThat(result.zero()).isCloseTo(start, within(0.001));
    }

    @Test
    void withoutACamTheSearchFailsAtTheFarSwitch() {
        /* a cam beyond the positive limit switch is never met */
        HomingTrial.Result result = HomingTrial.run(with(method(11), travel(2530, 2550)), 0, 620);
        assertThat(result.found()).isFalse();
        assertThat(result.message()).contains("limit switch");
    }

    @Test
    void zeroOffsetIsThePositionOfTheZero() {
        Machine machine = with(Homing.search(11, 120, 12, 800, 50), travel(100, 160));
        Bench bench = new Bench(machine, HomingTrial.program("Shuttle"), 10);
        bench.run(9);
        double zero = bench.drive(0).plant().placeOfCount(bench.drive(0).zeroCounts());
        assertThat(bench.drive(0).position() - 50).isCloseTo(bench.drive(0).plant().place() - zero, within(1e-4));
    }

    /** The homing command bit is still set, so no search starts (common practice, no source): the drive says so. */
    @Test
    void aCommandBitThatIsStillSetStartsNothing() {
        Machine machine = with(method(11), travel(100, 160));
        Bench bench = new Bench(machine, HomingTrial.program("Shuttle"), 10, BenchCondition.throughout(Map.of("Shuttle", Set.of(Mistake.HOMING_BIT_HELD))));
        bench.run(1);
        assertThat(bench.drive(0).homingFailure()).isEqualTo(HomingFailure.COMMAND_BIT_SET);
        assertThat(bench.drive(0).dictionary().get(DriveObject.ERROR_CODE)).isEqualTo(0xFF14);
        assertThat(bench.axis(0).error()).isEqualTo(MotionError.HOMING_FAILED);
        assertThat(bench.drive(0).plant().place()).isCloseTo(620, within(0.1));
    }

    /** An axis that shall, searches by itself at the first enable, and not again while it knows where it is. */
    @Test
    void homingOnFirstEnable() {
        Bench bench = new Bench(with(method(37).withOnFirstEnable(), travel(100, 160)), "PROGRAM P VAR n : UDINT; Power : MC_Power; END_VAR\n"
                + "n := n + 1; Power(Axis := Shuttle, Enable := n < 500 OR n > 700); END_PROGRAM", 10);
        bench.run(0.9);
        assertThat(bench.drive(0).referenced()).isTrue();
        bench.run(0.3);
        double zero = bench.drive(0).zeroCounts();
        bench.run(1.5);
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.STANDSTILL);
        assertThat((double) bench.drive(0).zeroCounts()).isEqualTo(zero);
    }

    @Test
    void whatTheEncoderKnowsAtPowerUpIsChecked() {
        assertThat(titles(0, DemoMachine.shuttle().withHoming(method(11).withAtPowerUp(AtPowerUp.MOTOR_ENCODER, 0)))).contains("The motor encoder does not know where the axis is.");
        assertThat(titles(0, DemoMachine.shuttle().withHoming(method(11).withAtPowerUp(AtPowerUp.LOAD_ENCODER, 0)))).contains("There is no encoder on the load to take the position from.");
        Axis knows = DemoMachine.shuttle().withEncoder(rueda.machine.Encoder.absolute(19, 12)).withHoming(method(11).withAtPowerUp(AtPowerUp.MOTOR_ENCODER, 0));
        List<Finding> far = findings(0, knows);
        Finding elsewhere = far.stream().filter(f -> f.title().startsWith("After a restart the zero lies elsewhere")).findFirst().orElseThrow();
        double offset = (Double) elsewhere.mend().changes().get(0).value();
        assertThat(offset).as("the zero of the search, 171.4286 mm from the stop").isCloseTo(-13 * 120.0 * 10 / 91, within(1e-4));
        assertThat(titles(0, knows.withHoming(method(11).withAtPowerUp(AtPowerUp.MOTOR_ENCODER, offset)))).noneMatch(t -> t.startsWith("After a restart"));
        assertThat(titles(2, DemoMachine.table())).noneMatch(t -> t.startsWith("After a restart") || t.contains("does not know"));
    }

    /** Position 0 outside the soft limits: the drive does not throw the axis inside, and the finding says it beforehand. */
    @Test
    void anAxisOutsideItsSoftLimitsIsNotThrownInside() {
        Axis shuttle = DemoMachine.shuttle();
        Axis outside = shuttle.withHoming(method(37).withThenToZero()).withLimits(shuttle.limits().withSoft(50, 2000));
        Bench bench = new Bench(DemoMachine.create().withAxis(0, outside), HomingTrial.program("Shuttle"), 10);
        bench.run(2);
        assertThat(bench.drive(0).dictionary().get(DriveObject.ERROR_CODE)).isZero();
        assertThat(bench.drive(0).plant().place()).isCloseTo(620, within(0.5));
        assertThat(titles(0, outside)).contains("Position 0 lies outside the soft limits.");
        assertThat(titles(0, shuttle)).doesNotContain("Position 0 lies outside the soft limits.");
    }

    /** The torque stands at its limit and the axis does not follow: the search fails with a message of its own. */
    @Test
    void aBlockedSearchFailsAtItsTorqueLimit() {
        /* the negative limit switch is not wired: the search runs into the hard stop */
        Machine machine = with(method(11), new Travel(2560, 40, 2520, 100, 160, 30));
        Axis unwired = machine.axes().get(0).withWiring(machine.axes().get(0).wiring().with("I1", rueda.machine.Terminal.Function.NONE));
        Bench bench = new Bench(machine.withAxis(0, unwired), HomingTrial.program("Shuttle"), 10);
        bench.run(4);
        assertThat(bench.drive(0).homingFailure()).isEqualTo(HomingFailure.TORQUE_LIMIT);
        assertThat(bench.drive(0).dictionary().get(DriveObject.ERROR_CODE)).isEqualTo(0xFF15);
        assertThat(bench.axis(0).error()).isEqualTo(MotionError.HOMING_FAILED);
    }

    private static List<String> titles(int number, Axis axis) {
        return findings(number, axis).stream().map(Finding::title).toList();
    }

    private static List<Finding> findings(int number, Axis axis) {
        Machine machine = DemoMachine.create().withAxis(number, axis);
        HomingTrial.Result here = HomingTrial.run(machine, number, axis.travel().parkedAt());
        return HomeAdvice.of(axis, here, here, "/axes/" + number).findings();
    }

    /** Common practice, no source: status bit "referenced" is false before homing and true after; false again after a restart. */
    @Test
    void referencedBit() {
        Machine machine = with(method(11), travel(100, 160));
        Bench bench = new Bench(machine, HomingTrial.program("Shuttle"), 10);
        assertThat(bench.drive(0).referenced()).isFalse();
        bench.run(9);
        assertThat(bench.drive(0).referenced()).isTrue();
        assertThat(new Bench(machine, HomingTrial.program("Shuttle"), 10).drive(0).referenced()).isFalse();
        assertThat(List.of(bench.drive(0).state().words())).containsExactly("operation enabled");
    }
}
