package rueda.proof.temporal;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import rueda.proof.temporal.Formula.Compared;
import rueda.proof.temporal.Formula.Comparison;
import rueda.proof.temporal.Term.Constant;
import rueda.proof.temporal.Term.Signal;

/** Sentences over time against an evaluator on brute force, written from the definitions in the package (Donzé and Maler 2010) alone. */
class FormulaTest {

    /** Two signals of small whole numbers, a sample a second. */
    private record Samples(double[] first, double[] second) implements Trace {
        @Override
        public int samples() {
            return first.length;
        }

        @Override
        public double interval() {
            return 1;
        }

        @Override
        public double value(int signal, int sample) {
            return signal == 0 ? first[sample] : second[sample];
        }
    }

    // ---- brute force

    /** How far ahead a sentence looks, samples. */
    private static int horizon(Formula f) {
        if (f instanceof Formula.Not not) {
            return horizon(not.of());
        } else if (f instanceof Formula.And and) {
            return Math.max(horizon(and.left()), horizon(and.right()));
        } else if (f instanceof Formula.Or or) {
            return Math.max(horizon(or.left()), horizon(or.right()));
        } else if (f instanceof Formula.Rises rises) {
            return horizon(rises.of());
        } else if (f instanceof Formula.Globally globally) {
            return ahead(globally.window()) + horizon(globally.of());
        } else if (f instanceof Formula.Eventually eventually) {
            return ahead(eventually.window()) + horizon(eventually.of());
        } else if (f instanceof Formula.Until until) {
            return ahead(until.window()) + Math.max(horizon(until.first()), horizon(until.second()));
        }
        return 0;
    }

    private static int ahead(Window w) {
        return (int) (Double.isInfinite(w.to()) ? w.from() : w.to());
    }

    /** Last instant that a window reaches from k on. @param length instants at which what is inside can be judged */
    private static int last(Window w, int k, int length) {
        return Double.isInfinite(w.to()) ? length - 1 : k + (int) w.to();
    }

    private static double room(Formula f, Samples trace, int k) {
        int n = trace.samples();
        if (f instanceof Compared c) {
            return c.comparison().room(c.left().at(trace, k), c.right().at(trace, k));
        } else if (f instanceof Formula.Bit bit) {
            return bit.of().at(trace, k) != 0 ? Double.POSITIVE_INFINITY : Double.NEGATIVE_INFINITY;
        } else if (f instanceof Formula.Not not) {
            return -room(not.of(), trace, k);
        } else if (f instanceof Formula.And and) {
            return Math.min(room(and.left(), trace, k), room(and.right(), trace, k));
        } else if (f instanceof Formula.Or or) {
            return Math.max(room(or.left(), trace, k), room(or.right(), trace, k));
        } else if (f instanceof Formula.Rises rises) {
            return k > 0 && holds(rises.of(), trace, k) && !holds(rises.of(), trace, k - 1) ? Double.POSITIVE_INFINITY : Double.NEGATIVE_INFINITY;
        } else if (f instanceof Formula.Globally g) {
            double least = Double.POSITIVE_INFINITY;
            for (int i = k + (int) g.window().from(); i <= last(g.window(), k, n - horizon(g.of())); i++) {
                least = Math.min(least, room(g.of(), trace, i));
            }
            return least;
        } else if (f instanceof Formula.Eventually e) {
            double most = Double.NEGATIVE_INFINITY;
            for (int i = k + (int) e.window().from(); i <= last(e.window(), k, n - horizon(e.of())); i++) {
                most = Math.max(most, room(e.of(), trace, i));
            }
            return most;
        }
        Formula.Until u = (Formula.Until) f;
        double best = Double.NEGATIVE_INFINITY;
        for (int i = k + (int) u.window().from(); i <= last(u.window(), k, n - Math.max(horizon(u.first()), horizon(u.second()))); i++) {
            double least = room(u.second(), trace, i);
            for (int j = k; j < i; j++) {
                least = Math.min(least, room(u.first(), trace, j));
            }
            best = Math.max(best, least);
        }
        return best;
    }

