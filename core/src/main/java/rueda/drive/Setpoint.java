package rueda.drive;

/** What the loops are asked for in the present sub-step. One for each drive, written by its setpoint sources; not thread-safe. */
final class Setpoint {
    /** counts of the drive */
    long position;
    /** rad/s at the motor */
    double speed;
    /** rad/s² at the motor */
    double acceleration;

    /** Where the axis is, and as fast as it is: nothing is asked for. */
    void follow(Actual actual) {
        position = actual.position;
        speed = actual.speed;
    }
}
