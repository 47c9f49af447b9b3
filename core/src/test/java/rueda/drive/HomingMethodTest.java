package rueda.drive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.math.BigDecimal;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import rueda.trial.HomingTrial;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Feed;
import rueda.machine.Homing;
import rueda.machine.Load;
import rueda.machine.Machine;
import rueda.machine.Reducer;
import rueda.machine.Train;
import rueda.machine.Travel;
import rueda.machine.Wiring;

/**
 * Every homing method from several starts and geometries, against an independent statement of where the standard puts
 * zero (IEC 61800-7-201, homing methods: the position of each edge and of the index pulse next to it, from its drawings;
 * from memory).
 */
class HomingMethodTest {

    private static final double TURN = 10;
    private static final double LENGTH = 400;
    private static final double NEGATIVE_LIMIT = 23;
    private static final double POSITIVE_LIMIT = 381;

    /** A quick axis: 10 mm a motor turn, so index pulses stand at whole tens. */
    private static Axis axis(int method, double camFrom, double camTo, double start) {
        return DemoMachine.shuttle().withTrain(new Train(List.of(new Reducer(1, 1)), new Feed(Feed.Kind.SCREW, 1, BigDecimal.TEN, "mm")))
                .withLoad(Load.along(40, 20, 10)).withTravel(new Travel(LENGTH, NEGATIVE_LIMIT, POSITIVE_LIMIT, camFrom, camTo, start))
                .withHoming(Homing.search(method, 150, 15, 3000, 0).withStop(40, 100));
    }

    private static HomingTrial.Result home(Axis axis) {
        Machine demo = DemoMachine.create();
        return HomingTrial.run(new Machine("m", demo.bus(), demo.plc(), List.of(axis), demo.proofs()), 0, axis.travel().parkedAt());
    }

    private static double indexAbove(double edge) {
        return (Math.floor(edge / TURN) + 1) * TURN;
    }

    private static double indexBelow(double edge) {
        return (Math.ceil(edge / TURN) - 1) * TURN;
    }

    /** The edge that counts and whether zero lies above it: the standard's drawings in two columns. */
    private record Where(double edge, boolean above) {
        static Where of(int method, double camFrom, double camTo) {
            return switch (method) {
                case 1 -> new Where(NEGATIVE_LIMIT, true);
                case 2 -> new Where(POSITIVE_LIMIT, false);
                case 3, 7, 14 -> new Where(camFrom, false);
                case 4, 8, 13 -> new Where(camFrom, true);
                case 5, 10, 11 -> new Where(camTo, true);
                case 6, 9, 12 -> new Where(camTo, false);
                default -> throw new IllegalArgumentException();
            };
        }
    }

    static Stream<Integer> searches() {
        return IntStream.concat(IntStream.rangeClosed(1, 14), IntStream.rangeClosed(17, 30)).boxed();
    }

    @ParameterizedTest
    @MethodSource("searches")
    void zeroLiesWhereTheStandardPutsIt(int method) {
        int kind = method > 14 ? method - 16 : method;
        double[][] cams = kind == 3 || kind == 4 ? new double[][] {{204, LENGTH}, {297, LENGTH}} : kind == 5 || kind == 6 ? new double[][] {{0, 204}, {0, 107}}
                : new double[][] {{163, 204}, {296, 327}};
        for (double[] cam : cams) {
            double middle = (cam[0] + cam[1]) / 2;
            for (double start : new double[] {60, middle, 350, NEGATIVE_LIMIT - 3, POSITIVE_LIMIT + 3}) {
                boolean limitInTheWay = kind >= 3 && kind <= 6 && (start < NEGATIVE_LIMIT || start > POSITIVE_LIMIT);
                if (limitInTheWay) {
                    continue;
                }
                HomingTrial.Result result = home(axis(method, cam[0], cam[1], start));
                Where where = Where.of(kind, cam[0], cam[1]);
                double expected = method > 14 ? where.edge : where.above ? indexAbove(where.edge) : indexBelow(where.edge);
                String which = "method " + method + ", cam " + Arrays.toString(cam) + ", from " + start + ": " + result.message();
                assertThat(result.found()).as(which).isTrue();
                /* an edge is seen within the response time of its input at creep speed, an index pulse is latched to the count */
                assertThat(result.zero()).as(which).isCloseTo(expected, within(method > 14 ? 15 * 125e-6 * 3 : 1e-4));
                assertThat(Math.abs(result.rest() - result.zero())).as(which).isLessThan(0.1);
            }
        }
    }

