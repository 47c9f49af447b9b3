package rueda.app.proof;

import java.time.Clock;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.IntStream;
import java.util.zip.GZIPInputStream;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import jakarta.persistence.EntityManager;
import org.springframework.data.domain.Limit;
import org.springframework.stereotype.Service;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import rueda.app.machine.MachineJson;
import rueda.app.machine.MachineState;
import rueda.app.machine.MachineStore;
import rueda.app.recording.RecordingStore;
import rueda.app.web.Refusals.NotFound;
import rueda.app.web.Refusals.ProgramHasFaults;
import rueda.bench.Bench;
import rueda.bench.CalculationCancelled;
import rueda.bench.Decimation;
import rueda.bench.MachineSignals;
import rueda.bench.Signal;
import rueda.bench.Stand;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.plc.CompiledProgram;
import rueda.plc.StructuredTextCompiler;
import rueda.proof.ProofRun;
import rueda.proof.Prover;
import rueda.proof.RecordedRun;
import rueda.proof.Verdict;
import rueda.proof.repeat.Case;
import rueda.proof.repeat.Prepared;
import rueda.proof.repeat.Repetition;
import rueda.quantity.InvalidEntry;
import rueda.recording.Brought;
import rueda.recording.EvenCurve;

/** Runs proofs and keeps runs, verdicts and recordings. */
@Service
public class RunStore {

    private static final int MOST_POINTS = 20_000;
    private static final int MOST_SIGNALS = 24;

    /** Samples of runs that are kept in memory: 64 MB. */
    private static final int MOST_KNOWN = 8 << 20;

    private final Cache<String, RunSignal> known = Caffeine.newBuilder().maximumWeight(MOST_KNOWN).weigher((String key, RunSignal signal) -> 1 + (int) signal.samples().samples()).build();
    private final MachineStore machines;
    private final Runs runs;
    private final Verdicts verdicts;
    private final Traces traces;
    private final RecordingStore recordings;
    private final EntityManager entities;
    private final TransactionTemplate write;
    private final ProofQueue queue;
    private final Clock clock;

    RunStore(MachineStore machines, Runs runs, Verdicts verdicts, Traces traces, RecordingStore recordings, EntityManager entities, PlatformTransactionManager transactions, ProofQueue queue, Clock clock) {
        this.clock = clock;
        this.machines = machines;
        this.runs = runs;
        this.verdicts = verdicts;
        this.traces = traces;
        this.recordings = recordings;
        this.entities = entities;
        this.queue = queue;
        this.write = new TransactionTemplate(transactions);
        machines.proofs(this::last);
    }

    /**
     * Lets a proof of the current revision run in its turn and keeps it. Nothing of the database is held while it waits and computes.
     *
     * @param name which; null where there is only one
     * @throws InvalidEntry     when there is no such proof, or none is named among several
     * @throws ProgramHasFaults when its program cannot run
     */
    void run(long machineId, String name, ProofQueue.Asker asker) {
        MachineState state = machines.get(machineId);
        Machine machine = state.document();
        Proof proof = wanted(machine, name);
        checkProgram(machine);
        queue.add(asker, told -> run(state.id(), state.revision(), proof, "", told, progress -> proven(machine, proof, recordings.held(machineId, proof), progress)));
    }

    /** Makes a run of a repeated proof again and keeps it. @param revision that the machine and the proof are of */
    void again(long machineId, long revision, Machine machine, Proof proof, Case one, ProofQueue.Asker asker) {
        queue.add(asker, told -> run(machineId, revision, proof, Prepared.words(machine, proof, one), told, progress -> Repetition.again(machine, proof, one, recordings.held(machineId, proof), progress)));
    }

