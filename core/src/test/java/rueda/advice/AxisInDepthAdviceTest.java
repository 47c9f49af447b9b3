package rueda.advice;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.DemoMachine;
import rueda.machine.Encoder;
import rueda.machine.LoadEncoder;
import rueda.machine.LoadEncoder.Use;
import rueda.machine.NewAxis;
import rueda.machine.Supervision;
import rueda.machine.Terminal;
import rueda.machine.Terminal.Function;
import rueda.machine.Terminal.Kind;

/** Findings about supervision, the second encoder, raw values and functions that go to the program. */
class AxisInDepthAdviceTest {

    private static List<String> titles(Advice advice) {
        return advice.findings().stream().filter(f -> f.severity() != Finding.Severity.GOOD).map(Finding::title).toList();
    }

    private static List<String> tune(Axis axis) {
        return titles(TuneAdvice.of(axis, "/axes/0"));
    }

    private static List<String> wire(Axis axis) {
        return titles(WireAdvice.of(axis, "/axes/0"));
    }

    private static Figure figure(Advice advice, String label) {
        return advice.figures().stream().filter(f -> f.label().equals(label)).findFirst().orElseThrow();
    }

    /** A position window that is too tight, or a dwell that is too long, never reports "done" (common practice, no source). */
    @Test
    void aWindowBelowTwoStepsAndADwellBeyondTheTolerance() {
        Axis shuttle = DemoMachine.shuttle();
        assertThat(tune(shuttle)).isEmpty();
        assertThat(tune(shuttle.withSupervision(shuttle.supervision().withPosition(0.00015, 5, 500)))).containsExactly("The position window is too tight.");
        assertThat(tune(shuttle.withSupervision(shuttle.supervision().withPosition(0.05, 500, 400)))).containsExactly("The tolerance time ends before the dwell.");
        assertThat(tune(shuttle.withSupervision(shuttle.supervision().withPosition(0.05, 500, 0)))).as("no tolerance time, no end of it").isEmpty();
        assertThat(tune(shuttle.withSupervision(new Supervision(0.05, 5, 500, 5, 5, 0, 20, 0.0001, 50)))).containsExactly("The standstill window is too tight.");
    }

    @Test
    void theLoadComesFirst() {
        assertThat(tune(NewAxis.named("A"))).contains("Enter the mass of the load first.");
    }

    @Test
    void theSecondEncoderIsUsedAndEnabledTogether() {
        Axis table = DemoMachine.table();
        assertThat(wire(table)).isEmpty();
        assertThat(wire(table.withWiring(table.wiring().with("X2", Function.NONE)))).containsExactly("The encoder on the load is not enabled.");
        assertThat(wire(table.withLoadEncoder(LoadEncoder.NONE))).containsExactly("The second encoder is enabled and not used.");
        Advice coarse = ScaleAdvice.of(table.withLoadEncoder(new LoadEncoder(Use.POSITION_LOOP, Encoder.incremental(500))), new Bus(1000), "/axes/0");
        assertThat(titles(coarse)).containsExactly("The encoder on the load is coarser than the position window.");
        assertThat(figure(ScaleAdvice.of(table, new Bus(1000), "/axes/0"), "Motor counts per load count").value()).isEqualTo("6\u202F400 : 1");
    }

    /** Torque limit: raw 3000 in tenths of a percent is 300 % (common practice, no source). */
    @Test
    void rawValuesBesideTheirMeaning() {
        Axis shuttle = DemoMachine.shuttle();
        Axis strong = shuttle.withLimits(shuttle.limits().withMax(shuttle.limits().max()));
        Figure torque = figure(ScaleAdvice.of(strong, new Bus(1000), "/axes/0"), "Raw 6072h, max torque");
        assertThat(torque.value().replaceAll("\\D", "")).isEqualTo("2526");
        assertThat(torque.unit()).isEqualTo("= 252.6 %");
        assertThat(figure(ScaleAdvice.of(strong, new Bus(1000), "/axes/0"), "Raw 607Dh:02, soft limit").unit().replaceAll("[^0-9m=]", "")).isEqualTo("=2330mm");
    }

    /** Every function stands at the kinds of terminal it is made for, and at no other. */
    @ParameterizedTest
    @EnumSource(Kind.class)
    void functionsFitTheirTerminals(Kind kind) {
        assertThat(Function.BRAKE.fits(kind)).isEqualTo(kind == Kind.OUTPUT);
        assertThat(Function.NEGATIVE_LIMIT.fits(kind)).isEqualTo(kind == Kind.INPUT || kind == Kind.FAST_INPUT);
        assertThat(Function.SAFE_TORQUE_OFF.fits(kind)).isEqualTo(kind == Kind.SAFE_TORQUE_OFF);
        assertThat(Function.TORQUE.fits(kind)).isEqualTo(kind == Kind.ANALOGUE_INPUT);
        assertThat(Function.LOAD_ENCODER.fits(kind)).isEqualTo(kind == Kind.SECOND_ENCODER);
        assertThat(Function.NONE.fits(kind)).isEqualTo(kind != Kind.SAFE_TORQUE_OFF);
    }

    /** No two functions share a bit of 2033h, and what only the program uses says where it stands. */
    @Test
    void functionsForTheProgramSayTheirBit() {
        assertThat(java.util.Arrays.stream(Function.values()).mapToInt(Function::bit).filter(b -> b >= 0).boxed().toList()).doesNotHaveDuplicates();
        Axis axis = DemoMachine.shuttle();
        Advice advice = WireAdvice.of(axis.withWiring(axis.wiring().with("I5", Function.SELECTOR_4)), "/axes/0");
        assertThat(figure(advice, "I5 stands in").value()).isEqualTo("2033h bit 18");
        assertThat(advice.figures()).noneMatch(f -> f.label().equals("I1 stands in"));
        assertThat(new Terminal("I9", Kind.INPUT, Function.CUE, false, 100).responseMicros()).isEqualTo(350);
    }
}
