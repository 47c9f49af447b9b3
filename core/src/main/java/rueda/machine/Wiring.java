package rueda.machine;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import rueda.machine.Terminal.Function;
import rueda.machine.Terminal.Kind;

/**
 * What is wired to the terminals of one station, and what they need to know.
 *
 * @param terminals      in the order of the station
 * @param analogueTorque torque that 10 V at the analogue input ask for, % of rated torque
 */
public record Wiring(List<Terminal> terminals, double analogueTorque) {

    public Wiring {
        terminals = terminals == null ? List.of() : List.copyOf(terminals);
    }

    /**
     * The station's terminals with these functions on inputs 1 to n and outputs 1 to m: limits and enable normally
     * closed. Safe torque off, the analogue input and the second encoder are there, the last two not used.
     */
    public static Wiring of(List<Function> inputs, List<Function> outputs) {
        List<Terminal> all = new ArrayList<>();
        for (int i = 0; i < 8; i++) {
            Function function = i < inputs.size() ? inputs.get(i) : Function.NONE;
            boolean closed = function == Function.NEGATIVE_LIMIT || function == Function.POSITIVE_LIMIT || function == Function.ENABLE || function == Function.QUICK_STOP;
            all.add(new Terminal("I" + (i + 1), i >= 6 ? Kind.FAST_INPUT : Kind.INPUT, function, closed, 0));
        }
        for (int i = 0; i < 4; i++) {
            all.add(new Terminal("Q" + (i + 1), Kind.OUTPUT, i < outputs.size() ? outputs.get(i) : Function.NONE, false, 0));
        }
        all.add(new Terminal("STO", Kind.SAFE_TORQUE_OFF, Function.SAFE_TORQUE_OFF, true, 0));
        all.add(new Terminal("A1", Kind.ANALOGUE_INPUT, Function.NONE, false, 0));
        all.add(new Terminal("X2", Kind.SECOND_ENCODER, Function.NONE, false, 0));
        return new Wiring(all, 100);
    }

    /** The first terminal with this function. */
    public Optional<Terminal> terminal(Function function) {
        return terminals.stream().filter(t -> t.function() == function).findFirst();
    }

    /** Terminals with a level that comes from outside, in their order. */
    public List<Terminal> digitalInputs() {
        return terminals.stream().filter(t -> t.kind().digitalInput()).toList();
    }

    /** Output terminals, in their order. */
    public List<Terminal> outputs() {
        return terminals.stream().filter(t -> t.kind() == Kind.OUTPUT).toList();
    }

    /** Place of a terminal in the list. */
    public int indexOf(Terminal terminal) {
        return terminals.indexOf(terminal);
    }

    public Wiring withTerminals(List<Terminal> changed) {
        return new Wiring(changed, analogueTorque);
    }

    /** The terminal takes another function. @param name of the terminal */
    public Wiring with(String name, Function function) {
        return withTerminals(terminals.stream().map(t -> t.name().equals(name) ? t.with(function) : t).toList());
    }
}
