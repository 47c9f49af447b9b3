package rueda.plc;

import java.util.ArrayList;
import java.util.List;

/**
 * What a call puts into the inputs of its block. Constants and plain variables are moved in two loops; only what has
 * to be computed is a step of its own. Expressions change nothing, so the order does not matter.
 */
final class BlockInputs {

    private record Move(int to, long value) {
    }

    private final List<Move> constants = new ArrayList<>();
    private final List<Move> copies = new ArrayList<>();
    private final List<Code.Step> computed = new ArrayList<>();

    void add(int slot, Expression value) {
        if (value.constant() != null) {
            constants.add(new Move(slot, value.type().isReal() ? Double.doubleToRawLongBits(value.number().doubleValue()) : value.number().longValue()));
        } else if (value.slot() >= 0) {
            copies.add(new Move(slot, value.slot()));
        } else {
            computed.add(StructuredTextCompiler.store(slot, value));
        }
    }

    Code.Step step() {
        int[] constantSlots = constants.stream().mapToInt(Move::to).toArray();
        long[] values = constants.stream().mapToLong(Move::value).toArray();
        int[] copySlots = copies.stream().mapToInt(Move::to).toArray();
        int[] sources = copies.stream().mapToInt(m -> (int) m.value()).toArray();
        Code.Step rest = Code.sequence(computed.toArray(Code.Step[]::new));
        return frame -> {
            long[] memory = frame.memory;
            for (int i = 0; i < values.length; i++) {
                memory[constantSlots[i]] = values[i];
            }
            for (int i = 0; i < sources.length; i++) {
                memory[copySlots[i]] = memory[sources[i]];
            }
            return rest.run(frame);
        };
    }
}
