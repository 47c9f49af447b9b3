package rueda.proof;

import java.util.List;
import rueda.bench.Signal;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.plc.run.ProgramFault;
import rueda.plcopen.CommandLog;
import rueda.recording.Brought;

/**
 * A run as its recording tells it: signals by name, the orders of the program, why it stopped. Expectations are judged over it, whether the
 * bench has just made it ({@link BenchRun}) or it comes from elsewhere.
 */
public interface RecordedRun {

    /** The machine that ran. */
    Machine machine();

    /** All signals, by their numbers. */
    List<Signal> signals();

    /** Number of a signal by its name in any case, or −1. */
    int signal(String name);

    /** Samples from the start of the run. */
    long samples();

    /** @param sample 0 to {@link #samples()} − 1 */
    double value(int signal, long sample);

    /** Time of a sample, s since the start. */
    double time(long sample);

    /** Time from one sample to the next, s. */
    double interval();

    /** What the program ordered; empty where that is not known. */
    default CommandLog orders() {
        return new CommandLog();
    }

    /** Why the program stopped before its end, or null. */
    default ProgramFault fault() {
        return null;
    }

    /** The axes as they really stood there, which may be other than the machine says. */
    default List<Axis> standing() {
        return machine().axes();
    }

    /** What the script made happen, in order. */
    default List<Happened> happened() {
        return List.of();
    }

    /** Recordings that it can be held against. */
    default Brought.Shelf shelf() {
        return Brought.Shelf.EMPTY;
    }

    /** How long the tasks of the controller took at the longest; empty where that is not known. */
    default List<LongestTask> tasks() {
        return List.of();
    }

    /** @param task its name  @param seconds s of the controller's time */
    record LongestTask(String task, double seconds) {
    }

    /** Error code of an axis' drive at the end, 603Fh; 0 where that is not known. */
    default int errorCode(int axis) {
        return 0;
    }

    /** Time of the last sample, s. */
    default double end() {
        return time(samples() - 1);
    }
}
