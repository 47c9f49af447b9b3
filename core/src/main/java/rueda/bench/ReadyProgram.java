package rueda.bench;

import java.util.List;
import rueda.machine.Machine;
import rueda.plc.CompiledProgram;
import rueda.plc.StructuredTextCompiler;
import rueda.plc.StructuredTextCompiler.Text;
import rueda.plcopen.MotionAxis;

/** A program compiled for the axes of a machine, and what became of those when it ran: for many benches, one after the other. Not thread-safe. */
public final class ReadyProgram {

    private final MotionAxis[] axes;
    private final CompiledProgram program;
    private final Courses courses = new Courses(Courses.MOST_BYTES);
    /** of the recording of a bench that is over, or null */
    private long[] spare;

    private ReadyProgram(MotionAxis[] axes, CompiledProgram program) {
        this.axes = axes;
        this.program = program;
    }

    /** That of the machine. */
    public static ReadyProgram of(Machine machine) {
        return of(machine, Text.of(machine.plc()), false);
    }

    /** @param traced it tells which lines ran */
    static ReadyProgram of(Machine machine, List<Text> texts, boolean traced) {
        MotionAxis[] axes = new MotionAxis[machine.axes().size() + machine.plc().virtualMasters().size()];
        return new ReadyProgram(axes, StructuredTextCompiler.compile(texts, Bench.environment(machine, axes), traced));
    }

    /** The PLC's side of every axis, as its function blocks have them: filled by the bench that runs it. */
    MotionAxis[] axes() {
        return axes;
    }

    CompiledProgram program() {
        return program;
    }

    /** Room for a recording, once; null for none. */
    long[] takeSpare() {
        long[] taken = spare;
        spare = null;
        return taken;
    }

    /** Nobody looks at the recording of this bench any more: the next one writes over it. */
    public void forget(Bench bench) {
        spare = bench.recording().room();
    }

    /** Of benches that ran it before. */
    Courses courses() {
        return courses;
    }
}
