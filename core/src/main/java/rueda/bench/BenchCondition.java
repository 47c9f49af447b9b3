package rueda.bench;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import rueda.machine.Mistake;

/**
 * What is wrong on the stand: which mistake, on which axis, from when to when on the bench's clock. Immutable.
 *
 * @param wrong in any order; the same mistake may come and go several times
 */
public record BenchCondition(List<Wrong> wrong) {

    /** Everything is as it should be. */
    public static final BenchCondition SOUND = new BenchCondition(List.of());

    /** Until the end of the bench. */
    public static final long FOR_GOOD = Long.MAX_VALUE;

    /**
     * @param axis name of the axis
     * @param from first instant at which it is wrong, ns on the bench's clock
     * @param to   first instant at which it is right again, ns, after {@code from}; {@link #FOR_GOOD} for never
     */
    public record Wrong(String axis, Mistake mistake, long from, long to) {
        public Wrong {
            if (from < 0 || to <= from) {
                throw new IllegalArgumentException("a mistake from " + from + " ns to " + to + " ns: the end must come after the begin, and the begin not before 0");
            }
        }

        boolean at(long now) {
            return now >= from && now < to;
        }
    }

    public BenchCondition {
        wrong = List.copyOf(wrong);
    }

    /** Wrong from the begin to the end. @param mistakes by name of the axis */
    public static BenchCondition throughout(Map<String, Set<Mistake>> mistakes) {
        return new BenchCondition(mistakes.entrySet().stream().flatMap(e -> e.getValue().stream().sorted().map(m -> new Wrong(e.getKey(), m, 0, FOR_GOOD))).collect(Collectors.toList()));
    }

    /** What is wrong with an axis at an instant, a bit for each mistake. Allocates nothing. @param now ns */
    int mask(String axis, long now) {
        int mask = 0;
        for (int i = 0; i < wrong.size(); i++) {
            Wrong one = wrong.get(i);
            mask |= one.at(now) && one.axis().equals(axis) ? 1 << one.mistake().ordinal() : 0;
        }
        return mask;
    }

    /** The next instant after this one at which something changes, {@link #FOR_GOOD} for none. Allocates nothing. @param now ns */
    long nextChange(long now) {
        long next = FOR_GOOD;
        for (int i = 0; i < wrong.size(); i++) {
            Wrong one = wrong.get(i);
            next = one.from() > now ? Math.min(next, one.from()) : one.to() > now ? Math.min(next, one.to()) : next;
        }
        return next;
    }
}
