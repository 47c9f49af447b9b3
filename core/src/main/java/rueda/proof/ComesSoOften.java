package rueda.proof;

import static rueda.proof.Words.plain;
import static rueda.proof.Words.say;

import java.util.ArrayList;
import java.util.List;
import rueda.machine.Axis;
import rueda.proof.temporal.Formula;

/** An event comes so often. @param least times  @param most times */
record ComesSoOften(String event, long least, long most) implements Claim {

    @Override
    public String axis() {
        return null;
    }

    @Override
    public String sentence(Axis of) {
        return least == most ? say("%s comes %d %s", event.strip(), least, least == 1 ? "time" : "times") : say("%s comes %d to %d times", event.strip(), least, most);
    }

    @Override
    public Verdict judge(RecordedRun run) {
        Reading reading = new Reading(run);
        Formula formula = reading.instant(event);
        List<Integer> comes = new ArrayList<>();
        for (int k = reading.next(formula, 0); k >= 0; k = reading.next(formula, k + 1)) {
            comes.add(k);
        }
        boolean holds = comes.size() >= least && comes.size() <= most;
        /* the one too many, or the end at which one was still missing */
        double time = comes.size() > most ? run.time(comes.get((int) most)) : comes.isEmpty() || comes.size() < least ? run.end() : run.time(comes.get(comes.size() - 1));
        return Verdict.of(sentence(null), holds).bounded(comes.size(), least, most, "times").at(time, time, time, reading.signal(event))
                .because(new Causes(run), reading.axis(event).orElse(-1), comes.isEmpty() ? "It never came." : say("It came %d times, the last time at %s s.", comes.size(), plain(run.time(comes.get(comes.size() - 1)))));
    }
}
