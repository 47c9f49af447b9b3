package rueda.proof.temporal;

import java.util.Arrays;

/** A sentence of signal temporal logic; see the package for what each one means. */
public sealed interface Formula {

    /** Judges it at every sample at which that can be done. */
    Judged judge(Trace trace);

    /** It speaks of one instant: comparisons and bits, joined by and, or, not. */
    boolean instant();

    /** Whether it holds at one sample. Allocates nothing. Only of what is {@link #instant}. */
    boolean holds(Trace trace, int sample);

    /** What looks at other instants than one. */
    sealed interface OverTime extends Formula permits Rises, Globally, Eventually, Until {
        @Override
        default boolean instant() {
            return false;
        }

        @Override
        default boolean holds(Trace trace, int sample) {
            throw new IllegalStateException("what happens over time has no value at one instant");
        }
    }

    /** How two numbers compare. */
    enum Comparison {
        LESS, AT_MOST, GREATER, AT_LEAST, EQUAL, DIFFERENT;

        /** @return positive exactly when it holds, never 0 */
        double room(double left, double right) {
            if (Double.isNaN(left) || Double.isNaN(right)) {
                return this == DIFFERENT ? Double.POSITIVE_INFINITY : Double.NEGATIVE_INFINITY;
            }
            double more = left == right ? 0 : left - right;
            return switch (this) {
                case LESS -> more == 0 ? -Double.MIN_VALUE : -more;
                case AT_MOST -> more == 0 ? Double.MIN_VALUE : -more;
                case GREATER -> more == 0 ? -Double.MIN_VALUE : more;
                case AT_LEAST -> more == 0 ? Double.MIN_VALUE : more;
                case EQUAL -> more == 0 ? Double.MIN_VALUE : -Math.abs(more);
                case DIFFERENT -> more == 0 ? -Double.MIN_VALUE : Math.abs(more);
            };
        }
    }

    /** Two numbers compare so. @param written as its author wrote it  @param unit of both, empty for none */
    record Compared(Term left, Comparison comparison, Term right, String written, String unit) implements Formula {
        @Override
        public boolean instant() {
            return true;
        }

        @Override
        public boolean holds(Trace trace, int sample) {
            return comparison.room(left.at(trace, sample), right.at(trace, sample)) > 0;
        }

        @Override
        public Judged judge(Trace trace) {
            double[] rooms = new double[trace.samples()];
            for (int k = 0; k < rooms.length; k++) {
                rooms[k] = comparison.room(left.at(trace, k), right.at(trace, k));
            }
            return atom(rooms, written, unit);
        }
    }

    /** A bit is on. */
    record Bit(Term of, String written) implements Formula {
        @Override
        public boolean instant() {
            return true;
        }

        @Override
        public boolean holds(Trace trace, int sample) {
            return of.at(trace, sample) != 0;
        }

        @Override
        public Judged judge(Trace trace) {
            double[] rooms = new double[trace.samples()];
            for (int k = 0; k < rooms.length; k++) {
                rooms[k] = of.at(trace, k) != 0 ? Double.POSITIVE_INFINITY : Double.NEGATIVE_INFINITY;
            }
            return atom(rooms, written, "");
        }
    }

    private static Judged atom(double[] rooms, String written, String unit) {
        return new Judged(rooms) {
            @Override
            public Decision decision(int sample) {
                return new Decision(sample, written, unit);
            }
        };
    }

    record Not(Formula of) implements Formula {
        @Override
        public boolean instant() {
            return of.instant();
        }

        @Override
        public boolean holds(Trace trace, int sample) {
            return !of.holds(trace, sample);
        }

        @Override
        public Judged judge(Trace trace) {
            Judged inner = of.judge(trace);
            return new Judged(Extremes.turned(inner.rooms())) {
                @Override
                public Decision decision(int sample) {
                    return inner.decision(sample);
                }
            };
        }
    }

    record And(Formula left, Formula right) implements Formula {
        @Override
        public boolean instant() {
            return left.instant() && right.instant();
        }

        @Override
        public boolean holds(Trace trace, int sample) {
            return left.holds(trace, sample) && right.holds(trace, sample);
        }

        @Override
        public Judged judge(Trace trace) {
            return either(left.judge(trace), right.judge(trace), 1);
        }
    }

    record Or(Formula left, Formula right) implements Formula {
        @Override
        public boolean instant() {
            return left.instant() && right.instant();
        }

        @Override
        public boolean holds(Trace trace, int sample) {
            return left.holds(trace, sample) || right.holds(trace, sample);
        }

        @Override
        public Judged judge(Trace trace) {
            return either(left.judge(trace), right.judge(trace), -1);
        }
    }

    /** @param sign 1 for the lesser of both, −1 for the greater */
    private static Judged either(Judged one, Judged other, int sign) {
        double[] rooms = new double[Math.min(one.length(), other.length())];
        for (int k = 0; k < rooms.length; k++) {
            rooms[k] = sign * Math.min(sign * one.room(k), sign * other.room(k));
        }
        return new Judged(rooms) {
            @Override
            public Decision decision(int sample) {
                return sign * one.room(sample) <= sign * other.room(sample) ? one.decision(sample) : other.decision(sample);
            }
        };
    }