    @Test
    void indexPulseAlone() {
        assertThat(home(axis(33, 160, 200, 87)).zero()).isCloseTo(80, within(1e-4));
        assertThat(home(axis(34, 160, 200, 87)).zero()).isCloseTo(90, within(1e-4));
        assertThat(home(axis(35, 160, 200, 87)).zero()).isCloseTo(87, within(1e-4));
        assertThat(home(axis(37, 160, 200, 87)).zero()).isCloseTo(87, within(1e-4));
    }

    /** Our own methods: pressed against the stop, zero is the stop; with index, the first pulse off it. */
    @Test
    void hardStops() {
        Axis free = axis(-1, 160, 200, 87).withTravel(new Travel(LENGTH, 0, LENGTH, 160, 200, 87));
        for (int[] expected : new int[][] {{-1, 0}, {-2, 400}, {-3, 10}, {-4, 390}}) {
            HomingTrial.Result result = home(free.withHoming(Homing.search(expected[0], 20, 5, 500, 0).withStop(60, 100)).withTravel(new Travel(LENGTH, -1, LENGTH + 1, 160, 200, 87)));
            assertThat(result.found()).as(result.message()).isTrue();
            assertThat(result.zero()).as("method " + expected[0]).isCloseTo(expected[1], within(expected[0] > -3 ? 0.02 : 1e-4));
        }
    }

    @Test
    void failuresSayWhy() {
        assertThat(home(axis(11, 0, 0, 87)).message()).isEqualTo("Both limit switches were reached and no reference cam between them.");
        assertThat(home(axis(33, 160, 200, 22)).message()).isEqualTo("A limit switch was met where the search had nowhere else to go.");
        Axis slow = axis(11, 160, 200, 350).withHoming(Homing.search(11, 150, 15, 3000, 0).withStop(40, 100).withTimeLimit(0.5));
        assertThat(home(slow).message()).isEqualTo("The search took longer than its time limit.");
    }

    @Test
    void afterwardsTheAxisTravelsToZero() {
        HomingTrial.Result result = home(axis(12, 160, 204, 350).withHoming(Homing.search(12, 150, 15, 3000, 0).withStop(40, 100).withThenToZero()));
        assertThat(result.rest()).isCloseTo(result.zero(), within(0.01));
    }

    @Test
    void unknownNumbersAreNoMethod() {
        assertThat(IntStream.of(0, 15, 16, 31, 32, 36, 38, -5).mapToObj(HomingMethod::of)).containsOnlyNulls();
        assertThat(Homing.METHODS).allMatch(m -> HomingMethod.of(m) != null).hasSize(36);
        for (Axis axis : DemoMachine.create().axes()) {
            assertThat(HomingSentence.of(axis).stream().map(HomingSentence::method)).doesNotHaveDuplicates().isSubsetOf(Homing.METHODS).contains(axis.homing().method());
        }
        Axis shuttle = DemoMachine.shuttle();
        assertThat(HomingSentence.of(shuttle)).as("limit switches stand before the hard stops").hasSize(Homing.METHODS.size() - 4);
        assertThat(HomingSentence.of(shuttle.withWiring(Wiring.of(List.of(), List.of())))).hasSameSizeAs(Homing.METHODS);
        assertThat(HomingSentence.of(shuttle.withHoming(Homing.search(-1, 1, 1, 1, 0))).stream().map(HomingSentence::method)).contains(-1).doesNotContain(-2);
    }

