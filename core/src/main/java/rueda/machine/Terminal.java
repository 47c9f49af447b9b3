package rueda.machine;

/**
 * One terminal of the station and what is wired to it.
 *
 * @param name           as printed on the station, such as I1
 * @param kind           what it is
 * @param function       what it is for
 * @param normallyClosed inputs: the contact is closed at rest, so that a broken wire looks like a tripped switch
 * @param filterMicros   inputs: a change counts when it has stood so long, µs, 0 to 100 000
 */
public record Terminal(String name, Kind kind, Function function, boolean normallyClosed, int filterMicros) {

    /** Kinds of terminal, with the time the hardware itself takes (common practice, no source). */
    public enum Kind {
        INPUT(250), FAST_INPUT(2), OUTPUT(250);

        private final int hardwareMicros;

        Kind(int hardwareMicros) {
            this.hardwareMicros = hardwareMicros;
        }

        /** µs from the edge at the terminal to the signal inside. */
        public int hardwareMicros() {
            return hardwareMicros;
        }
    }

    /** What a terminal is for. */
    public enum Function {
        NONE("not used", true, true),
        NEGATIVE_LIMIT("negative limit", true, false), POSITIVE_LIMIT("positive limit", true, false), REFERENCE_CAM("reference cam", true, false),
        ENABLE("enable", true, false), QUICK_STOP("quick stop", true, false), FAULT_RESET("fault reset", true, false),
        READY("ready", false, true), REFERENCED("referenced", false, true), MOVING("moving", false, true), FAULT("fault", false, true), BRAKE("brake", false, true);

        private final String words;
        private final boolean input;
        private final boolean output;

        Function(String words, boolean input, boolean output) {
            this.words = words;
            this.input = input;
            this.output = output;
        }

        public String words() {
            return words;
        }

        /** Can stand at a terminal of this kind. */
        public boolean fits(Kind kind) {
            return kind == Kind.OUTPUT ? output : input;
        }
    }

    /** µs from the edge at the terminal until the function answers: hardware and filter. */
    public int responseMicros() {
        return kind.hardwareMicros() + filterMicros;
    }

    public Terminal with(Function changed) {
        return new Terminal(name, kind, changed, normallyClosed, filterMicros);
    }
}
