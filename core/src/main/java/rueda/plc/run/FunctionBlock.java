package rueda.plc.run;

import java.util.List;
import java.util.Locale;
import rueda.plc.type.Type;

/**
 * A function block written in Java: its pins, and what a call does. Instances hold their inner state themselves;
 * pins are slots in the task's memory starting at a base.
 */
public interface FunctionBlock {

    /**
     * A pin.
     *
     * @param name     as in the specification
     * @param type     elementary type or AXIS_REF; of a VAR_IN_OUT that of the slot, which holds the place of the first cell of what is lent
     * @param lent     name of the declared type of a VAR_IN_OUT, else null
     * @param output   written by the block
     * @param required must be given in every call
     * @param initial  value of the slot before the first call
     */
    record Pin(String name, Type type, String lent, boolean output, boolean required, long initial) {
        public static Pin in(String name, Type type) {
            return new Pin(name, type, null, false, false, 0);
        }

        /** A VAR_IN_OUT. @param type name of a declared type */
        public static Pin lent(String name, String type) {
            return new Pin(name, Type.LINT, type, false, true, 0);
        }

        /** Its type as a program names it. */
        public String typeName() {
            return lent == null ? type.written() : lent;
        }

        /** An input that stands at NaN until the program gives it a value. */
        public static Pin optional(String name) {
            return new Pin(name, Type.LREAL, null, false, false, Double.doubleToRawLongBits(Double.NaN));
        }

        public static Pin axis() {
            return axis("Axis");
        }

        public static Pin axis(String name) {
            return new Pin(name, Type.AXIS_REF, null, false, true, 0);
        }

        public static Pin out(String name, Type type) {
            return new Pin(name, type, null, true, false, 0);
        }
    }

    /** A kind of block: its name, its pins and how an instance is made. */
    record Kind(String name, List<Pin> pins, Maker maker) {
        public int pin(String pinName) {
            for (int i = 0; i < pins.size(); i++) {
                if (pins.get(i).name().toUpperCase(Locale.ROOT).equals(pinName.toUpperCase(Locale.ROOT))) {
                    return i;
                }
            }
            return -1;
        }
    }

    /** Makes an instance. */
    interface Maker {
        /** @param instance name of the instance in the program */
        FunctionBlock make(String instance);
    }

    /**
     * One call: inputs have been stored, outputs are to be stored.
     *
     * @param frame memory, line of the call and time
     * @param base  slot of the first pin
     */
    void call(Frame frame, int base);
}
