package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.machine.Axis;
import rueda.machine.Travel;
import rueda.machine.Homing;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;

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
