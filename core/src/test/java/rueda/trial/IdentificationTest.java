package rueda.trial;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.MotorSide;

class IdentificationTest {

    /** Progress is told before every move, and a refusal there ends it with the axis at rest. */
    @Test
    void progressIsToldAndCanEndIt() {
        java.util.List<Integer> moves = new java.util.ArrayList<>();
        assertThat(Identification.run(DEMO, 0, Set.of(), (move, of) -> moves.add(move) && of == 6).done()).isTrue();
        assertThat(moves).containsExactly(1, 2, 3, 4, 5, 6);
        Identification.Identified cancelled = Identification.run(DEMO, 0, Set.of(), (move, of) -> move < 3);
        assertThat(cancelled.done()).isFalse();
        assertThat(cancelled.message()).isEqualTo("Cancelled: the axis stands and is disabled.");
    }

    private static final Machine DEMO = DemoMachine.create();

    /** Within 3 % of the inertia and 5 % of friction and weight that the bench really has. */
    @ParameterizedTest
    @ValueSource(ints = {0, 1, 2, 3, 4})
    void findsWhatTheBenchHas(int axis) {
        MotorSide real = DEMO.axes().get(axis).motorSide();
        Identification.Identified found = Identification.run(DEMO, axis, Set.of());
        assertThat(found.done()).as(found.message()).isTrue();
        assertThat(found.inertia()).isCloseTo(real.inertia(), within(0.03 * real.inertia()));
        assertThat(found.coulomb()).isCloseTo(real.coulomb(), within(0.05 * real.coulomb()));
        assertThat(found.viscous()).isCloseTo(real.viscous(), within(0.05 * real.viscous()));
        assertThat(found.gravity()).isCloseTo(real.gravity(), within(0.05 * Math.abs(real.gravity()) + 0.01 * real.coulomb()));
    }

    /** The Shuttle's highest acceleration asks for more than its motor gives; what is proposed leaves a fifth of the torque. */
    @Test
    void accelerationsAreProposedThatTheMotorMakes() {
        rueda.machine.Axis shuttle = DEMO.axes().get(0);
        Identification.Identified found = Identification.run(DEMO, 0, Set.of());
        java.util.List<Proposal> proposals = found.proposals(shuttle, "/axes/0");
        Proposal highest = proposals.stream().filter(p -> p.path().equals("/axes/0/limits/max/acceleration")).findFirst().orElseThrow();
        double needed = shuttle.motorSide().torque(shuttle.limits().max().speed(), highest.next());
        double there = Math.min(shuttle.torqueLimit(), shuttle.motor().peakTorqueAt(shuttle.scale().motorTurnsPerMinute(shuttle.limits().max().speed())));
        assertThat(needed / there).isBetween(0.7, 0.83);
        assertThat(proposals).noneMatch(p -> p.now() == p.next());
        assertThat(Identification.Identified.failed("no").proposals(shuttle, "/axes/0")).isEmpty();
    }

    /** What is identified says how sure it is: the true value lies within the doubt about it, and the doubt is small on a good axis. */
    @ParameterizedTest
    @ValueSource(ints = {0, 1, 2, 3, 4})
    void theTruthLiesWithinTheDoubt(int axis) {
        MotorSide real = DEMO.axes().get(axis).motorSide();
        Identification.Identified found = Identification.run(DEMO, axis, Set.of());
        assertThat(found.trusted()).as(found.message()).isTrue();
        assertThat(found.inertiaDoubt()).isPositive().isLessThan(0.15 * real.inertia());
        // The two-mass Table adds what no fit of one mass knows: its play and its swinging.
        assertThat(Math.abs(found.inertia() - real.inertia())).isLessThan(found.inertiaDoubt() + 0.03 * real.inertia());
    }

    /** Coarse encoders and slow moves: whatever comes out, it is right within 20 %, or it is not trusted, says what to change, and proposes nothing. */
    @org.junit.jupiter.params.ParameterizedTest
    @org.junit.jupiter.params.provider.CsvSource({"2500, 5, 20", "2500, 5, 2500", "2500, 20, 100", "500, 5, 2500", "500, 600, 2500", "2500, 600, 2500", "1024, 60, 250", "100, 100, 500", "10000, 2, 5", "64, 600, 2500"})
    void aBadIdentificationIsNotTrusted(int lines, double speed, double acceleration) {
        rueda.machine.Axis shuttle = DEMO.axes().get(0);
        rueda.machine.Limits l = shuttle.limits();
        rueda.machine.Axis slow = shuttle.withEncoder(new rueda.machine.Encoder(rueda.machine.Encoder.Kind.INCREMENTAL, lines, 0, 0, false))
                .withLimits(new rueda.machine.Limits(l.softMin(), l.softMax(), new rueda.machine.Dynamics(speed, acceleration, acceleration, 0, 260), l.max(), l.quickStop()));
        Identification.Identified found = Identification.run(DEMO.withAxis(0, slow), 0, Set.of());
        double real = slow.motorSide().inertia();
        if (found.trusted()) {
            assertThat(found.inertia()).isCloseTo(real, within(0.2 * real));
        } else {
            assertThat(found.proposals(slow, "/axes/0")).isEmpty();
            assertThat(found.message()).matches(".*(Raise|raise|give|Give|stopped|Switch).*");
        }
        if (lines == 2500 && speed == 5) {
            assertThat(found.trusted()).isFalse();
        }
        if (lines == 2500 && speed == 600) {
            assertThat(found.trusted()).as(found.message()).isTrue();
        }
    }
}
