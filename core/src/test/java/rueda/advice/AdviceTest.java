package rueda.advice;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.Station;
import rueda.machine.Station.Entry;

class AdviceTest {

    private static List<Finding> map(List<Entry> outputs) {
        Axis axis = DemoMachine.shuttle();
        Axis changed = axis.withStation(new Station(outputs, axis.station().inputs()));
        Machine machine = DemoMachine.create().withAxis(0, changed);
        return MapAdvice.of(machine, changed, "/axes/0").findings();
    }

    private static Finding only(List<Finding> findings) {
        assertThat(findings).hasSize(1);
        return findings.get(0);
    }

    @Test
    void theDemoLayoutFits() {
        assertThat(only(map(DemoMachine.shuttle().station().outputs())).severity()).isEqualTo(Finding.Severity.GOOD);
    }

    /** Common practice, no source: a 16-bit word before 32-bit values needs a 16-bit filler. */
    @Test
    void missingFillerIsFoundWithItsMend() {
        List<Entry> outputs = new ArrayList<>(DemoMachine.shuttle().station().outputs());
        outputs.remove(1);
        Finding finding = only(map(outputs));
        assertThat(finding.title()).contains("4-byte boundary");
        assertThat(finding.consequence()).contains("2 bytes off");
        assertThat(finding.mend().changes().get(0).path()).isEqualTo("/axes/0/station/outputs/1");
    }

    @Test
    void aTagTooSmallIsFound() {
        List<Entry> outputs = new ArrayList<>(DemoMachine.shuttle().station().outputs());
        outputs.set(2, new Entry(0x607A, 0, 32, "Shuttle.Cmd.Position", "INT"));
        Finding finding = only(map(outputs));
        assertThat(finding.severity()).isEqualTo(Finding.Severity.FAULT);
        assertThat(finding.consequence()).contains("3.2767 mm");
        assertThat(finding.mend().changes().get(0).value()).isEqualTo("DINT");
    }

    @Test
    void whatTheProgramNeedsMustTravel() {
        assertThat(map(List.of()).stream().map(Finding::title)).containsExactly("Controlword does not travel.", "Target position does not travel.", "Mode of operation does not travel.");
    }

    @Test
    void lackOfTorqueIsFoundWithAMendThatMendsIt() {
        Axis axis = DemoMachine.shuttle();
        Finding finding = ScaleAdvice.of(axis, new Bus(1000), "/axes/0").findings().stream().filter(f -> f.mend() != null).findFirst().orElseThrow();
        assertThat(finding.title()).contains("6 % torque");
        double advised = (Double) finding.mend().changes().get(0).value();
        Axis mended = axis.withLimits(axis.limits().withMax(axis.limits().max().withAcceleration(advised)));
        assertThat(ScaleAdvice.of(mended, new Bus(1000), "/axes/0").findings()).allMatch(f -> f.severity() == Finding.Severity.GOOD);
    }

    @Test
    void oneValueEndToEnd() {
        Machine machine = DemoMachine.create();
        List<Figure> steps = ValuePath.down(machine, machine.axes().get(0), 2, 412);
        /* 4 120 000 wire units × 372 736 / 93 750 = 16 380 504.75 counts, by hand */
        assertThat(steps.stream().map(s -> s.value().replace("\u202f", ""))).containsExactly("412", "4120000", "C0 DD 3E 00", "16380505", "31.2433338", "412.0000064");
    }
}
