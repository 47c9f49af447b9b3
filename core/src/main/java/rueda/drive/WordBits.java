package rueda.drive;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import rueda.bus.BusFamily.DriveProfile;

/**
 * Names of the bits of control and status word: IEC 61800-7-201 (objects 6040h and 6041h), IEC 61800-7-203 (STW1 and ZSW1). Bits that
 * the standards leave to the maker have our meaning.
 */
public final class WordBits {

    private static final List<String> CONTROL_402 = List.of("switch on", "enable voltage", "no quick stop", "enable operation", "by the mode: new setpoint, start", "by the mode: change at once", "by the mode: relative", "fault reset", "halt", "by the mode: change on setpoint", "", "", "", "", "", "");
    private static final List<String> STATUS_402 = List.of("ready to switch on", "switched on", "operation enabled", "fault", "voltage enabled", "no quick stop", "switch on disabled", "warning", "referenced",
            "remote", "target reached", "internal limit active", "by the mode: acknowledged, attained, follows", "by the mode: error", "", "");
    private static final List<String> CONTROL_DRIVE = List.of("on", "no coast stop", "no quick stop", "enable operation", "enable ramp", "unfreeze ramp", "enable setpoint", "fault acknowledge", "jog 1", "jog 2",
            "control by PLC", "start homing", "homing mode", "", "", "");
    private static final List<String> STATUS_DRIVE = List.of("ready to switch on", "ready to operate", "operation enabled", "fault present", "no coast stop", "no quick stop", "switching on inhibited", "warning present",
            "following error in tolerance", "control requested", "target reached", "home position set", "follows the command; homing attained", "following error; homing error", "internal limit active", "homing active");

    private static final List<String> CONTROL_POSITIONING = List.of("on", "no coast stop", "no quick stop", "enable operation", "do not reject the task", "no intermediate stop", "start the task", "fault acknowledge", "jog 1", "jog 2",
            "control by PLC", "start homing", "", "", "", "");
    private static final List<String> STATUS_POSITIONING = List.of("ready to switch on", "ready to operate", "operation enabled", "fault present", "no coast stop", "no quick stop", "switching on inhibited", "warning; entry not carried out",
            "following error in tolerance", "control requested", "target reached", "home position set", "task acknowledged", "drive stands", "internal limit active", "homing active");

    private WordBits() {
    }

    /**
     * A word bit by bit.
     *
     * @param value  as it stands
     * @param hex    the same as four hexadecimal digits
     * @param words  the command or the state that it is
     * @param bits   bit 0 first
     */
    public record Word(int value, String hex, String words, List<Bit> bits) {
    }

    /** @param name empty for a bit without meaning  @param forced it is held by hand */
    public record Bit(int number, String name, boolean on, boolean forced) {
    }

    /** @param mode 6061h: what some bits mean depends on it  @param forced a bit for each that is held by hand */
    public static Word controlWord(DriveProfile profile, int mode, int word, int forced) {
        return word(word, ControlWord.command(word), profile == DriveProfile.PROFIDRIVE ? positions(mode) ? CONTROL_POSITIONING : CONTROL_DRIVE : control(mode), forced);
    }

    /** @param mode 6061h: what some bits mean depends on it  @param forced a bit for each that is held by hand */
    public static Word statusWord(DriveProfile profile, int mode, int word, int forced) {
        return word(word, CyclicWords.state(profile, word).words(), profile == DriveProfile.PROFIDRIVE ? positions(mode) ? STATUS_POSITIONING : STATUS_DRIVE : status(mode), forced);
    }

    /** Object 6040h. @param mode 6061h */
    public static Word controlWord(int mode, int word) {
        return word(word, ControlWord.command(word), control(mode), 0);
    }

    /** Object 6041h. @param mode 6061h */
    public static Word statusWord(int mode, int word) {
        return word(word, PowerState.of(word).words(), status(mode), 0);
    }

    /** A positioning telegram travels: the drive makes the motion itself. */
    private static boolean positions(int mode) {
        return mode == OperationMode.MOVE_LIST || mode == OperationMode.PROFILE_POSITION;
    }

    /** Bits 4 to 6 and 9 of 6040h belong to the mode of operation. */
    private static List<String> control(int mode) {
        List<String> names = new ArrayList<>(CONTROL_402);
        names.set(4, switch (mode) {
            case OperationMode.HOMING -> "start homing";
            case OperationMode.PROFILE_POSITION -> "new setpoint";
            case OperationMode.MOVE_LIST -> "start the entry";
            case OperationMode.FOLLOWING -> "follow the master";
            default -> "";
        });
        if (mode == OperationMode.PROFILE_POSITION) {
            names.set(5, "change at once");
            names.set(6, "relative");
            names.set(9, "change on setpoint");
        }
        return names;
    }

    /** Bits 10, 12 and 13 of 6041h belong to the mode of operation. */
    private static List<String> status(int mode) {
        List<String> names = new ArrayList<>(STATUS_402);
        names.set(12, switch (mode) {
            case OperationMode.HOMING -> "homing attained";
            case OperationMode.PROFILE_POSITION -> "setpoint acknowledged";
            case OperationMode.PROFILE_VELOCITY -> "speed is zero";
            case OperationMode.MOVE_LIST -> "the list runs";
            case OperationMode.FOLLOWING -> "locked to the master";
            default -> "follows the setpoint";
        });
        names.set(13, switch (mode) {
            case OperationMode.HOMING -> "homing error";
            case OperationMode.MOVE_LIST -> "entry not carried out";
            case OperationMode.FOLLOWING -> "does not follow";
            case OperationMode.PROFILE_VELOCITY -> "";
            default -> "following error";
        });
        return names;
    }

    private static Word word(int word, String words, List<String> names, int forced) {
        return new Word(word, CyclicWords.hexadecimal(word & 0xFFFF, 4), words, IntStream.range(0, names.size()).mapToObj(i -> new Bit(i, names.get(i), (word >> i & 1) != 0, (forced >> i & 1) != 0)).toList());
    }

    /** Sixteen names, bit 0 first, empty for bits without meaning. */
    public static List<String> control(DriveProfile profile) {
        return profile == DriveProfile.PROFIDRIVE ? CONTROL_DRIVE : CONTROL_402;
    }

    /** Sixteen names, bit 0 first, empty for bits without meaning. */
    public static List<String> status(DriveProfile profile) {
        return profile == DriveProfile.PROFIDRIVE ? STATUS_DRIVE : STATUS_402;
    }
}