    private RunView run(long machineId, long revision, Proof proof, String circumstances, ProofQueue.Asker told, Function<Prover.Progress, ProofRun> work) {
        long begun = System.nanoTime();
        ProofRun result = work.apply((time, of) -> {
            if (!told.runs(time, of)) {
                throw new CalculationCancelled();
            }
        });
        long millis = (System.nanoTime() - begun) / 1_000_000;
        try (PackedTraces traces = new PackedTraces(result.bench().recording())) {
            return write.execute(status -> kept(machineId, revision, proof, circumstances, result, traces, millis));
        }
    }

    /** @throws ProgramHasFaults when it cannot run */
    public static void checkProgram(Machine machine) {
        CompiledProgram program = StructuredTextCompiler.compile(StructuredTextCompiler.Text.of(machine.plc()), Bench.environment(machine));
        if (!program.runs()) {
            throw new ProgramHasFaults(program.diagnostics().get(0).toString());
        }
    }

    public static Proof wanted(Machine machine, String name) {
        List<String> names = machine.proofs().stream().map(Proof::name).toList();
        if (name == null && names.size() == 1) {
            return machine.proofs().get(0);
        }
        if (names.isEmpty()) {
            throw new InvalidEntry("proof", name == null ? "none" : name, "a proof of the machine; it has none yet", "add one");
        }
        return machine.proof(name == null ? "" : name).orElseThrow(() -> new InvalidEntry("proof", name == null ? "none" : name, String.join(", ", names), "say which proof"));
    }

    private static ProofRun proven(Machine machine, Proof proof, Brought.Shelf shelf, Prover.Progress progress) {
        try {
            return Prover.run(machine, proof, Stand.of(machine), shelf, progress);
        } catch (InvalidEntry refused) {
            throw refused.under("/proofs/" + machine.proofs().indexOf(proof));
        }
    }

    private RunView kept(long machineId, long revision, Proof proof, String circumstances, ProofRun result, PackedTraces packed, long millis) {
        RunEntity run = new RunEntity(machineId, revision, clock.instant());
        run.circumstances = circumstances.isEmpty() ? null : circumstances.substring(0, Math.min(2000, circumstances.length()));
        run.happened = MachineJson.write(new RunView.Script(result.happened()));
        run.name = proof.name();
        run.duration = result.duration();
        run.computedMillis = millis;
        run.holds = result.holds();
        run.stopped = result.stopped();
        run.stoppedFile = result.stoppedFile();
        run.stoppedLine = result.stoppedLine();
        run.figures = MachineJson.write(result.figures());
        runs.save(run);
        for (int i = 0; i < result.verdicts().size(); i++) {
            Verdict verdict = result.verdicts().get(i);
            verdicts.save(new VerdictEntity(run.id, i, verdict.holds(), MachineJson.write(verdict)));
        }
        for (int s = 0; s < packed.size(); s++) {
            /* each out of memory before the next */
            entities.detach(traces.saveAndFlush(packed.of(run.id, s)));
        }
        return view(run);
    }

    /** The newest run of every proof that the machine has, in their order; those that never ran are left out. */
    @Transactional(readOnly = true)
    public List<RunView> latest(long machineId) {
        return machines.get(machineId).document().proofs().stream()
                .flatMap(proof -> runs.findFirstByMachineIdAndNameIgnoreCaseAndCircumstancesIsNullOrderByIdDesc(machineId, proof.name()).stream()).map(this::view).toList();
    }

    private static final int MOST_LISTED = 200;

    /** Those of a proof that are kept, the newest first. */
    @Transactional(readOnly = true)
    public List<RunSummary> runs(long machineId, String proof) {
        return runs.findByMachineIdAndNameIgnoreCaseOrderByIdDesc(machineId, proof, Limit.of(MOST_LISTED)).stream()
                .map(run -> new RunSummary(run.id, run.revision, run.ranAt, run.circumstances == null ? "" : run.circumstances, run.holds)).toList();
    }

    @Transactional(readOnly = true)
    public RunView run(long runId) {
        return view(runs.findById(runId).orElseThrow(() -> new NotFound("run " + runId)));
    }

    /** A signal of a run. @param samples in memory */
    public record RunSignal(Signal signal, EvenCurve samples) {
    }

