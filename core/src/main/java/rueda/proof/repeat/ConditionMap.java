package rueda.proof.repeat;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.TreeMap;
import java.util.function.IntFunction;
import rueda.machine.Axis;
import rueda.machine.Circumstance;
import rueda.machine.Condition;
import rueda.machine.Machine;
import rueda.machine.Plan;
import rueda.machine.Proof;
import rueda.machine.ScriptStep;
import rueda.proof.Claim;

/**
 * What all runs of a plan say: conditions down, expectations across, in each cell the worst run.
 *
 * @param runs    runs that there were
 * @param failed  those in which not everything held
 * @param worst   number of the worst run
 * @param columns one for each expectation
 * @param rows    of conditions
 * @param remarks what a condition costs, and from where on something does not hold, in words
 */
public record ConditionMap(int runs, int failed, int worst, List<MapColumn> columns, List<MapRow> rows, List<String> remarks) {

    /** Rows into which a range is cut when its values are not given. */
    private static final int BINS = 8;
    private static final int MOMENTS = 20;
    private static final int MOST_REMARKS = 12;

    /**
     * An expectation over all runs.
     *
     * @param sentence what must be true
     * @param failed   runs in which it does not hold
     * @param worst    the run with the least room
     * @param margin   its room, in the unit; null where none was measured
     * @param unit     of room
     */
    public record MapColumn(String sentence, int failed, int worst, Double margin, String unit) {
    }

    /**
     * Runs that have something in common.
     *
     * @param condition what is varied
     * @param value     how
     * @param runs      how many
     * @param cells     one for each expectation
     */
    public record MapRow(String condition, String value, int runs, List<MapCell> cells) {
    }

    /**
     * The worst of them for one expectation.
     *
     * @param run    its number
     * @param holds  it holds there
     * @param failed runs of the row in which it does not
     * @param margin room in its unit, null where none was measured
     * @param share  room as a share of what is allowed, null where there is none
     */
    public record MapCell(int run, boolean holds, int failed, Double margin, Double share) {
    }

    /** @param outcomes at least one */
    public static ConditionMap of(Machine machine, Proof proof, List<Outcome> outcomes) {
        int expectations = proof.expectations().size();
        List<MapColumn> columns = new ArrayList<>();
        for (int e = 0; e < expectations; e++) {
            MapCell worst = cell(outcomes, e);
            Claim claim = Claim.of(proof.expectations().get(e));
            Axis axis = claim.axis() == null ? null : machine.axis(claim.axis()).orElseThrow();
            columns.add(new MapColumn(claim.sentence(axis), worst.failed(), worst.run(), worst.margin(), outcomes.get(0).units().get(e)));
        }
        Outcome worst = outcomes.get(0);
        for (Outcome one : outcomes) {
            worst = one.score() < worst.score() ? one : worst;
        }
        List<MapRow> rows = proof.plan().kind() == Plan.Kind.STOP ? moments(machine, proof, outcomes) : conditions(machine, proof, outcomes);
        return new ConditionMap(outcomes.size(), (int) outcomes.stream().filter(o -> !o.all()).count(), worst.run(), columns, rows, proof.plan().kind() == Plan.Kind.ONE_AT_A_TIME ? new Sensitivity(machine, proof, outcomes).remarks(MOST_REMARKS) : List.of());
    }

    private static MapRow row(String condition, String value, List<Outcome> outcomes) {
        List<MapCell> cells = new ArrayList<>();
        for (int e = 0; e < outcomes.get(0).holds().length; e++) {
            cells.add(cell(outcomes, e));
        }
        return new MapRow(condition, value, outcomes.size(), cells);
    }

    private static MapCell cell(List<Outcome> outcomes, int expectation) {
        Outcome worst = outcomes.get(0);
        int failed = 0;
        for (Outcome one : outcomes) {
            worst = one.score(expectation) < worst.score(expectation) ? one : worst;
            failed += one.holds()[expectation] ? 0 : 1;
        }
        return new MapCell(worst.run(), worst.holds()[expectation], failed, number(worst.margins()[expectation]), number(worst.shares()[expectation]));
    }

    private static Double number(double value) {
        return Double.isNaN(value) ? null : (Double) value;
    }

    /** The document, then each condition by its values, or a range by parts of it. */
    private static List<MapRow> conditions(Machine machine, Proof proof, List<Outcome> outcomes) {
        List<MapRow> rows = new ArrayList<>();
        List<Outcome> nominal = outcomes.stream().filter(o -> o.of().unchanged()).toList();
        if (!nominal.isEmpty()) {
            rows.add(row("as the document says", "", nominal));
        }
        for (int c = 0; c < proof.conditions().size(); c++) {
            int condition = c;
            Condition of = proof.conditions().get(c);
            boolean parts = of.hasRange() && (proof.plan().kind() == Plan.Kind.RANDOM || proof.plan().kind() == Plan.Kind.WORST) && of.to() > of.from();
            IntFunction<String> words = parts ? part -> part(machine, of, part) : null;
            TreeMap<Double, List<Outcome>> groups = new TreeMap<>();
            for (Outcome one : outcomes) {
                double value = one.of().values()[condition];
                if (!Double.isNaN(value)) {
                    groups.computeIfAbsent(parts ? Math.min(BINS - 1, Math.floor((value - of.from()) / (of.to() - of.from()) * BINS)) : value, key -> new ArrayList<>()).add(one);
                }
            }
            groups.forEach((value, group) -> rows.add(row(name(of), words == null ? Prepared.value(machine, of, value) : words.apply(value.intValue()), group)));
        }
        return rows;
    }

    private static String part(Machine machine, Condition of, int part) {
        double step = (of.to() - of.from()) / BINS;
        return Prepared.number(of.from() + part * step) + " to " + Prepared.value(machine, of, of.from() + (part + 1) * step);
    }

    private static String name(Condition condition) {
        return condition.of() == Circumstance.MOMENT ? "sentence " + (condition.sentence() + 1) + " of the script" : !condition.of().ofAxis() ? condition.of().called() : condition.of().called() + (condition.of() == Circumstance.MISTAKE ? " at " : " · ") + condition.axis();
    }

    /** What happened at any moment, by parts of the run. */
    private static List<MapRow> moments(Machine machine, Proof proof, List<Outcome> outcomes) {
        List<MapRow> rows = new ArrayList<>();
        double part = proof.duration() / MOMENTS;
        for (ScriptStep what : machine.stopsAtAnyMoment()) {
            TreeMap<Integer, List<Outcome>> groups = new TreeMap<>();
            outcomes.stream().filter(o -> o.of().happening() != null && o.of().happening().does() == what.does() && Objects.equals(o.of().happening().request(), what.request()))
                    .forEach(o -> groups.computeIfAbsent((int) Math.min(MOMENTS - 1, o.of().happening().time() / part), key -> new ArrayList<>()).add(o));
            groups.forEach((number, group) -> rows.add(row(Prepared.words(what),
                    group.size() == 1 ? Prepared.number(group.get(0).of().happening().time()) + " s" : Prepared.number(group.get(0).of().happening().time()) + " to " + Prepared.number(group.get(group.size() - 1).of().happening().time()) + " s", group)));
        }
        return rows;
    }
}
