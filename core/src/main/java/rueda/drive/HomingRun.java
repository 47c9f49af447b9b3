package rueda.drive;

/**
 * One homing as it happens: follows the legs of a {@link HomingMethod}, watches switches and index pulse, and
 * says which speed is wanted. No allocation; not thread-safe.
 */
final class HomingRun {

    enum State { IDLE, SEARCHING, STOPPING, DONE, FAILED }

    private final long countsPerTurn;
    private HomingMethod method;
    private State state = State.IDLE;
    private int leg;
    private long zeroCounts;
    private boolean negativeBefore;
    private boolean camBefore;
    private long turnBefore;

    HomingRun(long countsPerTurn) {
        this.countsPerTurn = countsPerTurn;
    }

    void start(HomingMethod chosen, long counts, boolean negativeLimit, boolean cam) {
        method = chosen;
        negativeBefore = negativeLimit;
        camBefore = cam;
        turnBefore = Math.floorDiv(counts, countsPerTurn);
        if (chosen == null) {
            state = State.FAILED;
        } else if (chosen.legs().isEmpty()) {
            zeroCounts = counts;
            state = State.STOPPING;
        } else {
            leg = negativeLimit ? chosen.firstOnLimit() : cam ? chosen.firstOnCam() : 0;
            state = State.SEARCHING;
        }
    }

    void abort() {
        state = State.IDLE;
    }

    /**
     * Looks at the sensors once.
     *
     * @param direction direction in which the axis moves, −1, 0 or 1
     */
    void observe(long counts, int direction, boolean negativeLimit, boolean positiveLimit, boolean cam) {
        if (state == State.SEARCHING) {
            HomingMethod.Leg now = method.legs().get(leg);
            boolean withLeg = direction == now.direction();
            if (withLeg && reached(now.until(), counts, negativeLimit, cam)) {
                finishLeg(now, counts);
            } else if (withLeg && now.direction() < 0 && negativeLimit) {
                meetNegativeLimit(now);
            } else if (withLeg && now.direction() > 0 && positiveLimit) {
                state = State.FAILED;
            }
        }
        negativeBefore = negativeLimit;
        camBefore = cam;
        turnBefore = Math.floorDiv(counts, countsPerTurn);
    }

    private boolean reached(HomingMethod.Until until, long counts, boolean negativeLimit, boolean cam) {
        return switch (until) {
            case CAM_ON -> cam && !camBefore;
            case CAM_OFF -> !cam && camBefore;
            case NEGATIVE_LIMIT_ON -> negativeLimit;
            case NEGATIVE_LIMIT_OFF -> !negativeLimit && negativeBefore;
            case INDEX -> Math.floorDiv(counts, countsPerTurn) != turnBefore;
        };
    }

    private void finishLeg(HomingMethod.Leg now, long counts) {
        if (now.next() != HomingMethod.ZERO) {
            leg = now.next();
            return;
        }
        /* the drive's counter latches the index pulse itself: the whole turn just passed */
        zeroCounts = now.until() == HomingMethod.Until.INDEX
                ? Math.max(turnBefore, Math.floorDiv(counts, countsPerTurn)) * countsPerTurn
                : counts;
        state = State.STOPPING;
    }

    private void meetNegativeLimit(HomingMethod.Leg now) {
        if (now.onNegativeLimit() == HomingMethod.FAILS) {
            state = State.FAILED;
        } else {
            leg = now.onNegativeLimit();
        }
    }

    void standsStill() {
        if (state == State.STOPPING) {
            state = State.DONE;
        }
    }

    State state() {
        return state;
    }

    /** Leg being searched, or −1. */
    int leg() {
        return state == State.SEARCHING ? leg : -1;
    }

    /** Direction wanted now: −1, 0 (stop) or 1. */
    int direction() {
        return state == State.SEARCHING ? method.legs().get(leg).direction() : 0;
    }

    boolean creeps() {
        return state == State.SEARCHING && method.legs().get(leg).creep();
    }

    boolean zeroFound() {
        return state == State.STOPPING || state == State.DONE;
    }

    long zeroCounts() {
        return zeroCounts;
    }
}
