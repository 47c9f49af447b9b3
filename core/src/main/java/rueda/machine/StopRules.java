package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;

/**
 * How one stop of an axis is watched. Lengths and speeds are in the user units of the axis.
 *
 * @param watch           what is watched while it slows down
 * @param delay           from the request until the ramp begins, ms, 0 or more: what the control takes to hear of it
 * @param steepest        the steepest deceleration that is allowed, units/s²; 0 for any
 * @param flattest        the flattest deceleration that is allowed, units/s², above 0; of no meaning for {@link Watch#TIME}
 * @param time            {@link Watch#TIME}: from the begin of the ramp until it must stand, ms
 * @param standstillSpeed a speed that counts as standing, units/s, 0 or more
 * @param filterDistance  way that may be gone above the allowed speed before that counts, units, 0 or more
 * @param window          standing: how far it may be from where it came to rest, units, above 0; of no meaning for safe stop 1
 * @param brakeDelay      safe stop 1: from standstill until the brake is told to close, ms
 * @param torqueDelay     safe stop 1: from standstill until the torque goes, ms
 * @param restart         how motion is allowed again
 */
@RecordBuilder
public record StopRules(Watch watch, double delay, double steepest, double flattest, double time, double standstillSpeed, double filterDistance, double window, double brakeDelay, double torqueDelay, Restart restart) implements StopRulesBuilder.With {

    /** IEC 61800-5-2 has both for safe stop 1 and 2: the deceleration is watched (-r), or only the time (-t). */
    public enum Watch {
        RAMP("the ramp is watched"),
        TIME("only the time is watched");

        private final String words;

        Watch(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** How motion is allowed again once nothing asks for the stop any more. */
    public enum Restart {
        /** An acknowledge that comes after the requests have gone. */
        ACKNOWLEDGED("after an acknowledge"),
        /** By itself. */
        AUTOMATIC("by itself");

        private final String words;

        Restart(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }
}
