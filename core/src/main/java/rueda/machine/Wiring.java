package rueda.machine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import rueda.machine.Terminal.Function;
import rueda.machine.Terminal.Kind;

/** What is wired to the terminals of one station. @param terminals in the order of the station */
public record Wiring(List<Terminal> terminals) {

    public Wiring {
        terminals = terminals == null ? List.of() : List.copyOf(terminals);
    }

    /** The station's terminals with these functions on inputs 1 to n and outputs 1 to m: limits and enable normally closed. */
    public static Wiring of(List<Function> inputs, List<Function> outputs) {
        List<Terminal> all = new ArrayList<>();
        for (int i = 0; i < 8; i++) {
            Function function = i < inputs.size() ? inputs.get(i) : Function.NONE;
            boolean closed = function != Function.REFERENCE_CAM && function != Function.FAULT_RESET && function != Function.NONE;
            all.add(new Terminal("I" + (i + 1), i >= 6 ? Kind.FAST_INPUT : Kind.INPUT, function, closed, 0));
        }
        for (int i = 0; i < 4; i++) {
            all.add(new Terminal("Q" + (i + 1), Kind.OUTPUT, i < outputs.size() ? outputs.get(i) : Function.NONE, false, 0));
        }
        return new Wiring(all);
    }

    /** The first terminal with this function. */
    public Optional<Terminal> terminal(Function function) {
        return terminals.stream().filter(t -> t.function() == function).findFirst();
    }

    /** Place of a terminal in the list. */
    public int indexOf(Terminal terminal) {
        return terminals.indexOf(terminal);
    }
}
