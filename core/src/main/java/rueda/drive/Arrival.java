package rueda.drive;

import static rueda.drive.DriveObject.POSITION_TOLERANCE;
import static rueda.drive.DriveObject.POSITION_WINDOW;
import static rueda.drive.DriveObject.POSITION_WINDOW_TIME;
import static rueda.drive.DriveObject.STANDSTILL_TIME;
import static rueda.drive.DriveObject.STANDSTILL_WINDOW;

/**
 * Says when the axis is in position, when that took too long, and when it stands still (position window as in
 * IEC 61800-7-201, objects 6067h and 6068h; tolerance time and standstill window are ours). Looked at once a bus cycle.
 * No allocation; not thread-safe.
 */
final class Arrival {

    private final ObjectDictionary dictionary;
    private final double cycleMillis;
    private final double countsPerWire;
    private boolean inside;
    private double insideFor;
    private double setpointStoodFor;
    private double stillFor;
    private long stoodAt;
    private boolean inPosition;
    private boolean late;
    private boolean still;

    Arrival(ObjectDictionary dictionary, double cycleSeconds, double countsPerWire) {
        this.dictionary = dictionary;
        cycleMillis = cycleSeconds * 1000;
        this.countsPerWire = countsPerWire;
    }

    /**
     * @param setpointStands the target does not move
     * @param error          setpoint minus actual, counts
     * @param counts         actual
     */
    void observe(boolean setpointStands, long error, long counts) {
        boolean nowInside = setpointStands && Math.abs(error) <= dictionary.get(POSITION_WINDOW) * countsPerWire;
        /* counted no farther than it matters: an axis that stands does not change any more */
        long dwell = dictionary.get(POSITION_WINDOW_TIME);
        insideFor = nowInside && inside ? Math.min(dwell, insideFor + cycleMillis) : 0;
        inside = nowInside;
        long tolerance = dictionary.get(POSITION_TOLERANCE);
        setpointStoodFor = setpointStands ? Math.min(tolerance + cycleMillis, setpointStoodFor + cycleMillis) : 0;
        inPosition = inside && insideFor >= dwell;
        late = setpointStands && !inPosition && (late || tolerance > 0 && setpointStoodFor > tolerance);
        long standstill = dictionary.get(STANDSTILL_TIME);
        if (Math.abs(counts - stoodAt) > dictionary.get(STANDSTILL_WINDOW) * countsPerWire) {
            stoodAt = counts;
            stillFor = 0;
        } else {
            stillFor = Math.min(standstill, stillFor + cycleMillis);
        }
        still = stillFor >= standstill;
    }

    /** Inside the position window for its dwell. */
    boolean inPosition() {
        return inPosition;
    }

    /** The setpoint has stood for longer than the tolerance time, and the axis has not arrived. */
    boolean late() {
        return late;
    }

    /** Inside the standstill window for its dwell. */
    boolean still() {
        return still;
    }
}
