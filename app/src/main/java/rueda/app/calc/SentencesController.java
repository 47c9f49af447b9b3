package rueda.app.calc;

import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import rueda.app.machine.Checked;
import rueda.bench.Bench;
import rueda.bench.Signal;
import rueda.machine.Machine;
import rueda.machine.Proof.Expectation;
import rueda.plc.CompiledProgram;
import rueda.plc.StructuredTextCompiler;
import rueda.plc.StructuredTextCompiler.Text;
import rueda.proof.SignalNames;
import rueda.proof.temporal.Sentence;
import rueda.proof.temporal.SentenceReader;
import rueda.quantity.InvalidEntry;

/** Sentences of proofs as they are written: what is wrong with them, and what they may name. Nothing is stored. */
@RestController
@RequestMapping("/api/calc/sentences")
class SentencesController {

    private static final int MOST = 1000;

    private final Drafts drafts;

    SentencesController(Drafts drafts) {
        this.drafts = drafts;
    }

    /** @param texts sentences to look at, up to 1000 */
    record SentencesQuestion(Machine machine, String base, List<String> texts) {
    }

    /** @param column from 1 */
    record SentenceFault(int column, String message) {
    }

    /** @param faults none where it says something */
    record SentenceCheck(List<SentenceFault> faults) {
    }

    /** @param bit it is on or off */
    record SignalName(String name, String unit, boolean bit) {
    }

    /**
     * @param checks    one for each text; none while the program has faults
     * @param signals   what sentences may name
     * @param functions of sentences
     */
    record SentencesAnswer(List<SentenceCheck> checks, List<SignalName> signals, List<String> functions) {
    }

    @Operation(summary = "What is wrong with sentences, what they may name, and their functions")
    @PostMapping
    SentencesAnswer sentences(@RequestBody SentencesQuestion q) {
        if (q.texts().size() > MOST || q.texts().stream().anyMatch(text -> text.length() > Expectation.LONGEST_TEXT)) {
            throw new InvalidEntry("texts", q.texts().size() + " sentences", "up to " + MOST + ", each of up to " + Expectation.LONGEST_TEXT + " characters", "ask about fewer or shorter ones");
        }
        Machine machine = Checked.machine(drafts.asked(q.machine(), q.base()));
        CompiledProgram program = StructuredTextCompiler.compile(Text.of(machine.plc()), Bench.environment(machine));
        if (!program.runs()) {
            return new SentencesAnswer(List.of(), List.of(), SentenceReader.functions());
        }
        List<Signal> signals = Bench.signals(machine, program);
        SignalNames names = new SignalNames(signals);
        return new SentencesAnswer(q.texts().stream().map(text -> check(SentenceReader.read(text, names))).toList(), signals.stream().map(s -> new SignalName(s.name(), s.unit(), s.bit())).toList(), SentenceReader.functions());
    }

    private static SentenceCheck check(Sentence sentence) {
        return new SentenceCheck(sentence.faults().stream().map(f -> new SentenceFault(f.column(), f.message())).toList());
    }
}