    /** Switches that reach to an end, searched from the hard stop there itself. */
    @Test
    void fromTheHardStopAtWhichTheSwitchIsActive() {
        for (int method : new int[] {3, 4, 19, 20, 5, 6, 21, 22}) {
            int kind = method > 14 ? method - 16 : method;
            boolean positive = kind <= 4;
            for (double start : positive ? new double[] {LENGTH, LENGTH - 0.01, POSITIVE_LIMIT + 5} : new double[] {0, 0.01, NEGATIVE_LIMIT - 5}) {
                double from = positive ? 204 : 0;
                double to = positive ? LENGTH : 204;
                HomingTrial.Result result = home(axis(method, from, to, start));
                Where where = Where.of(kind, from, to);
                double expected = method > 14 ? where.edge : where.above ? indexAbove(where.edge) : indexBelow(where.edge);
                assertThat(result.found()).as("method %d from %s: %s", method, start, result.message()).isTrue();
                assertThat(result.zero()).as("method %d from %s", method, start).isCloseTo(expected, within(method > 14 ? 15 * 125e-6 * 3 : 1e-4));
            }
        }
    }

    /** Cams much shorter than the braking way, 3.75 mm: zero is still where the edge is, to what creep speed allows, from every start. */
    @ParameterizedTest
    @MethodSource("searches")
    void aCamShorterThanTheBrakingWayIsCrossedSlowlyAllTheSame(int method) {
        int kind = method > 14 ? method - 16 : method;
        if (kind < 7) {
            return;
        }
        for (double length : new double[] {0.4, 1, 2.5}) {
            for (double start : new double[] {60, 190, 203, 350}) {
                HomingTrial.Result result = home(axis(method, 203, 203 + length, start));
                Where where = Where.of(kind, 203, 203 + length);
                double expected = method > 14 ? where.edge : where.above ? indexAbove(where.edge) : indexBelow(where.edge);
                String which = "method " + method + ", cam of " + length + ", from " + start + ": " + result.message();
                assertThat(result.found()).as(which).isTrue();
                assertThat(result.zero()).as(which).isCloseTo(expected, within(method > 14 ? 15 * 125e-6 * 3 : 1e-4));
            }
        }
    }

    /** An endless axis has no ends to look for: refused at once, not searched until the time limit. */
    @Test
    void anEndlessAxisRefusesMethodsThatNeedEnds() {
        Machine demo = DemoMachine.create();
        for (int method : Homing.METHODS) {
            Axis brush = DemoMachine.brush().withHoming(Homing.search(method, 90, 20, 600, 0).withTimeLimit(60));
            HomingTrial.Result result = HomingTrial.run(new Machine("m", demo.bus(), demo.plc(), List.of(brush), demo.proofs()), 0, brush.travel().parkedAt());
            boolean offered = HomingSentence.of(brush).stream().anyMatch(s -> s.method() == method);
            assertThat(HomingMethod.of(method).needsEnds()).as("method %d", method).isEqualTo(!offered);
            if (!offered) {
                assertThat(result.found()).isFalse();
                assertThat(result.message()).isEqualTo("This homing method looks for an end of the travel, and an endless axis has none.");
                assertThat(result.duration()).isLessThan(3);
            }
        }
    }

    /**
     * IEC 61800-7-201, 607Ch (from memory): zero position = home position + home offset. With an offset of +100 mm the zero lies 100 mm beyond
     * the home position, so the axis stands at −100 mm there.
     */
    @Test
    void theSignOfTheHomeOffset() {
        Axis axis = axis(37, 160, 200, 87).withHoming(Homing.search(37, 150, 15, 3000, -100));
        Machine demo = DemoMachine.create();
        rueda.bench.Bench bench = new rueda.bench.Bench(new Machine("m", demo.bus(), demo.plc(), List.of(axis), demo.proofs()),
                "PROGRAM P VAR Power : MC_Power; Home : MC_Home; END_VAR Power(Axis := Shuttle, Enable := TRUE); Home(Axis := Shuttle, Execute := Power.Status); END_PROGRAM", 16);
        bench.run(1);
        assertThat(bench.drive(0).dictionary().get(DriveObject.HOME_OFFSET)).isEqualTo(100 * axis.scale().wireUnitsPerUnit());
        assertThat(bench.drive(0).position()).isCloseTo(-100, within(0.01));
    }
}
