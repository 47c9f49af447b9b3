package rueda.proof;

import static rueda.proof.Words.plain;
import static rueda.proof.Words.say;

import rueda.machine.Axis;
import rueda.proof.temporal.Formula;

/**
 * From each time an event comes to the next time that another one does it takes a time within bounds. One whose end the run does not see, though it
 * could still come in time, is left out, unless it is the only one.
 *
 * @param least s  @param most s
 */
record TakesTime(String from, String to, double least, double most) implements Claim {

    @Override
    public String axis() {
        return null;
    }

    @Override
    public String sentence(Axis of) {
        return say("From %s to %s it takes %s to %s s", from.strip(), to.strip(), plain(least), plain(most));
    }

    @Override
    public Verdict judge(RecordedRun run) {
        Reading reading = new Reading(run);
        Formula begin = reading.instant(from);
        Formula end = reading.instant(to);
        Causes causes = new Causes(run);
        int worst = -1;
        int worstEnd = -1;
        double least = Double.POSITIVE_INFINITY;
        for (int k = reading.next(begin, 0); k >= 0; k = reading.next(begin, k + 1)) {
            int ends = reading.next(end, k);
            double passed = ((ends < 0 ? run.samples() - 1 : ends) - k) * run.interval();
            if (ends < 0 && passed <= most) {
                continue;
            }
            double room = Math.min(passed - this.least, most - passed);
            if (room < least) {
                least = room;
                worst = k;
                worstEnd = ends;
            }
        }
        if (worst < 0) {
            boolean begun = reading.next(begin, 0) >= 0;
            return Verdict.nothingShown(sentence(null), run.end(), causes.neverHappened((begun ? to : from).strip())).withSignal(reading.signal(begun ? to : from));
        }
        boolean open = worstEnd < 0;
        int last = open ? (int) run.samples() - 1 : worstEnd;
        double measured = (last - worst) * run.interval();
        Verdict verdict = Verdict.of(sentence(null), least >= 0).bounded(measured, this.least, most, "s").at(run.time(last), run.time(worst), run.time(last), reading.signal(to));
        return (open ? verdict.withMeasured(null).withRoom(null).withMargin(null) : verdict).because(causes, reading.axis(to).orElse(reading.axis(from).orElse(-1)),
                say(open ? "%s came at %s s, and %s not within %s s." : "%s came at %s s, %s %s s later.", from.strip(), plain(run.time(worst)), to.strip(), plain(measured)));
    }
}
