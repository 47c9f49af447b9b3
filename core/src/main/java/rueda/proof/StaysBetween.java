package rueda.proof;

import static rueda.proof.Words.plain;
import static rueda.proof.Words.say;

import java.util.BitSet;
import rueda.machine.Axis;
import rueda.proof.temporal.Value;

/** A number made of signals stays between two bounds. @param signal in Structured Text  @param low in its unit  @param high in its unit */
record StaysBetween(String signal, double low, double high, Stretch stretch) implements Claim {

    @Override
    public String axis() {
        return null;
    }

    @Override
    public String sentence(Axis of) {
        return say("%s stays between %s and %s%s", signal.strip(), plain(low), plain(high), stretch.words());
    }

    @Override
    public Verdict judge(RecordedRun run) {
        Reading reading = new Reading(run);
        Value value = reading.number(signal);
        BitSet counted = stretch.samples(reading);
        String name = reading.signal(signal);
        if (counted.isEmpty()) {
            return Verdict.nothingShown(sentence(null), run.end(), stretch.never()).withSignal(name);
        }
        Worst worst = Worst.of(counted, k -> {
            double here = value.term().at(reading.trace(), k);
            return Math.min(here - low, high - here);
        });
        double measured = value.term().at(reading.trace(), worst.sample());
        return Verdict.of(sentence(null), worst.holds()).bounded(measured, low, high, value.unit()).at(run.time(worst.sample()), run.time(worst.from()), run.time(worst.to()), name)
                .because(new Causes(run), reading.axis(signal).orElse(-1), say("%s was %s%s.", signal.strip(), plain(measured), value.unit().isEmpty() ? "" : " " + value.unit()));
    }
}
