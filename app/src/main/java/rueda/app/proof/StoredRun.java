package rueda.app.proof;

import java.util.List;
import java.util.function.Function;
import rueda.bench.Signal;
import rueda.machine.Machine;
import rueda.proof.RecordedRun;
import rueda.proof.SignalNames;
import rueda.proof.temporal.Names;

/** A run as it was stored: signals are read when they are asked for. Not thread-safe. */
final class StoredRun implements RecordedRun {

    private final Machine machine;
    private final List<Signal> signals;
    private final SignalNames names;
    private final double[][] samples;
    private final Function<String, double[]> read;
    private final long cycleNanos;
    private final int count;

    /** @param read samples of a signal, by its name */
    StoredRun(Machine machine, List<Signal> signals, long cycleNanos, int count, Function<String, double[]> read) {
        this.machine = machine;
        this.signals = signals;
        this.cycleNanos = cycleNanos;
        this.count = count;
        this.read = read;
        samples = new double[signals.size()][];
        names = new SignalNames(signals);
    }

    @Override
    public Machine machine() {
        return machine;
    }

    @Override
    public List<Signal> signals() {
        return signals;
    }

    @Override
    public int signal(String name) {
        return names.find(name).map(Names.Named::number).orElse(-1);
    }

    @Override
    public long samples() {
        return count;
    }

    @Override
    public double value(int signal, long sample) {
        if (samples[signal] == null) {
            samples[signal] = read.apply(signals.get(signal).name());
        }
        return samples[signal][(int) sample];
    }

    @Override
    public double time(long sample) {
        return (sample + 1) * cycleNanos * 1e-9;
    }

    @Override
    public double interval() {
        return cycleNanos * 1e-9;
    }
}
