package rueda.plc;

import java.util.BitSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import rueda.plc.code.Generator;
import rueda.plc.run.CallPlace;
import rueda.plc.run.CompiledUnit;
import rueda.plc.run.Frame;
import rueda.plc.run.FunctionBlock;
import rueda.plc.run.Image;
import rueda.plc.run.Tracer;
import rueda.plc.syntax.UnitSyntax;
import rueda.plc.type.Type;

/** Programs ready to run, or the reasons why not. Each {@link Resource} that runs them has a memory of its own; expressions are compiled into it by one thread at a time. */
public final class CompiledProgram {

    /** Cells behind those of the program, for expressions that are compiled later. */
    private static final int SPARE_CELLS = 256;

    private final String name;
    private final List<Diagnostic> diagnostics;
    private final List<Variable> variables;
    private final Map<String, Variable> byName = new HashMap<>();
    private final List<LineValues> lineValues;
    private final int[] tagSlots;
    private final Image first;
    private final Image[] images;
    private final List<Storage.Native> natives;
    private final List<Storage.Instance> instances;
    private final List<Unit> programs;
    /** what the units are made of, for expressions that are compiled later; null with faults */
    private final Project project;
    private final Generator.Compiled compiled;

    /** Names of the values that stand in a line of a program. @param file name of the text  @param line from 1 */
    public record LineValues(String file, int line, List<String> names) {
    }

    /** Texts with faults. */
    CompiledProgram(List<Diagnostic> diagnostics) {
        name = "";
        this.diagnostics = List.copyOf(diagnostics);
        variables = List.of();
        lineValues = List.of();
        tagSlots = new int[0];
        first = Image.blank(0);
        images = new Image[0];
        natives = List.of();
        instances = List.of();
        programs = List.of();
        project = null;
        compiled = null;
    }

    CompiledProgram(Project project, Generator.Compiled compiled) {
        List<Unit> run = project.units.values().stream().filter(u -> u.syntax.kind() == UnitSyntax.Kind.PROGRAM).toList();
        name = run.get(0).name();
        diagnostics = List.of();
        variables = List.copyOf(project.storage.variables());
        variables.forEach(v -> byName.putIfAbsent(Scope.key(v.name()), v));
        Map<Integer, String> names = new HashMap<>();
        variables.forEach(v -> names.putIfAbsent(v.slot(), v.name()));
        lineValues = project.seen.entrySet().stream().flatMap(file -> file.getValue().entrySet().stream()
                .map(line -> new LineValues(file.getKey(), line.getKey(), line.getValue().stream().map(names::get).filter(Objects::nonNull).toList()))).filter(l -> !l.names().isEmpty()).toList();
        tagSlots = project.environment.tags().stream().mapToInt(tag -> project.global.own(tag.name()).address().slot()).toArray();
        first = project.storage.whole();
        images = project.storage.images();
        natives = List.copyOf(project.storage.natives());
        instances = List.copyOf(project.storage.instances());
        programs = run;
        this.project = project;
        this.compiled = compiled;
    }

    /** Of the first program. */
    public String name() {
        return name;
    }

    /** Faults; empty when it can run. */
    public List<Diagnostic> diagnostics() {
        return diagnostics;
    }

    /** Every value that can be read: variables, pins of function blocks, tags. */
    public List<Variable> variables() {
        return variables;
    }

    /** The values that stand in the lines of programs; what function blocks hold inside stands in none. */
    public List<LineValues> lineValues() {
        return lineValues;
    }

    /** Slot of a tag, by its place in the environment. */
    public int tagSlot(int tag) {
        return tagSlots[tag];
    }

    public boolean runs() {
        return diagnostics.isEmpty();
    }

    /** A variable by its name, in any case. */
    public Optional<Variable> variable(String variableName) {
        return Optional.ofNullable(byName.get(Scope.key(variableName)));
    }

    /** A memory with first values; those that are no constants are worked out by {@link #begin}. */
    Frame frame() {
        FunctionBlock[] blocks = new FunctionBlock[natives.size()];
        Frame frame = new Frame(first.cells().length + SPARE_CELLS, blocks, images, compiled.calls().toArray(CallPlace[]::new), compiled.traced() ? new Tracer(compiled.statements()) : null);
        System.arraycopy(first.cells(), 0, frame.memory, 0, first.cells().length);
        if (first.texts() != null) {
            System.arraycopy(first.texts(), 0, frame.texts, 0, first.texts().length);
        }
        for (int i = 0; i < blocks.length; i++) {
            blocks[i] = natives.get(i).kind().maker().make(natives.get(i).name());
            frame.memory[natives.get(i).cell()] = i;
        }
        return frame;
    }

    /** The code, for one frame. */
    Generator.Loaded load(Frame frame) {
        return compiled.load(frame);
    }

    /** Works out the first values that are no constants. @throws rueda.plc.run.ProgramFault when one cannot be */
    void begin(Map<String, CompiledUnit> units) {
        units.get(StructuredTextCompiler.GLOBALS).begin(0);
        instances.forEach(i -> units.get(i.unit().className()).begin(i.slot()));
        programs.forEach(p -> units.get(p.className()).begin(0));
    }

    /** Names of the programs, in the order of the texts. */
    public List<String> programs() {
        return programs.stream().map(Unit::name).toList();
    }

    /** Slots of the tags that programs write, also by the units that they call. */
    BitSet writes(List<String> names) {
        BitSet slots = new BitSet();
        Set<Unit> reached = new HashSet<>();
        programs.stream().filter(p -> names.stream().anyMatch(p.name()::equalsIgnoreCase)).forEach(p -> writes(p, reached, slots));
        return slots;
    }

    private static void writes(Unit unit, Set<Unit> reached, BitSet slots) {
        if (reached.add(unit)) {
            unit.writes.forEach(slots::set);
            unit.calls.keySet().forEach(called -> writes(called, reached, slots));
        }
    }

    /** The name of a unit as it was written. @param unit in any case */
    public String unitName(String unit) {
        Unit found = project.unit(unit);
        return found == null ? unit : found.name();
    }

    /** Values that a controller keeps when it is switched off (RETAIN): elementary ones; a timer's or motion block's inside begins anew. */
    public List<Variable> retained() {
        return variables.stream().filter(v -> project.storage.retained().get(v.slot())).toList();
    }

    // ---- for what is compiled later

    Project project() {
        return project;
    }

    /** A cell for what an expression gives. */
    int resultSlot() {
        return first.cells().length + SPARE_CELLS - 1;
    }

    /** Names that an expression may use: of one program after the other, then of all. */
    List<Scope> scopes() {
        return Stream.concat(programs.stream().map(p -> p.scope), Stream.of(project.global)).toList();
    }

    /** Why a value cannot be written from outside, or null. */
    public String refusal(Variable variable) {
        if (variable.type() == Type.AXIS_REF) {
            return variable.name() + " is an axis.";
        }
        if (project.constants.contains(variable.slot())) {
            return variable.name() + " is CONSTANT.";
        }
        for (int i = 0; i < tagSlots.length; i++) {
            Environment.Tag tag = project.environment.tags().get(i);
            if (tagSlots[i] == variable.slot() && Boolean.TRUE.equals(tag.output()) && !tag.writable()) {
                return "Motion control writes " + variable.name() + ". Bits of its words can be forced in Map, axes moved by hand in Wire.";
            }
        }
        return null;
    }
}
