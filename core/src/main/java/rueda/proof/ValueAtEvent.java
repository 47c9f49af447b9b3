package rueda.proof;

import static rueda.proof.Words.plain;
import static rueda.proof.Words.say;

import java.util.BitSet;
import rueda.machine.Axis;
import rueda.proof.temporal.Formula;
import rueda.proof.temporal.Value;

/** A number made of signals is between two bounds each time an event comes. */
record ValueAtEvent(String signal, double low, double high, String event) implements Claim {

    @Override
    public String axis() {
        return null;
    }

    @Override
    public String sentence(Axis of) {
        return say("%s is between %s and %s each time %s comes", signal.strip(), plain(low), plain(high), event.strip());
    }

    @Override
    public Verdict judge(RecordedRun run) {
        Reading reading = new Reading(run);
        Value value = reading.number(signal);
        Formula formula = reading.instant(event);
        BitSet counted = new BitSet();
        for (int k = reading.next(formula, 0); k >= 0; k = reading.next(formula, k + 1)) {
            counted.set(k);
        }
        Causes causes = new Causes(run);
        if (counted.isEmpty()) {
            return Verdict.nothingShown(sentence(null), run.end(), causes.neverHappened(event.strip())).withSignal(reading.signal(signal));
        }
        Worst worst = Worst.of(counted, k -> {
            double here = value.term().at(reading.trace(), k);
            return Math.min(here - low, high - here);
        });
        double measured = value.term().at(reading.trace(), worst.sample());
        double time = run.time(worst.sample());
        return Verdict.of(sentence(null), worst.holds()).bounded(measured, low, high, value.unit()).at(time, time, time, reading.signal(signal))
                .because(causes, reading.axis(signal).orElse(-1), say("When %s came, %s was %s%s.", event.strip(), signal.strip(), plain(measured), value.unit().isEmpty() ? "" : " " + value.unit()));
    }
}
