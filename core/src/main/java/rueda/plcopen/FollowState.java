package rueda.plcopen;

/**
 * How an axis follows at present, in units of the follower.
 *
 * @param follows       it is tied, or on its way to be
 * @param locked        within its phase window
 * @param words         what it does
 * @param master        number of the axis whose value it follows, −1 for none
 * @param deviation     setpoint minus the place that the master gives it
 * @param lost          what it has lost while it came up to speed and does not make up
 * @param trimmed       by how much its phase has been moved
 * @param ratio         units of the follower for one of the master
 * @param way           how far its place has gone since it was tied
 * @param warning       what has come about since then, in words; empty for nothing
 */
public record FollowState(boolean follows, boolean locked, String words, int master, double deviation, double lost, double trimmed, double ratio, double way, String warning) {

    static final FollowState NOT = new FollowState(false, false, "does not follow", -1, 0, 0, 0, 0, 0, "");
}
