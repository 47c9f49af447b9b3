package rueda.advice;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.machine.Axis.Commander;
import rueda.machine.DemoMachine;
import rueda.machine.EntryFault;
import rueda.machine.Following;
import rueda.machine.Following.Form;
import rueda.machine.Following.Source;
import rueda.machine.Machine;
import rueda.machine.MachineRules;

class FollowAdviceTest {

    private static final int BRUSH = 3;

    private static Machine demo(UnaryOperator<Following> changed) {
        Machine demo = DemoMachine.create();
        return demo.withAxis(BRUSH, demo.axes().get(BRUSH).withFollowing(changed.apply(demo.axes().get(BRUSH).following())));
    }

    private static Advice advice(Machine machine) {
        return FollowAdvice.of(machine, machine.axes().get(BRUSH), "/axes/" + BRUSH);
    }

    private static String figure(Advice advice, String label) {
        return advice.figures().stream().filter(f -> f.label().startsWith(label)).findFirst().orElseThrow().value();
    }

    private static Finding finding(Advice advice, String words) {
        return advice.findings().stream().filter(f -> f.title().contains(words)).findFirst().orElseThrow(() -> new AssertionError(advice.findings().toString()));
    }

    @Test
    void theDemoFollowsExactly() {
        Advice advice = advice(demo(f -> f));
        assertThat(advice.findings()).allMatch(f -> f.severity() == Finding.Severity.GOOD);
        assertThat(figure(advice, "Drift an hour")).isEqualTo("0");
        assertThat(figure(advice, "Speed at the default speed of Table")).isEqualTo("210");
    }

    /** By hand: 3.499 instead of 3.5 at 60 °/s loses 0.06 °/s, 216 ° an hour; a third written with three decimals 0.000333 × 60 × 3600 = 72 °. */
    @Test
    void whatARatioOfThreeDecimalsWouldHaveDone() {
        Advice off = advice(demo(f -> f.withRatio(f.ratio().withForm(Form.DECIMAL).withDecimal(new BigDecimal("3.499")))));
        assertThat(figure(off, "Drift an hour")).isEqualTo("−216");
        assertThat(finding(off, "not that of the pitches").mend().changes().get(0).value()).isEqualTo("PITCHES");
        Advice third = advice(demo(f -> f.withRatio(new Following.FollowRatio(Form.PITCHES, 1, 1, BigDecimal.ONE, new BigDecimal("360"), new BigDecimal("120")))));
        assertThat(figure(third, "Drift an hour")).isEqualTo("0");
        assertThat(figure(third, "With three decimals")).isEqualTo("−72");
    }

    /** Each finding names a mend that takes it away, where one can. */
    @Test
    void findingsWithMends() {
        assertThat(finding(advice(demo(f -> f.withCatchUp(0))), "catch-up limit is 0").mend()).isNotNull();
        assertThat(finding(advice(demo(f -> f.withRatio(f.ratio().withOut(-7)))), "wrong way").mend().changes().get(0).value()).isEqualTo(7L);
        assertThat(finding(advice(demo(f -> f.withSpeed(100))), "cannot follow at the default speed").severity()).isEqualTo(Finding.Severity.FAULT);
        assertThat(finding(advice(demo(f -> f.withSpeed(300))), "cannot follow at the highest speed").mend().changes().get(0).value()).isEqualTo(0.0);
        assertThat(finding(advice(demo(f -> f.withAcceleration(300))), "falls behind whenever").mend()).isNotNull();
        assertThat(finding(advice(demo(f -> f.withFeedForward(0))), "stays behind").mend().changes().get(0).value()).isEqualTo(100.0);
        assertThat(finding(advice(demo(f -> f.withFilter(200))), "filter is longer").mend()).isNotNull();
        assertThat(finding(advice(demo(f -> f.withPrediction(1))), "Nothing has to be foreseen").mend()).isNotNull();
        assertThat(finding(advice(demo(f -> f.withSource(Source.ACTUAL).withPhaseWindow(0.1))), "delay costs more").mend().changes().get(0).value()).isEqualTo(1.0);
        assertThat(finding(advice(demo(f -> f.withCatchUp(2900))), "cannot catch up as fast")).isNotNull();
        Machine words = demo(f -> f);
        assertThat(finding(advice(words.withAxis(2, words.axes().get(2).withCommandedBy(Commander.PROGRAM))), "does not make the setpoint").mend().changes().get(0).value()).isEqualTo("ACTUAL");
        assertThat(finding(advice(words.withAxis(BRUSH, words.axes().get(BRUSH).withCommandedBy(Commander.DRIVE))), "Nothing in the PLC").mend()).isNotNull();
    }

    /** What cannot run at all is refused at its entry. */
    @ParameterizedTest
    @CsvSource({"in, 0, ratio/in", "out, 0, ratio/out", "gain, 0, gain", "feedForward, 101, feedForward", "catchUp, 1e7, catchUp", "master, Nobody, master", "master, Brush, master", "circle, Brush, master", "decimal, 0, ratio/decimal"})
    void refused(String what, String value, String field) {
        Machine machine = switch (what) {
            case "in" -> demo(f -> f.withRatio(f.ratio().withIn(Long.parseLong(value))));
            case "out" -> demo(f -> f.withRatio(f.ratio().withOut(Long.parseLong(value))));
            case "gain" -> demo(f -> f.withGain(Double.parseDouble(value)));
            case "feedForward" -> demo(f -> f.withFeedForward(Double.parseDouble(value)));
            case "catchUp" -> demo(f -> f.withCatchUp(Double.parseDouble(value)));
            case "decimal" -> demo(f -> f.withRatio(f.ratio().withDecimal(BigDecimal.ZERO)));
            case "circle" -> {
                Machine demo = demo(f -> f);
                yield demo.withAxis(2, demo.axes().get(2).withFollowing(demo.axes().get(BRUSH).following().withMaster(value)));
            }
            default -> demo(f -> f.withMaster(value));
        };
        assertThat(MachineRules.check(machine)).extracting(EntryFault::field).anyMatch(at -> at.endsWith("/following/" + field));
    }
}
