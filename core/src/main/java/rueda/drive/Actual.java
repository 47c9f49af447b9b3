package rueda.drive;

/** What the drive has measured after the last sub-step. One for each drive; not thread-safe. */
final class Actual {
    /** counts of the encoder that the position loop is closed over, brought to the motor */
    long position;
    /** rad/s of the motor */
    double speed;
}
