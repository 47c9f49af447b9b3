package rueda.plcopen;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static rueda.plcopen.ProgramBench.untilTrue;
import static rueda.plcopen.ProgramBench.value;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.bench.Bench;

/** MC_DigitalCamSwitch (PLCopen Motion Control part 1, from memory): an axis runs at 200 units/s past switches. */
class CamSwitchBlockTest {

    private static final double SPEED = 200;

    /** One switch; the axis runs from 500 to 900 and back. */
    private static Bench bench(String axis, String switchFields, String options, String go) {
        return new Bench(ProgramBench.alone(axis, axis.equals("Table") ? 0 : 500), ("PROGRAM Main VAR t : DINT; Power : MC_Power; Home : MC_Home; Go, Back : MC_MoveAbsolute; On : MC_MoveVelocity; Cam : MC_DigitalCamSwitch;\n"
                + "Switches : MC_CAMSWITCH_REF := (Count := 1, Switches := [(TrackNumber := 3, " + switchFields + ")]); Outs : MC_OUTPUT_REF; Options : MC_TRACK_REF := (Tracks := [2((Hysteresis := 0.0)), (" + options + ")]); END_VAR\n"
                + "t := t + 1; Power(Axis := AX, Enable := TRUE); Home(Axis := AX, Execute := Power.Status);\n" + go
                + "\nCam(Axis := AX, Switches := Switches, Outputs := Outs, TrackOptions := Options, Enable := Home.Done);\nEND_PROGRAM").replace("AX", axis), 1000);
    }

    private static final String THERE_AND_BACK = "Go(Axis := AX, Execute := Home.Done, Position := 900.0, Velocity := 200.0); Back(Axis := AX, Execute := Go.Done, Position := 500.0, Velocity := 200.0);";

    /** Places where the track changed, and into what, as long as the axis moves. */
    private static List<double[]> changes(Bench bench, String end) {
        List<double[]> changes = new ArrayList<>();
        double before = 0;
        for (int i = 0; i < 20_000 && value(bench, end) != 1; i++) {
            bench.cycle();
            double now = value(bench, "Outs.Tracks[3]");
            if (now != before) {
                changes.add(new double[] {bench.axis(0).shownPosition(), now});
                before = now;
            }
        }
        assertThat(value(bench, "Outs.Tracks[1]") + value(bench, "Outs.Tracks[2]") + value(bench, "Outs.Tracks[4]")).isZero();
        return changes;
    }

    private static void assertChanges(List<double[]> found, double... places) {
        assertThat(found).hasSize(places.length);
        for (int i = 0; i < places.length; i++) {
            /* a task of 2 ms looks, and its setpoint is a bus cycle old */
            assertThat(found.get(i)[0]).as("change " + i).isCloseTo(places[i], within(1.3));
            assertThat(found.get(i)[1]).isEqualTo(i % 2 == 0 ? 1 : 0);
        }
    }

    @ParameterizedTest
    @CsvSource({"0, '600,700,700,600'", "1, '600,700'", "2, '700,600'"})
    void betweenTwoPlacesAndInWhichDirection(int direction, String places) {
        Bench bench = bench("Shuttle", "FirstOnPosition := 600.0, LastOnPosition := 700.0, AxisDirection := " + direction, "Hysteresis := 0.0", THERE_AND_BACK);
        assertChanges(changes(bench, "Back.Done"), List.of(places.split(",")).stream().mapToDouble(Double::parseDouble).toArray());
        assertThat(value(bench, "Cam.InOperation")).isEqualTo(1);
    }

    /** 100 ms at 200 units/s are 20 units: earlier on, later off. */
    @ParameterizedTest
    @CsvSource({"OnCompensation := T#-100ms, '580,700,720,600'", "OffCompensation := T#-100ms, '600,680,700,620'", "'OnCompensation := T#50ms, OffCompensation := T#100ms', '610,720,690,580'"})
    void earlierAndLater(String options, String places) {
        Bench bench = bench("Shuttle", "FirstOnPosition := 600.0, LastOnPosition := 700.0", options, THERE_AND_BACK);
        assertChanges(changes(bench, "Back.Done"), List.of(places.split(",")).stream().mapToDouble(Double::parseDouble).toArray());
    }

