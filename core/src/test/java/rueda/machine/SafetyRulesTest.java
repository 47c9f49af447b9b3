package rueda.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Collections;
import java.util.List;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import rueda.machine.AxisGuard.Ask;

/** What of requests and guards cannot be stored, and how that is told. */
class SafetyRulesTest {

    private static final Machine DEMO = DemoMachine.create();

    private static List<String> fields(Machine machine) {
        return MachineRules.check(machine).stream().peek(f -> assertThat(List.of(f.label(), f.allowed(), f.mend())).doesNotContain("")).map(EntryFault::field).toList();
    }

    private static List<String> guard(UnaryOperator<AxisGuard> change) {
        Axis shuttle = DEMO.axes().get(0);
        return fields(DEMO.withAxis(0, shuttle.withGuard(change.apply(shuttle.guard()))));
    }

    private static List<String> door(UnaryOperator<SafetyRequest> change) {
        return fields(DEMO.withSafetyRequests(List.of(change.apply(DEMO.safetyRequests().get(0)), DEMO.safetyRequests().get(1))));
    }

    private static List<String> protection(Protection protection) {
        return door(d -> d.withProtection(protection));
    }

    @Test
    void theDemoAndAMachineWithoutGuardsCanBeStored() {
        assertThat(fields(DEMO)).isEmpty();
        assertThat(fields(DEMO.withSafetyRequests(List.of()).withProofs(List.of()).withAxes(DEMO.axes().stream().map(a -> a.withGuard(AxisGuard.NONE)).toList()))).isEmpty();
    }

    @Test
    void namesOfRequestsAreTheirOwn() {
        assertThat(door(d -> d.withName("emergency STOP"))).contains("/safetyRequests/1/name");
        assertThat(door(d -> d.withName(" "))).contains("/safetyRequests/0/name");
        assertThat(door(d -> d.withName("x".repeat(81)))).contains("/safetyRequests/0/name");
        assertThat(fields(DEMO.withSafetyRequests(Collections.nCopies(33, DEMO.safetyRequests().get(0))))).contains("/safetyRequests");
    }

    /** ISO 13855:2010 (from memory): a curtain sees 70 mm at most; a field H over the floor d ≤ H/15 + 50 mm. */
    @Test
    void whatAProtectionSeesHasBounds() {
        assertThat(protection(new Protection(Protection.Kind.LIGHT_CURTAIN, 70, 0, 0, false))).isEmpty();
        assertThat(protection(new Protection(Protection.Kind.LIGHT_CURTAIN, 70.1, 0, 0, false))).containsExactly("/safetyRequests/0/protection/resolution");
        assertThat(protection(new Protection(Protection.Kind.PARALLEL_FIELD, 70, 300, 0, false))).isEmpty();
        assertThat(protection(new Protection(Protection.Kind.PARALLEL_FIELD, 70.1, 300, 0, false))).containsExactly("/safetyRequests/0/protection/resolution");
        assertThat(protection(new Protection(Protection.Kind.INTERLOCKED_GUARD, 0, 0, 851, false))).containsExactly("/safetyRequests/0/protection/reach");
    }

    @Test
    void aCycleIsMadeOfSubSteps() {
        assertThat(guard(g -> g.withCycle(0.375))).isEmpty();
        for (double wrong : new double[] {0.3, 0.125, 20.125, Double.NaN}) {
            assertThat(guard(g -> g.withCycle(wrong))).as("%s ms", wrong).containsExactly("/axes/0/guard/cycle");
        }
    }

    @Test
    void rampsDoNotContradictEachOther() {
        assertThat(guard(g -> g.withStop1(g.stop1().withSteepest(4000)))).isEmpty();
        assertThat(guard(g -> g.withStop1(g.stop1().withSteepest(3999)))).containsExactly("/axes/0/guard/stop1/flattest");
        assertThat(guard(g -> g.withStop2(g.stop2().withFlattest(0)))).containsExactly("/axes/0/guard/stop2/flattest");
        assertThat(guard(g -> g.withUnitsPerTurn(0))).containsExactly("/axes/0/guard/unitsPerTurn");
        assertThat(guard(g -> g.withUnitsPerTurn(-13))).as("it counts the other way").isEmpty();
    }

    @Test
    void whoAsksIsThereAndAsksOnce() {
        assertThat(guard(g -> g.withAsks(List.of(new Ask("Window", SafetyFunction.SAFE_STOP_1))))).containsExactly("/axes/0/guard/asks/0/request");
        assertThat(guard(g -> g.withAsks(Collections.nCopies(2, new Ask("Door", SafetyFunction.SAFE_STOP_1))))).containsExactly("/axes/0/guard/asks/1/function");
        assertThat(guard(g -> g.withAsks(List.of(new Ask("Door", SafetyFunction.SAFE_STOP_1), new Ask("Door", SafetyFunction.SAFE_DIRECTION_POSITIVE))))).isEmpty();
        Proof asks = new Proof("p", 1, List.of()).withScript(List.of(ScriptStep.ask("Window")));
        assertThat(fields(DEMO.withProofs(List.of(asks)))).containsExactly("/proofs/0/script/0/request");
    }
}
