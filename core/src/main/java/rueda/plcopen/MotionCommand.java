package rueda.plcopen;

/** The order a function block has given to an axis, and how it stands. One per block instance, used again and again. */
final class MotionCommand {

    /** WAITING: behind the running order of the axis. */
    enum Status { IDLE, WAITING, ACTIVE, DONE, ABORTED, FAILED }

    Status status = Status.IDLE;
    MotionError error = MotionError.NONE;
    /** what the order has found, user units */
    double recorded;

    /** It has begun and has not ended. */
    boolean busy() {
        return status == Status.ACTIVE || status == Status.WAITING;
    }

    void begin(Status how) {
        status = how;
        error = MotionError.NONE;
    }

    void fail(MotionError reason) {
        status = Status.FAILED;
        error = reason;
    }
}
