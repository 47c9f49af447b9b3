package rueda.plc;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.SplittableRandom;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import rueda.machine.Plc;
import rueda.plc.code.Generator;
import rueda.plc.run.CompiledUnit;
import rueda.plc.run.Frame;
import rueda.plc.run.ProgramFault;
import rueda.plc.run.StatementPlace;
import rueda.plc.run.Tracer;
import rueda.plc.type.Type;

/**
 * The controller's processor: one memory, and the tasks that run programs on it (a resource of IEC 61131-3, 6.8.1).
 *
 * <p>In every bus cycle the tasks that are due begin in the order of their priority. A statement takes an estimated time; a bus cycle has
 * as much of it as it is long, and what a task leaves undone goes on in the next one, behind tasks of higher priority. Programs work on
 * the memory when their task begins, all at once; what they have written to tags of outputs leaves the controller when the time of the
 * task is over ({@link #holds}). A start that falls into a cycle that has not ended is missed. A fault stops all tasks for good, and so does
 * a task that its watchdog finds too long; a fault in an initial value stops them before the first cycle.
 *
 * <p>Where the code is traced, a program can be held in a line: then {@link #cycle} returns before the end of the bus cycle, and the next
 * call goes on with it. A cycle allocates nothing but what operations on texts make. Not thread-safe.
 */
public final class Resource {

    private static final long UNLIMITED = Long.MAX_VALUE / 4;

    private final CompiledProgram program;
    private final Frame frame;
    private final Generator.Loaded code;
    /** in the order of the document */
    private final List<Task> tasks;
    /** in the order of running */
    private final Task[] byPriority;
    private final boolean onTags;
    private final int budget;
    private final long statementNanos;
    private final long cycleNanos;
    private final Suspension suspension = new Suspension();
    private final Inspector inspector;
    private ProgramFault fault;
    private long now;
    private boolean begun;
    private long mostJitter;
    /** null where nothing interrupts a task */
    private SplittableRandom chance;

    /**
     * @param program        without diagnostics
     * @param tasks          in the order of the document; the first runs what no task names
     * @param budget         statements that one cycle of a task may execute
     * @param statementNanos estimated time of a statement, ns
     * @param cycleNanos     length of a bus cycle, ns
     */
    public Resource(CompiledProgram program, List<Plc.Task> tasks, int budget, int statementNanos, long cycleNanos) {
        if (!program.runs()) {
            throw new IllegalArgumentException("The program has faults: " + program.diagnostics().get(0));
        }
        this.program = program;
        this.budget = budget;
        this.statementNanos = statementNanos;
        this.cycleNanos = cycleNanos;
        frame = program.frame();
        frame.budget = Integer.MAX_VALUE;
        code = program.load(frame);
        this.tasks = tasks(program, tasks, code.units());
        byPriority = this.tasks.stream().sorted(Comparator.comparingInt(t -> t.settings().priority())).toArray(Task[]::new);
        onTags = tasks.stream().anyMatch(t -> !t.onTag().isEmpty());
        inspector = new Inspector(program, frame, code);
        if (frame.tracer != null) {
            frame.tracer.onHold(suspension::hold);
        }
        try {
            program.begin(code.units());
        } catch (ProgramFault stopped) {
            fault = stopped;
        }
    }

    /** All programs in one task, which runs at every call of {@link #cycle}. @param budget statements one cycle may execute */
    public static Resource alone(CompiledProgram program, int budget) {
        return new Resource(program, List.of(Plc.Task.main(0)), budget, 0, UNLIMITED);
    }

    private static List<Task> tasks(CompiledProgram program, List<Plc.Task> tasks, Map<String, CompiledUnit> units) {
        Set<String> named = new HashSet<>();
        tasks.forEach(t -> t.programs().forEach(p -> named.add(Scope.key(p))));
        List<Task> made = new ArrayList<>();
        for (Plc.Task task : tasks) {
            Stream<String> rest = made.isEmpty() ? program.programs().stream().filter(p -> !named.contains(Scope.key(p))) : Stream.of();
            List<String> programs = Stream.concat(task.programs().stream().filter(p -> units.containsKey(Scope.key(p)) && program.programs().stream().anyMatch(p::equalsIgnoreCase)), rest).toList();
            int tag = program.variable(task.onTag()).filter(v -> v.type() == Type.BOOL).map(Variable::slot).orElse(-1);
            made.add(new Task(task, programs, programs.stream().map(p -> units.get(Scope.key(p))).toArray(CompiledUnit[]::new), tag, program.writes(programs)));
        }
        return List.copyOf(made);
    }

    // ---- a bus cycle

    /** Looks which tasks are to run in this bus cycle; their tags of inputs are to be there. @param at its start, ns on the bench's clock */
    public void look(long at) {
        now = at;
        if (onTags) {
            /* a forced tag starts a task like any other */
            inspector.force();
        }
        for (int i = 0; i < byPriority.length && fault == null; i++) {
            byPriority[i].look(at, frame.memory);
        }
    }

    /** A task may begin in the bus cycle that starts then, and takes its inputs. */
    public boolean takesInputs(long at) {
        boolean takes = onTags;
        for (Task task : byPriority) {
            takes |= at >= task.nextStart();
        }
        return takes;
    }

