package rueda.proof;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import rueda.bench.Signal;
import rueda.machine.Expectation.Alignment;
import rueda.proof.temporal.Formula;
import rueda.quantity.InvalidEntry;
import rueda.recording.Brought;

/**
 * A recording laid over a run: how far they are apart, signal by signal.
 *
 * @param shift   s that were added to the times of the recording
 * @param from    first time at which both are there, s of the run
 * @param to      last time, s
 * @param signals those that both have, in the order of the recording
 * @param remarks what could not be compared
 */
public record Comparison(double shift, double from, double to, List<Apart> signals, List<String> remarks) {

    private static final int MOST_EVENTS = 200;

    /**
     * How far a signal of the run is from the same of the recording: run less recording. Beside a jump of a position nothing is compared.
     *
     * @param peak    the difference that is largest by its amount, in the unit
     * @param peakAt  s of the run
     * @param rms     root of its mean square
     * @param mean    of the difference
     * @param samples that both have
     * @param events  at the events that were asked for, in order
     */
    public record Apart(String signal, String unit, double peak, double peakAt, double rms, double mean, int samples, List<AtEvent> events) {
    }

    /** @param time s of the run  @param run its value  @param recorded the recording's, null where it has none */
    public record AtEvent(double time, double run, Double recorded) {
    }

    /**
     * How a recording is laid over a run.
     *
     * @param kind   where
     * @param event  a sentence about one instant, for {@link Alignment#EVENT}; null for others
     * @param signal a number made of signals that both have, for {@link Alignment#BEST_FIT}; null for others
     */
    public record Laid(Alignment kind, String event, String signal) {
    }

    /**
     * @param event a sentence about one instant: each time it comes in the run the signals are compared there; null or empty for none
     * @throws InvalidEntry when it cannot be laid so, or a sentence cannot be read
     */
    public static Comparison of(RecordedRun run, Brought brought, Laid laid, String event) {
        try {
            return compared(run, brought, laid, event);
        } catch (Reading.SaysNothing open) {
            throw new InvalidEntry("alignment", open.getMessage(), "a way in which the two lie over one another", "choose another one, or other signals");
        }
    }

    private static Comparison compared(RecordedRun run, Brought brought, Laid laid, String event) {
        BroughtRun recorded = new BroughtRun(run.machine(), brought, run.signals(), run.interval());
        double shift = shift(run, recorded, laid);
        List<Long> events = event == null || event.isBlank() ? List.of() : events(run, event);
        List<Apart> all = new ArrayList<>();
        List<String> remarks = new ArrayList<>();
        for (int s = 0; s < recorded.signals().size(); s++) {
            Signal signal = recorded.signals().get(s);
            int same = run.signal(signal.name());
            if (same >= 0 && !run.signals().get(same).unit().equals(signal.unit())) {
                remarks.add(signal.name() + " is in " + (signal.unit().isEmpty() ? "no unit" : signal.unit()) + " there and in " + run.signals().get(same).unit() + " here: it is not compared.");
            } else if (same >= 0) {
                apart(run, same, recorded, s, shift, events).ifPresentOrElse(all::add, () -> remarks.add(signal.name() + " is nowhere recorded at the same time as the run."));
            }
        }
        if (all.isEmpty() && remarks.isEmpty()) {
            remarks.add("No signal of the recording is one of the run: assign its columns to signals of the machine when it is brought in.");
        }
        return new Comparison(shift, Math.max(run.time(0), recorded.time(0) + shift), Math.min(run.end(), recorded.end() + shift), all, remarks);
    }

    private static List<Long> events(RecordedRun run, String event) {
        Reading reading = new Reading(run);
        Formula formula = reading.instant(event);
        List<Long> all = new ArrayList<>();
        for (int k = reading.next(formula, 0); k >= 0 && all.size() < MOST_EVENTS; k = reading.next(formula, k + 1)) {
            all.add((long) k);
        }
        return all;
    }

    private static Optional<Apart> apart(RecordedRun run, int signal, BroughtRun recorded, int column, double shift, List<Long> events) {
        Overlay.Samples there = new Overlay.Samples(recorded.time(0), recorded.interval(), recorded.column(column));
        BitSet jumps = Jumps.beside(run, signal, recorded, column);
        double peak = 0;
        double peakAt = 0;
        double squares = 0;
        double sum = 0;
        int count = 0;
        for (long k = 0; k < run.samples(); k++) {
            double d = run.value(signal, k) - there.at(run.time(k) - shift);
            if (Double.isNaN(d) || jumps.get((int) k)) {
                continue;
            }
            if (count == 0 || Math.abs(d) > Math.abs(peak)) {
                peak = d;
                peakAt = run.time(k);
            }
            squares += d * d;
            sum += d;
            count++;
        }
        if (count == 0) {
            return Optional.empty();
        }
        List<AtEvent> at = events.stream().map(k -> {
            double value = there.at(run.time(k) - shift);
            return new AtEvent(run.time(k), run.value(signal, k), Double.isNaN(value) ? null : (Double) value);
        }).toList();
        return Optional.of(new Apart(run.signals().get(signal).name(), run.signals().get(signal).unit(), peak, peakAt, Math.sqrt(squares / count), sum / count, count, at));
    }

    /** @throws Reading.SaysNothing when it cannot be laid so */
    static double shift(RecordedRun run, BroughtRun recorded, Laid laid) {
        return switch (laid.kind()) {
            case AS_RECORDED -> 0;
            case EVENT -> first(run, laid.event(), "the run") - first(recorded, laid.event(), "the recording");
            case BEST_FIT -> {
                OptionalDouble shift = Overlay.shift(samples(run, laid.signal()), samples(recorded, laid.signal()));
                yield shift.orElseThrow(() -> new Reading.SaysNothing(laid.signal() + " of the recording lies nowhere over that of the run: one of them does not move, or they are nowhere alike."));
            }
        };
    }

    private static Overlay.Samples samples(RecordedRun run, String number) {
        Reading reading = new Reading(run);
        var value = reading.number(number);
        double[] values = new double[reading.trace().samples()];
        for (int k = 0; k < values.length; k++) {
            values[k] = value.term().at(reading.trace(), k);
        }
        return new Overlay.Samples(run.time(0), run.interval(), values);
    }

    private static double first(RecordedRun run, String event, String where) {
        Reading reading = new Reading(run);
        int found = reading.next(reading.instant(event), 0);
        if (found < 0) {
            throw new Reading.SaysNothing(event.strip() + " never came in " + where + ".");
        }
        return reading.time(found);
    }
}
