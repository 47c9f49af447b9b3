package rueda.plcopen;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import rueda.bench.Bench;
import rueda.drive.PowerState;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Homing;
import rueda.machine.Machine;

class HandControlTest {

    private Bench bench;
    private HandControl hand;

    @BeforeEach
    void take() {
        Machine demo = DemoMachine.create();
        Axis here = demo.axes().get(0).withHoming(Homing.search(37, 120, 12, 800, 0));
        bench = new Bench(demo.withAxis(0, here), "PROGRAM P END_PROGRAM", 16);
        bench.takeByHand();
        hand = bench.hand(0);
        bench.run(0.01);
    }

    private void enable() {
        assertThat(hand.enable(true)).isNull();
        bench.run(0.1);
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.STANDSTILL);
    }

    /** Common practice, no source: jogging an axis that is not enabled must say so, not just do nothing. */
    @Test
    void nothingMovesBeforeItIsEnabled() {
        assertThat(hand.jog(1, true, bench.now())).isEqualTo("The axis is not enabled. Enable it first.");
        assertThat(hand.step(5, bench.now())).contains("not enabled");
        assertThat(hand.home(bench.now())).contains("not enabled");
        bench.run(0.5);
        assertThat(bench.drive(0).state()).isNotEqualTo(PowerState.OPERATION_ENABLED);
    }

    @Test
    void jogsAtTwoSpeedsTimesTheOverride() {
        enable();
        assertThat(hand.jog(1, false, bench.now())).isNull();
        bench.run(0.6);
        assertThat(bench.drive(0).plant().speed()).as("a tenth of 600 mm/s").isCloseTo(60, within(1.0));
        assertThat(hand.override(0.5)).isNull();
        hand.jog(-1, true, bench.now());
        bench.run(0.8);
        assertThat(bench.drive(0).plant().speed()).isCloseTo(-300, within(3.0));
        hand.halt(bench.now());
        bench.run(0.6);
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.STANDSTILL);
        assertThat(hand.override(1.5)).isEqualTo("An override is 1 to 100 %.");
    }

    @Test
    void goingSomewhereNeedsAReference() {
        enable();
        assertThat(hand.goTo(100, bench.now())).isEqualTo("The axis does not know where it is. Home it first.");
        assertThat(hand.home(bench.now())).isNull();
        assertThat(hand.step(1, bench.now())).contains("searching");
        bench.run(0.5);
        assertThat(hand.goTo(100, bench.now())).isNull();
        bench.run(1.5);
        assertThat(bench.drive(0).position()).isCloseTo(100, within(0.01));
        assertThat(hand.goTo(5000, bench.now())).isEqualTo("The target lies past the soft limits, -20 to 2330 mm.");
        assertThat(hand.goTo(Double.NaN, bench.now())).isEqualTo("This is no number.");
    }

    @Test
    void aJogEndsBeforeTheSoftLimit() {
        enable();
        hand.home(bench.now());
        bench.run(0.5);
        hand.goTo(100, bench.now());
        bench.run(1.5);
        hand.jog(-1, true, bench.now());
        bench.run(2);
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.STANDSTILL);
        assertThat(bench.drive(0).position()).isBetween(-20.0, 0.0);
        hand.jog(-1, false, bench.now());
        bench.run(2);
        assertThat(bench.drive(0).position()).isBetween(-20.0, -17.0);
    }

    @Test
    void anErrorIsResetAndSwitchesTheAxisOff() {
        assertThat(hand.reset()).isEqualTo("There is no error to reset.");
        enable();
        hand.jog(-1, true, bench.now());
        bench.run(3);
        assertThat(bench.axis(0).state()).as("not referenced: the limit switch stops it").isEqualTo(AxisState.ERROR_STOP);
        assertThat(hand.jog(1, false, bench.now())).isEqualTo("The axis has an error. Reset it first.");
        assertThat(hand.enable(true)).contains("Reset it first");
        assertThat(hand.reset()).isNull();
        bench.run(0.1);
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.DISABLED);
        enable();
        hand.jog(1, false, bench.now());
        bench.run(1);
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.CONTINUOUS_MOTION);
    }
}
