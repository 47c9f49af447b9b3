package rueda.proof;

import java.util.BitSet;
import rueda.machine.Expectation;
import rueda.proof.temporal.Formula;

/** While what something has to be so. */
sealed interface Stretch {

    Stretch ALWAYS = new Always();

    static Stretch of(Expectation e) {
        return switch (e.span() == null ? Expectation.Span.ALWAYS : e.span()) {
            case ALWAYS -> ALWAYS;
            case AFTER -> new After(e.within(), e.after());
            case WHILE -> new While(e.when());
        };
    }

    /** Behind what has to be so; empty for always. */
    String words();

    /** The samples that count. */
    BitSet samples(Reading reading);

    /** Why none of them does. */
    String never();

    record Always() implements Stretch {
        @Override
        public String words() {
            return "";
        }

        @Override
        public BitSet samples(Reading reading) {
            BitSet all = new BitSet();
            all.set(0, reading.trace().samples());
            return all;
        }

        @Override
        public String never() {
            return "Nothing was recorded.";
        }
    }

    /** @param seconds after each time the event comes */
    record After(double seconds, String event) implements Stretch {
        @Override
        public String words() {
            return " for " + Words.plain(seconds) + " s after " + event.strip();
        }

        @Override
        public BitSet samples(Reading reading) {
            Formula formula = reading.instant(event);
            int length = (int) Math.max(1, Math.round(seconds / reading.trace().interval()));
            BitSet some = new BitSet();
            for (int k = reading.next(formula, 0); k >= 0; k = reading.next(formula, k + 1)) {
                some.set(k, Math.min(reading.trace().samples(), k + length));
            }
            return some;
        }

        @Override
        public String never() {
            return event.strip() + " never came, so nothing is shown.";
        }
    }

    record While(String condition) implements Stretch {
        @Override
        public String words() {
            return " while " + condition.strip();
        }

        @Override
        public BitSet samples(Reading reading) {
            Formula formula = reading.instant(condition);
            BitSet some = new BitSet();
            for (int k = 0; k < reading.trace().samples(); k++) {
                some.set(k, formula.holds(reading.trace(), k));
            }
            return some;
        }

        @Override
        public String never() {
            return condition.strip() + " never held, so nothing is shown.";
        }
    }
}
