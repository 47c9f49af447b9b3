package rueda.machine;

/**
 * The work an axis is sized for: there and back, for ever, with its default speed, acceleration and jerk.
 *
 * @param distance way of one move, units, greater than 0
 * @param pause    rest after each move, s, 0 or more
 */
public record Duty(double distance, double pause) {
}
