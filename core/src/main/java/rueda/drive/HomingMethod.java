package rueda.drive;

import java.util.ArrayList;
import java.util.List;

/**
 * Homing methods as sequences of searches. A leg moves one way until something happens, then the next leg
 * begins; a limit switch met on the way may send the sequence to another leg.
 *
 * <p>Where zero lies, IEC 61800-7-201 (CiA 402-2), homing methods:
 * <ul>
 * <li>1, 2: the first index pulse off the negative, the positive limit switch;
 * <li>3, 4: the first index pulse on the negative, on the positive side of the edge of a reference switch that is
 * active from its edge to the positive end; 5, 6: on the positive, the negative side for one active to the negative end;
 * <li>7 to 10: the first index pulse outside left, inside left, inside right, outside right of a reference cam, the
 * search starting positive; 11 to 14: outside right, inside right, inside left, outside left, starting negative;
 * <li>17 to 30: as 1 to 14, but the edge itself;
 * <li>33, 34: the next index pulse in negative, positive direction; 35, 37: here.
 * </ul>
 * Of our own: −1, −2 the negative, the positive hard stop; −3, −4 the first index pulse off it.
 *
 * <p>The edge that counts is always crossed at creep speed: where the standard's drawings arrive at it in the direction
 * of the search, the axis first goes back over it, and where a cam is shorter than the braking way, so that it is left faster,
 * the axis goes back onto it and leaves it once more. Zero lies in the same place.
 *
 * @param number  6098h
 * @param sensor  the switch it looks at
 * @param legs    the searches; empty for none
 * @param firstOn leg to begin with when the sensor is active at the start
 */
public record HomingMethod(int number, Sensor sensor, List<Leg> legs, int firstOn) {

    /** What a method looks at besides index pulse and limits. */
    public enum Sensor { NONE, NEGATIVE_LIMIT, POSITIVE_LIMIT, CAM }

    /** What ends a leg. Edges count only while the axis moves in the direction of the leg. */
    public enum Until { SENSOR_ON, SENSOR_OFF, INDEX, HARD_STOP }

    /** {@link Leg#next} of the leg that finds zero. */
    public static final int ZERO = -1;
    /** {@link Leg#onLimit} of a leg that must not meet a limit switch. */
    public static final int FAILS = -2;

    /**
     * @param direction +1 or −1
     * @param creep     slow speed 6099h:02 instead of 6099h:01
     * @param until     what ends it
     * @param next      leg that follows, or {@link #ZERO}
     * @param onLimit   leg to go to when the limit switch in its direction is met, or {@link #FAILS}
     */
    public record Leg(int direction, boolean creep, Until until, int next, int onLimit) {
    }

    /** What the last crossing of a cam's edge looks like, by method 7 to 14: search, direction at the edge, leaving. */
    private static final int[][] CAM_METHODS = {
            {+1, -1, 1}, {+1, +1, 0}, {+1, -1, 0}, {+1, +1, 1}, {-1, +1, 1}, {-1, -1, 0}, {-1, +1, 0}, {-1, -1, 1}};
    /** The same for a switch active to one end, methods 3 to 6. */
    private static final int[][] END_METHODS = {{+1, -1, 1}, {+1, +1, 0}, {-1, +1, 1}, {-1, -1, 0}};

    /** The method with this number, or null when the drive does not have it. */
    public static HomingMethod of(int number) {
        if (number == 35 || number == 37) {
            return new HomingMethod(number, Sensor.NONE, List.of(), 0);
        }
        if (number == 33 || number == 34) {
            return new HomingMethod(number, Sensor.NONE, List.of(new Leg(number == 33 ? -1 : 1, true, Until.INDEX, ZERO, FAILS)), 0);
        }
        if (number <= -1 && number >= -4) {
            return hardStop(number);
        }
        boolean index = number >= 1 && number <= 14;
        int kind = index ? number : number - 16;
        if (kind < 1 || kind > 14 || number > 30) {
            return null;
        }
        if (kind <= 2) {
            return limit(number, kind == 1 ? -1 : 1, index);
        }
        return kind <= 6 ? edge(number, END_METHODS[kind - 3], false, index) : edge(number, CAM_METHODS[kind - 7], true, index);
    }

    private static HomingMethod limit(int number, int direction, boolean index) {
        List<Leg> legs = new ArrayList<>();
        legs.add(new Leg(direction, false, Until.SENSOR_ON, 1, 1));
        addCrossing(legs, -direction, Until.SENSOR_OFF, index);
        return new HomingMethod(number, direction < 0 ? Sensor.NEGATIVE_LIMIT : Sensor.POSITIVE_LIMIT, List.copyOf(legs), 1);
    }

    /** @param way search direction, direction at the edge that counts, 1 when it is left there  @param turns at a limit the search turns */
    private static HomingMethod edge(int number, int[] way, boolean turns, boolean index) {
        int search = way[0];
        int crossing = way[1];
        boolean leaves = way[2] == 1;
        int found = turns ? 2 : 1;
        List<Leg> legs = new ArrayList<>();
        legs.add(new Leg(search, false, Until.SENSOR_ON, found, turns ? 1 : FAILS));
        if (turns) {
            legs.add(new Leg(-search, false, Until.SENSOR_ON, found, FAILS));
        }
        if (!leaves) {
            legs.add(new Leg(-crossing, false, Until.SENSOR_OFF, found + 1, FAILS));
        }
        addCrossing(legs, crossing, leaves ? Until.SENSOR_OFF : Until.SENSOR_ON, index);
        return new HomingMethod(number, Sensor.CAM, List.copyOf(legs), found);
    }

    private static HomingMethod hardStop(int number) {
        int direction = number % 2 == 0 ? 1 : -1;
        boolean index = number <= -3;
        List<Leg> legs = new ArrayList<>();
        legs.add(new Leg(direction, false, Until.HARD_STOP, index ? 1 : ZERO, FAILS));
        if (index) {
            legs.add(new Leg(-direction, true, Until.INDEX, ZERO, FAILS));
        }
        return new HomingMethod(number, Sensor.NONE, List.copyOf(legs), 0);
    }

    private static void addCrossing(List<Leg> legs, int direction, Until until, boolean index) {
        legs.add(new Leg(direction, true, until, index ? legs.size() + 1 : ZERO, FAILS));
        if (index) {
            legs.add(new Leg(direction, true, Until.INDEX, ZERO, FAILS));
        }
    }

    /** It looks for a limit switch, a hard stop, or a switch that reaches to an end: an endless axis has none of them. */
    public boolean needsEnds() {
        return number < 0 || number >= 1 && number <= 6 || number >= 17 && number <= 22;
    }

    /** Zero is an index pulse. */
    public boolean usesIndex() {
        return !legs.isEmpty() && legs.get(legs.size() - 1).until() == Until.INDEX;
    }
}
