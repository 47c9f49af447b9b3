package rueda.plcopen;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static rueda.plcopen.ProgramBench.untilTrue;
import static rueda.plcopen.ProgramBench.value;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.bench.Bench;

/** Profiles over time (PLCopen Motion Control part 1, from memory): places, speeds and accelerations at instants. */
class TableBlocksTest {

    private static final String PLACES = "Places : MC_TP_REF := (Number_of_pairs := 3, IsAbsolute := TRUE, MC_TP_Array := [(delta_time := T#1s, position := 300.0), (delta_time := T#2s, position := 450.0), (delta_time := T#1s, position := 200.0)]);";

    private static Bench bench(String declarations, String body) {
        return bench(100, declarations, body);
    }

    /** @param zero position of the place where it stands, units */
    private static Bench bench(double zero, String declarations, String body) {
        return new Bench(ProgramBench.alone("Shuttle", zero), "PROGRAM Main\nVAR t : DINT; Power : MC_Power; Home : MC_Home; Halt : MC_Halt; Slower : MC_SetOverride; Next : MC_MoveAbsolute; " + declarations + " END_VAR\n"
                + "t := t + 1;\nPower(Axis := Shuttle, Enable := TRUE);\nHome(Axis := Shuttle, Execute := Power.Status);\n" + body + "\nEND_PROGRAM", 20_000);
    }

    private static void cycles(Bench bench, int count) {
        for (int i = 0; i < count; i++) {
            bench.cycle();
        }
    }

    private static double place(Bench bench) {
        return bench.axis(0).shownPosition();
    }

    private static int perSecond(Bench bench) {
        return (int) Math.round(1 / bench.axis(0).cycleSeconds());
    }

