package rueda.machine;

/**
 * One terminal of the station and what is wired to it.
 *
 * @param name           as printed on the station, such as I1
 * @param kind           what it is
 * @param function       what it is for
 * @param normallyClosed inputs: the contact is closed at rest, so that a broken wire looks like a tripped switch;
 *                       outputs: low when the function is true
 * @param filterMicros   inputs: a change counts when it has stood so long, µs, 0 to 100 000
 */
public record Terminal(String name, Kind kind, Function function, boolean normallyClosed, int filterMicros) {

    /** Kinds of terminal, with the time the hardware itself takes (common practice, no source). */
    public enum Kind {
        INPUT(250), FAST_INPUT(2), OUTPUT(250),
        /** Takes the torque away in hardware (IEC 61800-5-2, safe torque off). */
        SAFE_TORQUE_OFF(250),
        /** −10 to 10 V, 12 bits. */
        ANALOGUE_INPUT(250),
        /** The encoder on the load. */
        SECOND_ENCODER(0);

        private final int hardwareMicros;

        Kind(int hardwareMicros) {
            this.hardwareMicros = hardwareMicros;
        }

        /** µs from the edge at the terminal to the signal inside. */
        public int hardwareMicros() {
            return hardwareMicros;
        }

        /** It has a level, high or low, that comes from outside. */
        public boolean digitalInput() {
            return this == INPUT || this == FAST_INPUT || this == SAFE_TORQUE_OFF;
        }
    }

    /**
     * What a terminal is for. The functions of inputs stand in object 2033h, each with a bit of its own, so that a
     * program can read them whatever terminal they are wired to.
     */
    public enum Function {
        NONE("not used", Group.ANY, -1),
        NEGATIVE_LIMIT("negative limit", Group.INPUT, 0), POSITIVE_LIMIT("positive limit", Group.INPUT, 1), REFERENCE_CAM("reference cam", Group.INPUT, 2),
        ENABLE("enable", Group.INPUT, 3), QUICK_STOP("quick stop", Group.INPUT, 4), FAULT_RESET("fault reset", Group.INPUT, 5),
        PROBE_1("probe 1", Group.INPUT, 6), PROBE_2("probe 2", Group.INPUT, 7),
        JOG_NEGATIVE("jog negative", Group.INPUT, 8), JOG_POSITIVE("jog positive", Group.INPUT, 9),
        CUE("cue", Group.INPUT, 10), TRIM_BACK("trim back", Group.INPUT, 11), TRIM_FORWARD("trim forward", Group.INPUT, 12),
        SELECTOR_1("selector 1", Group.INPUT, 16), SELECTOR_2("selector 2", Group.INPUT, 17), SELECTOR_4("selector 4", Group.INPUT, 18),
        SELECTOR_8("selector 8", Group.INPUT, 19), SELECTOR_16("selector 16", Group.INPUT, 20), SELECTOR_32("selector 32", Group.INPUT, 21),
        READY("ready", Group.OUTPUT, -1), REFERENCED("referenced", Group.OUTPUT, -1), IN_POSITION("in position", Group.OUTPUT, -1), IN_ZONE("in zone", Group.OUTPUT, -1),
        MOVING("moving", Group.OUTPUT, -1), FAULT("fault", Group.OUTPUT, -1), BRAKE("brake", Group.OUTPUT, -1),
        SAFE_TORQUE_OFF("safe torque off", Group.SAFE, -1), TORQUE("torque", Group.ANALOGUE, -1), LOAD_ENCODER("encoder on the load", Group.ENCODER, -1);

        private enum Group { ANY, INPUT, OUTPUT, SAFE, ANALOGUE, ENCODER }

        private final String words;
        private final Group group;
        private final int bit;

        Function(String words, Group group, int bit) {
            this.words = words;
            this.group = group;
            this.bit = bit;
        }

        public String words() {
            return words;
        }

        /** Bit of object 2033h, or −1. */
        public int bit() {
            return bit;
        }

        /** The drive only passes it on: what it does is up to the program. */
        public boolean forProgram() {
            return bit >= CUE.bit;
        }

        /** Can stand at a terminal of this kind. */
        public boolean fits(Kind kind) {
            return group == Group.ANY && kind != Kind.SAFE_TORQUE_OFF || group == switch (kind) {
                case INPUT, FAST_INPUT -> Group.INPUT;
                case OUTPUT -> Group.OUTPUT;
                case SAFE_TORQUE_OFF -> Group.SAFE;
                case ANALOGUE_INPUT -> Group.ANALOGUE;
                case SECOND_ENCODER -> Group.ENCODER;
            };
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