    /** The same without numbers: whether it holds (Maler and Nickovic 2004). */
    private static boolean holds(Formula f, Samples trace, int k) {
        int n = trace.samples();
        if (f instanceof Compared c) {
            double l = c.left().at(trace, k);
            double r = c.right().at(trace, k);
            return switch (c.comparison()) {
                case LESS -> l < r;
                case AT_MOST -> l <= r;
                case GREATER -> l > r;
                case AT_LEAST -> l >= r;
                case EQUAL -> l == r;
                case DIFFERENT -> l != r;
            };
        } else if (f instanceof Formula.Bit bit) {
            return bit.of().at(trace, k) != 0;
        } else if (f instanceof Formula.Not not) {
            return !holds(not.of(), trace, k);
        } else if (f instanceof Formula.And and) {
            return holds(and.left(), trace, k) && holds(and.right(), trace, k);
        } else if (f instanceof Formula.Or or) {
            return holds(or.left(), trace, k) || holds(or.right(), trace, k);
        } else if (f instanceof Formula.Rises rises) {
            return k > 0 && holds(rises.of(), trace, k) && !holds(rises.of(), trace, k - 1);
        } else if (f instanceof Formula.Globally g) {
            for (int i = k + (int) g.window().from(); i <= last(g.window(), k, n - horizon(g.of())); i++) {
                if (!holds(g.of(), trace, i)) {
                    return false;
                }
            }
            return true;
        } else if (f instanceof Formula.Eventually e) {
            for (int i = k + (int) e.window().from(); i <= last(e.window(), k, n - horizon(e.of())); i++) {
                if (holds(e.of(), trace, i)) {
                    return true;
                }
            }
            return false;
        }
        Formula.Until u = (Formula.Until) f;
        boolean still = true;
        for (int i = k; i <= last(u.window(), k, n - Math.max(horizon(u.first()), horizon(u.second()))) && still; i++) {
            if (i >= k + u.window().from() && holds(u.second(), trace, i)) {
                return true;
            }
            still = holds(u.first(), trace, i);
        }
        return false;
    }

    // ---- any sentence, any trace

    @Provide
    Arbitrary<Samples> traces() {
        Arbitrary<Double> value = Arbitraries.integers().between(-3, 3).map(Integer::doubleValue);
        return Arbitraries.integers().between(1, 14).flatMap(n -> Combinators.combine(value.list().ofSize(n), value.list().ofSize(n)).as((a, b) -> new Samples(array(a), array(b))));
    }

    private static double[] array(List<Double> values) {
        return values.stream().mapToDouble(Double::doubleValue).toArray();
    }

    private static Arbitrary<Window> windows() {
        return Combinators.combine(Arbitraries.integers().between(0, 3), Arbitraries.integers().between(0, 4)).as((from, more) -> new Window(from, more == 4 ? Double.POSITIVE_INFINITY : from + more));
    }

    private static Arbitrary<Formula> atoms() {
        Arbitrary<Formula> compared = Combinators.combine(Arbitraries.integers().between(0, 1), Arbitraries.of(Comparison.values()), Arbitraries.integers().between(-2, 2), Arbitraries.of(true, false))
                .as((s, c, v, other) -> new Compared(new Signal(s), c, other ? new Signal(1 - s) : new Constant(v), s + " " + c + " " + (other ? "other" : v), ""));
        Arbitrary<Formula> bit = Arbitraries.integers().between(0, 1).map(s -> new Formula.Bit(new Signal(s), s + " bit"));
        return Arbitraries.oneOf(compared, compared, bit);
    }

    private static Arbitrary<Formula> formulas(int depth) {
        if (depth == 0) {
            return atoms();
        }
        Arbitrary<Formula> inner = Arbitraries.lazy(() -> formulas(depth - 1));
        return Arbitraries.oneOf(List.of(atoms(), inner.map(Formula.Not::new), inner.map(Formula.Rises::new), Combinators.combine(inner, inner).as(Formula.And::new), Combinators.combine(inner, inner).as(Formula.Or::new),
                Combinators.combine(windows(), inner).as(Formula.Globally::new), Combinators.combine(windows(), inner).as(Formula.Eventually::new), Combinators.combine(inner, windows(), inner).as(Formula.Until::new)));
    }