    @Test
    void forATimeFromAPlaceOn() {
        Bench bench = bench("Shuttle", "FirstOnPosition := 600.0, LastOnPosition := 601.0, CamSwitchMode := 1, AxisDirection := 1, Duration := T#250ms", "Hysteresis := 0.0", THERE_AND_BACK);
        assertChanges(changes(bench, "Back.Done"), 600, 600 + 0.25 * SPEED);
    }

    /** On an endless axis a switch may lie across the place where positions begin again. */
    @Test
    void acrossTheModulo() {
        Bench bench = bench("Table", "FirstOnPosition := 350.0, LastOnPosition := 10.0", "Hysteresis := 0.0", "On(Axis := AX, Execute := Home.Done, Velocity := 90.0);");
        untilTrue(bench, "On.InVelocity");
        List<double[]> changes = new ArrayList<>();
        double before = value(bench, "Outs.Tracks[3]");
        assertThat(before).as("beyond 10° already, or still inside").isIn(0.0, 1.0);
        for (int i = 0; i < 12_000; i++) {
            bench.cycle();
            double now = value(bench, "Outs.Tracks[3]");
            if (now != before) {
                changes.add(new double[] {bench.axis(0).shownPosition(), now});
                before = now;
            }
        }
        assertThat(changes).hasSizeGreaterThan(4).allSatisfy(change -> assertThat(change[0]).isCloseTo(change[1] == 1 ? 350 : 10, within(0.6)));
    }

    /** The place trembles about a switch: with a hysteresis it changes once. */
    @Test
    void aHysteresisKeepsItStill() {
        String tremble = "Go(Axis := AX, Execute := Home.Done AND t MOD 200 < 100, Position := 600.5, Velocity := 200.0); Back(Axis := AX, Execute := Home.Done AND t MOD 200 >= 100, Position := 599.5, Velocity := 200.0);";
        int[] counts = new int[2];
        for (int round = 0; round < 2; round++) {
            Bench bench = bench("Shuttle", "FirstOnPosition := 600.0, LastOnPosition := 700.0", "Hysteresis := " + (round == 0 ? "0.0" : "2.0"), tremble);
            double before = 0;
            for (int i = 0; i < 6000; i++) {
                bench.cycle();
                double now = value(bench, "Outs.Tracks[3]");
                counts[round] += now != before ? 1 : 0;
                before = now;
            }
        }
        assertThat(counts[0]).isGreaterThan(10);
        assertThat(counts[1]).isEqualTo(1);
    }

    @ParameterizedTest
    @CsvSource({"'TrackNumber := 3', 'TrackNumber := 0'", "'TrackNumber := 3', 'TrackNumber := 33'", "'Count := 1', 'Count := 65'", "'AxisDirection := 1', 'AxisDirection := 3'"})
    void aTableThatCannotBeIsAnError(String what, String changed) {
        Bench bench = new Bench(ProgramBench.alone("Shuttle", 500), ("PROGRAM Main VAR t : DINT; Cam : MC_DigitalCamSwitch; Switches : MC_CAMSWITCH_REF := (Count := 1, Switches := [(TrackNumber := 3, AxisDirection := 1)]); Outs : MC_OUTPUT_REF; Options : MC_TRACK_REF; END_VAR\n"
                + "Cam(Axis := Shuttle, Switches := Switches, Outputs := Outs, TrackOptions := Options, Enable := TRUE);\nEND_PROGRAM").replace(what, changed), 10);
        bench.run(0.05);
        assertThat(value(bench, "Cam.Error")).isEqualTo(1);
        assertThat(value(bench, "Cam.ErrorID")).isEqualTo(MotionError.BAD_TABLE.id());
        assertThat(value(bench, "Cam.InOperation")).isZero();
    }
}
