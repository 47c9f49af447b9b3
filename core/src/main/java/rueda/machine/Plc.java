package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;

/**
 * The controller. Tasks are a list because programs of the trade have several; so far one runs, and the rules say so.
 *
 * @param instructionBudget statements one cycle may execute before the task is stopped, 1000 to 10 000 000
 * @param files             the sources of the program, 1 to {@link #MOST_FILES}; each may use what another one declares
 * @param tasks             when the program runs
 * @param tags              tags declared by hand; those that are bound to an entry stand there
 * @param virtualMasters    masters that are setpoints of the PLC alone, up to 16
 */
@RecordBuilder
public record Plc(int instructionBudget, List<SourceFile> files, List<CyclicTask> tasks, List<DeclaredTag> tags, List<VirtualMaster> virtualMasters) implements PlcBuilder.With {

    public static final int MOST_FILES = 100;
    /** Of all files together. */
    public static final int MOST_CHARACTERS = 2_000_000;

    public Plc {
        files = files == null ? List.of() : List.copyOf(files);
        tasks = tasks == null ? List.of() : List.copyOf(tasks);
        tags = tags == null ? List.of() : List.copyOf(tags);
        virtualMasters = virtualMasters == null ? List.of() : List.copyOf(virtualMasters);
    }

    /** One file, one task. */
    public Plc(int taskIntervalMicros, int instructionBudget, String program) {
        this(instructionBudget, List.of(new SourceFile(SourceFile.USUAL, program)), List.of(new CyclicTask(CyclicTask.USUAL, taskIntervalMicros)), List.of(), List.of());
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
     * A task that runs again and again, IEC 61131-3 2.7.2 (from memory).
     *
     * @param name           1 to 80 characters
     * @param intervalMicros time from start to start, µs, a multiple of the bus cycle up to 100 000
     */
    public record CyclicTask(String name, int intervalMicros) {
        public static final String USUAL = "Main";
    }

    /** @param name names joined by dots  @param type elementary type, IEC 61131-3 */
    public record DeclaredTag(String name, String type) {
    }

    /** The first text; empty when there is none. */
    public String program() {
        return files.isEmpty() ? "" : files.get(0).source();
    }

    /** Interval of the task that runs it, µs; 0 when there is none. */
    public int taskIntervalMicros() {
        return tasks.isEmpty() ? 0 : tasks.get(0).intervalMicros();
    }

    /** One text, and no other, from now on. */
    public Plc withProgram(String source) {
        return withFiles(List.of(new SourceFile(files.isEmpty() ? SourceFile.USUAL : files.get(0).name(), source)));
    }

    public Plc withTaskIntervalMicros(int micros) {
        return withTasks(List.of(new CyclicTask(tasks.isEmpty() ? CyclicTask.USUAL : tasks.get(0).name(), micros)));
    }
}
