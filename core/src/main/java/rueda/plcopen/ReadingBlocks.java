package rueda.plcopen;

import java.util.List;
import rueda.machine.Limits;
import rueda.plc.run.Frame;
import rueda.plc.run.FunctionBlock;
import rueda.plc.run.FunctionBlock.Kind;
import rueda.plc.run.FunctionBlock.Pin;
import rueda.plc.type.Type;

/**
 * MC_ReadParameter, MC_ReadBoolParameter, MC_ReadMotionState, MC_ReadAxisInfo, MC_ReadDigitalInput and MC_ReadDigitalOutput of PLCopen Motion Control part 1: values are read as long as Enable stands.
 * Numbers of parameters are those of the specification's table (from memory). An axis of ours always watches its limits and its following
 * error, so that what enables the watching reads TRUE where there is a limit.
 */
final class ReadingBlocks {

    private static final int ENABLE = 1;

    private final MotionBlocks blocks;

    ReadingBlocks(MotionBlocks blocks) {
        this.blocks = blocks;
    }

    List<Kind> kinds() {
        return List.of(parameter(), boolParameter(), motionState(), axisInfo(), digitalInput(), digitalOutput());
    }

    private static List<Pin> pins(Pin input, Pin... outputs) {
        List<Pin> pins = new java.util.ArrayList<>(List.of(Pin.axis(), Pin.in("Enable", Type.BOOL), input, Pin.out("Valid", Type.BOOL), Pin.out("Busy", Type.BOOL), Pin.out("Error", Type.BOOL), Pin.out("ErrorID", Type.WORD)));
        pins.addAll(List.of(outputs));
        return pins;
    }

    /** Tells how it is. @return the value may be read */
    private static boolean told(long[] m, int base, boolean enable, boolean known) {
        m[base + 3] = enable && known ? 1 : 0;
        m[base + 4] = enable && known ? 1 : 0;
        m[base + 5] = enable && !known ? 1 : 0;
        m[base + 6] = enable && !known ? MotionError.BAD_VALUE.id() : 0;
        return enable && known;
    }

    // ---- parameters

    private Kind parameter() {
        return new Kind("MC_ReadParameter", pins(Pin.in("ParameterNumber", Type.INT), Pin.out("Value", Type.LREAL)), name -> (frame, base) -> {
            long[] m = frame.memory;
            double value = m[base + ENABLE] == 0 ? Double.NaN : value(blocks.axis(frame, base), m[base + 2]);
            if (told(m, base, m[base + ENABLE] != 0, !Double.isNaN(value))) {
                m[base + 7] = Double.doubleToRawLongBits(value);
            }
        });
    }

    /** A parameter by its number, NaN for one that is not there; units, units/s, units/s², units/s³. */
    private static double value(MotionAxis axis, long number) {
        Limits limits = axis.limits();
        return switch ((int) number) {
            case 1 -> axis.commandedPosition();
            case 2 -> axis.bounded() ? limits.softMax() : Double.NaN;
            case 3 -> axis.bounded() ? limits.softMin() : Double.NaN;
            case 7 -> axis.allowedFollowingError();
            case 8 -> limits.max().speed();
            case 9 -> limits.normal().speed();
            case 10 -> axis.actualVelocity();
            case 11 -> axis.commandedSpeed();
            case 12 -> limits.max().acceleration();
            case 13 -> limits.normal().acceleration();
            case 14 -> limits.max().deceleration();
            case 15 -> limits.normal().deceleration();
            case 16 -> limits.max().jerk();
            case 17 -> limits.normal().jerk();
            default -> Double.NaN;
        };
    }

    private Kind boolParameter() {
        return new Kind("MC_ReadBoolParameter", pins(Pin.in("ParameterNumber", Type.INT), Pin.out("Value", Type.BOOL)), name -> (frame, base) -> {
            long[] m = frame.memory;
            MotionAxis axis = m[base + ENABLE] == 0 ? null : blocks.axis(frame, base);
            boolean known = axis != null && m[base + 2] >= 4 && m[base + 2] <= 6;
            if (told(m, base, axis != null, known)) {
                m[base + 7] = m[base + 2] == 6 || axis.bounded() && axis.watches(m[base + 2]) ? 1 : 0;
            }
        });
    }

    // ---- inputs and what the drive says of itself

    /** Bits of object 60FDh, IEC 61800-7-201: limit switches and reference cam; from bit 16 on the manufacturer's, in ours the inputs in their order. */
    private static final int NEGATIVE_LIMIT = 1;
    private static final int POSITIVE_LIMIT = 2;
    private static final int HOME_SWITCH = 4;
    private static final int FIRST_INPUT = 16;
    private static final int MOST_INPUTS = 16;

