package rueda.app.calc;

import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import java.util.stream.IntStream;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import rueda.app.machine.Checked;
import rueda.bench.Bench;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.plc.StructuredTextCompiler;
import rueda.plc.StructuredTextCompiler.Text;
import rueda.proof.ProofSentences;
import rueda.proof.temporal.SentenceReader;
import rueda.quantity.InvalidEntry;

/** Sentences of a proof as they are written: what is wrong with them, and what they may name. Nothing is stored. */
@RestController
@RequestMapping("/api/calc/sentences")
class SentencesController {

    private final Drafts drafts;

    SentencesController(Drafts drafts) {
        this.drafts = drafts;
    }

    /** @param proof number of the proof, from 0 */
    record SentencesQuestion(Machine machine, String base, int proof) {
    }

    /** @param field JSON pointer in the document  @param column in the text, from 1; 0 for the whole */
    record SentenceFault(String field, int column, String message) {
    }

    /** @param bit it is on or off */
    record SignalName(String name, String unit, boolean bit) {
    }

    /** @param field JSON pointer of a number made of signals  @param unit of it; empty where none is known */
    record SentenceUnit(String field, String unit) {
    }

    /**
     * @param known     the program runs: what sentences may name is known
     * @param faults    at most one for each sentence
     * @param units     of the numbers that are made of signals
     * @param signals   what sentences may name
     * @param functions for what happens over time
     * @param targets   what a script can set
     */
    record SentencesAnswer(boolean known, List<SentenceFault> faults, List<SentenceUnit> units, List<SignalName> signals, List<String> functions, List<String> targets) {
    }

    @Operation(summary = "What is wrong with the sentences of a proof, what they may name, and their functions")
    @PostMapping
    SentencesAnswer sentences(@RequestBody SentencesQuestion q) {
        Machine machine = Checked.machine(drafts.asked(q.machine(), q.base()));
        if (q.proof() < 0 || q.proof() >= machine.proofs().size()) {
            throw new InvalidEntry("proof", Integer.toString(q.proof()), machine.proofs().isEmpty() ? "none: the machine has no proof" : "0 to " + (machine.proofs().size() - 1), "ask about a proof of the machine");
        }
        if (!StructuredTextCompiler.compile(Text.of(machine.plc()), Bench.environment(machine)).runs()) {
            return new SentencesAnswer(false, List.of(), List.of(), List.of(), SentenceReader.functions(), List.of());
        }
        ProofSentences sentences = new ProofSentences(machine);
        return new SentencesAnswer(true, sentences.faults(machine.proofs().get(q.proof())).stream().map(f -> new SentenceFault("/proofs/" + q.proof() + f.field(), f.column(), f.message())).toList(), units(sentences, machine.proofs().get(q.proof()), q.proof()),
                sentences.signals().stream().map(s -> new SignalName(s.name(), s.unit(), s.bit())).toList(), SentenceReader.functions(), sentences.targets());
    }

    private static List<SentenceUnit> units(ProofSentences sentences, Proof proof, int number) {
        return IntStream.range(0, proof.expectations().size()).filter(i -> proof.expectations().get(i).kind().slots().contains("signal"))
                .mapToObj(i -> new SentenceUnit("/proofs/" + number + "/expectations/" + i + "/signal", sentences.unit(proof.expectations().get(i).signal()))).toList();
    }
}
