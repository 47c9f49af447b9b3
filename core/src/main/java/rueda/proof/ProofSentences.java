package rueda.proof;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import rueda.bench.Bench;
import rueda.bench.Signal;
import rueda.machine.Condition;
import rueda.machine.Expectation;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.machine.ScriptStep;
import rueda.plc.Variable;
import rueda.proof.temporal.Sentence;
import rueda.proof.temporal.SentenceReader;
import rueda.quantity.InvalidEntry;

/** What the sentences of a proof may name in a machine, and what is wrong with those that stand there. For a machine whose program runs. */
public final class ProofSentences {

    private final Bench bench;
    private final SignalNames names;

    /** @throws IllegalArgumentException when the program has faults */
    public ProofSentences(Machine machine) {
        bench = new Bench(machine, 1);
        names = new SignalNames(signals());
    }

    /**
     * A sentence that cannot be read.
     *
     * @param field   where it stands in the proof, such as {@code /script/2/when}
     * @param column  in the text, from 1; 0 for the whole
     * @param message what is wrong and what would be right
     */
    public record Fault(String field, int column, String message) {
    }

    /** What a run records. */
    public List<Signal> signals() {
        return bench.recording().signals();
    }

    /** What a script can set: tags and values of the program that can be written, and digital inputs of the axes. */
    public List<String> targets() {
        Stream<String> values = bench.resource().program().variables().stream().filter(v -> bench.resource().program().refusal(v) == null).map(Variable::name);
        Stream<String> inputs = bench.machine().axes().stream().flatMap(axis -> axis.wiring().terminals().stream().filter(t -> t.kind().digitalInput()).map(t -> axis.name() + "." + t.name()));
        return Stream.concat(values, inputs).toList();
    }

    /** All that is wrong, in the order of the proof. @param proof without refused entries */
    public List<Fault> faults(Proof proof) {
        List<Fault> faults = new ArrayList<>();
        for (int i = 0; i < proof.script().size(); i++) {
            step(i, proof.script().get(i), faults);
        }
        for (int i = 0; i < proof.expectations().size(); i++) {
            expectation("/expectations/" + i, proof.expectations().get(i), faults);
        }
        for (int i = 0; i < proof.conditions().size(); i++) {
            int number = i;
            Condition condition = proof.conditions().get(i);
            bench.machine().axis(String.valueOf(condition.axis())).map(condition.of()::missingIn).ifPresent(why -> faults.add(new Fault("/conditions/" + number + "/axis", 0, why)));
        }
        return faults;
    }

    /** What is wrong with an event, in words; empty where nothing is. */
    public Optional<String> faultOfEvent(String event) {
        return SentenceReader.instant(event, names).faults().stream().map(Sentence.Fault::message).findFirst();
    }

    /** Unit of a number made of signals, as in the slot {@code signal}; empty where none is known. */
    public String unit(String signal) {
        return SentenceReader.number(signal, names).unit();
    }

    private void step(int number, ScriptStep step, List<Fault> faults) {
        try {
            new ScriptRun(bench, List.of(step));
        } catch (InvalidEntry refused) {
            faults.add(new Fault("/" + refused.field().replaceFirst("^script/0", "script/" + number), 0, refused.mend()));
        }
    }

    private void expectation(String at, Expectation e, List<Fault> faults) {
        e.slots().forEach(slot -> {
            List<Sentence.Fault> found = switch (slot) {
                case "after" -> SentenceReader.instant(e.after(), names).faults();
                case "then" -> SentenceReader.instant(e.then(), names).faults();
                case "when" -> SentenceReader.instant(e.when(), names).faults();
                case "signal" -> SentenceReader.number(e.signal(), names).faults();
                case "text" -> SentenceReader.read(e.text(), names).faults();
                default -> List.of();
            };
            found.stream().limit(1).forEach(fault -> faults.add(new Fault(at + "/" + slot, fault.column(), fault.message())));
        });
    }
}
