/**
 * Signals over time, however long: a column of values, each at its own time, in whole nanoseconds.
 *
 * <p>Ten million samples are looked at through an {@link rueda.recording.Overview}: of every 256 samples the lowest and the highest, each at the time at which it
 * was taken. A picture of a thousand points is drawn from these ({@link rueda.recording.Stretch}), so no peak is lost or moved, and single samples are read only where
 * so few are shown that each has room.
 */
package rueda.recording;
