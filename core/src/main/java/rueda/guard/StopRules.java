package rueda.guard;

/**
 * How one stop is watched. Lengths and speeds are in the user units of the axis.
 *
 * @param watch           what is watched while it slows down
 * @param delay           from the request until the ramp begins, s, 0 or more: what the control takes to hear of it
 * @param steepest        the steepest deceleration that is allowed, units/s²; 0 for any
 * @param flattest        the flattest deceleration that is allowed, units/s², above 0; of no meaning for {@link Watch#TIME}
 * @param time            {@link Watch#TIME}: from the begin of the ramp until it must stand, s
 * @param standstillSpeed a speed that counts as standing, units/s, 0 or more
 * @param filterDistance  way that may be gone above the allowed speed before that counts, units, 0 or more
 * @param window          standing: how far it may be from where it came to rest, units, above 0; of no meaning for safe stop 1
 * @param brakeDelay      safe stop 1: from standstill until the brake is told to close, s
 * @param torqueDelay     safe stop 1: from standstill until the torque goes, s
 * @param restart         how motion is allowed again
 */
public record StopRules(Watch watch, double delay, double steepest, double flattest, double time, double standstillSpeed, double filterDistance, double window, double brakeDelay, double torqueDelay, Restart restart) {

    /** IEC 61800-5-2 has both for safe stop 1 and 2: the deceleration is watched (-r), or only the time (-t). */
    public enum Watch { RAMP, TIME }

    /** How motion is allowed again once nothing asks for the stop any more. */
    public enum Restart {
        /** An acknowledge that comes after the requests have gone. */
        ACKNOWLEDGED,
        /** By itself. */
        AUTOMATIC
    }
}
