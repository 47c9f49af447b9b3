package rueda.proof;

import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Proof.Expectation;

/** An expectation as it is judged: each kind says its own sentence and looks at the run itself. */
public sealed interface Claim permits ArrivesInTime, StaysBounded, ReportsNoError, KeepsSentence {

    static Claim of(Expectation e) {
        return switch (e.kind()) {
            case ARRIVES -> new ArrivesInTime(e.axis(), e.after(), e.position(), e.tolerance(), e.within(), e.stays());
            case BOUND -> new StaysBounded(e.axis(), e.quantity(), e.limit());
            case NO_ERROR -> new ReportsNoError(e.axis());
            case SENTENCE -> new KeepsSentence(e.text());
        };
    }

    /** Name of the axis that it speaks of; null where it speaks of none. */
    String axis();

    /** As the page and the command line show it. @param axis the one that it speaks of */
    String sentence(Axis axis);

    /** @throws IllegalArgumentException when the run has no such axis */
    Verdict judge(RecordedRun run);

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
