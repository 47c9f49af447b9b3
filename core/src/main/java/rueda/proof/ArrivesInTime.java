package rueda.proof;

import static rueda.proof.Words.plain;
import static rueda.proof.Words.say;

import rueda.bench.AxisSignal;
import rueda.machine.Axis;

/**
 * An axis arrives somewhere in time and stays.
 *
 * @param after     event whose first time starts the clock
 * @param position  user units
 * @param tolerance user units
 * @param within    s
 * @param stays     s
 */
record ArrivesInTime(String axis, String after, double position, double tolerance, double within, double stays) implements Claim {

    @Override
    public String sentence(Axis of) {
        return say("%s arrives at %s ± %s %s within %s s after %s and stays %s s", axis, plain(position), plain(tolerance), of.unit().symbol(), plain(within), after, plain(stays));
    }

    @Override
    public Verdict judge(RecordedRun run) {
        int number = axisIn(run.machine());
        Axis of = run.machine().axes().get(number);
        Causes causes = new Causes(run);
        String sentence = sentence(of);
        String signal = AxisSignal.POSITION.of(of.name());
        Reading reading = new Reading(run);
        int start = reading.next(reading.instant(after), 0);
        double end = run.end();
        if (start < 0) {
            return new Verdict(sentence, false, within, null, "s", null, null, end, end, end, signal, causes.neverHappened(after.strip()), causes.orderAt(number, end), null, null);
        }
        int actual = run.signal(signal);
        long stay = Math.round(stays / run.interval());
        long arrived = -1;
        long insideSince = -1;
        double closest = Double.MAX_VALUE;
        for (long k = start; k < run.samples() && arrived < 0; k++) {
            double off = Math.abs(run.value(actual, k) - position);
            closest = Math.min(closest, off);
            insideSince = off <= tolerance ? insideSince < 0 ? k : insideSince : -1;
            if (insideSince >= 0 && k - insideSince >= stay) {
                arrived = insideSince;
            }
        }
        double begin = run.time(start);
        if (arrived < 0) {
            return new Verdict(sentence, false, within, null, "s", null, null, end, begin, end, signal, causes.neverArrived(number, begin, closest, of.unit().symbol()), causes.orderAt(number, begin), null, null);
        }
        double measured = (arrived - start) * run.interval();
        boolean holds = measured <= within;
        double time = run.time(arrived);
        return new Verdict(sentence, holds, within, measured, "s", (within - measured) / within, within - measured, time, holds ? begin : begin + within, time, signal,
                holds ? null : causes.late(number, begin, measured, within), causes.orderAt(number, time), null, null);
    }
}
