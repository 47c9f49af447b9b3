package rueda.drive;

/**
 * Makes the setpoint of a drive while it leads: one for each mode of operation, and for what a drive does without one. A source takes
 * over from the {@link Setpoint} that the one before has left, so nothing jumps. No allocation; not thread-safe.
 */
interface SetpointSource {

    /** One sub-step. @param number 0 to sub-steps in a bus cycle − 1 */
    void step(int number);
}
