package rueda.profile;

/**
 * A cam as a table of points: where the follower is for each place of its master. Between two points lies a straight line, or the polynomial of
 * the fifth degree that goes from rest to rest without a jump of its acceleration:
 * <pre>  f(x) = y₀ + (y₁ − y₀)·(10ξ³ − 15ξ⁴ + 6ξ⁵),   ξ = (x − x₀)/(x₁ − x₀)  </pre>
 * (VDI 2143 part 1, the 3-4-5 polynomial; from memory).
 *
 * <p>A periodic table goes on behind its last point with its first one, and what the follower has gone in a round is added. One that is not keeps
 * its first place before the first point and its last one behind the last. Places are in the units of the axes. Immutable; reading costs a
 * binary search and allocates nothing.
 */
public final class CamTable {

    /** How two points are joined. */
    public enum Law { STRAIGHT, POLYNOMIAL_345 }

    private final double[] x;
    private final double[] y;
    private final Law[] laws;
    private final boolean periodic;

    /**
     * @param x        places of the master, at least two, each greater than the one before
     * @param y        places of the follower there
     * @param laws     how the point is come to from the one before; that of the first point is not used
     * @param periodic it goes on with its first point
     * @throws IllegalArgumentException when these do not make a table
     */
    public CamTable(double[] x, double[] y, Law[] laws, boolean periodic) {
        if (!sound(x, y)) {
            throw new IllegalArgumentException("A cam table has two points or more, finite, and those of the master grow.");
        }
        this.x = x.clone();
        this.y = y.clone();
        this.laws = laws.clone();
        this.periodic = periodic;
    }

    /** These make a table. */
    public static boolean sound(double[] x, double[] y) {
        boolean sound = x.length >= 2 && y.length == x.length;
        for (int i = 0; sound && i < x.length; i++) {
            sound = Double.isFinite(x[i]) && Double.isFinite(y[i]) && (i == 0 || x[i] > x[i - 1]);
        }
        return sound;
    }

    public double first() {
        return x[0];
    }

    private int last() {
        return x.length - 1;
    }

    /** Of the master, from the first point to the last. */
    public double length() {
        return x[last()] - x[0];
    }

    public boolean periodic() {
        return periodic;
    }

    /** Rounds that the master has gone since the first point; 0 for a table that is not periodic. */
    public long rounds(double master) {
        return periodic ? (long) Math.floor((master - x[0]) / length()) : 0;
    }

    /** The master is at the last point or behind it, or before the first one; never so of a periodic table. */
    public boolean outside(double master) {
        return !periodic && (master >= x[last()] || master < x[0]);
    }

    /** Place of the follower. */
    public double place(double master) {
        long rounds = rounds(master);
        double within = inside(master - rounds * length());
        int i = piece(within);
        double xi = (within - x[i]) / (x[i + 1] - x[i]);
        double share = laws[i + 1] == Law.STRAIGHT ? xi : xi * xi * xi * (10 + xi * (6 * xi - 15));
        return y[i] + (y[i + 1] - y[i]) * share + rounds * (y[last()] - y[0]);
    }

    /** Derivative of {@link #place}: units of the follower for one of the master. */
    public double slope(double master) {
        if (outside(master)) {
            return 0;
        }
        double within = inside(master - rounds(master) * length());
        int i = piece(within);
        double width = x[i + 1] - x[i];
        double xi = (within - x[i]) / width;
        double share = laws[i + 1] == Law.STRAIGHT ? 1 : 30 * xi * xi * (1 + xi * (xi - 2));
        return (y[i + 1] - y[i]) / width * share;
    }

    private double inside(double master) {
        return Math.max(x[0], Math.min(x[last()], master));
    }

    /** The point before a place, which lies inside. */
    private int piece(double place) {
        int low = 0;
        int high = last() - 1;
        while (low < high) {
            int middle = low + high + 1 >>> 1;
            if (x[middle] <= place) {
                low = middle;
            } else {
                high = middle - 1;
            }
        }
        return low;
    }

    /** Lowest place of the follower in a round: both laws stay between their points. */
    public double lowest() {
        double lowest = y[0];
        for (double place : y) {
            lowest = Math.min(lowest, place);
        }
        return lowest;
    }

    /** Highest place in a round. */
    public double highest() {
        double highest = y[0];
        for (double place : y) {
            highest = Math.max(highest, place);
        }
        return highest;
    }
}
