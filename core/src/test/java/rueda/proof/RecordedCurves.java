package rueda.proof;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.DoubleUnaryOperator;
import rueda.bench.Signal;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;

/** A recording that no bench has made: curves as functions of time, whose crossings can be reckoned by hand. A name that is in capitals only is a bit. */
final class RecordedCurves implements RecordedRun {

    static final double INTERVAL = 0.001;

    private final Map<String, DoubleUnaryOperator> curves;
    private final List<String> names;
    private final long samples;
    List<Happened> happened = List.of();
    List<LongestTask> tasks = List.of();

    RecordedCurves(double seconds, Map<String, DoubleUnaryOperator> curves) {
        this.curves = new TreeMap<>(curves);
        names = List.copyOf(this.curves.keySet());
        samples = Math.round(seconds / INTERVAL);
    }

    @Override
    public Machine machine() {
        return DemoMachine.create();
    }

    @Override
    public List<Signal> signals() {
        return names.stream().map(name -> new Signal(name, name.endsWith(".position") ? "mm" : name.endsWith(".speed") ? "mm/s" : "", name.equals(name.toUpperCase(Locale.ROOT)), Map.of())).toList();
    }

    @Override
    public int signal(String name) {
        for (int i = 0; i < names.size(); i++) {
            if (names.get(i).equalsIgnoreCase(name)) {
                return i;
            }
        }
        return -1;
    }

    @Override
    public long samples() {
        return samples;
    }

    @Override
    public double value(int signal, long sample) {
        return curves.get(names.get(signal)).applyAsDouble(time(sample));
    }

    @Override
    public double time(long sample) {
        return (sample + 1) * INTERVAL;
    }

    @Override
    public double interval() {
        return INTERVAL;
    }

    @Override
    public List<Happened> happened() {
        return happened;
    }

    @Override
    public List<LongestTask> tasks() {
        return tasks;
    }
}
