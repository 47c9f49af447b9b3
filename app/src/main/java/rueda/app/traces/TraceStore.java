package rueda.app.traces;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.stream.IntStream;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import rueda.app.proof.RunStore;
import rueda.app.recording.RecordingStore;
import rueda.app.recording.RecordingView;
import rueda.app.traces.TracesController.Band;
import rueda.app.traces.TracesController.DrawnLine;
import rueda.app.traces.TracesController.Measured;
import rueda.app.traces.TracesController.OverlayQuestion;
import rueda.app.traces.TracesController.SourceSignal;
import rueda.app.traces.TracesController.TraceLine;
import rueda.app.traces.TracesController.TraceSource;
import rueda.app.traces.TracesController.TracesQuestion;
import rueda.bench.Signal;
import rueda.proof.Comparison;
import rueda.quantity.InvalidEntry;
import rueda.recording.Curve;
import rueda.recording.Difference;
import rueda.recording.Measure;
import rueda.recording.Sampled;
import rueda.recording.Shifted;
import rueda.recording.Stretch;

/** Signals of runs and recordings alike, at any time, however long. */
@Service
public class TraceStore {

    private static final int MOST_LINES = 32;
    private static final int MOST_POINTS = 10_000;
    /** Samples of a difference that are taken at once. */
    private static final int MOST_DIFFERENCES = 2_000_000;
    private static final long MOST_MEASURED = 50_000_000;
    private static final int MOST_SOURCES = 40;
    private static final int MOST_BANDS = 2000;
    /** Latest time that can be asked for, s: 100 years. */
    private static final double LATEST = 3.2e9;

    private final RunStore runs;
    private final RecordingStore recordings;

    TraceStore(RunStore runs, RecordingStore recordings) {
        this.runs = runs;
        this.recordings = recordings;
    }

    private record Line(Signal signal, Sampled samples) {
    }

    /** @throws InvalidEntry naming what is asked in vain  @throws rueda.app.web.Refusals.NotFound for a run, a recording or a signal that there is not */
    @Transactional(readOnly = true)
    public List<DrawnLine> drawn(TracesQuestion q) {
        check(q);
        if (q.points() < 4 || q.points() > MOST_POINTS) {
            throw new InvalidEntry("points", Integer.toString(q.points()), "4 to " + MOST_POINTS, "ask for so many");
        }
        long from = nanos(q.from());
        long to = nanos(q.to());
        return IntStream.range(0, q.lines().size()).mapToObj(i -> line(q, i, from, to)).map(line -> drawn(line, Stretch.of(line.samples(), from, to, q.points()))).toList();
    }

    private static DrawnLine drawn(Line line, Stretch stretch) {
        List<Double> time = new ArrayList<>(stretch.nanos().length);
        List<Double> values = new ArrayList<>(stretch.nanos().length);
        for (int i = 0; i < stretch.nanos().length; i++) {
            time.add(stretch.nanos()[i] * 1e-9);
            values.add(Double.isNaN(stretch.values()[i]) ? null : (Double) stretch.values()[i]);
        }
        return new DrawnLine(line.signal().unit(), time, values, stretch.whole());
    }

    /** One for each line; null for what has nothing there. @throws InvalidEntry when that would be too many samples */
    @Transactional(readOnly = true)
    public List<Measured> measured(TracesQuestion q) {
        check(q);
        long from = nanos(q.from());
        long to = nanos(q.to());
        List<Measured> all = new ArrayList<>();
        for (int i = 0; i < q.lines().size(); i++) {
            Line line = line(q, i, from, to);
            try {
                all.add(Measure.of(line.samples(), from, to, MOST_MEASURED).map(m -> new Measured(line.signal().unit(), m.mean(), m.rms(), m.low(), m.lowAt() * 1e-9, m.high(), m.highAt() * 1e-9, m.slope(),
                        Double.isNaN(m.frequency()) ? null : (Double) m.frequency(), m.first(), m.last(), m.samples())).orElse(null));
            } catch (IllegalArgumentException tooMany) {
                throw new InvalidEntry("to", tooMany.getMessage(), "up to " + MOST_MEASURED + " samples", "measure a shorter stretch");
            }
        }
        return all;
    }

    private static void check(TracesQuestion q) {
        if (q.lines().size() > MOST_LINES) {
            throw new InvalidEntry("lines", q.lines().size() + " lines", "up to " + MOST_LINES, "ask in parts");
        }
        if (!(q.from() >= -LATEST && q.from() <= LATEST)) {
            throw new InvalidEntry("from", q.from() + " s", -LATEST + " to " + LATEST + " s", "ask for a time of the recording");
        }
        if (!(q.to() >= q.from() && q.to() <= LATEST)) {
            throw new InvalidEntry("to", q.to() + " s", q.from() + " to " + LATEST + " s", "ask for a later time");
        }
    }