    @Provide
    Arbitrary<Formula> sentences() {
        return formulas(3);
    }

    @Property(tries = 4000)
    void roomIsWhatTheDefinitionSays(@ForAll("sentences") Formula f, @ForAll("traces") Samples trace) {
        Judged judged = f.judge(trace);
        assertThat(judged.length()).isEqualTo(Math.max(0, trace.samples() - horizon(f)));
        for (int k = 0; k < judged.length(); k++) {
            assertThat(judged.room(k)).as("%s at %d", f, k).isEqualTo(room(f, trace, k));
            assertThat(judged.room(k) > 0).as("%s at %d", f, k).isEqualTo(holds(f, trace, k));
            assertThat(judged.room(k)).isNotEqualTo(0);
        }
    }

    /** What decided has the very room, with either sign, at the sample that is named. */
    @Property(tries = 4000)
    void theDecisionHasTheRoom(@ForAll("sentences") Formula f, @ForAll("traces") Samples trace) {
        Judged judged = f.judge(trace);
        for (int k = 0; k < judged.length(); k++) {
            Decision decision = judged.decision(k);
            /* that nothing has come about at the first sample is nobody's doing */
            boolean decided = Double.isFinite(judged.room(k));
            assertThat(!decided || Math.abs(roomOf(decision.by(), trace, decision.sample())) == Math.abs(judged.room(k))).as("%s at %d by %s", f, k, decision).isTrue();
        }
    }

    /** @param atom as {@link #atoms} writes it */
    private static double roomOf(String atom, Samples trace, int sample) {
        String[] parts = atom.split(" ");
        int signal = Integer.parseInt(parts[0]);
        double value = trace.value(signal, sample);
        return parts[1].equals("bit") ? value != 0 ? Double.POSITIVE_INFINITY : Double.NEGATIVE_INFINITY
                : Comparison.valueOf(parts[1]).room(value, parts[2].equals("other") ? trace.value(1 - signal, sample) : Double.parseDouble(parts[2]));
    }

    // ---- by hand

    private static final Samples RAMP = new Samples(new double[] {0, 1, 2, 3, 4, 5, 4, 3, 2, 1}, new double[] {0, 0, 1, 1, 0, 0, 0, 1, 0, 0});

    private static Formula below(double limit) {
        return new Compared(new Signal(0), Comparison.LESS, new Constant(limit), "x < " + limit, "mm");
    }

    @Test
    void alwaysHasTheLeastRoom() {
        Judged judged = new Formula.Globally(Window.ALWAYS, below(7)).judge(RAMP);
        assertThat(judged.room(0)).isEqualTo(2);
        assertThat(judged.decision(0)).isEqualTo(new Decision(5, "x < 7.0", "mm"));
    }

    /** Whenever the bit comes on, within 3 s the signal is below 2: it comes on at 2 and at 7; after 2 it does not come down. */
    @Test
    void wheneverThenWithin() {
        Formula whenever = new Formula.Globally(Window.ALWAYS, new Formula.Or(new Formula.Not(new Formula.Rises(new Formula.Bit(new Signal(1), "b"))), new Formula.Eventually(new Window(0, 2), below(2))));
        Judged judged = whenever.judge(RAMP);
        assertThat(judged.length()).isEqualTo(8);
        assertThat(judged.room(0)).as("2 < 2 does not hold, by nothing").isEqualTo(-Double.MIN_VALUE);
        assertThat(judged.decision(0)).isEqualTo(new Decision(2, "x < 2.0", "mm"));
        assertThat(judged.room(3)).as("from 3 on only the one at 7 counts").isEqualTo(1);
    }

    @Test
    void aTraceThatIsTooShortJudgesNothing() {
        assertThat(new Formula.Globally(new Window(0, 10), below(7)).judge(RAMP).length()).isZero();
        assertThat(new Formula.Globally(new Window(0, 9), below(7)).judge(RAMP).length()).isEqualTo(1);
        assertThat(new Formula.Until(below(7), new Window(3, 1e9), below(1)).judge(RAMP).length()).isZero();
    }
}
