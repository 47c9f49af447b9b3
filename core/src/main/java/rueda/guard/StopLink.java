package rueda.guard;

/** What passes one after the other from what happens until the danger is over, in this order; an axis has some of them. */
public enum StopLink {
    SENSOR("sensor"),
    FILTER("filter of the input"),
    GUARD("cycle of the guard"),
    BUS_TO_PLC("bus cycle, to the PLC"),
    TASK("task of the program"),
    BUS_TO_DRIVE("bus cycle, to the drive"),
    DRIVE("cycle of the drive"),
    /** of an axis without torque: until the brake holds */
    BRAKE("brake"),
    RAMP("ramp"),
    /** from standstill on, until the brake holds */
    HOLDS("until the brake holds"),
    /** from standstill on, until the torque goes */
    TORQUE("until the torque goes");

    private final String words;

    StopLink(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** It passes before the axis begins to slow down, or loses its torque. */
    public boolean reaction() {
        return compareTo(BRAKE) < 0;
    }
}
