package rueda.proof;

import java.util.List;
import rueda.bench.Bench;
import rueda.bench.Signal;
import rueda.drive.DriveObject;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.plc.run.ProgramFault;
import rueda.plcopen.CommandLog;
import rueda.recording.Brought;

/** A run that the bench has made, whose recording has kept every sample. */
record BenchRun(Bench bench, List<Axis> standing, List<Happened> happened, Brought.Shelf shelf) implements RecordedRun {

    @Override
    public Machine machine() {
        return bench.machine();
    }

    @Override
    public List<Signal> signals() {
        return bench.recording().signals();
    }

    @Override
    public int signal(String name) {
        return bench.recording().indexOf(name);
    }

    @Override
    public long samples() {
        return bench.recording().count();
    }

    @Override
    public double value(int signal, long sample) {
        return bench.recording().value(signal, sample);
    }

    @Override
    public double time(long sample) {
        return bench.recording().time(sample);
    }

    @Override
    public double interval() {
        return bench.recording().cycleNanos() * 1e-9;
    }

    @Override
    public CommandLog orders() {
        return bench.log();
    }

    @Override
    public ProgramFault fault() {
        return bench.resource().fault();
    }

    @Override
    public List<LongestTask> tasks() {
        return bench.resource().tasks().stream().map(task -> new LongestTask(task.name(), task.longest() * 1e-9)).toList();
    }

    @Override
    public int errorCode(int axis) {
        return (int) bench.drive(axis).dictionary().get(DriveObject.ERROR_CODE);
    }
}
