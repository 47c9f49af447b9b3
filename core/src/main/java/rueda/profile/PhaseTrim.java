package rueda.profile;

/**
 * The trim of a follower: by how much its phase has been moved against its master, in steps of the caller (counts or wire units) and s. It goes to a
 * place or on at a speed, by a trapezoidal profile, and ends on a whole step. No allocation; not thread-safe.
 */
public final class PhaseTrim {

    private final double dt;
    private final MotionProfile profile = new MotionProfile();
    private final double[] sample = new double[3];
    private double time;
    private double value;
    private double rate;
    /** where it is going, or where it stands */
    private double target;
    private boolean goesOn;
    private boolean moves;

    /** @param dt length of a step, s */
    public PhaseTrim(double dt) {
        this.dt = dt;
    }

    /** The follower is tied anew. @param kept it stays as it is, else it is forgotten */
    public void begin(boolean kept) {
        value = kept ? Math.rint(value) : 0;
        target = value;
        rate = 0;
        moves = false;
        goesOn = false;
    }

    /**
     * Goes to a place, which becomes a whole step.
     *
     * @param speed        greater than 0
     * @param acceleration greater than 0
     * @param deceleration greater than 0
     * @param jerk         0 for none
     */
    public void to(double place, double speed, double acceleration, double deceleration, double jerk) {
        target = Math.rint(place);
        profile.plan(value, rate, 0, target, 0, speed, acceleration, deceleration, jerk);
        time = 0;
        moves = true;
        goesOn = false;
    }

    /** Goes on at a speed, with its sign, or comes to rest with 0. */
    public void at(double speed, double acceleration) {
        profile.planVelocity(value, rate, 0, speed, acceleration, 0);
        time = 0;
        moves = true;
        goesOn = true;
    }

    /** One step. */
    public void step() {
        if (!moves) {
            return;
        }
        time += dt;
        profile.sample(time, sample);
        value = sample[0];
        rate = sample[1];
        if (rate == 0 && time >= profile.duration()) {
            moves = false;
            value = goesOn ? Math.rint(value) : target;
        }
        if (goesOn) {
            target = value;
        }
    }

    /** Steps, positive ahead. */
    public double value() {
        return value;
    }

    /** Steps/s. */
    public double rate() {
        return rate;
    }

    /** Where it ends; another order by a distance counts from there. */
    public double target() {
        return target;
    }

    /** It has not come to rest. */
    public boolean moves() {
        return moves;
    }
}