    /** It is at each place at its time, and done where the drive is in position. */
    @ParameterizedTest
    @CsvSource({"1, 1, 0", "2, 1, 0", "1, 0.5, 60"})
    void placesAtTheirTimes(double timeScale, double size, double offset) {
        Bench bench = bench(PLACES + " Go : MC_PositionProfile;",
                "Go(Axis := Shuttle, TimePosition := Places, Execute := Home.Done, TimeScale := " + timeScale + ", PositionScale := " + size + ", Offset := " + offset + ");");
        untilTrue(bench, "Go.Active");
        int second = (int) (perSecond(bench) * timeScale);
        cycles(bench, second - 1);
        assertThat(place(bench)).isCloseTo(300 * size + offset, within(1e-6));
        cycles(bench, 2 * second);
        assertThat(place(bench)).isCloseTo(450 * size + offset, within(1e-6));
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.DISCRETE_MOTION);
        cycles(bench, second);
        assertThat(place(bench)).isCloseTo(200 * size + offset, within(1e-6));
        assertThat(bench.axis(0).commandedSpeed()).isZero();
        untilTrue(bench, "Go.Done");
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.STANDSTILL);
        assertThat(value(bench, "Go.Busy") + value(bench, "Go.CommandAborted") + value(bench, "Go.Error")).isZero();
    }

    /** Relative places count from where the axis is. */
    @Test
    void placesFromWhereItStands() {
        Bench bench = bench(PLACES.replace("IsAbsolute := TRUE", "IsAbsolute := FALSE").replace("300.0", "30.0").replace("450.0", "-20.0").replace("200.0", "10.0") + " Go : MC_PositionProfile;",
                "Go(Axis := Shuttle, TimePosition := Places, Execute := Home.Done);");
        untilTrue(bench, "Go.Done");
        assertThat(place(bench)).isCloseTo(110, within(1e-6));
    }

    @Test
    void speedsAtTheirTimesAndTheLastOneStays() {
        Bench bench = bench("Speeds : MC_TV_REF := (Number_of_pairs := 2, MC_TV_Array := [(delta_time := T#500ms, velocity := 200.0), (delta_time := T#500ms, velocity := 100.0)]); Go : MC_VelocityProfile;",
                "Go(Axis := Shuttle, TimeVelocity := Speeds, Execute := Home.Done);\nHalt(Axis := Shuttle, Execute := t > 4000);");
        untilTrue(bench, "Go.Active");
        double from = place(bench);
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.CONTINUOUS_MOTION);
        cycles(bench, perSecond(bench) / 2 - 1);
        assertThat(bench.axis(0).commandedSpeed()).isCloseTo(200, within(1e-6));
        assertThat(value(bench, "Go.ProfileCompleted")).isZero();
        untilTrue(bench, "Go.ProfileCompleted");
        assertThat(place(bench) - from).as("50 + 75 units, and what it goes until the block is called again").isBetween(124.0, 126.0);
        cycles(bench, perSecond(bench) / 2);
        assertThat(bench.axis(0).commandedSpeed()).isEqualTo(100);
        assertThat(value(bench, "Go.Busy")).as("until something else is ordered").isEqualTo(1);
        untilTrue(bench, "Halt.Done");
        assertThat(value(bench, "Go.CommandAborted")).isEqualTo(1);
        assertThat(value(bench, "Go.ProfileCompleted")).isZero();
    }

    @Test
    void accelerationsAtTheirTimes() {
        Bench bench = bench("Table : MC_TA_REF := (Number_of_pairs := 2, MC_TA_Array := [(delta_time := T#1s, acceleration := 120.0), (delta_time := T#1s, acceleration := 0.0)]); Go : MC_AccelerationProfile;",
                "Go(Axis := Shuttle, TimeAcceleration := Table, Execute := Home.Done);");
        untilTrue(bench, "Go.Active");
        cycles(bench, perSecond(bench) - 1);
        assertThat(bench.axis(0).commandedSpeed()).as("½·j·t²").isCloseTo(60, within(1e-6));
        cycles(bench, perSecond(bench));
        assertThat(bench.axis(0).commandedSpeed()).isCloseTo(120, within(1e-6));
        untilTrue(bench, "Go.ProfileCompleted");
    }

    /** A speed that the table leaves it with ends before the soft limit: the order fails, the axis rests inside. */
    @Test
    void theSoftLimitEndsWhatGoesOn() {
        Bench bench = bench(600, "Speeds : MC_TV_REF := (Number_of_pairs := 1, MC_TV_Array := [(delta_time := T#1s, velocity := 300.0)]); Go : MC_VelocityProfile;", "Go(Axis := Shuttle, TimeVelocity := Speeds, Execute := Home.Done);");
        untilTrue(bench, "Go.Error");
        assertThat(value(bench, "Go.ErrorID")).isEqualTo(MotionError.PAST_SOFT_LIMIT.id());
        cycles(bench, perSecond(bench));
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.STANDSTILL);
        double max = bench.axis(0).limits().softMax();
        assertThat(place(bench)).isBetween(max - 10, max);
    }

    @ParameterizedTest
    @CsvSource({"Number_of_pairs := 0, BAD_TABLE", "Number_of_pairs := 101, BAD_TABLE", "delta_time := T#0s, BAD_TABLE", "delta_time := T#10ms, TOO_MUCH", "position := 99999.0, TOO_MUCH", "delta_time := T#500s; position := 2001.0, PAST_SOFT_LIMIT"})
    void aTableThatAsksForTooMuchIsRefused(String changed, MotionError error) {
        String places = PLACES;
        for (String part : changed.split("; ")) {
            places = places.replaceFirst(part.substring(0, part.indexOf(" := ")) + " := [^,)]*", part);
        }
        Bench bench = bench(places + " Go : MC_PositionProfile;", "Go(Axis := Shuttle, TimePosition := Places, Execute := Home.Done);");
        untilTrue(bench, "Go.Error");
        assertThat(MotionError.of((long) value(bench, "Go.ErrorID"))).isEqualTo(error);
        assertThat(bench.axis(0).state()).isEqualTo(AxisState.STANDSTILL);
    }

    /** An order that waits begins when the table is through; the override does not stretch its time. */
    @Test
    void whatWaitsBeginsBehindTheTable() {
        Bench bench = bench(PLACES + " Go : MC_PositionProfile;", "Slower(Axis := Shuttle, Enable := TRUE, VelFactor := 0.5);\nGo(Axis := Shuttle, TimePosition := Places, Execute := Home.Done);\n"
                + "Next(Axis := Shuttle, Execute := Go.Active AND t > 1000, Position := 100.0, BufferMode := mcBuffered);");
        untilTrue(bench, "Go.Active");
        cycles(bench, 4 * perSecond(bench) - 1);
        assertThat(place(bench)).isCloseTo(200, within(1e-6));
        untilTrue(bench, "Next.Active");
        assertThat(value(bench, "Go.Done")).isEqualTo(1);
        untilTrue(bench, "Next.Done");
        assertThat(place(bench)).isCloseTo(100, within(1e-6));
    }
}
