package rueda.machine;

import java.util.List;
import rueda.quantity.Ratio;

/** The drive train from the motor shaft on. @param reducers in the order from the motor  @param feed what the last shaft moves */
public record Train(List<Reducer> reducers, Feed feed) {

    public Train {
        reducers = reducers == null ? List.of() : List.copyOf(reducers);
    }

    /** Motor turns per turn of the last shaft, exact. */
    public Ratio gear() {
        return reducers.stream().map(Reducer::ratio).reduce(Ratio.ONE, Ratio::times);
    }
}
