package rueda.proof.repeat;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import rueda.machine.Circumstance;
import rueda.machine.Condition;
import rueda.machine.DemoMachine;
import rueda.machine.Expectation;
import rueda.machine.Expectation.Quantity;
import rueda.machine.Machine;
import rueda.machine.Mistake;
import rueda.machine.Plan;
import rueda.machine.Proof;

/** What the map says, for outcomes that are reckoned instead of run. */
class ConditionMapTest {

    private static final Machine DEMO = DemoMachine.create();

    private static Proof proof(Plan.Kind kind, Condition... conditions) {
        return new Proof("p", 10, List.of(Expectation.bound("Shuttle", Quantity.FOLLOWING_ERROR, 1), Expectation.noError("Shuttle"))).withConditions(List.of(conditions)).withPlan(new Plan(kind, 64, 1, 0.5));
    }

    /** Room falls by 0.01 mm a kilogram from 0.4 mm at 160 kg: gone at 200 kg. Which error there is, is a bit. */
    private static Outcome outcome(int run, Case one, double mass, boolean error) {
        double margin = 0.4 - 0.01 * (mass - 160);
        return new Outcome(run, one, null, new boolean[] {margin >= 0, !error}, new double[] {margin, Double.NaN}, new double[] {margin, error ? -1 : 1}, List.of("mm", "errors"));
    }

    @Test
    void oneAtATimeHasARowForEachValueAndSaysWhatTenPercentCost() {
        Proof proof = proof(Plan.Kind.ONE_AT_A_TIME, Condition.range(Circumstance.MASS, "Shuttle", 150, 230, 3), Condition.mistakes("Shuttle", Mistake.CAM_BROKEN));
        Cases cases = Cases.of(proof);
        List<Outcome> outcomes = IntStream.range(0, cases.size()).mapToObj(i -> outcome(i, cases.at(i), Double.isNaN(cases.at(i).values()[0]) ? 160 : cases.at(i).values()[0], !Double.isNaN(cases.at(i).values()[1]))).toList();
        ConditionMap map = ConditionMap.of(DEMO, proof, outcomes);
        assertThat(map.rows()).extracting(ConditionMap.MapRow::value).containsExactly("", "150 kg", "190 kg", "230 kg", "wire of the reference cam broken");
        assertThat(map.rows()).extracting(ConditionMap.MapRow::condition).startsWith("as the document says", "mass of the load · Shuttle").endsWith("something is wrong at Shuttle");
        assertThat(map.failed()).isEqualTo(2);
        assertThat(map.columns().get(0).worst()).isEqualTo(3);
        assertThat(map.columns().get(0).margin()).isCloseTo(-0.3, org.assertj.core.api.Assertions.within(1e-9));
        assertThat(map.columns().get(1).failed()).isEqualTo(1);
        assertThat(map.rows().get(4).cells().get(1).holds()).isFalse();
        assertThat(map.rows().get(4).cells().get(1).margin()).isNull();
        assertThat(map.worst()).as("without even a number").isEqualTo(4);
        assertThat(map.remarks()).containsExactly("Following error of Shuttle never above 1 mm: 10 % more mass of the load of Shuttle costs 0.16 mm of room; it does not hold from about 200 kg on.");
    }

    @Test
    void drawsAreGatheredByPartsOfTheirRanges() {
        Proof proof = proof(Plan.Kind.RANDOM, Condition.range(Circumstance.MASS, "Shuttle", 120, 200, 3));
        Cases cases = Cases.of(proof);
        List<Outcome> outcomes = IntStream.range(0, 64).mapToObj(i -> outcome(i, cases.at(i), cases.at(i).values()[0], false)).toList();
        ConditionMap map = ConditionMap.of(DEMO, proof, outcomes);
        assertThat(map.rows()).hasSize(8);
        assertThat(map.rows().stream().mapToInt(ConditionMap.MapRow::runs).sum()).isEqualTo(64);
        assertThat(map.rows().get(0).value()).isEqualTo("120 to 130 kg");
        for (ConditionMap.MapRow row : map.rows()) {
            double mass = cases.at(row.cells().get(0).run()).values()[0];
            assertThat(row.cells().get(0).margin()).isEqualTo(0.4 - 0.01 * (mass - 160));
        }
        assertThat(map.rows().get(7).cells().get(0).margin()).isLessThan(map.rows().get(0).cells().get(0).margin());
    }

    @Test
    void momentsAreGatheredByPartsOfTheRun() {
        Proof proof = proof(Plan.Kind.STOP);
        Cases cases = Cases.of(proof);
        assertThat(cases.size()).isEqualTo(40);
        List<Outcome> outcomes = IntStream.range(0, 40).mapToObj(i -> outcome(i, cases.at(i), i == 7 ? 300 : 160, false)).toList();
        ConditionMap map = ConditionMap.of(DEMO, proof, outcomes);
        assertThat(map.rows()).hasSize(40);
        assertThat(map.rows().get(7).value()).isEqualTo("3.5 s");
        assertThat(map.rows().get(7).cells().get(0).holds()).isFalse();
        assertThat(map.rows().get(20).condition()).isEqualTo("power lost");
        assertThat(map.failed()).isEqualTo(1);
    }
}
