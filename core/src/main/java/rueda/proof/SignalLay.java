package rueda.proof;

import java.util.OptionalDouble;
import rueda.machine.Expectation.Alignment;
import rueda.recording.Brought;

/** Where a recording lies over a run. */
public final class SignalLay {

    private SignalLay() {
    }

    /** @param signal that both have  @return s that are added to the times of the recording; empty where it fits nowhere */
    public static OptionalDouble shift(RecordedRun run, Brought recording, String signal) {
        try {
            BroughtRun recorded = new BroughtRun(run.machine(), recording, run.signals(), run.interval());
            return OptionalDouble.of(Comparison.shift(run, recorded, new Comparison.Laid(Alignment.BEST_FIT, null, signal)));
        } catch (Reading.SaysNothing nowhere) {
            return OptionalDouble.empty();
        }
    }
}
