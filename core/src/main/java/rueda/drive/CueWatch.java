package rueda.drive;

import rueda.machine.Cue;

/** Watches one cue: says in which sub-step it counts. No allocation; not thread-safe. */
final class CueWatch {

    private final Cue cue;
    private final long mask;
    private final boolean rising;
    private final int subSteps;
    private boolean level;
    /** sub-steps until it counts, 0 when nothing is under way */
    private int waiting;
    private boolean now;

    /** @param active functions that are asked for as it begins, a bit for each by its place: what is there already is no edge */
    CueWatch(Cue cue, double subStep, long active) {
        this.cue = cue;
        mask = cue.comes() ? 1L << cue.input().ordinal() : 0;
        rising = cue.edge() == Cue.Edge.RISING;
        subSteps = cue.taken() == Cue.Taken.AT_ONCE ? 0 : (int) Math.round(cue.millis() * 1e-3 / subStep);
        level = (active & mask) != 0;
    }

    Cue cue() {
        return cue;
    }

    /** One sub-step. @param active functions that are asked for  @return it must be asked again in the next sub-step */
    boolean step(long active) {
        boolean before = level;
        level = (active & mask) != 0;
        boolean edge = level != before && level == rising;
        now = edge && subSteps == 0;
        if (edge && subSteps > 0 && waiting == 0) {
            waiting = subSteps;
        } else if (waiting > 0) {
            if (cue.taken() == Cue.Taken.STOOD && level != rising) {
                waiting = 0;
            } else {
                now = --waiting == 0;
            }
        }
        return waiting > 0 || now;
    }

    /** It counts in this sub-step. */
    boolean comes() {
        return now;
    }
}
