package rueda.drive;

import java.util.List;
import rueda.machine.Terminal;
import rueda.machine.Terminal.Function;
import rueda.machine.Wiring;

/**
 * The output terminals of one drive: each shows its function, or what a person has forced. A brake hangs on its output
 * and opens with it, forced or not. Not thread-safe.
 */
public final class DigitalOutputs {

    private final List<Terminal> terminals;
    private final Forces forces = new Forces();
    /** outputs that are low when their function is true */
    private final int inverted;

    DigitalOutputs(Wiring wiring) {
        terminals = wiring.outputs();
        int low = 0;
        for (int i = 0; i < terminals.size(); i++) {
            low |= terminals.get(i).normallyClosed() ? 1 << i : 0;
        }
        inverted = low;
    }

    /** Level at the terminal with this function. @param own what the function says; also the answer when no terminal has it */
    boolean level(Function function, boolean own) {
        if (forces.mask() == 0 && inverted == 0) {
            return own;
        }
        for (int i = 0; i < terminals.size(); i++) {
            if (terminals.get(i).function() == function) {
                return (forces.over(own ^ (inverted >> i & 1) != 0 ? 1 << i : 0) >> i & 1) != 0;
            }
        }
        return own;
    }

    /** Levels of the terminals, bit 0 the first; one without a function is low. */
    int levels(Drive drive) {
        int own = 0;
        for (int i = 0; i < terminals.size(); i++) {
            Function function = terminals.get(i).function();
            boolean says = function == Function.SET_OVER_BUS ? (drive.outputsOverBus() >> i & 1) != 0 : drive.says(function);
            own |= function != Function.NONE && says ^ (inverted >> i & 1) != 0 ? 1 << i : 0;
        }
        return forces.over(own);
    }

    /** @param level null gives the output back to its function  @return false when there is no such output */
    public boolean force(String terminal, Boolean level) {
        for (int i = 0; i < terminals.size(); i++) {
            if (terminals.get(i).name().equals(terminal)) {
                forces.force(1 << i, level);
                return true;
            }
        }
        return false;
    }

    void releaseForces() {
        forces.release();
    }

    /** Which outputs are forced, bit 0 the first. */
    public int forced() {
        return forces.mask();
    }
}
