package rueda.app.calc;

import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.stereotype.Component;
import rueda.advice.DocumentAdvice;
import rueda.advice.Finding.Change;
import rueda.advice.program.ProgramAdvice;
import rueda.app.calc.CalcController.ProgramAnswer;
import rueda.app.machine.MachineJson;
import rueda.app.web.Refusals.NotFound;
import rueda.bench.Bench;
import rueda.bus.description.DeviceDescription;
import rueda.machine.EntryFault;
import rueda.machine.Machine;
import rueda.machine.MachineRules;
import rueda.plc.CompiledProgram;
import rueda.plc.Environment;
import rueda.plc.StructuredTextCompiler;
import rueda.plc.type.Type;
import rueda.plc.Variable;
import rueda.plc.syntax.Outline;
import tools.jackson.databind.JsonNode;

/**
 * Documents that pages are working on, with what was computed of them, so that a page sends only what it has changed and is answered only
 * what is different. The {@value #MOST} used last are kept, fewer of large ones; whoever asks about another one sends all of it again. Thread-safe.
 */
@Component
class Drafts {

    private static final int MOST = 24;
    /** Characters of JSON that all of them together may have; a machine of 64 axes has 350 000. In memory each is about ten times as large. */
    private static final long MOST_CHARACTERS = 12_000_000;

    /** in the order of their last use; guarded by itself */
    private final Map<String, Draft> kept = new LinkedHashMap<>(MOST, 0.75f, true);
    private long characters;

    /**
     * @param key     by which it is asked for
     * @param size    characters of its JSON, about
     * @param tree    the document as JSON
     * @param faults  refused entries
     * @param advice  of the last document on the way here that had none, null when there was none
     * @param program of that document
     * @param sound   that document
     */
    record Draft(String key, long size, Machine machine, JsonNode tree, List<EntryFault> faults, DocumentAdvice advice, ProgramAnswer program, Machine sound) {
    }

    /** A page that is opened asks about all of its document: what was computed of the same one before is not computed again. */
    Draft begin(Machine machine, List<DeviceDescription> library) {
        Draft alike;
        synchronized (kept) {
            alike = kept.values().stream().filter(draft -> machine.equals(draft.machine()) && machine.equals(draft.sound())).findFirst().orElse(null);
        }
        return keep(next(alike, machine, MachineJson.tree(machine), MachineJson.write(machine).length(), library));
    }

    /** @throws NotFound when it is not kept any more */
    Draft of(String key) {
        synchronized (kept) {
            Draft draft = kept.get(key);
            if (draft == null) {
                throw new NotFound("document with this key any more; send all of it");
            }
            return draft;
        }
    }

    /**
     * The document that a question is about: the one that it carries, or the one of its key.
     *
     * @param carried may be null  @param base may be null
     * @return null when it has neither
     * @throws NotFound when it is not kept any more
     */
    Machine asked(Machine carried, String base) {
        return carried != null || base == null ? carried : of(base).machine();
    }

    /** A document without refused entries of which the one that is asked about has most parts; null where none is kept. @param base may be null */
    Machine sound(String base) {
        synchronized (kept) {
            Draft draft = base == null ? null : kept.get(base);
            return draft == null ? null : draft.sound();
        }
    }

    /** @throws rueda.app.web.Refusals.RefusedEntries when the changes make no document */
    Draft after(Draft before, List<Change> changes, List<DeviceDescription> library) {
        JsonNode tree = MachineJson.changed(before.tree(), changes);
        long added = changes.stream().mapToLong(change -> change.value() == null ? 0 : MachineJson.write(change.value()).length()).sum();
        boolean whole = changes.stream().anyMatch(change -> change.path().isEmpty());
        return keep(next(before, MachineJson.document(tree, before.machine(), changes), tree, whole ? added : before.size() + added, library));
    }

    private Draft keep(Draft draft) {
        synchronized (kept) {
            kept.put(draft.key(), draft);
            characters += draft.size();
            /* one that is too large alone is not kept either: its page goes on sending all of it */
            for (Iterator<Draft> eldest = kept.values().iterator(); kept.size() > MOST || characters > MOST_CHARACTERS; ) {
                characters -= eldest.next().size();
                eldest.remove();
            }
        }
        return draft;
    }

    private static Draft next(Draft before, Machine machine, JsonNode tree, long size, List<DeviceDescription> library) {
        List<EntryFault> faults = MachineRules.check(machine, before == null ? null : before.sound());
        String key = UUID.randomUUID().toString();
        if (!faults.isEmpty()) {
            return new Draft(key, size, machine, tree, faults, before == null ? null : before.advice(), before == null ? null : before.program(), before == null ? null : before.sound());
        }
        boolean known = before != null && before.advice() != null;
        DocumentAdvice advice = known ? before.advice().after(machine, library) : DocumentAdvice.of(machine, library);
        return new Draft(key, size, machine, tree, faults, advice, known && compilesAlike(before.sound(), machine) ? judged(before, machine) : compiled(machine), machine);
    }

    static ProgramAnswer compiled(Machine machine) {
        Environment environment = Bench.environment(machine);
        CompiledProgram program = StructuredTextCompiler.compile(StructuredTextCompiler.Text.of(machine.plc()), environment);
        return new ProgramAnswer(program.diagnostics(), program.runs() ? ProgramAdvice.of(machine, environment) : List.of(), program.variables().stream().filter(v -> v.type() == Type.BOOL).map(Variable::name).toList(),
                machine.plc().files().stream().map(f -> new CalcController.FileOutline(f.name(), Outline.of(f.source()))).toList());
    }

    /** The program compiles as before; what is found in it may hang on the axes. */
    private static ProgramAnswer judged(Draft before, Machine machine) {
        ProgramAnswer program = before.program();
        boolean alike = program.diagnostics().isEmpty() && axesInProgram(before.sound()).equals(axesInProgram(machine));
        return alike || !program.diagnostics().isEmpty() ? program : new ProgramAnswer(program.diagnostics(), ProgramAdvice.of(machine, Bench.environment(machine)), program.events(), program.outline());
    }

    /** What findings about a program look at. */
    private static List<List<Object>> axesInProgram(Machine machine) {
        return machine.axes().stream().map(a -> List.<Object>of(a.name(), a.homing(), a.unit(), a.station(), a.supervision(), a.commandedBy())).toList();
    }

    private static boolean compilesAlike(Machine one, Machine other) {
        Environment before = Bench.environment(one);
        Environment after = Bench.environment(other);
        return one.plc().equals(other.plc()) && before.axes().equals(after.axes()) && before.tags().equals(after.tags());
    }
}
