package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import rueda.advice.Finding;
import rueda.advice.MapAdvice;
import rueda.advice.ScaleAdvice;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.plcopen.AxisState;
import rueda.trial.HomingTrial;

/** The whole cell runs its program: every axis is homed, does its work and ends where the program says. */
class DemoMachineTest {

    private static final Machine DEMO = DemoMachine.create();
    private static Bench bench;

    @BeforeAll
    static void run() {
        bench = new Bench(DEMO, 1000);
        bench.run(45);
    }

    private static double value(String name) {
        return bench.resource().program().variable(name).orElseThrow().number(bench.resource().memory());
    }

    @Test
    void theProgramComesToItsEnd() {
        assertThat(bench.resource().fault()).isNull();
        assertThat(value("Step")).as("it waits for the operator").isEqualTo(80);
        assertThat(value("Care")).isEqualTo(50);
    }

    @Test
    void everyAxisIsReferencedAndStands() {
        for (int i = 0; i < DEMO.axes().size(); i++) {
            assertThat(bench.drive(i).referenced()).as(DEMO.axes().get(i).name()).isTrue();
            assertThat(bench.axis(i).state()).as(DEMO.axes().get(i).name()).isEqualTo(AxisState.STANDSTILL);
        }
    }

    @Test
    void everyAxisEndsWhereTheProgramSays() {
        assertThat(bench.drive(0).position()).as("the wheel is back in slot 7").isCloseTo(2100, within(0.01));
        assertThat(bench.drive(1).position()).isCloseTo(600, within(0.01));
        assertThat(bench.drive(2).position()).isCloseTo(180, within(0.01));
        assertThat(bench.drive(4).position()).isCloseTo(3.5, within(0.001));
    }

    /** What stands in the drive and where the load really is agree: counts, gear and unit are one chain. */
    @Test
    void theLoadIsWhereTheDriveSays() {
        Axis lift = DEMO.axes().get(1);
        double zero = bench.drive(1).plant().placeOfCount(bench.drive(1).zeroCounts());
        assertThat(bench.drive(1).plant().place() - zero).isCloseTo(600, within(0.01));
        assertThat(zero).as("method 1: the first index pulse off the negative limit switch").isCloseTo(20, within(lift.scale().unitsPerCount().toDouble()));
    }

    @Test
    void theDemoHasOneThingWorthExplaining() {
        for (int i = 0; i < DEMO.axes().size(); i++) {
            Axis axis = DEMO.axes().get(i);
            String at = "/axes/" + i;
            assertThat(MapAdvice.of(DEMO, axis, at).findings()).allMatch(f -> f.severity() == Finding.Severity.GOOD);
            long remarks = ScaleAdvice.of(axis, new Bus(1000), at).findings().stream().filter(f -> f.severity() != Finding.Severity.GOOD).count();
            assertThat(remarks).as(axis.name()).isEqualTo(i == 0 ? 1 : 0);
        }
    }

    @Test
    void everyAxisFindsItsZeroFromEveryStart() {
        for (int i = 0; i < DEMO.axes().size(); i++) {
            HomingTrial.Result worst = HomingTrial.worst(DEMO, i);
            assertThat(worst.found()).as(DEMO.axes().get(i).name() + " from " + worst.start() + ": " + worst.message()).isTrue();
            assertThat(worst.path()).as("settling before the search is no part of it").allMatch(s -> s.time() > 0 && s.time() <= worst.duration() + 1e-9);
        }
    }

    /** The encoder under the Table gives the position that a search would. */
    @Test
    void theTableKnowsItsPlaceAtPowerUp() {
        Bench fresh = new Bench(DEMO, "PROGRAM P END_PROGRAM", 16);
        assertThat(fresh.drive(2).referenced()).isTrue();
        HomingTrial.Result searched = HomingTrial.run(DEMO, 2, DEMO.axes().get(2).travel().parkedAt());
        double byEncoder = fresh.drive(2).position();
        double bySearch = Math.floorMod(Math.round((DEMO.axes().get(2).travel().parkedAt() - searched.zero()) * 1000), 360_000L) / 1000.0;
        assertThat(byEncoder).isCloseTo(bySearch, within(360.0 / 16_384));
    }

    /** The brake holds the Lift before its drive is on, and after it is off again. */
    @Test
    void theBrakeHoldsTheLift() {
        Bench off = new Bench(DEMO, "PROGRAM P VAR Power : MC_Power; n : UDINT; END_VAR n := n + 1; Power(Axis := Lift, Enable := n > 200 AND n < 700); END_PROGRAM", 100);
        double parked = DEMO.axes().get(1).travel().parkedAt();
        off.run(0.3);
        assertThat(off.drive(1).plant().place()).isEqualTo(parked);
        off.run(0.9);
        assertThat(off.axis(1).state()).isEqualTo(AxisState.STANDSTILL);
        assertThat(off.drive(1).torque()).as("the motor holds the weight").isCloseTo(DEMO.axes().get(1).motorSide().gravity(), within(0.3));
        double standing = off.drive(1).plant().place();
        assertThat(standing).as("it may sag a little until the integral holds it").isCloseTo(parked, within(0.6));
        off.run(1.5);
        assertThat(off.axis(1).state()).isEqualTo(AxisState.DISABLED);
        assertThat(off.drive(1).plant().place()).isCloseTo(standing, within(0.05));
        assertThat(off.drive(1).torque()).isZero();
    }
}
