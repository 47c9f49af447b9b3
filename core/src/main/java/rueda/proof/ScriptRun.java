package rueda.proof;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Locale;
import java.util.stream.IntStream;
import rueda.bench.Bench;
import rueda.machine.Machine;
import rueda.machine.ScriptStep;
import rueda.machine.Terminal;
import rueda.plc.Variable;
import rueda.proof.temporal.Formula;
import rueda.proof.temporal.Sentence;
import rueda.proof.temporal.SentenceReader;
import rueda.quantity.InvalidEntry;
import rueda.recording.Brought;

/**
 * A script while it runs: {@link #cycle} before each bus cycle of the bench. It looks at the samples that the recording has, so what it does comes a bus cycle
 * after what it saw.
 *
 * <p>Cost: the sentences that say when, worked out once a cycle; it allocates only when something happens. Not thread-safe.
 */
public final class ScriptRun {

    private static final long NEVER = Long.MAX_VALUE;

    private final Bench bench;
    private final Machine machine;
    private final RunTrace trace;
    private final List<Running> steps = new ArrayList<>();
    private final List<Happened> happened = new ArrayList<>();

    /**
     * @param bench that has not run yet
     * @throws InvalidEntry for {@code script/…}, when a sentence cannot be read against what the bench records
     */
    public ScriptRun(Bench bench, List<ScriptStep> script) {
        this.bench = bench;
        machine = bench.machine();
        trace = new RunTrace(new BenchRun(bench, machine.axes(), happened, Brought.Shelf.EMPTY));
        SignalNames names = new SignalNames(bench.recording().signals());
        for (int i = 0; i < script.size(); i++) {
            steps.add(new Running(i, script.get(i), names));
        }
    }

    /** What has happened so far. */
    public List<Happened> happened() {
        return List.copyOf(happened);
    }

    /** Lets happen what is due before the next bus cycle. */
    public void cycle() {
        for (int i = 0; i < steps.size(); i++) {
            steps.get(i).look(bench.now());
        }
    }

    private static long nanos(Double seconds) {
        return seconds == null ? 0 : Math.round(seconds * 1e9);
    }

    /** One sentence while it runs. */
    private final class Running {
        private final int number;
        private final ScriptStep step;
        private final Formula when;
        private final Formula until;
        private final Effect effect;
        private boolean held;
        private boolean done;
        /** when it begins, for each time that it was asked to */
        private final Deque<Long> due = new ArrayDeque<>();
        private long endsAt = NEVER;
        private boolean on;

        Running(int number, ScriptStep step, SignalNames names) {
            this.number = number;
            this.step = step;
            boolean waits = step.start() == ScriptStep.Start.WHEN || step.start() == ScriptStep.Start.EACH;
            when = waits ? read("when", "Condition", step.when(), names) : null;
            until = step.does().lasts() && step.ending() == ScriptStep.Ending.UNTIL ? read("until", "Until", step.until(), names) : null;
            effect = effect();
            if (step.start() == ScriptStep.Start.AT || step.start() == ScriptStep.Start.EVERY) {
                due.add(nanos(step.time()));
            }
        }

        private Formula read(String slot, String label, String text, SignalNames names) {
            Sentence read = SentenceReader.instant(text, names);
            if (!read.sound()) {
                throw refused(slot, label, text, read.faults().get(0).message());
            }
            return read.formula();
        }

        private InvalidEntry refused(String slot, String label, String value, String why) {
            return new InvalidEntry("script/" + number + "/" + slot, label + " “" + value + "”", "what the run has", why);
        }