    /** @param signal its name in any case  @throws NotFound when the run, or the signal in it, is not there */
    @Transactional(readOnly = true)
    public RunSignal signal(long runId, String signal) {
        return known.get(runId + " " + signal.toUpperCase(Locale.ROOT), key -> {
            TraceEntity trace = traces.findFirstByRunIdAndSignalNameIgnoreCase(runId, signal).orElseThrow(() -> new NotFound("signal " + signal + " in run " + runId));
            entities.detach(trace);
            return new RunSignal(new Signal(trace.signalName, trace.unit), new EvenCurve(trace.cycleNanos, trace.cycleNanos, expanded(trace)));
        });
    }

    /** A run as sentences look at it. @throws NotFound when there is none */
    @Transactional(readOnly = true)
    public RecordedRun recorded(long runId) {
        RunEntity run = runs.findById(runId).orElseThrow(() -> new NotFound("run " + runId));
        Machine machine = machines.document(run.machineId, run.revision);
        Map<String, Signal> like = new HashMap<>();
        MachineSignals.of(machine).forEach(signal -> like.put(signal.name(), signal));
        List<Signal> signals = traces.findSignals(List.of(runId)).stream().map(named -> like.getOrDefault(named.name(), new Signal(named.name(), named.unit()))).toList();
        if (signals.isEmpty()) {
            throw new NotFound("signal in run " + runId);
        }
        TraceEntity first = traces.findByRunIdAndSignalName(runId, signals.get(0).name()).orElseThrow();
        entities.detach(first);
        return new StoredRun(machine, signals, first.cycleNanos, first.samples, name -> signal(runId, name).samples().values());
    }

    /** Key of the machine that ran. */
    @Transactional(readOnly = true)
    public long machineOf(long runId) {
        return runs.findById(runId).orElseThrow(() -> new NotFound("run " + runId)).machineId;
    }

    /** A run whose signals can be drawn. @param note of which revision and under what conditions */
    public record TracedRun(long id, String name, String note, double duration, List<Signal> signals) {
    }

    /** The newest runs of a machine, the newest first. */
    @Transactional(readOnly = true)
    public List<TracedRun> newest(long machineId, int most) {
        List<RunEntity> all = runs.findByMachineIdOrderByIdDesc(machineId, Limit.of(most));
        Map<Long, List<Signal>> signals = new HashMap<>();
        if (!all.isEmpty()) {
            traces.findSignals(all.stream().map(run -> run.id).toList()).forEach(named -> signals.computeIfAbsent(named.run(), id -> new ArrayList<>()).add(new Signal(named.name(), named.unit())));
        }
        return all.stream().map(run -> new TracedRun(run.id, run.name, "revision " + run.revision + (run.circumstances == null ? "" : ", " + run.circumstances), run.duration, signals.getOrDefault(run.id, List.of()))).toList();
    }

    private Optional<MachineStore.LastProof> last(long machineId) {
        return runs.findFirstByMachineIdAndCircumstancesIsNullOrderByIdDesc(machineId).map(run -> new MachineStore.LastProof(run.name, run.ranAt, run.revision, run.holds, verdicts.countByRunIdAndHoldsFalse(run.id)));
    }

    private RunView view(RunEntity run) {
        List<Verdict> list = verdicts.findByRunIdOrderByPlace(run.id).stream().map(v -> MachineJson.read(v.content, Verdict.class)).toList();
        return new RunView(run.id, run.revision, run.ranAt, run.name, run.duration, run.computedMillis, run.holds, run.stopped, run.stoppedFile == null ? "" : run.stoppedFile, run.stoppedLine,
                MachineJson.read(run.figures, ProofRun.Figures.class), run.circumstances == null ? "" : run.circumstances,
                run.happened == null ? List.of() : MachineJson.read(run.happened, RunView.Script.class).happened(), list);
    }

