package rueda.trial;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import rueda.advice.Advice;
import rueda.advice.Figure;
import rueda.advice.Finding;
import rueda.machine.Axis;
import rueda.machine.Travel;
import rueda.machine.Homing;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;

class HomeAdviceTest {

    private static Advice advice(Homing homing, double camTo) {
        Machine demo = DemoMachine.create();
        Axis axis = demo.axes().get(0).withHoming(homing).withTravel(new Travel(2560, 40, 2520, 100, camTo, 620));
        Machine machine = demo.withAxis(0, axis);
        return HomeAdvice.of(axis, HomingTrial.run(machine, 0, 620), HomingTrial.worst(machine, 0), "/axes/0");
    }

    private static String figure(Advice advice, String label) {
        return advice.figures().stream().filter(f -> f.label().equals(label)).map(Figure::value).findFirst().orElseThrow();
    }

    /** Overrun v²/2a = 120² / 1600 = 9 mm; rest 12² / 1600 = 0.09 mm past zero; zero at the 13th pulse, 171.43 mm. */
    @Test
    void figuresOfTheDemo() {
        Advice advice = advice(Homing.search(11, 120, 12, 800, 0), 160);
        assertThat(figure(advice, "Overrun into the cam")).startsWith("9.0 of 60");
        assertThat(Double.parseDouble(figure(advice, "Comes to rest"))).isBetween(0.085, 0.095);
        assertThat(figure(advice, "Switch edge to index")).isEqualTo("0.87");
        assertThat(Double.parseDouble(figure(advice, "Time, worst start"))).isBetween(21.0, 23.0);
    }

    @Test
    void anIndexPulseNearTheEdgeIsAWarning() {
        assertThat(advice(Homing.search(11, 120, 12, 800, 0), 171).findings()).anyMatch(f -> f.severity() == Finding.Severity.WARNING && f.title().contains("near the edge"));
    }

    @Test
    void aSoftLimitPastTheSwitchIsAWarningWithItsMend() {
        Finding finding = advice(Homing.search(11, 120, 12, 800, -200), 160).findings().stream().filter(f -> f.title().contains("soft limit")).findFirst().orElseThrow();
        assertThat(finding.title()).contains("positive soft limit");
        double advised = (Double) finding.mend().changes().get(0).value();
        assertThat(advised).isLessThan(2520 - 171.4286 - 200);
    }

    @Test
    void creepFasterThanSearchIsAWarning() {
        assertThat(advice(Homing.search(17, 10, 12, 800, 0), 160).findings()).anyMatch(f -> f.title().contains("Creep is faster"));
    }
}
