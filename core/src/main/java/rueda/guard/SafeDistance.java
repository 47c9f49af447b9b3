package rueda.guard;

import java.util.Locale;

/**
 * How far from the danger a safeguard must stand: S = K·T + C (ISO 13855:2010, formula 1; clauses and constants from memory).
 *
 * @param distance  S, mm
 * @param approach  K, speed at which hand or body come near, mm/s
 * @param seconds   T, from the request until the danger is over, s
 * @param intrusion C, how far one comes before the request, mm
 * @param clause    of ISO 13855:2010
 * @param least     the standard's least distance for this safeguard was taken, not what the formula gives
 */
public record SafeDistance(double distance, double approach, double seconds, double intrusion, String clause, boolean least) {

    private static final double HAND = 2000;
    private static final double BODY = 1600;
    /** nearer than this nothing may stand that a hand comes to */
    static final double LEAST = 100;
    /** beyond this a hand is not faster than a body */
    private static final double FAR = 500;

    /** Sees a hand: its speed counts near by, that of a body farther away, which then is never nearer than 500 mm. */
    static SafeDistance ofHand(double resolution, double seconds) {
        double intrusion = Math.max(8 * (resolution - 14), 0);
        SafeDistance near = sum(HAND, seconds, intrusion, LEAST, "6.2.3.1");
        return near.distance <= FAR ? near : sum(BODY, seconds, intrusion, FAR, "6.2.3.1");
    }

    /** A body that comes near. @param least mm, 0 for none */
    static SafeDistance ofBody(double seconds, double intrusion, double least, String clause) {
        return sum(BODY, seconds, intrusion, least, clause);
    }

    private static SafeDistance sum(double approach, double seconds, double intrusion, double least, String clause) {
        if (!(seconds > 0)) {
            throw new IllegalArgumentException("The time is " + seconds + " s; it must be above 0.");
        }
        double distance = approach * seconds + intrusion;
        return new SafeDistance(Math.max(distance, least), approach, seconds, intrusion, clause, distance < least);
    }

    /** The formula with its numbers. */
    public String words() {
        String sum = String.format(Locale.ROOT, "S = K·T + C = %.0f mm/s · %.3f s + %.0f mm", approach, seconds, intrusion);
        return least ? sum + String.format(Locale.ROOT, ", at least %.0f mm", distance) : sum + String.format(Locale.ROOT, " = %.0f mm", distance);
    }
}
