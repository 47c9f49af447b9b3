package rueda.profile;

/**
 * The speed of a master whose place is read in whole counts: the difference of two readings, smoothed by a first-order filter.
 * <pre>  v += (1 − e^(−dt/T))·(Δ/dt − v)  </pre>
 * At constant acceleration b the filtered speed is late by b·T; a count more or less shows as 1/T instead of 1/dt (for T ≫ dt). Allocates
 * nothing; not thread-safe.
 */
public final class MasterSpeed {

    private final double dt;
    private final double rate;
    private double weight = 1;
    private double speed;

    /** @param dt between two readings, s */
    public MasterSpeed(double dt) {
        this.dt = dt;
        rate = 1 / dt;
    }

    /** @param time T of the filter, s, 0 for none */
    public void filter(double time) {
        weight = time > 0 ? -Math.expm1(-dt / time) : 1;
    }

    /** Begins with a speed. @param now counts/s */
    public void begin(double now) {
        speed = now;
    }

    /** A reading. @param difference to the one before, counts  @return the speed, counts/s */
    public double read(double difference) {
        speed += weight * (difference * rate - speed);
        return speed;
    }

    public double speed() {
        return speed;
    }
}
