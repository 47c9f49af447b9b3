package rueda.drive;

import static rueda.drive.DriveObject.POSITIONING_OPTION;
import static rueda.drive.DriveObject.TARGET_POSITION;

import rueda.profile.StoppingWay;

/**
 * Profile position (IEC 61800-7-201, profile position mode): the PLC gives a target with an edge of bit 4 (new setpoint), the drive
 * plans the motion and acknowledges with bit 12.
 *
 * <ul>
 * <li>A single setpoint (bit 5 set) replaces the running motion at once. One of a set (bit 5 clear) waits until the running one is at its
 * target, and bit 12 stays until there is room for another.
 * <li>With bit 9 (change on setpoint) the running motion passes its target at speed when the next one goes on in the same direction.
 * <li>Relative targets (bit 6) count from the target before. On an endless axis bits 6 and 7 of 60F2h say which way an absolute one is reached
 * (from memory): 1 backward, 2 forward, 3 the shorter way; 0 too is the shorter way (our choice, the same as in cyclic positions). A place that
 * lies ahead and is nearer than the way the axis needs to stop is reached one turn later.
 * <li>Bit 8 (halt) brings the axis to rest; without it the motion goes on.
 * </ul>
 *
 * No allocation; not thread-safe.
 */
final class ProfilePosition implements SetpointSource {

    /** Place of the rotary axis direction option in 60F2h, and its values. */
    static final int ROTARY_DIRECTION = 6;
    static final int BACKWARD = 1;
    static final int FORWARD = 2;
    static final int SHORTER = 3;

    private final ObjectDictionary dictionary;
    private final Setpoint setpoint;
    private final Reference reference;
    private final ProfileObjects objects;
    private final ProfiledSetpoint motion;
    private final RampedSetpoint ramped;
    private boolean commandBefore;
    private boolean haltedBefore;
    private boolean acknowledged;
    private boolean moving;
    private boolean halted;
    private boolean insideSoftLimits = true;
    /** wire units, counted on beyond the modulo */
    private long target;
    private boolean waits;
    private long waitingTarget;
    private boolean passes;

    ProfilePosition(ObjectDictionary dictionary, Setpoint setpoint, Reference reference, ProfileObjects objects, ProfiledSetpoint motion, RampedSetpoint ramped) {
        this.dictionary = dictionary;
        this.setpoint = setpoint;
        this.reference = reference;
        this.objects = objects;
        this.motion = motion;
        this.ramped = ramped;
    }

    /** Nothing is asked for: the axis comes to rest where it is. */
    void enter() {
        moving = false;
        waits = false;
        acknowledged = false;
        halted = false;
        haltedBefore = false;
        target = reference.unwrappedWire(setpoint.position);
        rest();
    }

    private void rest() {
        if (setpoint.speed == 0) {
            motion.stand();
        } else {
            motion.run(0, objects.deceleration(), objects.jerk());
        }
    }

    /** Another mode leads: a bit that stands then makes no edge. */
    void follow(int controlword) {
        commandBefore = (controlword & ControlWord.NEW_SETPOINT) != 0;
    }

    /** Once a bus cycle while it leads. */
    void latch(int controlword) {
        boolean command = (controlword & ControlWord.NEW_SETPOINT) != 0;
        boolean edge = command && !commandBefore;
        commandBefore = command;
        halted = (controlword & ControlWord.HALT) != 0;
        if (edge && !waits) {
            take(controlword);
        }
        if (!command && !waits) {
            acknowledged = false;
        }
        if (halted && !haltedBefore) {
            rest();
        } else if (!halted && haltedBefore && moving) {
            go();
        }
        haltedBefore = halted;
    }

    private void take(int controlword) {
        acknowledged = true;
        boolean relative = (controlword & ControlWord.RELATIVE) != 0;
        boolean atOnce = (controlword & ControlWord.CHANGE_IMMEDIATELY) != 0 || !moving;
        long asked = dictionary.get(TARGET_POSITION);
        if (!moving && !atTarget()) {
            target = reference.unwrappedWire(setpoint.position);
        }
        long wanted = relative ? target + asked : absolute(asked);
        if (objects.bounded()) {
            long inside = objects.inside(wanted, reference.unwrappedWire(setpoint.position));
            insideSoftLimits = inside == wanted;
            wanted = inside;
        } else {
            insideSoftLimits = true;
        }
        if (atOnce) {
            target = wanted;
            waits = false;
            passes = false;
            go();
        } else {
            waitingTarget = wanted;
            waits = true;
            passes = (controlword & ControlWord.CHANGE_ON_SETPOINT) != 0 && Long.signum(wanted - target) == Long.signum(target - reference.unwrappedWire(setpoint.position));
            if (passes) {
                go();
            }
        }
    }

    /** Where an absolute target lies, counted on beyond the modulo. */
    private long absolute(long asked) {
        int way = (int) dictionary.get(POSITIONING_OPTION) >> ROTARY_DIRECTION & 3;
        if (!reference.endless() || way != BACKWARD && way != FORWARD) {
            return reference.nearest(asked, target);
        }
        int side = way == FORWARD ? 1 : -1;
        double toStop = setpoint.speed * side > 0 ? Math.abs(motion.wayToStop(objects.deceleration(), objects.jerk())) : 0;
        return reference.ahead(asked, reference.unwrappedWire(setpoint.position), side, toStop);
    }

    /** The running motion is given up. */
    void reject() {
        if (moving || waits) {
            moving = false;
            waits = false;
            acknowledged = false;
            rest();
        }
    }

    private boolean atTarget() {
        return reference.countsAt(target) == setpoint.position;
    }

    private void go() {
        double speed = objects.velocity();
        if (speed <= 0) {
            moving = false;
            rest();
            return;
        }
        moving = true;
        if (halted) {
            return;
        }
        long counts = reference.countsAt(target);
        double passing = 0;
        if (passes) {
            double way = Math.abs(reference.countsAt(waitingTarget) - counts);
            passing = Math.signum(waitingTarget - target) * Math.min(speed, StoppingWay.speedWithin(Math.min(way, Math.abs(counts - setpoint.position)), Math.min(objects.acceleration(), objects.deceleration()), objects.jerk()));
        }
        motion.goTo(counts, passing, speed, objects.acceleration(), objects.deceleration(), objects.jerk());
    }

    @Override
    public void step(int number) {
        ramped.release();
        if (moving || setpoint.speed != 0) {
            motion.step();
        }
        if (moving && !halted && motion.ended()) {
            moving = false;
            if (waits) {
                target = waitingTarget;
                waits = false;
                passes = false;
                go();
            }
        }
    }

    /** Bit 12: the setpoint was taken, and bit 4 has not gone back yet, or the place for the next one is not free. */
    boolean acknowledged() {
        return acknowledged;
    }

    /** Nothing is under way, or the axis is halted. */
    boolean ended() {
        return halted ? setpoint.speed == 0 : !moving;
    }

    /** The axis is brought to rest by bit 8. */
    boolean halted() {
        return halted;
    }

    boolean insideSoftLimits() {
        return insideSoftLimits;
    }
}
