package rueda.plcopen;

/**
 * The order that begins when the running one is done, or where its target is passed. One per axis, filled again and again. No allocation; not
 * thread-safe.
 */
final class WaitingOrder {

    enum Kind { TO, BY, AT_SPEED }

    Kind kind;
    /** null while nothing waits */
    MotionCommand command;
    BufferMode mode;
    /** position or distance, user units */
    double wanted;
    Direction direction;
    double speed;
    double acceleration;
    double deceleration;
    double jerk;
    String block;
    int line;

    boolean stands() {
        return command != null;
    }

    void fill(Kind what, MotionCommand by, BufferMode when, double value, Direction way, double wantedSpeed, double a, double d, double j, String instance, int inLine) {
        kind = what;
        command = by;
        mode = when;
        wanted = value;
        direction = way;
        speed = wantedSpeed;
        acceleration = a;
        deceleration = d;
        jerk = j;
        block = instance;
        line = inLine;
        by.begin(MotionCommand.Status.WAITING);
    }

    /** It is not carried out. */
    void drop(MotionCommand.Status how, MotionError reason) {
        if (stands()) {
            command.status = how;
            command.error = reason;
            command = null;
        }
    }
}