    /**
     * It has just come to hold: it does, and did not a sample before. At the first sample nothing has just come about. An event has come about or
     * not, like a bit: how nearly is no room of what is expected after it.
     */
    record Rises(Formula of) implements OverTime {
        @Override
        public Judged judge(Trace trace) {
            Judged inner = of.judge(trace);
            double[] rooms = new double[inner.length()];
            for (int k = 0; k < rooms.length; k++) {
                rooms[k] = k > 0 && inner.room(k) > 0 && inner.room(k - 1) < 0 ? Double.POSITIVE_INFINITY : Double.NEGATIVE_INFINITY;
            }
            return new Judged(rooms) {
                @Override
                public Decision decision(int sample) {
                    return inner.decision(sample);
                }
            };
        }
    }

    /** All the time from … to … from now. */
    record Globally(Window window, Formula of) implements OverTime {
        @Override
        public Judged judge(Trace trace) {
            return ahead(of.judge(trace), window, trace, 1);
        }
    }

    /** At some time from … to … from now. */
    record Eventually(Window window, Formula of) implements OverTime {
        @Override
        public Judged judge(Trace trace) {
            return ahead(of.judge(trace), window, trace, -1);
        }
    }

    /** @param sign 1 for the least ahead, −1 for the greatest */
    private static Judged ahead(Judged inner, Window window, Trace trace, int sign) {
        double[] values = sign > 0 ? inner.rooms() : Extremes.turned(inner.rooms());
        int first = window.first(trace);
        double[] least = window.endless() ? Extremes.suffix(values, first) : Extremes.sliding(values, first, window.last(trace));
        return new Judged(sign > 0 ? least : Extremes.turned(least)) {
            @Override
            public Decision decision(int sample) {
                int last = window.endless() ? inner.length() - 1 : sample + window.last(trace);
                return inner.decision(Extremes.placeOfLeast(values, sample + first, last));
            }
        };
    }

    /** The first one holds until the second one does, which it does at some time from … to … from now. */
    record Until(Formula first, Window window, Formula second) implements OverTime {
        @Override
        public Judged judge(Trace trace) {
            Judged held = first.judge(trace);
            Judged comes = second.judge(trace);
            int length = Math.min(held.length(), comes.length());
            double[] holds = Arrays.copyOf(held.rooms(), length);
            double[] then = Arrays.copyOf(comes.rooms(), length);
            int from = window.first(trace);
            double[] rooms = sinceFrom(holds, then, from);
            if (!window.endless()) {
                /* φ U[a,b] ψ = ◇[a,b] ψ ∧ φ U[a,∞) ψ (Donzé, Ferrère and Maler, Efficient Robust Monitoring for STL, 2013, lemma 2; from memory) */
                double[] inTime = Extremes.turned(Extremes.sliding(Extremes.turned(then), from, window.last(trace)));
                rooms = Arrays.copyOf(rooms, Math.min(rooms.length, inTime.length));
                for (int k = 0; k < rooms.length; k++) {
                    rooms[k] = Math.min(rooms[k], inTime[k]);
                }
            }
            return new Judged(rooms) {
                @Override
                public Decision decision(int sample) {
                    return decides(held, comes, sample, from, window.endless() ? length - 1 : sample + window.last(trace));
                }
            };
        }

        /** φ U[a,∞) ψ = □[0,a) φ ∧ (φ U ψ) from a on; φ U ψ goes backward: max(ψ(k), min(φ(k), that of k + 1)). */
        private static double[] sinceFrom(double[] holds, double[] then, int from) {
            double[] until = new double[holds.length];
            for (int k = holds.length - 1; k >= 0; k--) {
                until[k] = k == holds.length - 1 ? then[k] : Math.max(then[k], Math.min(holds[k], until[k + 1]));
            }
            if (from == 0) {
                return until;
            }
            double[] before = Extremes.sliding(holds, 0, from - 1);
            double[] rooms = new double[Math.max(0, holds.length - from)];
            for (int k = 0; k < rooms.length; k++) {
                rooms[k] = Math.min(before[k], until[k + from]);
            }
            return rooms;
        }

        /** The instant that gives the most room, and there the lesser of both sides. */
        private static Decision decides(Judged held, Judged comes, int sample, int from, int last) {
            double lowest = Double.POSITIVE_INFINITY;
            int lowestAt = sample;
            double best = Double.NEGATIVE_INFINITY;
            Decision decision = null;
            for (int k = sample; k <= last; k++) {
                double room = Math.min(comes.room(k), lowest);
                if (k >= sample + from && (decision == null || room > best)) {
                    best = room;
                    decision = comes.room(k) <= lowest ? comes.decision(k) : held.decision(lowestAt);
                }
                if (held.room(k) < lowest) {
                    lowest = held.room(k);
                    lowestAt = k;
                }
            }
            return decision;
        }
    }
}
