package rueda.plcopen;

import rueda.machine.Following;
import rueda.machine.Limits;
import rueda.plc.run.CallPlace;
import rueda.profile.FollowerLock;
import rueda.quantity.InvalidEntry;
import rueda.quantity.Ratio;

/**
 * What function blocks and a person order of an axis that follows: to be tied to a master, to meet it, to be let go, to have its phase moved.
 * Orders may allocate; following does not. Not thread-safe.
 */
final class FollowOrders {

    private final MotionAxis axis;
    private final GearGenerator gear;
    private final ProgramPlaces places;
    private final double wireUnitsPerUnit;
    private Following rules;
    private MotionCommand phasing;
    /** by how much the phase was moved when the running order came, wire units of the follower */
    private double phasedFrom;

    FollowOrders(MotionAxis axis, GearGenerator gear, ProgramPlaces places, double wireUnitsPerUnit, Following rules) {
        this.axis = axis;
        this.gear = gear;
        this.places = places;
        this.wireUnitsPerUnit = wireUnitsPerUnit;
        this.rules = rules;
    }

    /* ---- orders of the function blocks ---- */

    /**
     * Follows a master from now on.
     *
     * @param kind         how it is tied
     * @param actual       the master's actual value counts, else its setpoint; null for a value that is none
     * @param ratio        units of this axis for one of the master; null for none
     * @param acceleration units/s², 0 for that of the axis while it follows
     * @param deceleration units/s², 0 likewise
     * @param mode         when it begins; null for a value that is none
     */
    void gearIn(MotionCommand command, FollowerLock.Kind kind, MotionAxis master, Boolean actual, Ratio ratio, double acceleration, double deceleration, BufferMode mode, String block, CallPlace call, long now) {
        if (axis.moves().waits(command, mode, later -> gearIn(command, kind, master, actual, ratio, acceleration, deceleration, BufferMode.ABORTING, block, call, later), block, call, now)) {
            return;
        }
        MotionError refusal = axis.cannotMove();
        if (refusal == MotionError.NONE) {
            refusal = actual == null ? MotionError.BAD_VALUE : tie(kind, master, actual, ratio, acceleration, deceleration);
        }
        axis.followFrom(command, refusal, ratio, block, call, now);
    }

    /** Follows the sum of what two masters do. See {@link #gearIn}; ratios with their signs. */
    void combine(MotionCommand command, MotionAxis one, Boolean oneActual, Ratio oneRatio, MotionAxis other, Boolean otherActual, Ratio otherRatio, BufferMode mode, String block, CallPlace call, long now) {
        if (axis.moves().waits(command, mode, later -> combine(command, one, oneActual, oneRatio, other, otherActual, otherRatio, BufferMode.ABORTING, block, call, later), block, call, now)) {
            return;
        }
        MotionError refusal = axis.cannotMove();
        if (refusal == MotionError.NONE && (oneActual == null || otherActual == null || otherRatio == null || wire(otherRatio, other) == null)) {
            refusal = MotionError.BAD_VALUE;
        }
        if (refusal == MotionError.NONE) {
            refusal = other.followsIndirectly(axis) ? MotionError.FOLLOWS_ITSELF : prepared(one, oneRatio, 0, 0, 0);
        }
        if (refusal == MotionError.NONE) {
            gear.combine(one, oneActual, wire(oneRatio, one), other, otherActual, wire(otherRatio, other));
        }
        axis.followFrom(command, refusal, oneRatio, block, call, now);
    }