    private static long nanos(double seconds) {
        return Math.round(seconds * 1e9);
    }

    private Line line(TracesQuestion q, int i, long from, long to) {
        Line line = line("lines/" + i, q.lines().get(i));
        TraceLine less = q.lines().get(i).less();
        if (less == null) {
            return line;
        }
        Line other = line("lines/" + i + "/less", less);
        return new Line(line.signal(), Difference.of(around("lines/" + i, line.samples(), from, to), around("lines/" + i + "/less", other.samples(), from, to)));
    }

    /** The samples of a stretch and those beside it. */
    private static Curve around(String field, Sampled signal, long from, long to) {
        try {
            return Curve.around(signal, from, to, MOST_DIFFERENCES);
        } catch (IllegalArgumentException tooMany) {
            throw new InvalidEntry(field, tooMany.getMessage(), "a difference of up to " + MOST_DIFFERENCES + " samples", "look at a shorter stretch");
        }
    }

    private Line line(String field, TraceLine wanted) {
        if ((wanted.run() == null) == (wanted.recording() == null)) {
            throw new InvalidEntry(field, wanted.run() == null ? "neither a run nor a recording" : "a run and a recording", "one of the two", "name one");
        }
        if (!(Math.abs(wanted.shift()) <= LATEST)) {
            throw new InvalidEntry(field + "/shift", wanted.shift() + " s", -LATEST + " to " + LATEST + " s", "correct it");
        }
        if (wanted.run() != null) {
            RunStore.RunSignal signal = runs.signal(wanted.run(), wanted.signal());
            return new Line(signal.signal(), Shifted.by(signal.samples(), nanos(wanted.shift())));
        }
        RecordingStore.Stored stored = recordings.signal(wanted.recording(), wanted.signal());
        return new Line(stored.signal(), Shifted.by(stored, nanos(wanted.shift())));
    }

    /** @throws InvalidEntry when the recording cannot be laid so, or is one of another machine */
    @Transactional(readOnly = true)
    public Comparison comparison(OverlayQuestion q) {
        if (recordings.machineOf(q.recording()) != runs.machineOf(q.run())) {
            throw new InvalidEntry("recording", Long.toString(q.recording()), "a recording of the machine that ran", "choose one of them");
        }
        return Comparison.of(runs.recorded(q.run()), recordings.brought(q.recording()), new Comparison.Laid(q.alignment(), q.event() == null ? "" : q.event(), q.signal() == null ? "" : q.signal()), q.at());
    }

    @Transactional(readOnly = true)
    public List<TraceSource> sources(long machineId) {
        List<TraceSource> all = new ArrayList<>();
        for (RecordingView recording : recordings.all(machineId)) {
            all.add(new TraceSource("RECORDING", recording.id(), recording.name(), "brought in from " + recording.fileName(), recording.begins(), recording.ends(),
                    recording.signals().stream().map(s -> new SourceSignal(s.name(), s.unit())).toList()));
        }
        runs.newest(machineId, MOST_SOURCES).forEach(run -> all.add(new TraceSource("RUN", run.id(), run.name(), run.note(), 0, run.duration(), run.signals().stream().map(s -> new SourceSignal(s.name(), s.unit())).toList())));
        return all;
    }

    /** @param signal of the program, whose values become bands; null for none */
    @Transactional(readOnly = true)
    public List<Band> bands(long runId, String signal) {
        List<Band> bands = new ArrayList<>();
        runs.run(runId).happened().forEach(h -> bands.add(new Band("SCRIPT", h.words(), h.time(), h.time())));
        if (signal != null && !signal.isBlank()) {
            double[] before = {Double.NaN, 0, 0};
            Sampled samples = runs.signal(runId, signal).samples();
            samples.read(0, samples.samples(), (nanos, value) -> {
                if (value != before[0]) {
                    stood(bands, signal, before);
                    before[0] = value;
                    before[1] = nanos * 1e-9;
                }
                before[2] = nanos * 1e-9;
            });
            stood(bands, signal, before);
        }
        return bands.stream().sorted(Comparator.comparingDouble(Band::from)).toList();
    }

    private static void stood(List<Band> bands, String signal, double[] before) {
        if (!Double.isNaN(before[0]) && bands.size() < MOST_BANDS) {
            bands.add(new Band("VALUE", String.format(Locale.ROOT, before[0] == Math.rint(before[0]) ? "%s %.0f" : "%s %s", signal, before[0]), before[1], before[2]));
        }
    }
}
