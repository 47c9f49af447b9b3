package rueda.proof;

import static rueda.proof.Words.plain;
import static rueda.proof.Words.say;

import java.util.Comparator;
import java.util.Optional;
import rueda.machine.Axis;

/** No task of the controller takes longer than a time, by the time that a statement takes. @param limit ms */
record TaskTime(double limit) implements Claim {

    @Override
    public String axis() {
        return null;
    }

    @Override
    public String sentence(Axis of) {
        return say("No task takes longer than %s ms", plain(limit));
    }

    @Override
    public Verdict judge(RecordedRun run) {
        Optional<RecordedRun.LongestTask> longest = run.tasks().stream().max(Comparator.comparingDouble(RecordedRun.LongestTask::seconds));
        if (longest.isEmpty()) {
            return Verdict.nothingShown(sentence(null), run.end(), "How long its tasks took is not known of this run.");
        }
        double measured = longest.get().seconds() * 1e3;
        return Verdict.of(sentence(null), measured <= limit).withLimit(limit).withMeasured(measured).withUnit("ms").withRoom((limit - measured) / limit).withMargin(limit - measured)
                .at(run.end(), run.end(), run.end(), "").because(new Causes(run), -1, say("The task %s took %s ms at its longest.", longest.get().task(), plain(measured)));
    }
}
