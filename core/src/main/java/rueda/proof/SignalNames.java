package rueda.proof;

import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import rueda.bench.Signal;
import rueda.proof.temporal.Names;

/** The signals of a run, or of one that will be made, as sentences name them. */
public final class SignalNames implements Names {

    private final List<Signal> signals;
    private final Map<String, Integer> numbers = new HashMap<>();

    /** @param signals by their numbers */
    public SignalNames(List<Signal> signals) {
        this.signals = signals;
        for (int i = 0; i < signals.size(); i++) {
            numbers.putIfAbsent(signals.get(i).name().toUpperCase(Locale.ROOT), i);
        }
    }

    @Override
    public Optional<Named> find(String name) {
        return Optional.ofNullable(numbers.get(name.toUpperCase(Locale.ROOT))).map(i -> new Named(i, signals.get(i).unit(), signals.get(i).bit(), signals.get(i).values()));
    }

    @Override
    public List<String> all() {
        return signals.stream().map(Signal::name).toList();
    }
}
