package rueda.machine;

/**
 * Gains of the position and velocity loops.
 *
 * @param positionGain  Kv, 1/s
 * @param velocityGain  Kp, N·m·s/rad at the motor
 * @param integralTime  Ti of the velocity loop, ms
 * @param feedForward   share of the commanded speed fed forward, 0 to 1
 * @param torqueForward share of the commanded acceleration torque fed forward, 0 to 1
 */
public record Control(double positionGain, double velocityGain, double integralTime, double feedForward, double torqueForward) {
}
