package rueda.proof;

import static rueda.proof.Words.plain;
import static rueda.proof.Words.say;

import rueda.machine.Axis;

/** One event comes before another: the first time of each. @param first event  @param then event */
record ComesBefore(String first, String then) implements Claim {

    @Override
    public String axis() {
        return null;
    }

    @Override
    public String sentence(Axis of) {
        return first.strip() + " comes before " + then.strip();
    }

    @Override
    public Verdict judge(RecordedRun run) {
        Reading reading = new Reading(run);
        int one = reading.next(reading.instant(first), 0);
        int other = reading.next(reading.instant(then), 0);
        Causes causes = new Causes(run);
        if (one < 0 || other < 0) {
            return Verdict.nothingShown(sentence(null), run.end(), causes.neverHappened((one < 0 ? first : then).strip())).withSignal(reading.signal(one < 0 ? first : then));
        }
        double between = (other - one) * run.interval();
        boolean holds = between > 0;
        return Verdict.of(sentence(null), holds).withLimit(0.0).withMeasured(between).withUnit("s").withMargin(between).at(run.time(Math.max(one, other)), run.time(Math.min(one, other)), run.time(Math.max(one, other)), reading.signal(then))
                .because(causes, reading.axis(then).orElse(-1), say("%s came at %s s, %s at %s s.", first.strip(), plain(run.time(one)), then.strip(), plain(run.time(other))));
    }
}
