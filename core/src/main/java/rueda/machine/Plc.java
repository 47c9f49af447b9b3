package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.List;

/**
 * The controller.
 *
 * @param instructionBudget statements one cycle of a task may execute before it is stopped, 1000 to 10 000 000
 * @param statementNanos    estimate of the time that the controller takes for a statement, ns, 0 to 100 000; 0: no time passes
 * @param files             the sources of the program, 1 to {@link #MOST_FILES}; each may use what another one declares
 * @param tasks             when programs run, 1 to {@link #MOST_TASKS}; the first is the main task, which has an interval and runs every program that no task names
 * @param tags              tags declared by hand; those that are bound to an entry stand there
 * @param virtualMasters    masters that are setpoints of the PLC alone, up to 16
 */
@RecordBuilder
public record Plc(int instructionBudget, int statementNanos, List<SourceFile> files, List<Task> tasks, List<DeclaredTag> tags, List<VirtualMaster> virtualMasters) implements PlcBuilder.With {

    public static final int MOST_FILES = 100;
    /** Of all files together. */
    public static final int MOST_CHARACTERS = 2_000_000;
    public static final int MOST_TASKS = 16;
    /** Time of a statement in new machines, ns (our choice: a few machine instructions and their memory). */
    public static final int USUAL_STATEMENT_NANOS = 100;

    public Plc {
        files = files == null ? List.of() : List.copyOf(files);
        tasks = tasks == null ? List.of() : List.copyOf(tasks);
        tags = tags == null ? List.of() : List.copyOf(tags);
        virtualMasters = virtualMasters == null ? List.of() : List.copyOf(virtualMasters);
    }

    /** One file, one task. */
    public Plc(int taskIntervalMicros, int instructionBudget, String program) {
        this(instructionBudget, USUAL_STATEMENT_NANOS, List.of(new SourceFile(SourceFile.USUAL, program)), List.of(Task.main(taskIntervalMicros)), List.of(), List.of());
    }

    /**
     * A text of the program.
     *
     * @param name   as a file of it would be called, 1 to 80 characters without path
     * @param source Structured Text, IEC 61131-3
     */
    public record SourceFile(String name, String source) {
        /** Name of a program's file until its author gives it another. */
        public static final String USUAL = "Main.st";
    }

    /**
     * When programs run (IEC 61131-3, 6.8.2: INTERVAL, SINGLE and PRIORITY of a task; from memory).
     *
     * @param name           1 to 80 characters
     * @param intervalMicros time from start to start, µs, a multiple of the bus cycle up to {@link #LONGEST_INTERVAL_MICROS}; 0 for a task on a tag
     * @param onTag          BOOL tag whose rising edge starts it; empty for a task with an interval
     * @param priority       0 to {@link #LOWEST_PRIORITY}; 0 goes first
     * @param watchdogMicros longest time from its start to its end before the controller stops, µs, up to {@link #LONGEST_INTERVAL_MICROS}; 0: it is not watched
     * @param programs       what it runs, in this order
     */
    @RecordBuilder
    public record Task(String name, int intervalMicros, String onTag, int priority, int watchdogMicros, List<String> programs) implements PlcTaskBuilder.With {
        public static final String USUAL = "Main";
        public static final int LOWEST_PRIORITY = 31;
        public static final int LONGEST_INTERVAL_MICROS = 10_000_000;

        public Task {
            programs = programs == null ? List.of() : List.copyOf(programs);
        }

        /** The one task of a simple machine. */
        public static Task main(int intervalMicros) {
            return new Task(USUAL, intervalMicros, "", 0, 0, List.of());
        }
    }

    /** @param name names joined by dots  @param type elementary type, IEC 61131-3 */
    public record DeclaredTag(String name, String type) {
    }

    /** The first text; empty when there is none. */
    public String program() {
        return files.isEmpty() ? "" : files.get(0).source();
    }

    /** Interval of the main task, µs; 0 when there is none. */
    public int taskIntervalMicros() {
        return tasks.isEmpty() ? 0 : tasks.get(0).intervalMicros();
    }

    /** Every task with an interval starts with a bus cycle. @param cycleMicros of the bus, µs */
    public boolean fitsCycle(int cycleMicros) {
        return tasks.stream().allMatch(t -> t.intervalMicros() % cycleMicros == 0);
    }

    /** Intervals rounded up to whole bus cycles. @param cycleMicros of the bus, µs */
    public Plc withCycle(int cycleMicros) {
        return withTasks(tasks.stream().map(t -> t.withIntervalMicros((t.intervalMicros() + cycleMicros - 1) / cycleMicros * cycleMicros)).toList());
    }

    /** One text, and no other, from now on. */
    public Plc withProgram(String source) {
        return withFiles(List.of(new SourceFile(files.isEmpty() ? SourceFile.USUAL : files.get(0).name(), source)));
    }

    public Plc withTaskIntervalMicros(int micros) {
        List<Task> changed = new ArrayList<>(tasks);
        if (changed.isEmpty()) {
            changed.add(Task.main(micros));
        } else {
            changed.set(0, changed.get(0).withIntervalMicros(micros));
        }
        return withTasks(changed);
    }
}
