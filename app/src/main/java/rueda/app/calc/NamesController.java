package rueda.app.calc;

import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import rueda.app.machine.Checked;
import rueda.app.web.Refusals.NotFound;
import rueda.bench.Bench;
import rueda.edit.ProofEdit;
import rueda.machine.Machine;
import rueda.machine.Plc;
import rueda.machine.Proof;
import rueda.plc.Environment;
import rueda.plc.NameIndex;
import rueda.plc.Renaming;
import rueda.plc.StructuredTextCompiler;
import rueda.plc.StructuredTextCompiler.Text;
import rueda.plc.TagReference;
import rueda.plc.Variable;

/** Names in a program: what they mean, where they stand, and another one for them. Nothing is stored. */
@RestController
@RequestMapping("/api/calc/program")
class NamesController {

    private final Drafts drafts;

    NamesController(Drafts drafts) {
        this.drafts = drafts;
    }

    /** @param line from 1  @param column from 1 */
    record NameQuestion(Machine machine, String base, String file, int line, int column) {
    }

    /** What stands there. @param found null when no name does */
    record NameAnswer(NameIndex.Named found) {
    }

    @Operation(summary = "What a name of the program means, its type, and all places where it stands")
    @PostMapping("/name")
    NameAnswer name(@RequestBody NameQuestion q) {
        Machine machine = Checked.machine(drafts.asked(q.machine(), q.base()));
        return new NameAnswer(index(machine).at(q.file(), q.line(), q.column()).orElse(null));
    }

    /** @param line of a place where the name stands, from 1  @param column from 1  @param name the new one */
    record RenameQuestion(Machine machine, String base, String file, int line, int column, String name) {
    }

    /** The texts, the tasks and the sentences of the proofs with the new name. */
    record RenameAnswer(List<Plc.SourceFile> files, List<Plc.Task> tasks, List<Proof> proofs) {
    }

    @Operation(summary = "The program with another name for what stands at a place, wherever it stands; refused where it would mean something else")
    @PostMapping("/rename")
    RenameAnswer rename(@RequestBody RenameQuestion q) {
        Machine machine = Checked.machine(drafts.asked(q.machine(), q.base()));
        NameIndex.Named named = index(machine).at(q.file(), q.line(), q.column()).orElseThrow(() -> new NotFound("name in " + q.file() + ", line " + q.line() + ", column " + q.column()));
        Plc changed = Renaming.of(machine.plc(), Bench.environment(machine), named, q.name().strip());
        return new RenameAnswer(changed.files(), changed.tasks(), ProofEdit.renamed(machine.proofs(), values(machine), values(machine.withPlc(changed))));
    }

    private static List<String> values(Machine machine) {
        return StructuredTextCompiler.compile(Text.of(machine.plc()), Bench.environment(machine)).variables().stream().map(Variable::name).toList();
    }

    /** A machine, or the key of one. */
    record TagsQuestion(Machine machine, String base) {
    }

    @Operation(summary = "Who reads and who writes each tag")
    @PostMapping("/tags")
    List<TagReference> tags(@RequestBody TagsQuestion q) {
        Machine machine = Checked.machine(drafts.asked(q.machine(), q.base()));
        return TagReference.of(Text.of(machine.plc()), Bench.environment(machine));
    }

    private static NameIndex index(Machine machine) {
        Environment environment = Bench.environment(machine);
        return StructuredTextCompiler.index(Text.of(machine.plc()), environment);
    }
}
