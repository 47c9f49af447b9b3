package rueda.guard;

/** Where a stop is. */
public enum GuardPhase {
    FREE("no stop asked for"),
    /** The control has been told, and may not have begun yet. */
    DELAY("asked for, the ramp has not begun"),
    RAMP("slowing down"),
    /** Safe operating stop: torque on, the place watched. */
    STANDING("standing, watched"),
    /** It stands; the brake closes and the torque goes. */
    CLOSING("standing, torque about to go"),
    OFF("torque off"),
    /** A watch was broken: torque off until it is acknowledged. */
    TRIPPED("torque off, a watch was broken");

    private final String words;

    GuardPhase(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** Torque may be on. */
    public boolean torque() {
        return this != OFF && this != TRIPPED;
    }
}
