package rueda.proof.temporal;

/** A number at every sample: what comparisons compare. Working it out allocates nothing. */
public sealed interface Term {

    double at(Trace trace, int sample);

    /** Always the same. */
    record Constant(double value) implements Term {
        @Override
        public double at(Trace trace, int sample) {
            return value;
        }
    }

    /** A signal. @param number of it in the trace */
    record Signal(int number) implements Term {
        @Override
        public double at(Trace trace, int sample) {
            return trace.value(number, sample);
        }
    }

    /** What is made of one number. */
    enum Function {
        MINUS, ABS, SQRT;

        double of(double value) {
            return switch (this) {
                case MINUS -> -value;
                case ABS -> Math.abs(value);
                case SQRT -> Math.sqrt(value);
            };
        }
    }

    record Applied(Function function, Term of) implements Term {
        @Override
        public double at(Trace trace, int sample) {
            return function.of(of.at(trace, sample));
        }
    }

    /** What is made of two numbers. */
    enum Operation {
        PLUS, MINUS, TIMES, DIVIDED, MIN, MAX;

        double of(double left, double right) {
            return switch (this) {
                case PLUS -> left + right;
                case MINUS -> left - right;
                case TIMES -> left * right;
                case DIVIDED -> left / right;
                case MIN -> Math.min(left, right);
                case MAX -> Math.max(left, right);
            };
        }
    }

    record Combined(Operation operation, Term left, Term right) implements Term {
        @Override
        public double at(Trace trace, int sample) {
            return operation.of(left.at(trace, sample), right.at(trace, sample));
        }
    }
}