        private Effect effect() {
            Effect.Part at = parts().stream().filter(part -> part.name().equalsIgnoreCase(step.axis())).findFirst().orElse(null);
            return switch (step.does()) {
                case SET -> set();
                case STOP -> stop();
                case PUSH -> new Effect.Pushed(at, step.amount());
                case TURN -> new Effect.Turned(at, step.amount());
                case LOAD -> new Effect.Loaded(at, step.amount());
                case OFF -> new Effect.Off(List.of(at), false);
                case POWER_LOSS -> new Effect.Off(parts(), true);
                case RESTART -> new Effect.Restarted(at);
                case BREAK -> new Effect.Broken(at, step.mistake());
                case ASK, CHANNEL -> new Effect.Asked(step.request(), IntStream.range(0, machine.safetyRequests().size()).filter(i -> machine.safetyRequests().get(i).name().equals(step.request())).findFirst()
                        .orElseThrow(() -> refused("request", "Request", step.request(), "choose a request of the stage Guard")), step.does() == ScriptStep.Does.ASK);
                case ACKNOWLEDGE -> new Effect.Acknowledged();
            };
        }

        /** A button that nothing hangs on would show nothing. */
        private Effect stop() {
            Effect.StopPressed stop = new Effect.StopPressed(machine);
            if (stop.reachesNobody()) {
                throw refused("does", "What happens", step.does().words(), "no axis has an input for quick stop: wire one in the stage Wire, or set a tag instead");
            }
            return stop;
        }

        private List<Effect.Part> parts() {
            return IntStream.range(0, machine.axes().size()).mapToObj(i -> new Effect.Part(i, machine.axes().get(i))).toList();
        }

        private Effect set() {
            String target = step.target().strip();
            int dot = target.lastIndexOf('.');
            Effect.Part at = dot < 0 ? null : parts().stream().filter(part -> part.name().equalsIgnoreCase(target.substring(0, dot))).findFirst().orElse(null);
            if (at != null && bench.resource().program().variable(target).isEmpty()) {
                String name = target.substring(dot + 1);
                Terminal terminal = at.axis().wiring().terminals().stream().filter(t -> t.name().equalsIgnoreCase(name) && t.kind().digitalInput()).findFirst()
                        .orElseThrow(() -> refused("target", "What is set", target, "choose a digital input of " + at.name() + ", a tag or a variable of the program"));
                return new Effect.InputSet(at, terminal.name(), level());
            }
            Variable variable = bench.resource().program().variable(target).orElseThrow(() -> refused("target", "What is set", target, "choose a tag, a variable of the program, or an input of an axis"));
            String why = bench.resource().program().refusal(variable);
            if (why != null) {
                throw refused("target", "What is set", target, why);
            }
            Effect.ValueSet set = new Effect.ValueSet(variable, step.value());
            String fault = set.tried(bench);
            if (fault != null) {
                throw refused("value", "Value", step.value(), fault);
            }
            return set;
        }

        private boolean level() {
            return switch (step.value().strip().toUpperCase(Locale.ROOT)) {
                case "TRUE", "1" -> true;
                case "FALSE", "0" -> false;
                default -> throw refused("value", "Value", step.value(), "an input is TRUE, with voltage, or FALSE");
            };
        }

        void look(long now) {
            int last = (int) (bench.recording().count() - 1);
            if (when != null && last >= 0) {
                boolean holds = when.holds(trace, last);
                if (holds && !held && !done) {
                    due.add(now + nanos(step.time()));
                    done = step.start() == ScriptStep.Start.WHEN;
                }
                held = holds;
            }
            if (on && (now >= endsAt || until != null && last >= 0 && until.holds(trace, last))) {
                end(now);
            }
            if (!due.isEmpty() && now >= due.peek()) {
                begin(now);
            }
        }

        private void begin(long now) {
            due.remove();
            if (step.start() == ScriptStep.Start.EVERY) {
                due.add(now + nanos(step.time()));
            }
            if (!on) {
                /* what goes on already only goes on for longer: what was before it is known */
                tell(now, effect.words());
                effect.begin(bench, step.ending() == ScriptStep.Ending.ONCE);
            }
            on = step.does().lasts() && step.ending() != ScriptStep.Ending.ONCE;
            endsAt = on && step.ending() == ScriptStep.Ending.FOR ? now + Math.max(1, nanos(step.lasts())) : NEVER;
        }

        private void end(long now) {
            on = false;
            effect.end(bench);
            tell(now, effect.endWords());
        }

        private void tell(long now, String words) {
            happened.add(new Happened(now * 1e-9, number, words));
        }
    }
}
