package rueda.proof;

import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Expectation;

/** An expectation as it is judged: each kind says its own sentence and looks at the run itself. */
public sealed interface Claim permits ArrivesInTime, StaysBounded, StaysBetween, NeverBoth, ComesBefore, TakesTime, ComesSoOften, ValueAtEvent, EndsSo, TorqueShare, TaskTime, ReportsNoError, DiffersLittle, KeepsSentence {

    static Claim of(Expectation e) {
        return switch (e.kind()) {
            case ARRIVES -> new ArrivesInTime(e.axis(), e.after(), e.position(), e.tolerance(), e.within(), e.stays());
            case BOUND -> new StaysBounded(e.axis(), e.quantity(), e.limit(), Stretch.of(e));
            case BETWEEN -> new StaysBetween(e.signal(), e.low(), e.high(), Stretch.of(e));
            case NEVER_BOTH -> new NeverBoth(e.axis(), e.low(), e.high(), e.other(), e.otherLow(), e.otherHigh(), e.distance());
            case ORDER -> new ComesBefore(e.after(), e.then());
            case TIME -> new TakesTime(e.after(), e.then(), e.atLeast(), e.within());
            case COUNT -> new ComesSoOften(e.then(), Math.round(e.low()), Math.round(e.high()));
            case VALUE_AT -> new ValueAtEvent(e.signal(), e.low(), e.high(), e.after());
            case ENDS -> new EndsSo(e.axis(), e.end());
            case RMS_TORQUE -> new TorqueShare(e.axis(), true, e.limit());
            case PEAK_TORQUE -> new TorqueShare(e.axis(), false, e.limit());
            case TASK_TIME -> new TaskTime(e.limit());
            case NO_ERROR -> new ReportsNoError(e.axis());
            case DIFFERS -> new DiffersLittle(e.signal(), e.recording(), e.limit(), e.alignment(), e.after());
            case SENTENCE -> new KeepsSentence(e.text());
        };
    }

    /** Name of the axis that it speaks of; null where it speaks of none. */
    String axis();

    /** As the page and the command line show it. @param axis the one that it speaks of */
    String sentence(Axis axis);

    /** @throws IllegalArgumentException when the run has no such axis  @throws Reading.SaysNothing when what it names cannot be read in this run */
    Verdict judge(RecordedRun run);

    /** The same; what cannot be read does not hold. */
    default Verdict judged(RecordedRun run) {
        try {
            return judge(run);
        } catch (Reading.SaysNothing open) {
            Axis of = axis() == null ? null : run.machine().axes().get(axisIn(run.machine()));
            return Verdict.nothingShown(sentence(of), run.end(), open.getMessage());
        }
    }

    /** Number of the axis in the machine that ran. */
    default int axisIn(Machine machine) {
        for (int i = 0; i < machine.axes().size(); i++) {
            if (machine.axes().get(i).name().equalsIgnoreCase(axis())) {
                return i;
            }
        }
        throw new IllegalArgumentException("There is no axis " + axis());
    }
}
