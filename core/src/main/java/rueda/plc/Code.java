package rueda.plc;

/** The kinds of executable code; each closure is built once and allocates nothing when run. */
final class Code {

    static final int GO_ON = 0;
    static final int EXIT_LOOP = 1;
    static final int RETURN = 2;

    private Code() {
    }

    /** The value of a ULINT as the nearest double. */
    static double unsigned(long bits) {
        // Halved so that it fits, with the lost bit kept for the rounding.
        return bits >= 0 ? bits : 2.0 * (bits >>> 1 | bits & 1);
    }

    /** Rounds half to even; a real number beyond 64 bits keeps its lowest 64 bits, no number is 0. */
    static long rounded(double value) {
        if (Math.abs(value) < 0x1p63) {
            return (long) Math.rint(value);
        }
        return Double.isNaN(value) || Double.isInfinite(value) ? 0 : new java.math.BigDecimal(value).toBigInteger().longValue();
    }

    /** Yields a whole number, bit string, TIME or BOOL. */
    interface Whole {
        long value(Frame frame);
    }

    /** Yields a BOOL. */
    interface Condition {
        boolean holds(Frame frame);
    }

    /** Yields a REAL or LREAL. */
    interface Real {
        double value(Frame frame);
    }

    /** Yields a STRING or WSTRING. */
    interface Text {
        String value(Frame frame);
    }

    /** Does something and says how to go on. */
    interface Step {
        int run(Frame frame);
    }

    /** Statements one after the other. */
    static Step sequence(Step[] steps) {
        return switch (steps.length) {
            case 0 -> frame -> GO_ON;
            case 1 -> steps[0];
            case 2 -> {
                Step first = steps[0];
                Step second = steps[1];
                yield frame -> {
                    int signal = first.run(frame);
                    return signal != GO_ON ? signal : second.run(frame);
                };
            }
            default -> frame -> {
                for (Step step : steps) {
                    int signal = step.run(frame);
                    if (signal != GO_ON) {
                        return signal;
                    }
                }
                return GO_ON;
            };
        };
    }
}
