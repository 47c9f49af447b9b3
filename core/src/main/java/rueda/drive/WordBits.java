package rueda.drive;

import java.util.List;
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

    /** Sixteen names, bit 0 first, empty for bits without meaning. */
    public static List<String> control(DriveProfile profile) {
        return profile == DriveProfile.PROFIDRIVE ? CONTROL_DRIVE : CONTROL_402;
    }

    /** Sixteen names, bit 0 first, empty for bits without meaning. */
    public static List<String> status(DriveProfile profile) {
        return profile == DriveProfile.PROFIDRIVE ? STATUS_DRIVE : STATUS_402;
    }
}