    /**
     * Goes along a cam from now on. See {@link #gearIn}.
     *
     * @param selected      the cam; null for none
     * @param masterOffset  added to the place of the master, its units
     * @param slaveOffset   added to the place of this axis, its units
     * @param masterScaling by how much the cam is stretched, 0 for 1
     * @param slaveScaling  by how much its lift is, 0 for 1
     */
    void camIn(MotionCommand command, MotionAxis master, Boolean actual, CamSelection selected, double masterOffset, double slaveOffset, double masterScaling, double slaveScaling, BufferMode mode, String block, CallPlace call, long now) {
        if (axis.moves().waits(command, mode, later -> camIn(command, master, actual, selected, masterOffset, slaveOffset, masterScaling, slaveScaling, BufferMode.ABORTING, block, call, later), block, call, now)) {
            return;
        }
        MotionError refusal = axis.cannotMove();
        if (refusal == MotionError.NONE) {
            refusal = selected == null ? MotionError.NO_TABLE : actual == null || !Double.isFinite(masterOffset + slaveOffset + masterScaling + slaveScaling) || masterScaling < 0 ? MotionError.BAD_VALUE : MotionError.NONE;
        }
        if (refusal == MotionError.NONE && selected.slaveAbsolute() && !axis.referenced()) {
            refusal = axis.referenceLost() ? MotionError.REFERENCE_LOST : MotionError.NOT_REFERENCED;
        }
        CamCoupling coupling = refusal == MotionError.NONE ? coupling(master, actual, selected, masterOffset, slaveOffset, masterScaling == 0 ? 1 : masterScaling, slaveScaling == 0 ? 1 : slaveScaling) : null;
        if (refusal == MotionError.NONE) {
            /* the last question: it changes what the running order may do */
            refusal = leavesLimits(coupling, selected) ? MotionError.PAST_SOFT_LIMIT : prepared(master, Ratio.ONE, 0, 0, 0);
        }
        if (refusal == MotionError.NONE) {
            if (rules.catchUp() == 0) {
                /* one that may never make anything up comes to its cam all the same */
                Limits limits = places.limits();
                gear.rules(rules.withCatchUp(rules.speedOr(limits)), rules.speedOr(limits), rules.accelerationOr(limits), rules.decelerationOr(limits));
            }
            gear.couple(master, actual, coupling, selected.slaveAbsolute());
        }
        axis.followFrom(command, refusal, null, block, call, now);
    }

    private CamCoupling coupling(MotionAxis master, boolean actual, CamSelection selected, double masterOffset, double slaveOffset, double masterScaling, double slaveScaling) {
        double place = actual ? master.actualPosition() : master.commandedPosition();
        double from = (masterOffset + (selected.masterAbsolute() ? place : 0)) / masterScaling + (selected.masterAbsolute() ? 0 : selected.table().first());
        return new CamCoupling(selected.table(), from, 1 / (master.wireUnitsPerUnit() * masterScaling), slaveScaling * wireUnitsPerUnit, slaveOffset * wireUnitsPerUnit);
    }

    /** Places that the cam gives, of an axis with ends that knows where it is. */
    private boolean leavesLimits(CamCoupling coupling, CamSelection selected) {
        if (!axis.bounded() || !axis.referenced()) {
            return false;
        }
        double begins = selected.slaveAbsolute() ? 0 : axis.commandedPosition() * wireUnitsPerUnit - coupling.place(0);
        double one = coupling.scale() * coupling.table().lowest() + coupling.offset() + begins;
        double other = coupling.scale() * coupling.table().highest() + coupling.offset() + begins;
        return Math.min(one, other) < places.limits().softMin() * wireUnitsPerUnit - 0.5 || Math.max(one, other) > places.limits().softMax() * wireUnitsPerUnit + 0.5;
    }

    /** Rounds of its cam that the master has begun. */
    long camRound() {
        return axis.gearLeads() ? gear.camRound() : 0;
    }

    boolean camEnded() {
        return axis.gearLeads() && gear.camEnded();
    }

    /** Meets a master at a place, and follows it from there on. See {@link #gearIn}. @param way of the master on which it comes there, its units  @param speed units/s, 0 for that of the axis while it follows */
    void gearInPos(MotionCommand command, MotionAxis master, Boolean actual, Ratio ratio, double masterPlace, double ownPlace, double way, double speed, double acceleration, double deceleration, BufferMode mode, String block,
                   CallPlace call, long now) {
        if (axis.moves().waits(command, mode, later -> gearInPos(command, master, actual, ratio, masterPlace, ownPlace, way, speed, acceleration, deceleration, BufferMode.ABORTING, block, call, later), block, call, now)) {
            return;
        }
        MotionError refusal = axis.cannotMove();
        if (refusal == MotionError.NONE && !axis.referenced()) {
            refusal = axis.referenceLost() ? MotionError.REFERENCE_LOST : MotionError.NOT_REFERENCED;
        }
        if (refusal == MotionError.NONE) {
            refusal = actual == null ? MotionError.BAD_VALUE : meet(master, actual, ratio, masterPlace, ownPlace, way, speed, acceleration, deceleration);
        }
        axis.followFrom(command, refusal, ratio, block, call, now);
    }

