package rueda.drive;

import rueda.drive.HomingMethod.Leg;
import rueda.drive.HomingMethod.Sensor;
import rueda.drive.HomingMethod.Until;

/**
 * One homing as it happens: follows the legs of a {@link HomingMethod}, watches switches and index pulse, and
 * says which speed is wanted. No allocation; not thread-safe.
 */
final class HomingRun {

    enum State { IDLE, SEARCHING, STOPPING, DONE, FAILED }

    private final long countsPerTurn;
    private final long indexCount;
    private HomingMethod method;
    private State state = State.IDLE;
    private HomingFailure failure = HomingFailure.NONE;
    /** null before the first */
    private Leg present;
    private boolean turned;
    /** the edge that counts was crossed faster than creep speed: the axis goes back over it */
    private boolean goingBack;
    /** legs begun so far */
    private int begun;
    private long zeroCounts;
    private boolean sensorBefore;
    private long turnBefore;

    /** @param indexCount count, within a turn, at which the index pulse comes */
    HomingRun(long countsPerTurn, long indexCount) {
        this.countsPerTurn = countsPerTurn;
        this.indexCount = indexCount;
    }

    void start(HomingMethod chosen, long counts, boolean negativeLimit, boolean positiveLimit, boolean cam) {
        method = chosen;
        failure = HomingFailure.NONE;
        turned = false;
        goingBack = false;
        turnBefore = turn(counts);
        if (chosen == null) {
            fail(HomingFailure.UNKNOWN_METHOD);
        } else if (chosen.legs().isEmpty()) {
            zeroCounts = counts;
            state = State.STOPPING;
        } else {
            sensorBefore = sensor(negativeLimit, positiveLimit, cam);
            begin(sensorBefore ? chosen.firstOn() : 0);
            begun = 1;
            state = State.SEARCHING;
        }
    }

    private void begin(int number) {
        present = method.legs().get(number);
    }

    private boolean sensor(boolean negativeLimit, boolean positiveLimit, boolean cam) {
        return switch (method.sensor()) {
            case NONE -> false;
            case NEGATIVE_LIMIT -> negativeLimit;
            case POSITIVE_LIMIT -> positiveLimit;
            case CAM -> cam;
        };
    }

    /** Whole turns from one index pulse to the next; worked out only when one has been passed. */
    private long turn(long counts) {
        long within = counts - indexCount - turnBefore * countsPerTurn;
        return within >= 0 && within < countsPerTurn ? turnBefore : Math.floorDiv(counts - indexCount, countsPerTurn);
    }

    void abort() {
        state = State.IDLE;
    }

    void fail(HomingFailure reason) {
        state = State.FAILED;
        failure = reason;
    }

    /**
     * Looks at the sensors once.
     *
     * @param direction direction in which the axis moves, −1, 0 or 1
     * @param fast      it moves faster than creep speed
     * @param pressed   the axis has pressed against a hard stop long enough
     */
    void observe(long counts, int direction, boolean fast, boolean negativeLimit, boolean positiveLimit, boolean cam, boolean pressed) {
        if (state != State.SEARCHING) {
            return;
        }
        boolean sensor = sensor(negativeLimit, positiveLimit, cam);
        Leg now = present;
        boolean withLeg = direction == (goingBack ? -now.direction() : now.direction());
        boolean edge = now.until() == Until.SENSOR_ON || now.until() == Until.SENSOR_OFF;
        if (goingBack) {
            goBack(now, withLeg, sensor, negativeLimit, positiveLimit);
        } else if (withLeg && edge && now.creep() && fast && reached(now.until(), counts, sensor, pressed)) {
            goingBack = true;
        } else if (withLeg && reached(now.until(), counts, sensor, pressed)) {
            finishLeg(now, counts);
        } else if (withLeg && (now.direction() < 0 ? negativeLimit : positiveLimit)) {
            meetLimit(now);
        }
        sensorBefore = sensor;
        turnBefore = turn(counts);
    }

    /** Back over the edge, so that it can be crossed again, slowly this time. */
    private void goBack(Leg now, boolean withLeg, boolean sensor, boolean negativeLimit, boolean positiveLimit) {
        boolean back = now.until() == Until.SENSOR_OFF ? sensor && !sensorBefore : !sensor && sensorBefore;
        if (withLeg && back) {
            goingBack = false;
        } else if (withLeg && (now.direction() > 0 ? negativeLimit : positiveLimit)) {
            fail(HomingFailure.LIMIT_MET);
        }
    }

    private boolean reached(Until until, long counts, boolean sensor, boolean pressed) {
        return switch (until) {
            case SENSOR_ON -> sensor && !sensorBefore;
            case SENSOR_OFF -> !sensor && sensorBefore;
            case INDEX -> turn(counts) != turnBefore;
            case HARD_STOP -> pressed;
        };
    }

    private void finishLeg(Leg now, long counts) {
        if (now.next() != HomingMethod.ZERO) {
            begin(now.next());
            begun++;
            return;
        }
        /* the drive's counter latches the index pulse itself: the whole turn just passed */
        zeroCounts = now.until() == Until.INDEX ? Math.max(turnBefore, turn(counts)) * countsPerTurn + indexCount : counts;
        state = State.STOPPING;
    }

    private void meetLimit(Leg now) {
        if (now.onLimit() != HomingMethod.FAILS) {
            turned = method.sensor() == Sensor.CAM;
            begin(now.onLimit());
            begun++;
        } else {
            fail(turned ? HomingFailure.NO_CAM_BETWEEN_LIMITS : HomingFailure.LIMIT_MET);
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

    HomingFailure failure() {
        return failure;
    }

    /** How many legs came before the present one, or −1 when nothing is searched. */
    int leg() {
        return state == State.SEARCHING ? begun - 1 : -1;
    }

    /** Direction wanted now: −1, 0 (stop) or 1. */
    int direction() {
        int direction = state == State.SEARCHING ? present.direction() : 0;
        return goingBack ? -direction : direction;
    }

    boolean creeps() {
        return state == State.SEARCHING && present.creep();
    }

    /** The axis is on its way to a hard stop, with limited torque. */
    boolean seeksHardStop() {
        return state == State.SEARCHING && present.until() == Until.HARD_STOP;
    }

    boolean zeroFound() {
        return state == State.STOPPING || state == State.DONE;
    }

    long zeroCounts() {
        return zeroCounts;
    }
}
