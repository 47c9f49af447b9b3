package rueda.profile;

/**
 * The way of a follower that meets its master: a polynomial of the fifth degree in the master's way, so that both are at the meeting point
 * together however fast the master comes, and whether it stops or turns round before.
 *
 * <p>With the master's way x, the whole way D, u = x/D and the follower's way F, slope s₀ at the start and s₁ at the end (follower per
 * master), no curvature at either end:
 * <pre>  f(u) = s₀D·u + (10h − 6s₀D − 4s₁D)·u³ + (−15h + 8s₀D + 7s₁D)·u⁴ + (6h − 3s₀D − 3s₁D)·u⁵,   h = F  </pre>
 * (Biagiotti &amp; Melchiorri, <i>Trajectory Planning for Automatic Machines and Robots</i>, section 2.1.3, polynomial of degree five.)
 * Reading allocates nothing; not thread-safe.
 */
public final class MeetingCurve {

    private static final int PARTS = 256;

    private double whole;
    private double c1;
    private double c3;
    private double c4;
    private double c5;
    private double way;
    private double endSlope;

    /**
     * @param masterWay   way of the master to the meeting point, with its sign, not 0
     * @param followerWay way of the follower to it, with its sign
     * @param startSlope  follower per master at the start: the speed that is there, over the master's
     * @param endSlope    follower per master from the meeting point on: the ratio
     */
    public void plan(double masterWay, double followerWay, double startSlope, double endSlope) {
        whole = masterWay;
        way = followerWay;
        this.endSlope = endSlope;
        double s0 = startSlope * masterWay;
        double s1 = endSlope * masterWay;
        c1 = s0;
        c3 = 10 * followerWay - 6 * s0 - 4 * s1;
        c4 = -15 * followerWay + 8 * s0 + 7 * s1;
        c5 = 6 * followerWay - 3 * s0 - 3 * s1;
    }

    /** The meeting point has been reached, or passed. @param masterWay way of the master since the start */
    public boolean met(double masterWay) {
        return masterWay / whole >= 1;
    }

    /** Way of the follower at a way of the master; before the start 0. */
    public double way(double masterWay) {
        double u = masterWay / whole;
        return u <= 0 ? 0 : u >= 1 ? way + (masterWay - whole) * endSlope : u * (c1 + u * u * (c3 + u * (c4 + u * c5)));
    }

    /** Follower per master at a way of the master. */
    public double slope(double masterWay) {
        double u = masterWay / whole;
        return u <= 0 ? c1 / whole : u >= 1 ? endSlope : (c1 + u * u * (3 * c3 + u * (4 * c4 + u * 5 * c5))) / whole;
    }

    /** Second derivative of the follower's way by the master's. */
    public double curvature(double masterWay) {
        double u = masterWay / whole;
        return u <= 0 || u >= 1 ? 0 : u * (6 * c3 + u * (12 * c4 + u * 20 * c5)) / (whole * whole);
    }

    /** The steepest slope on the way: the highest speed of the follower is that times the master's. */
    public double steepest() {
        double steepest = Math.max(Math.abs(slope(0)), Math.abs(endSlope));
        for (int i = 1; i < PARTS; i++) {
            steepest = Math.max(steepest, Math.abs(slope(whole * i / PARTS)));
        }
        return steepest;
    }

    /** The sharpest curvature on the way: the highest acceleration of the follower is that times the square of the master's speed. */
    public double sharpest() {
        double sharpest = 0;
        for (int i = 1; i < PARTS; i++) {
            sharpest = Math.max(sharpest, Math.abs(curvature(whole * i / PARTS)));
        }
        return sharpest;
    }
}
