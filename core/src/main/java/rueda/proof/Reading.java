package rueda.proof;

import java.util.Optional;
import java.util.function.Supplier;
import java.util.regex.Pattern;
import rueda.proof.temporal.Formula;
import rueda.proof.temporal.Sentence;
import rueda.proof.temporal.SentenceReader;
import rueda.proof.temporal.Value;

/** The sentences and numbers of an expectation, read against the signals of a run, and when events come in it. */
final class Reading {

    /** A sentence that says nothing about this run. */
    static final class SaysNothing extends RuntimeException {
        SaysNothing(String why) {
            super(why, null, false, false);
        }
    }

    private static final Pattern NAME_END = Pattern.compile("[^\\w.\\[\\],]+");

    private final RunTrace trace;
    private final SignalNames names;

    Reading(RecordedRun run) {
        trace = new RunTrace(run);
        names = new SignalNames(run.signals());
    }

    RunTrace trace() {
        return trace;
    }

    SignalNames names() {
        return names;
    }

    /** @throws SaysNothing when it cannot be read */
    Formula instant(String text) {
        Sentence read = SentenceReader.instant(text, names);
        return sound(read.sound(), read::formula, read.faults(), text);
    }

    /** @throws SaysNothing when it cannot be read */
    Value number(String text) {
        Value read = SentenceReader.number(text, names);
        return sound(read.sound(), () -> read, read.faults(), text);
    }

    private static <T> T sound(boolean sound, Supplier<T> value, java.util.List<Sentence.Fault> faults, String text) {
        if (!sound) {
            throw new SaysNothing("“" + text.strip() + "” says nothing: " + faults.get(0).message());
        }
        return value.get();
    }

    /** The next sample, from one on, at which an event comes: it holds there and not a sample before; −1 for none. */
    int next(Formula event, int from) {
        boolean before = from > 0 && event.holds(trace, from - 1);
        for (int k = from; k < trace.samples(); k++) {
            boolean now = event.holds(trace, k);
            if (now && !before) {
                return k;
            }
            before = now;
        }
        return -1;
    }

    double time(int sample) {
        return trace.run().time(sample);
    }

    /** The first signal that a text names; empty for none. */
    String signal(String text) {
        return NAME_END.splitAsStream(text).filter(part -> names.find(part).isPresent()).findFirst().orElse("");
    }

    /** Number of the axis whose signal a text names first. */
    Optional<Integer> axis(String text) {
        String signal = signal(text).toUpperCase(java.util.Locale.ROOT);
        for (int i = 0; i < trace.run().machine().axes().size(); i++) {
            if (signal.startsWith(trace.run().machine().axes().get(i).name().toUpperCase(java.util.Locale.ROOT) + ".")) {
                return Optional.of(i);
            }
        }
        return Optional.empty();
    }
}
