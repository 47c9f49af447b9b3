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

    private static final List<String> CONTROL_402 = List.of("switch on", "enable voltage", "no quick stop", "enable operation", "start homing", "", "", "fault reset", "halt", "", "", "", "", "", "", "");
    private static final List<String> STATUS_402 = List.of("ready to switch on", "switched on", "operation enabled", "fault", "voltage enabled", "no quick stop", "switch on disabled", "warning", "referenced",
            "remote", "target reached", "internal limit active", "follows the command; homing attained", "following error; homing error", "", "");
    private static final List<String> CONTROL_DRIVE = List.of("on", "no coast stop", "no quick stop", "enable operation", "enable ramp", "unfreeze ramp", "enable setpoint", "fault acknowledge", "jog 1", "jog 2",
            "control by PLC", "start homing", "homing mode", "", "", "");
    private static final List<String> STATUS_DRIVE = List.of("ready to switch on", "ready to operate", "operation enabled", "fault present", "no coast stop", "no quick stop", "switching on inhibited", "warning present",
            "following error in tolerance", "control requested", "target reached", "home position set", "follows the command; homing attained", "following error; homing error", "internal limit active", "homing active");

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

    /** @param forced a bit for each that is held by hand */
    public static Word controlWord(DriveProfile profile, int word, int forced) {
        return word(word, ControlWord.command(word), control(profile), forced);
    }

    /** @param forced a bit for each that is held by hand */
    public static Word statusWord(DriveProfile profile, int word, int forced) {
        return word(word, CyclicWords.state(profile, word).words(), status(profile), forced);
    }

    /** Object 6040h; the meaning of some bits depends on the mode. @param mode 6061h */
    public static Word controlWord(int mode, int word) {
        List<String> names = new ArrayList<>(CONTROL_402);
        names.set(4, mode == OperationMode.HOMING ? "start homing" : "");
        return word(word, ControlWord.command(word), names, 0);
    }

    /** Object 6041h; the meaning of some bits depends on the mode. @param mode 6061h */
    public static Word statusWord(int mode, int word) {
        List<String> names = new ArrayList<>(STATUS_402);
        boolean homing = mode == OperationMode.HOMING;
        names.set(12, homing ? "homing attained" : "follows the setpoint");
        names.set(13, homing ? "homing error" : "following error");
        return word(word, PowerState.of(word).words(), names, 0);
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