    /**
     * Runs what is due.
     *
     * @return false when a program is held in its middle: the next call goes on with it
     */
    public boolean cycle() {
        if (suspension.held()) {
            return suspension.resume();
        }
        if (fault != null) {
            begun = false;
            return true;
        }
        boolean due = false;
        for (Task task : byPriority) {
            due |= task.due() || task.working();
        }
        begun = due;
        if (!due) {
            return true;
        }
        if (frame.tracer == null || !frame.tracer.armed()) {
            work();
            return true;
        }
        return suspension.run(this::work);
    }

    /** A bus cycle of a controller without tags that start tasks. @param at its start, ns on the bench's clock */
    public boolean cycle(long at) {
        look(at);
        return cycle();
    }

    /** The time of this bus cycle goes to the tasks in the order of their priority. */
    private void work() {
        inspector.force();
        long used = 0;
        for (Task task : byPriority) {
            if (task.due() && used < cycleNanos) {
                task.begin(now + used);
                run(task);
            }
            if (task.working() && fault == null) {
                used += task.work(cycleNanos - used);
                if (task.overdue(now + used)) {
                    fault = tooLong(task);
                }
            }
        }
        inspector.force();
    }

    private void run(Task task) {
        frame.now = now;
        frame.budget = budget;
        if (frame.tracer != null) {
            frame.tracer.cycle();
        }
        try {
            for (CompiledUnit unit : task.units()) {
                if (frame.tracer != null) {
                    frame.tracer.program();
                }
                unit.run(0);
            }
        } catch (ProgramFault stopped) {
            fault = stopped;
        }
        int statements = budget - Math.max(0, frame.budget);
        task.ran(statements, statements * statementNanos, frame.tracer != null && task.isLongest(statements) ? frame.tracer.busiest() : null);
        if (chance != null) {
            task.interrupted((long) ((chance.nextLong() >>> 11) * 0x1.0p-53 * mostJitter));
        }
    }

    /**
     * From now on something else takes a part of the controller's time each time a task runs, evenly up to a most.
     *
     * @param most ns, 0 for none
     */
    public void jitter(long most, long seed) {
        mostJitter = most;
        chance = most > 0 ? new SplittableRandom(seed) : null;
    }

    private ProgramFault tooLong(Task task) {
        StatementPlace line = task.longestIn();
        return new ProgramFault(String.format(Locale.ROOT, "The task %s took more than the %s ms that its watchdog allows: %d statements take %s ms.%s", task.name(), millis(task.settings().watchdogMicros() * 1000L), task.statements(),
                millis(task.took()), line == null ? "" : " Most of them ran in this line."), line);
    }

    private static String millis(long nanos) {
        return BigDecimal.valueOf(nanos, 6).round(new MathContext(4)).stripTrailingZeros().toPlainString();
    }

    /** A task began or went on in this bus cycle: what it wrote leaves the controller. */
    public boolean worked() {
        return begun;
    }

    /** What was written to a tag waits until the time of a task is over that writes it. @param slot of the tag */
    public boolean holds(int slot) {
        for (Task task : byPriority) {
            if (task.holds(slot)) {
                return true;
            }
        }
        return false;
    }

    /** The time of a task has not been enough: some tags may wait. */
    public boolean behind() {
        for (Task task : byPriority) {
            if (task.working()) {
                return true;
            }
        }
        return false;
    }

    // ---- over a restart

    /** A value that is kept while the controller is off. @param type as declared  @param text null for what is no text */
    public record Retained(String name, String type, long value, String text) {
    }

    /** What the controller keeps when it is switched off. */
    public List<Retained> retained() {
        return program.retained().stream().map(v -> new Retained(v.name(), v.declared().written(), frame.memory[v.slot()], v.type().isText() ? frame.texts[v.slot()] : null)).toList();
    }

    /** A controller that is switched on again: what it kept is there, as far as the program still has such a value; everything else has begun anew. */
    public void restore(List<Retained> kept) {
        Map<String, Variable> known = program.retained().stream().collect(Collectors.toMap(v -> Scope.key(v.name()), v -> v, (one, same) -> one));
        for (Retained value : kept) {
            Variable variable = known.get(Scope.key(value.name()));
            if (variable != null && variable.declared().written().equals(value.type())) {
                frame.memory[variable.slot()] = value.value();
                if (value.text() != null) {
                    frame.texts[variable.slot()] = value.text();
                }
            }
        }
    }

    // ---- what can be asked

    public CompiledProgram program() {
        return program;
    }

    /** In the order of the document. */
    public List<Task> tasks() {
        return tasks;
    }

    /** All values; slots as in the program's variables. */
    public long[] memory() {
        return frame.memory;
    }

    /** The present value of a variable, as a user reads it. */
    public String text(Variable variable) {
        return Inspector.shown(variable, frame);
    }

    /** Why the tasks stopped, or null. */
    public ProgramFault fault() {
        return fault;
    }

    /** Statements that all tasks executed in their last cycles. */
    public int statements() {
        return tasks.stream().mapToInt(Task::statements).sum();
    }

    /** Reads, writes and forces values. */
    public Inspector inspector() {
        return inspector;
    }

    /** Hears of every statement; null where the code is not traced. */
    public Tracer tracer() {
        return frame.tracer;
    }

    /** A program is held in its middle. */
    public boolean held() {
        return suspension.held();
    }

    /** Gives up a program that is held: the resource is not to be used any more. */
    public void close() {
        suspension.abandon();
    }
}
