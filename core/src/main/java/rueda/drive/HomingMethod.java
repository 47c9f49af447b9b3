package rueda.drive;

import java.util.List;

/**
 * Homing methods as sequences of searches. A leg moves one way until something happens, then the next leg
 * begins; a limit switch met on the way may send the sequence to another leg. New methods are new lists of legs.
 *
 * <p>Where zero lies, IEC 61800-7-201:
 * <ul>
 * <li>11: the first index pulse on the positive side of the reference cam, starting negative;
 * <li>17: the negative limit switch's edge, left in positive direction, without index pulse;
 * <li>37: here.
 * </ul>
 *
 * @param number        6098h
 * @param legs          the searches
 * @param firstOnCam    leg to begin with when the axis stands on the cam
 * @param firstOnLimit  leg to begin with when it stands on the negative limit switch
 */
public record HomingMethod(int number, List<Leg> legs, int firstOnCam, int firstOnLimit) {

    /** What ends a leg. Edges count only while the axis moves in the direction of the leg. */
    public enum Until { CAM_ON, CAM_OFF, NEGATIVE_LIMIT_ON, NEGATIVE_LIMIT_OFF, INDEX }

    /** {@link Leg#next} of the leg that finds zero. */
    public static final int ZERO = -1;
    /** {@link Leg#onNegativeLimit} of a leg that must not meet the switch. */
    public static final int FAILS = -2;

    /**
     * @param direction       +1 or −1
     * @param creep           slow speed 6099h:02 instead of 6099h:01
     * @param until           what ends it
     * @param next            leg that follows, or {@link #ZERO}
     * @param onNegativeLimit leg to go to when the negative limit switch is met, or {@link #FAILS}
     */
    public record Leg(int direction, boolean creep, Until until, int next, int onNegativeLimit) {
    }

    private static final HomingMethod CAM_WITH_INDEX = new HomingMethod(11, List.of(
            new Leg(-1, false, Until.CAM_ON, 1, 3),
            new Leg(+1, true, Until.CAM_OFF, 2, FAILS),
            new Leg(+1, true, Until.INDEX, ZERO, FAILS),
            new Leg(+1, false, Until.CAM_ON, 1, FAILS)), 1, 3);

    private static final HomingMethod NEGATIVE_LIMIT = new HomingMethod(17, List.of(
            new Leg(-1, false, Until.NEGATIVE_LIMIT_ON, 1, 1),
            new Leg(+1, true, Until.NEGATIVE_LIMIT_OFF, ZERO, FAILS)), 0, 1);

    private static final HomingMethod HERE = new HomingMethod(37, List.of(), 0, 0);

    /** The method with this number, or null when the drive does not have it. */
    public static HomingMethod of(int number) {
        return switch (number) {
            case 11 -> CAM_WITH_INDEX;
            case 17 -> NEGATIVE_LIMIT;
            case 37 -> HERE;
            default -> null;
        };
    }
}
