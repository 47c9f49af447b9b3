package rueda.proof.repeat;

import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import rueda.machine.Condition;
import rueda.machine.Machine;
import rueda.machine.Plan;
import rueda.machine.Proof;
import rueda.machine.ScriptStep;

/** The runs of a plan whose cases are known before the first of them runs. A search makes its own: {@link WorstSearch}. */
interface Cases {

    int size();

    /** @param run 0 to {@link #size()} − 1 */
    Case at(int run);

    /** @throws IllegalArgumentException for a search */
    static Cases of(Machine machine, Proof proof) {
        return proof.plan().kind() == Plan.Kind.STOP ? moments(proof, machine.stopsAtAnyMoment()) : of(proof);
    }

    private static Cases moments(Proof proof, List<ScriptStep> happenings) {
        return new Moments(proof.conditions().size(), Math.max(1, (int) Math.floor(proof.duration() / proof.plan().every() + 1e-9)), proof.plan().every(), happenings);
    }

    /** Of a machine whose guards nobody asks. @throws IllegalArgumentException for a search */
    static Cases of(Proof proof) {
        Plan plan = proof.plan();
        List<Condition> conditions = proof.conditions();
        return switch (plan.kind()) {
            case ONE_AT_A_TIME -> oneAtATime(conditions);
            case ALL_COMBINATIONS -> new Combinations(conditions, plan.runs());
            case RANDOM -> conditions.isEmpty() ? new Listed(List.of(Case.nominal(0))) : new Draws(conditions, plan.runs(), plan.seed());
            case STOP -> moments(proof, List.of(ScriptStep.stop(), ScriptStep.powerLoss()));
            case WORST -> throw new IllegalArgumentException("a search finds its cases while it runs");
        };
    }

    /** As the document says, then each value of each condition alone. */
    private static Cases oneAtATime(List<Condition> conditions) {
        List<Case> all = new ArrayList<>();
        Case nominal = Case.nominal(conditions.size());
        all.add(nominal);
        for (int c = 0; c < conditions.size(); c++) {
            for (int v = 0; v < conditions.get(c).size(); v++) {
                all.add(nominal.with(c, conditions.get(c).value(v)));
            }
        }
        return new Listed(all);
    }

    record Listed(List<Case> cases) implements Cases {
        @Override
        public int size() {
            return cases.size();
        }

        @Override
        public Case at(int run) {
            return cases.get(run);
        }
    }

    /** Every value of each with every value of all others: the last condition changes fastest. @param most runs */
    record Combinations(List<Condition> conditions, int most) implements Cases {
        @Override
        public int size() {
            long all = 1;
            for (Condition condition : conditions) {
                all = Math.min(most, all * Math.max(1, condition.size()));
            }
            return (int) all;
        }

        @Override
        public Case at(int run) {
            Case next = Case.nominal(conditions.size());
            long left = run;
            for (int c = conditions.size() - 1; c >= 0; c--) {
                int values = Math.max(1, conditions.get(c).size());
                if (conditions.get(c).size() > 0) {
                    next = next.with(c, conditions.get(c).value((int) (left % values)));
                }
                left /= values;
            }
            return next;
        }
    }

    /** Drawn evenly: from a range anything in it, else one of the values. */
    record Draws(List<Condition> conditions, int size, long seed) implements Cases {
        @Override
        public Case at(int run) {
            SplittableRandom random = new SplittableRandom(seed * 0x9E3779B97F4A7C15L + run);
            Case next = Case.nominal(conditions.size());
            for (int c = 0; c < conditions.size(); c++) {
                /* 53 bits, as the documentation of Random.nextDouble has them */
                next = next.with(c, drawn(conditions.get(c), (random.nextLong() >>> 11) * 0x1.0p-53));
            }
            return next;
        }
    }

    /** The value of a condition at a place. @param share of the way through its range, or its values, 0 to 1 */
    static double drawn(Condition condition, double share) {
        return condition.hasRange() ? condition.from() + (condition.to() - condition.from()) * share : condition.value(Math.min(condition.size() - 1, (int) (share * condition.size())));
    }

    /** Each thing that can happen at each moment, one after the other. @param moments of each  @param every s */
    record Moments(int conditions, int moments, double every, List<ScriptStep> happenings) implements Cases {
        @Override
        public int size() {
            return happenings.size() * moments;
        }

        @Override
        public Case at(int run) {
            double moment = (run % moments) * every;
            return new Case(Case.nominal(conditions).values(), happenings.get(run / moments).at(moment));
        }
    }
}
