package rueda.drive;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import rueda.bus.BusFamily.DriveProfile;
import rueda.bus.ProfiDriveSignal;
import rueda.machine.Station.Entry;

/**
 * Something the drive can exchange cyclically, under any profile.
 *
 * @param object   index in the object dictionary, or number of the PROFIdrive signal
 * @param subIndex sub-index
 * @param bits     width
 * @param signed   two's complement
 * @param title    name in words
 * @param symbol   such as 6040h or STW1
 * @param toDrive  the PLC may send it
 * @param toPlc    the drive may send it
 * @param meaning  how its bits are meant
 * @param dataType IEC 61131-3 type of the same size and sign
 */
public record CyclicItem(int object, int subIndex, int bits, boolean signed, String title, String symbol, boolean toDrive, boolean toPlc, Meaning meaning, String dataType) {

    /**
     * POSITION in wire units, SPEED, ACCELERATION and JERK in wire units a second, to the second and third power, TORQUE in tenths of a percent of the rated torque, N2 and N4 normalised,
     * GAIN in thousandths of 1/s, COUNTS of the encoder.
     */
    public enum Meaning { CONTROLWORD, STATUSWORD, POSITION, SPEED, TORQUE, MODE, SWITCHES, N2, N4, COUNTS, GAIN, PLAIN, ACCELERATION, JERK;

        /** In wire units, or those over time: scaled as a position is. */
        public boolean inWireUnits() {
            return this == POSITION || !overTime().isEmpty();
        }

        /** What follows the unit of a position. */
        public String overTime() {
            return switch (this) {
                case SPEED -> "/s";
                case ACCELERATION -> "/s²";
                case JERK -> "/s³";
                default -> "";
            };
        }
    }

    private static final List<CyclicItem> OBJECTS = Arrays.stream(DriveObject.values()).filter(CyclicItem::travels).map(CyclicItem::of).toList();
    private static final List<CyclicItem> SIGNALS = Stream.of(ProfiDriveSignal.values()).map(CyclicItem::of).toList();

    /** Everything that may travel under a profile. */
    public static List<CyclicItem> of(DriveProfile profile) {
        return profile == DriveProfile.PROFIDRIVE ? SIGNALS : OBJECTS;
    }

    /** The item, or null. */
    public static CyclicItem find(DriveProfile profile, int object, int subIndex) {
        for (CyclicItem item : of(profile)) {
            if (item.object == object && item.subIndex == subIndex) {
                return item;
            }
        }
        return null;
    }

    /** Place of the first entry whose bits are meant so, or −1. */
    public static int place(DriveProfile profile, List<Entry> entries, Meaning meaning) {
        for (int i = 0; i < entries.size(); i++) {
            CyclicItem item = find(profile, entries.get(i).object(), entries.get(i).subIndex());
            if (item != null && item.meaning == meaning) {
                return i;
            }
        }
        return -1;
    }

    /** What an entry is called: its own name, or that of what travels in it, or its place in the dictionary. */
    public static String title(DriveProfile profile, Entry entry) {
        CyclicItem item = find(profile, entry.object(), entry.subIndex());
        return !entry.name().isBlank() ? entry.name() : item != null ? item.title : String.format(Locale.ROOT, "%04Xh:%02X", entry.object(), entry.subIndex());
    }

    private static String dataType(Meaning meaning, boolean signed, int bits) {
        return switch (meaning) {
            case CONTROLWORD, STATUSWORD -> "WORD";
            case SWITCHES -> bits == 32 ? "DWORD" : "WORD";
            default -> (signed ? "" : "U") + (bits == 8 ? "SINT" : bits == 16 ? "INT" : "DINT");
        };
    }

    /** Constants of the device do not travel. */
    private static boolean travels(DriveObject object) {
        return switch (object) {
            case ENCODER_INCREMENTS, ENCODER_TURNS, GEAR_MOTOR_TURNS, GEAR_SHAFT_TURNS, FEED, FEED_TURNS -> false;
            default -> true;
        };
    }

    private static CyclicItem of(DriveObject object) {
        Meaning meaning = switch (object) {
            case CONTROLWORD -> Meaning.CONTROLWORD;
            case STATUSWORD -> Meaning.STATUSWORD;
            case MODE, MODE_DISPLAY -> Meaning.MODE;
            case TARGET_POSITION, POSITION_ACTUAL, FOLLOWING_ERROR_ACTUAL, HOME_OFFSET, SOFT_LIMIT_MIN, SOFT_LIMIT_MAX, FOLLOWING_WINDOW, FOLLOWING_AT_SPEED,
                    POSITION_WINDOW, STANDSTILL_WINDOW, LIST_CHANGED_WAY, FOLLOW_DEVIATION, FOLLOW_TRIMMED, TRIM_WAY, PROBE_1_POSITION, PROBE_1_FALLING, PROBE_2_POSITION, PROBE_2_FALLING -> Meaning.POSITION;
            case VELOCITY_ACTUAL, TARGET_VELOCITY, PROFILE_VELOCITY, VELOCITY_WINDOW, VELOCITY_THRESHOLD, MAX_PROFILE_VELOCITY, LIST_CHANGED_SPEED, TRIM_SPEED, HOMING_SEARCH_SPEED, HOMING_CREEP_SPEED, FOLLOWING_FROM_SPEED -> Meaning.SPEED;
            case PROFILE_ACCELERATION, PROFILE_DECELERATION, QUICK_STOP_DECELERATION, HOMING_ACCELERATION -> Meaning.ACCELERATION;
            case PROFILE_JERK -> Meaning.JERK;
            case TARGET_TORQUE, MAX_TORQUE, TORQUE_ACTUAL, HARD_STOP_TORQUE, ANALOGUE_TORQUE -> Meaning.TORQUE;
            case DIGITAL_INPUTS -> Meaning.SWITCHES;
            case LOAD_POSITION -> Meaning.COUNTS;
            default -> Meaning.PLAIN;
        };
        return new CyclicItem(object.index(), object.subIndex(), object.bits(), object.signed(), object.title(),
                String.format(object.subIndex() == 0 ? "%04Xh" : "%04Xh:%02X", object.index(), object.subIndex()), object.writable(), true, meaning, dataType(meaning, object.signed(), object.bits()));
    }

    private static CyclicItem of(ProfiDriveSignal signal) {
        Meaning meaning = signal == ProfiDriveSignal.STW1 ? Meaning.CONTROLWORD : signal == ProfiDriveSignal.ZSW1 ? Meaning.STATUSWORD
                : switch (signal.format()) {
                    case N2 -> Meaning.N2;
                    case N4 -> Meaning.N4;
                    case COUNTS -> Meaning.COUNTS;
                    case UNITS -> signal == ProfiDriveSignal.MDI_VELOCITY ? Meaning.SPEED : Meaning.POSITION;
                    case GAIN -> Meaning.GAIN;
                    case BITS -> Meaning.PLAIN;
                };
        boolean signed = meaning == Meaning.N2 || meaning == Meaning.N4 || meaning == Meaning.COUNTS || meaning == Meaning.POSITION;
        return new CyclicItem(signal.number(), 0, signal.bits(), signed, signal.title(), signal.name(), signal.toDrive(), !signal.toDrive(), meaning, dataType(meaning, signed, signal.bits()));
    }
}
