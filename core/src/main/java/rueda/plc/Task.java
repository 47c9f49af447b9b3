package rueda.plc;

/**
 * A task that runs one program at its interval.
 *
 * <p>A cycle allocates nothing but what operations on texts make. A fault stops the task: it stays stopped, in the line of the fault,
 * until it is made anew; a fault in an initial value stops it before its first cycle. Not thread-safe.
 */
public final class Task {

    private final CompiledProgram program;
    private final Frame frame;
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
        frame = new Frame(program.memorySize(), program.lines());
        frame.budget = Integer.MAX_VALUE;
        try {
            program.initialStep().run(frame);
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
            program.bodyStep().run(frame);
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

    /** Line of the last statement executed. */
    public int line() {
        return frame.line;
    }

    /** Lines in which a statement ran in the last cycle, ascending. For display: allocates. */
    public java.util.List<Integer> lines() {
        return java.util.stream.IntStream.rangeClosed(1, frame.lines()).filter(frame::ran).boxed().toList();
    }

    /** Statements executed in the last cycle. */
    public int statements() {
        return statements;
    }
}
