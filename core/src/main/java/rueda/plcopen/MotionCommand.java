package rueda.plcopen;

/** The order a function block has given to an axis, and how it stands. One per block instance, used again and again. */
final class MotionCommand {

    enum Status { IDLE, ACTIVE, DONE, ABORTED, FAILED }

    Status status = Status.IDLE;
    MotionError error = MotionError.NONE;

    void fail(MotionError reason) {
        status = Status.FAILED;
        error = reason;
    }
}
