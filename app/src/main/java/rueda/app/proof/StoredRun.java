package rueda.app.proof;

import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import rueda.bench.Signal;
import rueda.machine.Machine;
import rueda.plc.run.ProgramFault;
import rueda.plcopen.CommandLog;
import rueda.proof.RecordedRun;

/** A run as it was stored: signals are read when they are asked for. Not thread-safe. */
final class StoredRun implements RecordedRun {

    private final Machine machine;
    private final List<Signal> signals;
    private final Map<String, Integer> numbers = new HashMap<>();
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
        for (int i = 0; i < signals.size(); i++) {
            numbers.putIfAbsent(signals.get(i).name().toUpperCase(Locale.ROOT), i);
        }
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
        return numbers.getOrDefault(name.toUpperCase(Locale.ROOT), -1);
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

    @Override
    public CommandLog orders() {
        return new CommandLog();
    }

    @Override
    public ProgramFault fault() {
        return null;
    }

    @Override
    public int errorCode(int axis) {
        return 0;
    }
}
