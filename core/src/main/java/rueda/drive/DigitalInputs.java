package rueda.drive;

import java.util.List;
import rueda.machine.Terminal;
import rueda.machine.Terminal.Function;
import rueda.machine.Wiring;
import rueda.plant.ServoPlant;
import rueda.machine.Mistake;
import rueda.plant.Mistakes;

/**
 * The digital inputs of one drive: contact, wire, hardware and filter, contact kind, function.
 *
 * <p>Sampled once a sub-step: a level that differs from the one taken must stand for the response time of its terminal.
 * Forced inputs show the forced level whatever the contact does. Cost: some nanoseconds while nothing changes; no
 * allocation. Not thread-safe.
 */
public final class DigitalInputs {

    private final List<Terminal> inputs;
    private final ServoPlant plant;
    private final Mistakes mistakes;
    /** mistakes for which the levels were worked out */
    private int mistakesBefore;
    /** levels at the terminals by the state of the plant's switches */
    private final int[] levelsBySwitches = new int[8];
    private final int[] responseSubSteps;
    private final int[] waiting;
    /** place of each input's function among the functions */
    private final int[] ordinals;
    /** functions that are asked for, a bit for each by its place */
    private long activeFunctions;
    private final int normallyClosed;
    private final int[] functionMask = new int[Function.values().length];
    private final int[] edges;
    /** terminals of a bit of object 2033h: any of them asks for the function */
    private final int[] terminalsOfBit = new int[Integer.SIZE];
    /** 2033h for the levels taken last */
    private int functionsOf = -1;
    private int functions;
    private int raw;
    private int taken;
    private final Forces forces = new Forces();
    private boolean settling;

    DigitalInputs(Wiring wiring, ServoPlant plant, Mistakes mistakes, double subStep) {
        this.inputs = wiring.digitalInputs();
        this.plant = plant;
        this.mistakes = mistakes;
        responseSubSteps = inputs.stream().mapToInt(t -> (int) Math.ceil(t.responseMicros() * 1e-6 / subStep - 1e-9)).toArray();
        waiting = new int[inputs.size()];
        ordinals = inputs.stream().mapToInt(t -> t.function().ordinal()).toArray();
        edges = new int[inputs.size()];
        int closed = 0;
        for (int i = 0; i < inputs.size(); i++) {
            Terminal terminal = inputs.get(i);
            closed |= terminal.normallyClosed() ? 1 << i : 0;
            functionMask[terminal.function().ordinal()] |= 1 << i;
            if (terminal.function().bit() >= 0) {
                terminalsOfBit[terminal.function().bit()] |= 1 << i;
            }
        }
        normallyClosed = closed;
        wire();
        raw = levels();
        take(raw);
    }

    /** The wires between switches and terminals are as the mistakes say. */
    private void wire() {
        mistakesBefore = mistakes.mask();
        for (int switches = 0; switches < levelsBySwitches.length; switches++) {
            int levels = 0;
            for (int i = 0; i < ordinals.length; i++) {
                levels |= level(inputs.get(i), switches) ? 1 << i : 0;
            }
            levelsBySwitches[switches] = levels;
        }
    }

    /** The levels behind the filters are these now. */
    private void take(int levels) {
        taken = levels;
        activeFunctions = 0;
        for (int i = 0; i < ordinals.length; i++) {
            activeFunctions |= ((levels ^ normallyClosed) >> i & 1) != 0 ? 1L << ordinals[i] : 0;
        }
    }

    /** Level at a terminal: a closed contact behind a whole wire is high. */
    private boolean level(Terminal terminal, int switches) {
        boolean swapped = mistakes.has(Mistake.SWAPPED_LIMITS);
        int contact = switch (terminal.function()) {
            case NEGATIVE_LIMIT -> swapped ? ServoPlant.POSITIVE_LIMIT : ServoPlant.NEGATIVE_LIMIT;
            case POSITIVE_LIMIT -> swapped ? ServoPlant.NEGATIVE_LIMIT : ServoPlant.POSITIVE_LIMIT;
            case REFERENCE_CAM -> ServoPlant.REFERENCE_CAM;
            default -> 0;
        };
        boolean broken = switch (terminal.function()) {
            case NEGATIVE_LIMIT -> mistakes.has(Mistake.NEGATIVE_LIMIT_BROKEN);
            case POSITIVE_LIMIT -> mistakes.has(Mistake.POSITIVE_LIMIT_BROKEN);
            case REFERENCE_CAM -> mistakes.has(Mistake.CAM_BROKEN);
            default -> false;
        };
        boolean other = terminal.function() == Function.NEGATIVE_LIMIT && mistakes.has(Mistake.NEGATIVE_LIMIT_OTHER_CONTACT);
        boolean tripped = (switches & contact) != 0;
        return !broken && terminal.function() != Function.NONE && (terminal.normallyClosed() != other) != tripped;
    }

    private int levels() {
        return forces.over(levelsBySwitches[plant.switches()]);
    }

    /** Takes the levels once; call every sub-step. */
    void sample() {
        if (mistakes.mask() != mistakesBefore) {
            wire();
        }
        raw = levels();
        int changed = raw ^ taken;
        if (changed == 0) {
            if (settling) {
                java.util.Arrays.fill(waiting, 0);
                settling = false;
            }
            return;
        }
        settling = true;
        int next = taken;
        for (int i = 0; i < waiting.length; i++) {
            int bit = 1 << i;
            if ((changed & bit) == 0) {
                waiting[i] = 0;
            } else if (++waiting[i] >= responseSubSteps[i]) {
                next = next & ~bit | raw & bit;
                waiting[i] = 0;
                edges[i]++;
            }
        }
        if (next != taken) {
            take(next);
        }
    }

    /** The function is asked for: a switch is tripped, or a button is pressed. */
    boolean active(Function function) {
        return (activeFunctions >> function.ordinal() & 1) != 0;
    }

    /** Functions that are asked for, a bit for each by its place among the functions. */
    long activeFunctions() {
        return activeFunctions;
    }

    /** A terminal with this function is high. */
    boolean high(Function function) {
        return (taken & functionMask[function.ordinal()]) != 0;
    }

    boolean wired(Function function) {
        return functionMask[function.ordinal()] != 0;
    }

    /** Levels at the terminals, bit 0 the first input. */
    public int levels(boolean afterFilter) {
        return afterFilter ? taken : raw;
    }

    /** Which functions are asked for, by the bit of their terminal. */
    public int activeTerminals() {
        return taken ^ normallyClosed;
    }

    /** Which functions are asked for, by the bits of object 2033h. */
    int functions() {
        int active = taken ^ normallyClosed;
        if (active != functionsOf) {
            functionsOf = active;
            functions = 0;
            for (int bit = 0; bit < terminalsOfBit.length; bit++) {
                functions |= (active & terminalsOfBit[bit]) != 0 ? 1 << bit : 0;
            }
        }
        return functions;
    }

    /** How often the level taken at an input has changed since the bench was made. @param input 0 for the first */
    public int edges(int input) {
        return edges[input];
    }

    /** @param level null lets the contact have the terminal again  @return false when there is no such input */
    public boolean force(String terminal, Boolean level) {
        for (int i = 0; i < inputs.size(); i++) {
            if (inputs.get(i).name().equals(terminal)) {
                forces.force(1 << i, level);
                return true;
            }
        }
        return false;
    }

    public void releaseForces() {
        forces.release();
    }

    /** Which inputs are forced, bit 0 the first. */
    public int forced() {
        return forces.mask();
    }
}