    private Kind axisInfo() {
        List<Pin> pins = new java.util.ArrayList<>(List.of(Pin.axis(), Pin.in("Enable", Type.BOOL), Pin.out("Valid", Type.BOOL), Pin.out("Busy", Type.BOOL), Pin.out("Error", Type.BOOL), Pin.out("ErrorID", Type.WORD)));
        for (String output : List.of("HomeAbsSwitch", "LimitSwitchPos", "LimitSwitchNeg", "Simulation", "CommunicationReady", "ReadyForPowerOn", "PowerOn", "IsHomed", "AxisWarning")) {
            pins.add(Pin.out(output, Type.BOOL));
        }
        return new Kind("MC_ReadAxisInfo", List.copyOf(pins), name -> (frame, base) -> {
            long[] m = frame.memory;
            boolean enable = m[base + ENABLE] != 0;
            m[base + 2] = enable ? 1 : 0;
            m[base + 3] = enable ? 1 : 0;
            if (!enable) {
                for (int pin = 6; pin <= 14; pin++) {
                    m[base + pin] = 0;
                }
                return;
            }
            MotionAxis axis = blocks.axis(frame, base);
            long inputs = axis.digitalInputs();
            m[base + 6] = bit(inputs, HOME_SWITCH);
            m[base + 7] = bit(inputs, POSITIVE_LIMIT);
            m[base + 8] = bit(inputs, NEGATIVE_LIMIT);
            m[base + 9] = 0;
            m[base + 10] = axis.answers() ? 1 : 0;
            m[base + 11] = axis.readyForPower() ? 1 : 0;
            m[base + 12] = axis.enabled() ? 1 : 0;
            m[base + 13] = axis.referenced() ? 1 : 0;
            m[base + 14] = axis.warns() ? 1 : 0;
        });
    }

    private static long bit(long word, int mask) {
        return (word & mask) != 0 ? 1 : 0;
    }

    private Kind digitalInput() {
        return new Kind("MC_ReadDigitalInput", pins(Pin.in("InputNumber", Type.INT), Pin.out("Value", Type.BOOL)), name -> (frame, base) -> {
            long[] m = frame.memory;
            boolean enable = m[base + ENABLE] != 0;
            if (told(m, base, enable, m[base + 2] >= 0 && m[base + 2] < MOST_INPUTS)) {
                m[base + 7] = blocks.axis(frame, base).digitalInputs() >> FIRST_INPUT + m[base + 2] & 1;
            } else {
                m[base + 7] = 0;
            }
        });
    }

    private Kind digitalOutput() {
        return new Kind("MC_ReadDigitalOutput", pins(Pin.in("OutputNumber", Type.INT), Pin.out("Value", Type.BOOL)), name -> (frame, base) -> {
            long[] m = frame.memory;
            boolean enable = m[base + ENABLE] != 0;
            MotionAxis axis = blocks.axis(frame, base);
            boolean set = axis.setsOutput(m[base + 2]);
            m[base + 7] = told(m, base, enable, set) && axis.output(m[base + 2]) ? 1 : 0;
            if (enable && !set) {
                m[base + 6] = MotionError.NO_OUTPUT.id();
            }
        });
    }

    // ---- how it moves

    private Kind motionState() {
        List<Pin> pins = pins(Pin.in("Source", Type.INT), Pin.out("ConstantVelocity", Type.BOOL), Pin.out("Accelerating", Type.BOOL), Pin.out("Decelerating", Type.BOOL),
                Pin.out("DirectionPositive", Type.BOOL), Pin.out("DirectionNegative", Type.BOOL));
        return new Kind("MC_ReadMotionState", pins, name -> new MotionState());
    }

    /**
     * Compares the speed with that of the call before. The actual speed is told in counts over the bus and is never quite still: it is constant
     * within a window, 0.5 % of the highest speed.
     */
    private final class MotionState implements FunctionBlock {

        private static final double WINDOW = 0.005;
        private double before;

        @Override
        public void call(Frame frame, int base) {
            long[] m = frame.memory;
            boolean enable = m[base + ENABLE] != 0;
            Boolean actual = FollowingBlocks.Source.actual(m[base + 2]);
            if (!told(m, base, enable, actual != null)) {
                for (int pin = 7; pin <= 11; pin++) {
                    m[base + pin] = 0;
                }
                return;
            }
            MotionAxis axis = blocks.axis(frame, base);
            double speed = actual ? axis.actualVelocity() : axis.commandedSpeed();
            double window = actual ? WINDOW * axis.limits().max().speed() : 1e-9 * axis.limits().max().speed();
            double faster = Math.abs(speed) - Math.abs(before);
            boolean turned = speed * before < 0;
            m[base + 7] = Math.abs(faster) <= window && !turned ? 1 : 0;
            m[base + 8] = faster > window ? 1 : 0;
            m[base + 9] = faster < -window ? 1 : 0;
            m[base + 10] = speed > window ? 1 : 0;
            m[base + 11] = speed < -window ? 1 : 0;
            before = speed;
        }
    }
}
