package rueda.plc;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import rueda.plc.code.Stretches.Stretch;
import rueda.plc.run.CompiledUnit;
import rueda.plc.run.Frame;
import rueda.plc.run.ProgramFault;

/**
 * A task that runs its programs at its interval.
 *
 * <p>A cycle allocates nothing but what operations on texts make. A fault stops the task: it stays stopped, in the line of the fault,
 * until it is made anew; a fault in an initial value stops it before its first cycle. Not thread-safe.
 */
public final class Task {

    private final CompiledProgram program;
    private final Frame frame;
    private final CompiledUnit[] programs;
    private final int budget;
    private ProgramFault fault;
    private int statements;

    /**
     * @param program a program without diagnostics
     * @param budget  statements one cycle may execute
     */
    public Task(CompiledProgram program, int budget) {
        if (!program.runs()) {
            throw new IllegalArgumentException("The program has faults: " + program.diagnostics().get(0));
        }
        this.program = program;
        this.budget = budget;
        frame = program.frame();
        frame.budget = Integer.MAX_VALUE;
        Map<String, CompiledUnit> units = program.load(frame);
        programs = program.programs().stream().map(units::get).toArray(CompiledUnit[]::new);
        try {
            program.begin(units);
        } catch (ProgramFault stopped) {
            fault = stopped;
        }
    }

    /** Runs one cycle. @param now ns on the bench's clock */
    public void cycle(long now) {
        if (fault != null) {
            return;
        }
        frame.now = now;
        frame.budget = budget;
        frame.cycle++;
        try {
            for (CompiledUnit unit : programs) {
                unit.run(0);
            }
        } catch (ProgramFault stopped) {
            fault = stopped;
        }
        statements = budget - Math.max(0, frame.budget);
    }

    public CompiledProgram program() {
        return program;
    }

    /** All values; slots as in the program's variables. */
    public long[] memory() {
        return frame.memory;
    }

    /** The present value of a variable, as a user reads it. */
    public String text(Variable variable) {
        return variable.type().isText() ? "'" + frame.texts[variable.slot()] + "'" : variable.text(frame.memory);
    }

    /** Why the task stopped, or null. */
    public ProgramFault fault() {
        return fault;
    }

    /** Lines in which a statement ran in the last cycle, ascending, by the names of their texts. For display: allocates. */
    public Map<String, List<Integer>> ran() {
        Map<String, TreeSet<Integer>> ran = new LinkedHashMap<>();
        for (int i = 0; i < frame.ran.length; i++) {
            if (frame.ran[i] == frame.cycle && frame.cycle > 0) {
                Stretch stretch = program.stretches().get(i);
                add(stretch, ran.computeIfAbsent(stretch.file(), file -> new TreeSet<>()));
            }
        }
        Map<String, List<Integer>> lines = new LinkedHashMap<>();
        ran.forEach((file, set) -> lines.put(file, List.copyOf(set)));
        return lines;
    }

    /** What stands behind a fault did not run. */
    private void add(Stretch stretch, TreeSet<Integer> ran) {
        boolean stopped = fault != null && stretch.file().equals(fault.file()) && Arrays.stream(stretch.lines()).anyMatch(line -> line == fault.line());
        for (int line : stretch.lines()) {
            ran.add(line);
            if (stopped && line == fault.line()) {
                return;
            }
        }
    }

    /** Statements executed in the last cycle. */
    public int statements() {
        return statements;
    }
}
