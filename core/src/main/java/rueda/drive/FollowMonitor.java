package rueda.drive;

import rueda.machine.FollowWatch;
import rueda.machine.FollowWatch.Event;
import rueda.plant.MasterShaft;

/**
 * Watches the encoder that is followed and the follower: lines, index pulse, lost counts, speed, phase. It tells each thing once when it comes
 * about; what is done then says {@link FollowWatch}.
 *
 * <p>Lost counts: between two index pulses there is a whole number of turns of counts, give or take the one by which the flanks of both directions
 * differ. The speed is that over 16 ms, so that single counts of a coarse encoder are no speed: a master that is too fast is told after 32 ms at
 * most. No allocation; not thread-safe.
 */
final class FollowMonitor {

    /** Sub-steps over which the speed is taken. */
    private static final int SPEED_SUB_STEPS = 128;
    /** Counts by which the index pulse lies elsewhere in the other direction. */
    private static final int FLANK = 1;

    private final MasterShaft shaft;
    private final long countsPerTurn;
    private final boolean indexed;
    private FollowWatch watch;
    /** way of the place in a stretch at the follower's highest speed, counts of the follower */
    private double fastest;
    private double phaseLimit;
    private boolean brokenBefore;
    private int pulsesBefore;
    private boolean pulseKnown;
    private long firstIndex;
    private long lastIndex;
    private boolean missingTold;
    private boolean lostTold;
    private boolean phaseTold;
    private boolean fastTold;
    private long lost;
    private int stretch;
    private long stretchFrom;

    FollowMonitor(MasterShaft shaft, long countsPerTurn, boolean indexed) {
        this.shaft = shaft;
        this.countsPerTurn = countsPerTurn;
        this.indexed = indexed;
        pulsesBefore = shaft == null ? 0 : shaft.indexPulses();
    }

    /** @param fastestSpeed counts of the follower/s  @param perCount counts of the follower for one unit of it  @param subStep s */
    void take(FollowWatch changed, double fastestSpeed, double perCount, double subStep) {
        watch = changed;
        fastest = fastestSpeed * SPEED_SUB_STEPS * subStep + 1;
        phaseLimit = changed.phaseLimit() * perCount;
    }

    /** It is tied: what has come about before is told again when it is still so. */
    void begin(long place) {
        brokenBefore = false;
        missingTold = false;
        /* while another mode led nobody looked */
        pulseKnown = false;
        pulsesBefore = shaft.indexPulses();
        lastIndex = shaft.read();
        lost = 0;
        lostTold = false;
        phaseTold = false;
        fastTold = false;
        placeAnew(place);
    }

    /** The place counts from elsewhere: that is no speed. */
    void placeAnew(long place) {
        stretch = 0;
        stretchFrom = place;
    }

    /**
     * One sub-step.
     *
     * @param tied      it follows
     * @param place     where the master has it, counts
     * @param deviation from there, besides the gap that the gain gives, counts
     * @param locked    it has been locked since it was tied
     * @return what has come about, or null
     */
    Event step(boolean tied, long place, double deviation, boolean locked) {
        boolean broken = shaft.broken();
        if (broken != brokenBefore) {
            brokenBefore = broken;
            pulseKnown = false;
            lastIndex = shaft.read();
            if (broken) {
                return Event.LINE_BROKEN;
            }
        }
        Event seen = indexed && !broken ? index() : null;
        if (seen != null || !tied) {
            return seen;
        }
        boolean outside = phaseLimit > 0 && locked && Math.abs(deviation) > phaseLimit;
        if (outside != phaseTold) {
            phaseTold = outside;
            if (outside) {
                return Event.PHASE_LEFT;
            }
        }
        return ++stretch < SPEED_SUB_STEPS ? null : speed(place);
    }

    private Event speed(long place) {
        stretch = 0;
        boolean fast = Math.abs(place - stretchFrom) > fastest;
        stretchFrom = place;
        boolean told = fastTold;
        fastTold = fast;
        return fast && !told ? Event.TOO_FAST : null;
    }

    private Event index() {
        if (shaft.indexPulses() == pulsesBefore) {
            boolean missing = Math.abs(shaft.read() - lastIndex) > countsPerTurn + countsPerTurn / 2;
            boolean told = missingTold;
            missingTold |= missing;
            return missing && !told ? Event.INDEX_MISSING : null;
        }
        pulsesBefore = shaft.indexPulses();
        lastIndex = shaft.indexAt();
        missingTold = false;
        if (!pulseKnown) {
            pulseKnown = true;
            firstIndex = lastIndex;
            lost = 0;
            return null;
        }
        long beside = Math.floorMod(lastIndex - firstIndex + countsPerTurn / 2, countsPerTurn) - countsPerTurn / 2;
        lost = Math.abs(beside) <= FLANK ? 0 : beside;
        boolean told = lostTold;
        lostTold = Math.abs(lost) > watch.lostCounts();
        return lostTold && !told ? Event.COUNTS_LOST : null;
    }

    /** Counts that are missing against the index pulse, negative when the reading is behind. */
    long lost() {
        return lost;
    }
}
