package rueda.proof;

import java.util.List;
import java.util.Locale;
import rueda.bench.AxisSignal;
import rueda.bench.Bench;
import rueda.bench.ReadyProgram;
import rueda.bench.Recorded;
import rueda.bench.Stand;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.plc.run.ProgramFault;
import rueda.recording.Brought;

/** Runs a machine's program for the duration of a proof and judges every expectation. */
public final class Prover {

    /** Told about a hundred times in a run how far it is. It may throw, to end the run. */
    @FunctionalInterface
    public interface Progress {
        /** @param time machine time that has passed, s  @param of duration of the run, s */
        void reached(double time, double of);
    }

    private static final int TOLD = 100;

    private Prover() {
    }

    /** @throws IllegalArgumentException when the program has faults */
    public static ProofRun run(Machine machine, Proof proof) {
        return run(machine, proof, (time, of) -> { });
    }

    /**
     * The same, telling how far it is.
     *
     * @throws IllegalArgumentException        when the program has faults
     * @throws rueda.quantity.InvalidEntry for a sentence of the script that cannot be read
     * @throws rueda.quantity.InvalidEntry for {@code duration}, when there is no room for so long a recording
     */
    public static ProofRun run(Machine machine, Proof proof, Progress progress) {
        return run(machine, proof, Stand.of(machine), Brought.Shelf.EMPTY, progress);
    }

    /**
     * The same on a stand that may be other than the document says.
     *
     * @param shelf recordings that the run is held against
     */
    public static ProofRun run(Machine machine, Proof proof, Stand stand, Brought.Shelf shelf, Progress progress) {
        ProofRun run = judged(machine, proof, stand, shelf, progress);
        return run.withVerdicts(run.verdicts().stream().map(verdict -> withLine(machine, proof, stand, run, verdict)).toList());
    }

    /** Where a value of the program decided that something does not hold, the line that gave it: the run is made again for that. */
    private static Verdict withLine(Machine machine, Proof proof, Stand stand, ProofRun run, Verdict verdict) {
        boolean ofAnAxis = machine.axes().stream().anyMatch(axis -> verdict.signal().toUpperCase(Locale.ROOT).startsWith(axis.name().toUpperCase(Locale.ROOT) + "."));
        int signal = verdict.signal().isEmpty() || ofAnAxis ? -1 : run.bench().recording().indexOf(verdict.signal());
        if (verdict.holds() || verdict.order() != null || signal < 0) {
            return verdict;
        }
        long sample = Math.max(0, Math.min(run.bench().recording().count() - 1, Math.round(verdict.time() * 1e9 / run.bench().recording().cycleNanos()) - 1));
        double value = run.bench().recording().value(signal, sample);
        while (sample > 0 && run.bench().recording().value(signal, sample - 1) == value) {
            sample--;
        }
        double time = run.bench().recording().time(sample);
        return LineOfChange.find(machine, proof, stand, verdict.signal(), sample).map(place -> verdict.withOrder(new Verdict.Order(place.file(), place.line(), "", verdict.signal() + " was given its value"))
                .withCause(verdict.cause() + Words.say(" %s got its value at %.3f s, in line %d%s.", verdict.signal(), time, place.line(), machine.plc().files().size() > 1 ? " of " + place.file() : ""))).orElse(verdict);
    }

    private static ProofRun judged(Machine machine, Proof proof, Stand stand, Brought.Shelf shelf, Progress progress) {
        Bench bench = new Bench(machine, samples(machine, proof), stand);
        RecordedRun run = ran(bench, stand, proof, shelf, progress);
        ProgramFault fault = run.fault();
        Mends mends = new Mends(proof, run);
        List<Verdict> verdicts = proof.expectations().stream().map(mends::judged).toList();
        return new ProofRun(verdicts, proof.duration(), fault == null ? null : fault.getMessage(), fault == null ? "" : fault.file(), fault == null ? 0 : fault.line(), figures(run), run.happened(), bench);
    }

    /**
     * The verdicts alone: only what the proof names is recorded, and no line is looked for.
     *
     * @param ready the program, which no other bench uses any more
     */
    public static Judgement judge(Machine machine, ReadyProgram ready, Proof proof, Stand stand, Brought.Shelf shelf) {
        Bench bench = new Bench(machine, ready, samples(machine, proof), stand, new NamedIn(proof));
        RecordedRun run = ran(bench, stand, proof, shelf, (time, of) -> { });
        Judgement judgement = new Judgement(verdicts(proof, run), run.fault() == null ? null : run.fault().getMessage());
        ready.forget(bench);
        return judgement;
    }

    /**
     * A run that is not judged.
     *
     * @param ready the program, which no other bench uses any more
     * @param wanted what is recorded; the script's sentences may name nothing else
     */
    public static RecordedRun recorded(Machine machine, ReadyProgram ready, Proof proof, Stand stand, Recorded wanted, Brought.Shelf shelf) {
        return ran(new Bench(machine, ready, samples(machine, proof), stand, wanted), stand, proof, shelf, (time, of) -> { });
    }

    /** What a proof names, and an axis besides. */
    public static Recorded named(Proof proof, Axis besides) {
        NamedIn named = new NamedIn(proof);
        return new Recorded() {
            @Override
            public boolean axis(Axis axis) {
                return axis.name().equals(besides.name()) || named.axis(axis);
            }

            @Override
            public boolean value(String name) {
                return named.value(name);
            }
        };
    }

    /** @param stopped why the program stopped, or null */
    public record Judgement(List<Verdict> verdicts, String stopped) {
    }

    private static int samples(Machine machine, Proof proof) {
        return Math.max(1, (int) Math.round(proof.duration() * 1e6 / machine.bus().cycleMicros()));
    }

    private static RecordedRun ran(Bench bench, Stand stand, Proof proof, Brought.Shelf shelf, Progress progress) {
        int samples = samples(bench.machine(), proof);
        bench.restWhileStill();
        ScriptRun script = new ScriptRun(bench, proof.script());
        int step = (samples + TOLD - 1) / TOLD;
        for (int k = 0; k < samples; k++) {
            if (k % step == 0) {
                progress.reached(bench.now() * 1e-9, proof.duration());
            }
            script.cycle();
            bench.cycle();
        }
        return new BenchRun(bench, stand.axes(), script.happened(), shelf);
    }

    private static List<Verdict> verdicts(Proof proof, RecordedRun run) {
        return proof.expectations().stream().map(e -> Claim.of(e).judged(run)).toList();
    }

    private static ProofRun.Figures figures(RecordedRun run) {
        double peak = 0;
        double rms = 0;
        long standing = run.samples();
        for (Axis axis : run.machine().axes()) {
            int torque = run.signal(AxisSignal.TORQUE.of(axis.name()));
            int speed = run.signal(AxisSignal.COMMANDED_SPEED.of(axis.name()));
            double highest = 0;
            double squares = 0;
            long still = 0;
            for (long k = 0; k < run.samples(); k++) {
                double value = run.value(torque, k);
                highest = Math.max(highest, Math.abs(value));
                squares += value * value;
                still += run.value(speed, k) == 0 ? 1 : 0;
            }
            peak = Math.max(peak, highest / axis.motor().peakTorque());
            rms = Math.max(rms, Math.sqrt(squares / run.samples()) / axis.motor().ratedTorque());
            standing = Math.min(standing, still);
        }
        return new ProofRun.Figures(run.orders().moves(), run.orders().plannedTime(), standing * run.interval(), peak, rms);
    }
}