    /** Lets go of the master: the axis runs on at the speed it has. */
    void gearOut(MotionCommand command, String block, CallPlace call, long now) {
        MotionError refusal = axis.closed() != MotionError.NONE ? axis.closed() : !axis.gearLeads() ? MotionError.NOT_IN_THIS_STATE : MotionError.NONE;
        if (refusal != MotionError.NONE) {
            axis.refuse(command, refusal, block, call, now, Double.NaN);
            return;
        }
        axis.runOn(block, call, now);
        command.begin(MotionCommand.Status.DONE);
    }

    /**
     * Moves the phase: the follower sees its master that much farther on.
     *
     * @param master   must be the one it follows
     * @param shift    units of the master
     * @param relative to where the phase is, else from where it was tied
     * @param speed    units/s of the master, 0 for the trim speed of the axis
     */
    void phase(MotionCommand command, MotionAxis master, double shift, boolean relative, double speed, double acceleration, double deceleration, double jerk, String block, CallPlace call, long now) {
        boolean follows = axis.gearLeads() && !gear.byCam() && gear.master() == master.present();
        MotionError refusal = axis.closed() != MotionError.NONE ? axis.closed() : !follows ? MotionError.NOT_IN_THIS_STATE : phase(command, shift, relative, speed, acceleration, deceleration, jerk);
        if (refusal != MotionError.NONE) {
            axis.refuse(command, refusal, block, call, now, shift);
        }
    }

    /* ---- orders of a person ---- */

    /** Follows a master as the document says. @param units units of this axis for one of the master */
    void followByHand(MotionCommand command, MotionAxis master, Ratio units, String block, long now) {
        boolean actual = rules.source() == Following.Source.ACTUAL;
        switch (rules.lock()) {
            case SPEED -> gearIn(command, FollowerLock.Kind.SPEED, master, actual, units, 0, 0, BufferMode.ABORTING, block, CallPlace.NONE, now);
            case POSITION -> gearIn(command, FollowerLock.Kind.POSITION, master, actual, units, 0, 0, BufferMode.ABORTING, block, CallPlace.NONE, now);
            case LOOSE -> gearIn(command, FollowerLock.Kind.LOOSE, master, actual, units, 0, 0, BufferMode.ABORTING, block, CallPlace.NONE, now);
            case MEETING -> gearInPos(command, master, actual, units, rules.meeting().master(), rules.meeting().follower(), rules.meeting().way(), 0, 0, 0, BufferMode.ABORTING, block, CallPlace.NONE, now);
        }
    }

    /** Lets go of the master as the document says: the axis ramps down, or keeps its speed. @return it followed */
    boolean letGo(MotionCommand command, String block, long now) {
        if (!axis.gearLeads()) {
            return false;
        }
        if (rules.release() == Following.Release.HOLD_SPEED) {
            axis.runOn(block, CallPlace.NONE, now);
        } else {
            axis.halt(command, rules.decelerationOr(places.limits()), places.limits().normal().jerk(), block, CallPlace.NONE, now);
        }
        return true;
    }

    /** Moves the phase on while it follows, at the trim speed. @param direction −1, 1, or 0 to end  @return it follows */
    boolean trim(int direction) {
        if (axis.gearLeads()) {
            gear.trimAt(direction * rules.trimSpeed() * wireUnitsPerUnit, places.limits().normal().acceleration() * wireUnitsPerUnit);
        }
        return axis.gearLeads();
    }

    /* ---- what can be read ---- */

    /** It follows, and is as near to its place as the window says. */
    boolean inGear() {
        return axis.gearLeads() && gear.inGear();
    }

    /** It is on its way to the meeting point, or past it. */
    boolean meetingStarted() {
        return axis.gearLeads() && gear.started();
    }

    /** The axis whose value it follows or followed last. */
    MotionAxis master() {
        return gear.master();
    }

    void take(Following changed) {
        rules = changed;
    }

    /* ---- how it is done ---- */

    /**
     * Ties the axis.
     *
     * @param actual       the master's actual value counts, else its setpoint
     * @param ratio        units of the follower for one unit of the master; null for none
     * @param acceleration units/s², 0 for that of the axis while it follows
     * @param deceleration units/s², 0 likewise
     * @return why not, or NONE
     */
    private MotionError tie(FollowerLock.Kind kind, MotionAxis master, boolean actual, Ratio ratio, double acceleration, double deceleration) {
        MotionError refusal = prepared(master, ratio, 0, acceleration, deceleration);
        if (refusal == MotionError.NONE) {
            gear.engage(kind, master, actual, wire(ratio, master));
        }
        return refusal;
    }

