package rueda.machine;

/**
 * A servo motor. Up to the rated speed it gives its peak torque; from there to the highest speed the peak falls in a
 * straight line, as data sheets draw it.
 *
 * @param inertia          rotor inertia, kg·m²
 * @param ratedTorque      continuous torque, N·m
 * @param peakTorque       peak torque, N·m
 * @param ratedSpeed       1/min, up to which the peak torque is there
 * @param maxSpeed         highest speed, 1/min
 * @param torqueAtMaxSpeed peak torque at the highest speed, N·m
 */
public record Motor(double inertia, double ratedTorque, double peakTorque, double ratedSpeed, double maxSpeed, double torqueAtMaxSpeed) {

    /** Peak torque at a speed, N·m; 0 beyond the point where the falling line meets it. @param turnsPerMinute 1/min, either way */
    public double peakTorqueAt(double turnsPerMinute) {
        double speed = Math.abs(turnsPerMinute);
        if (speed <= ratedSpeed) {
            return peakTorque;
        }
        return Math.max(0, peakTorque - torqueDrop() * (speed - ratedSpeed));
    }

    /** Fall of the peak torque beyond the rated speed, N·m per 1/min. */
    public double torqueDrop() {
        return maxSpeed > ratedSpeed ? (peakTorque - torqueAtMaxSpeed) / (maxSpeed - ratedSpeed) : 0;
    }
}
