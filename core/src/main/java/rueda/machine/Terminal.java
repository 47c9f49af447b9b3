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
        CUE("cue 1", Group.INPUT, 10), TRIM_BACK("trim back", Group.INPUT, 11), TRIM_FORWARD("trim forward", Group.INPUT, 12),
        SELECTOR_1("selector 1", Group.INPUT, 16), SELECTOR_2("selector 2", Group.INPUT, 17), SELECTOR_4("selector 4", Group.INPUT, 18),
        SELECTOR_8("selector 8", Group.INPUT, 19), SELECTOR_16("selector 16", Group.INPUT, 20), SELECTOR_32("selector 32", Group.INPUT, 21),
        CUE_2("cue 2", Group.INPUT, 22), CUE_3("cue 3", Group.INPUT, 23), CUE_4("cue 4", Group.INPUT, 24), FOLLOW("follow", Group.INPUT, 25),
        READY("ready", Group.OUTPUT, -1), REFERENCED("referenced", Group.OUTPUT, -1), IN_POSITION("in position", Group.OUTPUT, -1),
        ZONE_1("zone 1", Group.OUTPUT, -1), ZONE_2("zone 2", Group.OUTPUT, -1), ZONE_3("zone 3", Group.OUTPUT, -1), ZONE_4("zone 4", Group.OUTPUT, -1),
        ZONE_5("zone 5", Group.OUTPUT, -1), ZONE_6("zone 6", Group.OUTPUT, -1), ZONE_7("zone 7", Group.OUTPUT, -1), ZONE_8("zone 8", Group.OUTPUT, -1),
        LIST_1("list output 1", Group.OUTPUT, -1), LIST_2("list output 2", Group.OUTPUT, -1), LIST_3("list output 3", Group.OUTPUT, -1), LIST_4("list output 4", Group.OUTPUT, -1),
        SET_OVER_BUS("set over the bus", Group.OUTPUT, -1),
        MOVING("moving", Group.OUTPUT, -1), FAULT("fault", Group.OUTPUT, -1), BRAKE("brake", Group.OUTPUT, -1),
        SAFE_TORQUE_OFF("safe torque off", Group.SAFE, -1), TORQUE("torque", Group.ANALOGUE, -1), LOAD_ENCODER("encoder on the load", Group.ENCODER, -1), MASTER_ENCODER("master encoder", Group.ENCODER, -1);

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

        /** Nothing in the drive itself acts on it: the program reads it, or a rule of the move list names it. */
        public boolean forProgram() {
            return bit >= CUE.bit;
        }

        /** An edge of it can start or change motion. */
        public boolean cue() {
            return switch (this) {
                case CUE, CUE_2, CUE_3, CUE_4, PROBE_1, PROBE_2, REFERENCE_CAM -> true;
                default -> false;
            };
        }

        /** It is one of the inputs that say the number of an entry in binary. */
        public boolean selector() {
            return bit >= SELECTOR_1.bit && bit <= SELECTOR_32.bit;
        }

        /** The zone that an output shows, from 0; −1 for none. */
        public int zone() {
            return ordinal() >= ZONE_1.ordinal() && ordinal() <= ZONE_8.ordinal() ? ordinal() - ZONE_1.ordinal() : -1;
        }

        /** The output of the list that a terminal shows, from 0; −1 for none. */
        public int listOutput() {
            return ordinal() >= LIST_1.ordinal() && ordinal() <= LIST_4.ordinal() ? ordinal() - LIST_1.ordinal() : -1;
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
