package rueda.proof;

import static rueda.proof.Words.plain;
import static rueda.proof.Words.say;

import java.util.BitSet;
import rueda.machine.Axis;
import rueda.machine.Expectation.Alignment;
import rueda.proof.temporal.Value;
import rueda.recording.Brought;

/**
 * A number made of signals is, wherever both are there, near to what it is in a recording.
 *
 * @param signal in Structured Text
 * @param limit  most that they may be apart, in its unit
 * @param event  where they are laid over one another, for {@link Alignment#EVENT}
 */
record DiffersLittle(String signal, String recording, double limit, Alignment alignment, String event) implements Claim {

    @Override
    public String axis() {
        return null;
    }

    @Override
    public String sentence(Axis of) {
        return say("%s differs from the recording %s by at most %s, %s%s", signal.strip(), recording.strip(), plain(limit), alignment.words(), alignment == Alignment.EVENT ? " " + event.strip() : "");
    }

    @Override
    public Verdict judge(RecordedRun run) {
        Brought brought = run.shelf().apply(recording.strip()).orElseThrow(() -> new Reading.SaysNothing("There is no recording called “" + recording.strip() + "”. Bring it in, or name another one."));
        BroughtRun recorded = new BroughtRun(run.machine(), brought, run.signals(), run.interval());
        Reading here = new Reading(run);
        Reading there = new Reading(recorded);
        Value value = here.number(signal);
        Value other = there.number(signal);
        double shift = Comparison.shift(run, recorded, new Comparison.Laid(alignment, event, signal));
        double[] apart = new double[here.trace().samples()];
        BitSet counted = new BitSet();
        double offset = (run.time(0) - shift - recorded.time(0)) / recorded.interval();
        for (int k = 0; k < apart.length; k++) {
            apart[k] = value.term().at(here.trace(), k) - between(other, there, offset + k);
            counted.set(k, !Double.isNaN(apart[k]));
        }
        String name = here.signal(signal);
        if (recorded.signal(name) >= 0) {
            counted.andNot(Jumps.beside(run, run.signal(name), recorded, recorded.signal(name)));
        }
        if (counted.isEmpty()) {
            return Verdict.nothingShown(sentence(null), run.end(), "The recording " + brought.name() + " has nothing at the times of the run.").withSignal(name);
        }
        Worst worst = Worst.of(counted, k -> limit - Math.abs(apart[k]));
        double room = limit - Math.abs(apart[worst.sample()]);
        return Verdict.of(sentence(null), worst.holds()).withLimit(limit).withMeasured(Math.abs(apart[worst.sample()])).withUnit(value.unit()).withRoom(room / limit).withMargin(room)
                .at(run.time(worst.sample()), run.time(worst.from()), run.time(worst.to()), name)
                .because(new Causes(run), here.axis(signal).orElse(-1), say("%s was %s%s away from the recording, which was moved by %.4f s.", signal.strip(), plain(apart[worst.sample()]), value.unit().isEmpty() ? "" : " " + value.unit(), shift));
    }

    /** @param place in samples of the recording */
    private static double between(Value value, Reading reading, double place) {
        int k = (int) Math.floor(place + 1e-9);
        if (k < 0 || k > reading.trace().samples() - 1) {
            return Double.NaN;
        }
        double here = value.term().at(reading.trace(), k);
        double share = Math.max(0, place - k);
        return share < 1e-6 || k == reading.trace().samples() - 1 ? here : here * (1 - share) + value.term().at(reading.trace(), k + 1) * share;
    }
}
