package rueda.proof;

import java.util.List;
import rueda.bench.AxisSignal;
import rueda.bench.Bench;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.plc.run.ProgramFault;

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
     * @throws rueda.quantity.InvalidEntry for {@code duration}, when there is no room for so long a recording
     */
    public static ProofRun run(Machine machine, Proof proof, Progress progress) {
        int samples = Math.max(1, (int) Math.round(proof.duration() * 1e6 / machine.bus().cycleMicros()));
        Bench bench = new Bench(machine, samples);
        int step = (samples + TOLD - 1) / TOLD;
        for (int k = 0; k < samples; k++) {
            if (k % step == 0) {
                progress.reached(bench.now() * 1e-9, proof.duration());
            }
            bench.cycle();
        }
        RecordedRun run = new BenchRun(bench);
        List<Verdict> verdicts = proof.expectations().stream().map(e -> Claim.of(e).judge(run)).toList();
        ProgramFault fault = run.fault();
        return new ProofRun(verdicts, proof.duration(), fault == null ? null : fault.getMessage(), fault == null ? "" : fault.file(), fault == null ? 0 : fault.line(), figures(run), bench);
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
