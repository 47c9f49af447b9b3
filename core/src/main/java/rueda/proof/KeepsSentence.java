package rueda.proof;

import static rueda.proof.Words.plain;
import static rueda.proof.Words.say;

import rueda.machine.Axis;
import rueda.proof.temporal.Decision;
import rueda.proof.temporal.Judged;
import rueda.proof.temporal.Sentence;
import rueda.proof.temporal.SentenceReader;

/** What its author has written holds over the run, judged from its beginning. @param text see {@link SentenceReader} */
record KeepsSentence(String text) implements Claim {

    @Override
    public String axis() {
        return null;
    }

    @Override
    public String sentence(Axis of) {
        return text.strip();
    }

    @Override
    public Verdict judge(RecordedRun run) {
        Reading reading = new Reading(run);
        Sentence read = SentenceReader.read(text, reading.names());
        if (!read.sound()) {
            throw new Reading.SaysNothing("It says nothing: " + read.faults().get(0).message());
        }
        Judged judged = read.formula().judge(reading.trace());
        if (judged.length() == 0) {
            return open(run, say("It looks farther ahead than the %s s that the program ran. Let it run longer.", plain(run.end())));
        }
        double room = judged.room(0);
        Decision decision = judged.decision(0);
        double time = run.time(decision.sample());
        Double margin = Double.isInfinite(room) ? null : Math.abs(room) == Double.MIN_VALUE ? 0.0 : room;
        return Verdict.of(text.strip(), room > 0).withUnit(decision.unit()).withMargin(margin).at(time, time, time, reading.signal(decision.by()))
                .because(new Causes(run), reading.axis(decision.by()).orElse(-1), say("At %s s %s decides it%s.", plain(time), decision.by(), margin == null || margin == 0 ? "" : say(", by %s %s", plain(Math.abs(margin)), decision.unit()).stripTrailing()));
    }

    private Verdict open(RecordedRun run, String cause) {
        return Verdict.nothingShown(text.strip(), run.end(), cause);
    }
}
