package rueda.proof;

import static rueda.proof.Words.plain;
import static rueda.proof.Words.say;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;
import rueda.machine.Axis;
import rueda.proof.temporal.Decision;
import rueda.proof.temporal.Judged;
import rueda.proof.temporal.Sentence;
import rueda.proof.temporal.SentenceReader;
import rueda.proof.temporal.Trace;

/** What its author has written holds over the run, judged from its beginning. @param text see {@link SentenceReader} */
record KeepsSentence(String text) implements Claim {

    @Override
    public String axis() {
        return null;
    }

    @Override
    public String sentence(Axis of) {
        return text.strip();
    }

    @Override
    public Verdict judge(RecordedRun run) {
        SignalNames names = new SignalNames(run.signals());
        Sentence read = SentenceReader.read(text, names);
        if (!read.sound()) {
            return open(run, "It says nothing: " + read.faults().get(0).message());
        }
        Judged judged = read.formula().judge(new Samples(run));
        if (judged.length() == 0) {
            return open(run, say("It looks farther ahead than the %s s that the program ran. Let it run longer.", plain(run.end())));
        }
        double room = judged.room(0);
        Decision decision = judged.decision(0);
        double time = run.time(decision.sample());
        Double margin = Double.isInfinite(room) ? null : Math.abs(room) == Double.MIN_VALUE ? 0.0 : room;
        String signal = signal(decision.by(), names).orElse("");
        String cause = room > 0 ? null : say("At %s s %s decides it%s.", plain(time), decision.by(), margin == null || margin == 0 ? "" : say(", by %s %s", plain(Math.abs(margin)), decision.unit()).stripTrailing());
        return new Verdict(text.strip(), room > 0, null, null, decision.unit(), null, margin, time, time, time, signal, cause, order(run, signal, time), null);
    }

    /** What the program had ordered then of the axis that the signal is one of. */
    private static Verdict.Order order(RecordedRun run, String signal, double time) {
        for (int i = 0; i < run.machine().axes().size(); i++) {
            if (signal.toUpperCase(Locale.ROOT).startsWith(run.machine().axes().get(i).name().toUpperCase(Locale.ROOT) + ".")) {
                return new Causes(run).orderAt(i, time);
            }
        }
        return null;
    }

    private Verdict open(RecordedRun run, String cause) {
        return new Verdict(text.strip(), false, null, null, "", null, null, run.end(), run.end(), run.end(), "", cause, null, null);
    }

    /** The first signal that stands in a comparison. */
    private static Optional<String> signal(String atom, SignalNames names) {
        return Arrays.stream(atom.split("[^\\w.\\[\\],]+")).filter(part -> names.find(part).isPresent()).findFirst();
    }

    /** @param run whose samples fit into an array */
    private record Samples(RecordedRun run) implements Trace {
        @Override
        public int samples() {
            return Math.toIntExact(run.samples());
        }

        @Override
        public double interval() {
            return run.interval();
        }

        @Override
        public double value(int signal, int sample) {
            return run.value(signal, sample);
        }
    }
}