    /** Meets the master at a place. See {@link #tie}. @param way of the master on which it comes there, its units  @param speed units/s, 0 for that of the axis while it follows */
    private MotionError meet(MotionAxis master, boolean actual, Ratio ratio, double masterPlace, double followerPlace, double way, double speed, double acceleration, double deceleration) {
        if (!Double.isFinite(masterPlace) || !Double.isFinite(followerPlace) || !(way >= 0) || Double.isInfinite(way)) {
            return MotionError.BAD_VALUE;
        }
        MotionError refusal = prepared(master, ratio, speed, acceleration, deceleration);
        if (refusal == MotionError.NONE) {
            gear.meet(master, actual, wire(ratio, master), masterPlace, followerPlace, way);
        }
        return refusal;
    }

    private MotionError prepared(MotionAxis master, Ratio ratio, double speed, double acceleration, double deceleration) {
        Limits limits = places.limits();
        boolean bad = ratio == null || ratio.numerator() == 0 || wire(ratio, master) == null || !(speed >= 0) || speed > limits.max().speed()
                || !(acceleration >= 0) || acceleration > limits.max().acceleration() || !(deceleration >= 0) || deceleration > limits.max().deceleration();
        if (bad) {
            return MotionError.BAD_VALUE;
        }
        if (master.followsIndirectly(axis)) {
            return MotionError.FOLLOWS_ITSELF;
        }
        gear.rules(rules, speed > 0 ? speed : rules.speedOr(limits), acceleration > 0 ? acceleration : rules.accelerationOr(limits), deceleration > 0 ? deceleration : rules.decelerationOr(limits));
        dropPhasing(MotionCommand.Status.ABORTED);
        return MotionError.NONE;
    }

    /** Wire units of the follower for one of the master; null where 64 bits do not hold it. */
    private Ratio wire(Ratio ratio, MotionAxis master) {
        try {
            return ratio.times(Ratio.of((long) wireUnitsPerUnit, (long) master.wireUnitsPerUnit()));
        } catch (InvalidEntry tooLarge) {
            return null;
        }
    }

    /** @return why not, or NONE */
    private MotionError phase(MotionCommand command, double shift, boolean relative, double speed, double acceleration, double deceleration, double jerk) {
        double perUnit = gear.ratio() * gear.master().wireUnitsPerUnit();
        double size = Math.abs(perUnit);
        Limits limits = places.limits();
        double v = speed == 0 ? rules.trimSpeed() * wireUnitsPerUnit : speed * size;
        double a = acceleration == 0 ? limits.normal().acceleration() * wireUnitsPerUnit : acceleration * size;
        double d = deceleration == 0 ? a : deceleration * size;
        if (!Double.isFinite(shift) || !(v > 0) || v > limits.max().speed() * wireUnitsPerUnit || !(a > 0) || !(d > 0) || !(jerk >= 0) || Double.isInfinite(a + d + jerk)) {
            return MotionError.BAD_VALUE;
        }
        if (phasing != command) {
            dropPhasing(MotionCommand.Status.ABORTED);
        }
        phasedFrom = gear.trimmed();
        gear.trimTo((relative ? phasedFrom : 0) + shift * perUnit, v, a, d, jerk * size);
        phasing = command;
        command.begin(MotionCommand.Status.ACTIVE);
        return MotionError.NONE;
    }

    /** After a step of following: the phase may be where it was to be. */
    void observe() {
        if (phasing != null && gear.trimEnded()) {
            dropPhasing(MotionCommand.Status.DONE);
        }
    }

    /** The axis follows no more, or anew. */
    void dropPhasing(MotionCommand.Status how) {
        if (phasing != null) {
            phasing.status = how;
            phasing = null;
        }
    }

    /** By how much the phase has been moved since the axis was tied, units of the master. */
    double phaseShift() {
        return gear.trimmed() / (gear.ratio() * gear.master().wireUnitsPerUnit());
    }

    /** The same since the last order. */
    double coveredShift() {
        return (gear.trimmed() - phasedFrom) / (gear.ratio() * gear.master().wireUnitsPerUnit());
    }
}
