package rueda.trial;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.advice.Finding;
import rueda.advice.WireAdvice;
import rueda.trial.WiringTrial.Check;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.Terminal;
import rueda.machine.Terminal.Function;
import rueda.machine.Wiring;
import rueda.machine.Mistake;

/** Each mistake of wiring is made on the bench and found with its cause (common practice, no source). */
class WiringTrialTest {

    private static final Machine DEMO = DemoMachine.create();

    private static List<Check> trial(Axis axis, Mistake... faults) {
        return WiringTrial.run(DEMO.withAxis(0, axis), 0, Set.of(faults), "/axes/0");
    }

    @Test
    void theDemoIsWiredRight() {
        for (Axis axis : DEMO.axes()) {
            assertThat(trial(axis)).as(axis.name()).isNotEmpty().allMatch(Check::holds);
        }
        assertThat(trial(DemoMachine.shuttle()).get(3).seen()).isEqualTo("the positive limit stopped it after 1\u202f900 mm");
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
            "SWAPPED_LIMITS               | 0 | positive limit answered                        | exchange the wires",
            "SWAPPED_LIMITS               | 3 | the axis ran past the switch into the hard stop | limits swapped",
            "NEGATIVE_LIMIT_BROKEN        | 0 | negative limit is active all the time          | broken",
            "POSITIVE_LIMIT_BROKEN        | 1 | positive limit is active all the time          | broken",
            "POSITIVE_LIMIT_BROKEN        | 3 | the drive reported a limit at once              | see above",
            "CAM_BROKEN                   | 2 | nothing answered                                | broken",
            "NEGATIVE_LIMIT_OTHER_CONTACT | 0 | negative limit was active at rest and went away | other kind",
            "CAM_BOUNCES                  | 2 | reference cam answered                          | bounces",
            "ENCODER_REVERSED             | 3 | fault 8611h                                     | counts backward"})
    void everyFaultIsFoundWithItsCause(Mistake fault, int check, String seen, String cause) {
        Check found = trial(DemoMachine.shuttle(), fault).get(check);
        assertThat(found.holds()).isFalse();
        assertThat(found.seen()).contains(seen);
        assertThat(found.cause()).contains(cause);
    }

    @Test
    void theMendOfABouncingContactMendsIt() {
        Axis shuttle = DemoMachine.shuttle();
        Check bounced = trial(shuttle, Mistake.CAM_BOUNCES).get(2);
        assertThat(bounced.mend().changes().get(0).path()).isEqualTo("/axes/0/wiring/terminals/2/filterMicros");
        assertThat(trial(shuttle.withWiring(changed(shuttle, 2, t -> new Terminal(t.name(), t.kind(), t.function(), t.normallyClosed(), 5000))), Mistake.CAM_BOUNCES)).allMatch(Check::holds);
    }

    @Test
    void exchangedFunctionsMendSwappedLimits() {
        Axis shuttle = DemoMachine.shuttle();
        Axis mended = shuttle.withWiring(changed(shuttle.withWiring(changed(shuttle, 0, t -> t.with(Function.POSITIVE_LIMIT))), 1, t -> t.with(Function.NEGATIVE_LIMIT)));
        /* the wires stay where they are: what was swapped at the terminals is now right by name */
        assertThat(trial(mended)).allMatch(Check::holds);
        assertThat(trial(shuttle, Mistake.SWAPPED_LIMITS).get(0).mend().label()).isEqualTo("Exchange the functions of I1 and I2");
    }

    private static Wiring changed(Axis axis, int index, java.util.function.UnaryOperator<Terminal> change) {
        List<Terminal> terminals = new java.util.ArrayList<>(axis.wiring().terminals());
        terminals.set(index, change.apply(terminals.get(index)));
        return axis.wiring().withTerminals(terminals);
    }

    private static List<String> findings(Axis axis) {
        return WireAdvice.of(axis, "/axes/0").findings().stream().filter(f -> f.severity() != Finding.Severity.GOOD).map(Finding::title).toList();
    }

    @Test
    void findingsOfTheWiring() {
        Axis shuttle = DemoMachine.shuttle();
        assertThat(findings(shuttle)).isEmpty();
        assertThat(findings(shuttle.withWiring(changed(shuttle, 0, t -> t.with(Function.NONE))))).containsExactly("The negative limit switch is not wired.");
        assertThat(findings(shuttle.withWiring(changed(shuttle, 4, t -> t.with(Function.POSITIVE_LIMIT))))).containsExactly("I2 and I5 have the same function.");
        assertThat(findings(shuttle.withWiring(changed(shuttle, 2, t -> t.with(Function.NONE))))).containsExactly("Homing needs the reference cam, and it is not wired.");
        assertThat(findings(shuttle.withWiring(changed(shuttle, 0, t -> new Terminal("I1", t.kind(), t.function(), false, 0))))).containsExactly("The negative limit switch is normally open.");
        assertThat(findings(shuttle.withWiring(changed(shuttle, 0, t -> new Terminal("I1", t.kind(), t.function(), true, 50_000))))).containsExactly("The filter of I1 is too long for the speed.");
        Axis lift = DemoMachine.lift();
        assertThat(findings(lift.withWiring(changed(lift, 10, t -> t.with(Function.NONE))))).containsExactly("Nothing opens the holding brake.");
    }

    /** Common practice, no source: at 1 m/s a fast input (2 µs) doubts by 2 µm, an ordinary one (250 µs) by 250 µm. */
    @Test
    void positionDoubtIsSpeedTimesResponseTime() {
        assertThat(1000 * new Terminal("I7", Terminal.Kind.FAST_INPUT, Function.REFERENCE_CAM, false, 0).responseMicros() * 1e-6).isEqualTo(0.002);
        assertThat(1000 * new Terminal("I1", Terminal.Kind.INPUT, Function.REFERENCE_CAM, false, 0).responseMicros() * 1e-6).isEqualTo(0.25);
        assertThat(WireAdvice.of(DemoMachine.shuttle(), "/axes/0").figures().get(0).value()).isEqualTo("250");
        assertThat(WireAdvice.of(DemoMachine.shuttle(), "/axes/0").figures().get(1).formula()).contains("950").contains("250 µs");
    }

    /** A missing line of the second encoder, and one that counts backward. */
    @Test
    void theSecondEncoderIsProven() {
        Machine demo = DemoMachine.create();
        assertThat(WiringTrial.run(demo, 2, Set.of(), "/axes/2")).allMatch(Check::holds).extracting(Check::what).contains("Read the encoder on the load at X2", "Compare both encoders on the way");
        assertThat(WiringTrial.run(demo, 2, Set.of(Mistake.LOAD_ENCODER_BROKEN), "/axes/2")).filteredOn(c -> !c.holds()).first().extracting(Check::cause).asString().contains("broken or missing");
        List<Check> reversed = WiringTrial.run(demo, 2, Set.of(Mistake.LOAD_ENCODER_REVERSED), "/axes/2");
        assertThat(reversed).filteredOn(c -> !c.holds()).singleElement().extracting(c -> c.mend().changes().get(0).path()).isEqualTo("/axes/2/loadEncoder/encoder/reversed");
        Axis t = demo.axes().get(2);
        Axis mended = t.withLoadEncoder(new rueda.machine.LoadEncoder(t.loadEncoder().use(), t.loadEncoder().encoder().turnedOver()));
        assertThat(WiringTrial.run(demo.withAxis(2, mended), 2, Set.of(Mistake.LOAD_ENCODER_REVERSED), "/axes/2")).allMatch(Check::holds);
    }

    @Test
    void aReversedMotorEncoderIsMendedByTurningItOver() {
        Machine demo = DemoMachine.create();
        Check jog = trial(DemoMachine.shuttle(), Mistake.ENCODER_REVERSED).stream().filter(c -> !c.holds()).findFirst().orElseThrow();
        assertThat(jog.mend().changes().get(0).path()).endsWith("/encoder/reversed");
        Axis mended = demo.axes().get(0).withEncoder(demo.axes().get(0).encoder().turnedOver());
        assertThat(trial(mended, Mistake.ENCODER_REVERSED)).allMatch(Check::holds);
    }
}