    /** @param from s  @param to s  @param points about how many samples to return */
    @Transactional(readOnly = true)
    public TraceView trace(long runId, List<String> signals, double from, double to, int points) {
        List<String> wanted = signals.stream().distinct().toList();
        if (wanted.size() > MOST_SIGNALS) {
            throw new InvalidEntry("signals", wanted.size() + " signals", "up to " + MOST_SIGNALS + " at once", "ask for them in parts");
        }
        List<TraceEntity> entities = wanted.stream().map(name -> traces.findByRunIdAndSignalName(runId, name).orElseThrow(() -> new NotFound("signal " + name + " in run " + runId))).toList();
        double[][] samples = entities.stream().map(RunStore::expanded).toArray(double[][]::new);
        if (samples.length == 0) {
            return new TraceView(List.of(), List.of());
        }
        double cycle = entities.get(0).cycleNanos * 1e-9;
        int first = (int) Math.max(0, Math.min(samples[0].length, Math.floor(from / cycle)));
        int last = (int) Math.max(first, Math.min(samples[0].length, Math.ceil(to / cycle)));
        int[] shown = Decimation.samples(samples, first, last, Math.max(2, Math.min(MOST_POINTS, points)));
        List<TraceView.Column> columns = new ArrayList<>();
        for (int s = 0; s < samples.length; s++) {
            double[] signal = samples[s];
            columns.add(new TraceView.Column(entities.get(s).signalName, entities.get(s).unit, IntStream.of(shown).mapToObj(k -> signal[k]).toList()));
        }
        return new TraceView(IntStream.of(shown).mapToObj(k -> (k + 1) * cycle).toList(), columns);
    }

    /** Values of a recording that are written at once at most: in memory 400 MB. */
    private static final long MOST_EXPORTED = 50_000_000;

    /**
     * A recording for other programs.
     *
     * @param axis signals of this axis only; null or empty for all
     * @throws InvalidEntry for {@code axis}, when there is none of it, or all are too many
     */
    @Transactional(readOnly = true)
    public RecordingExport export(long runId, String axis) {
        RunEntity run = runs.findById(runId).orElseThrow(() -> new NotFound("run " + runId));
        List<String> names = traces.findNames(runId).stream().filter(name -> axis == null || axis.isBlank() || name.toUpperCase(Locale.ROOT).startsWith(axis.strip().toUpperCase(Locale.ROOT) + ".")).toList();
        if (names.isEmpty()) {
            throw new InvalidEntry("axis", String.valueOf(axis), "an axis that was recorded", "choose another, or leave it out");
        }
        long values = names.size() * Math.round(run.duration / (traces.findByRunIdAndSignalName(runId, names.get(0)).orElseThrow().cycleNanos * 1e-9));
        if (values > MOST_EXPORTED) {
            throw new InvalidEntry("axis", names.size() + " signals, " + values + " values", "up to " + MOST_EXPORTED + " values at once", "take one axis after the other");
        }
        List<Signal> signals = new ArrayList<>();
        List<double[]> columns = new ArrayList<>();
        long cycleNanos = 0;
        for (String name : names) {
            TraceEntity trace = traces.findByRunIdAndSignalName(runId, name).orElseThrow();
            cycleNanos = trace.cycleNanos;
            signals.add(new Signal(trace.signalName, trace.unit));
            columns.add(expanded(trace));
            entities.detach(trace);
        }
        return new RecordingExport(run.name, run.circumstances == null ? "" : run.circumstances, run.revision, run.ranAt, cycleNanos, signals, columns);
    }

    private static double[] expanded(TraceEntity trace) {
        try (GZIPInputStream gzip = new GZIPInputStream(new ByteArrayInputStream(trace.content))) {
            double[] samples = new double[trace.samples];
            ByteBuffer.wrap(gzip.readAllBytes()).asDoubleBuffer().get(samples);
            return samples;
        } catch (IOException damaged) {
            throw new UncheckedIOException(damaged);
        }
    }
}
