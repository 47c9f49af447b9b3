package rueda.plcopen;

import rueda.plc.run.CallPlace;

/**
 * The last change of an axis' state, and what ordered it. Written while the bench runs, without allocating; not thread-safe.
 */
public final class StateChange {

    private AxisState from = AxisState.DISABLED;
    private long at;
    private String block = "";
    private CallPlace call = CallPlace.NONE;
    /** who ordered it will be told next */
    private boolean ordered;

    /** @param byOrder who ordered it is told right after, by {@link #by} */
    void change(AxisState before, AxisState next, long now, boolean byOrder) {
        ordered = byOrder;
        if (before != next) {
            from = before;
            at = now;
            block = "";
            call = CallPlace.NONE;
        } else {
            ordered = false;
        }
    }

    /** An order has been taken; it is the cause of a change that it has just made. */
    void by(String ordering, CallPlace from, long now) {
        if (ordered) {
            block = ordering;
            call = from;
            at = now;
            ordered = false;
        }
    }

    /** A bus cycle begins: orders that come now made no change before. */
    void settle() {
        ordered = false;
    }

    /** The state before. */
    public AxisState from() {
        return from;
    }

    /** When it came about, ns on the bench's clock. */
    public long at() {
        return at;
    }

    /** Instance of the function block that ordered it; empty where the drive did it, or an order came to its end. */
    public String block() {
        return block;
    }

    /** Where that was called. */
    public CallPlace call() {
        return call;
    }
}
