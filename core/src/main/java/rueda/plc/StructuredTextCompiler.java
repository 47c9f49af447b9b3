package rueda.plc;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import rueda.machine.Plc;
import rueda.plc.code.Action;
import rueda.plc.code.Generator;
import rueda.plc.code.UnitCode;
import rueda.plc.syntax.ExpressionSyntax;
import rueda.plc.syntax.FileSyntax;
import rueda.plc.syntax.Outline;
import rueda.plc.syntax.Parser;
import rueda.plc.syntax.Place;
import rueda.plc.syntax.UnitSyntax;

/**
 * Checks texts in Structured Text and turns them into code that a {@link Resource} runs.
 *
 * <p>Every fault is reported with line and column; texts with faults have no code. A text of any size or depth
 * is compiled in time that grows with its length, or refused with a sentence: see {@link Parser} for how deep it may go.
 */
public final class StructuredTextCompiler {

    private static final int LONGEST_TEXT = 4_000_000;
    /** Name of what works out the first values of global variables; no unit can have it. */
    static final String GLOBALS = "$globals";

    /** A text and its name. */
    public record Text(String file, String source) {
        /** The texts of a machine's PLC. */
        public static List<Text> of(Plc plc) {
            return plc.files().stream().map(f -> new Text(f.name(), f.source())).toList();
        }
    }

    /** A text that has been read. */
    private record Read(Text text, FileSyntax syntax, Faults faults) {
    }

    private final Project project;
    private final boolean traced;
    private final List<Read> texts = new ArrayList<>();

    private StructuredTextCompiler(Environment environment, boolean traced, boolean indexed) {
        this.traced = traced;
        project = new Project(environment, indexed);
    }

    /** One text that holds everything. */
    public static CompiledProgram compile(String source, Environment environment) {
        return compile(List.of(new Text("", source)), environment);
    }

    /** Several texts: each may name what another one declares. */
    public static CompiledProgram compile(List<Text> sources, Environment environment) {
        return compile(sources, environment, false);
    }

    /** @param traced the code tells a {@link rueda.plc.run.Tracer} of every statement */
    public static CompiledProgram compile(List<Text> sources, Environment environment, boolean traced) {
        return new StructuredTextCompiler(environment, traced, false).compile(sources);
    }

    /** What every name in the texts means, as far as they can be read. Costs as much as compiling them. */
    public static NameIndex index(List<Text> sources, Environment environment) {
        StructuredTextCompiler compiler = new StructuredTextCompiler(environment, false, true);
        compiler.read(sources);
        compiler.declare();
        compiler.project.units.values().forEach(compiler::body);
        compiler.project.index.finish(sources);
        return compiler.project.index;
    }

    private CompiledProgram compile(List<Text> sources) {
        read(sources);
        if (faulty()) {
            return refused();
        }
        declare();
        List<UnitCode> code = new ArrayList<>();
        for (Unit unit : project.units.values()) {
            code.add(body(unit));
        }
        recursion();
        return finished(code);
    }

    private void read(List<Text> sources) {
        for (Text text : sources) {
            Faults faults = new Faults(text.file(), text.source());
            boolean tooLong = text.source().length() > LONGEST_TEXT;
            if (tooLong) {
                faults.at(new Place(1, 1, 1), "A program has at most " + LONGEST_TEXT / 1_000_000 + " million characters, this one has " + text.source().length() + ".");
            }
            texts.add(new Read(text, tooLong ? new FileSyntax(List.of(), List.of(), List.of(), 0) : Parser.parse(text.source(), faults), faults));
        }
    }

    private CompiledProgram finished(List<UnitCode> code) {
        Unit program = project.units.values().stream().filter(u -> u.syntax.kind() == UnitSyntax.Kind.PROGRAM).findFirst().orElse(null);
        if (program == null && !faulty()) {
            Read last = texts.get(texts.size() - 1);
            boolean empty = texts.stream().allMatch(t -> t.syntax().units().isEmpty() && t.syntax().types().isEmpty() && t.syntax().globals().isEmpty());
            last.faults().at(new Place(Math.max(1, last.syntax().lines()), 1, 1), empty ? "The program is empty. Write PROGRAM and a name, variables between VAR and END_VAR, statements, END_PROGRAM."
                    : "There is no PROGRAM: write PROGRAM Main … END_PROGRAM, which a task runs.");
        }
        if (project.storage.full() && !faulty()) {
            texts.get(0).faults().at(new Place(1, 1, 1), "A program has at most " + Storage.MOST_CELLS + " values: variables, pins of blocks and tags.");
        }
        if (faulty()) {
            return refused();
        }
        return generated(code);
    }

    private CompiledProgram generated(List<UnitCode> code) {
        code.add(new UnitCode(GLOBALS, texts.get(0).text().file(), List.of(), List.of(), project.initial));
        try {
            return new CompiledProgram(project, Generator.compile(code, traced));
        } catch (Generator.TooLong tooLong) {
            Unit unit = project.units.get(tooLong.unit());
            Faults faults = unit == null ? texts.get(0).faults() : unit.faults;
            faults.at(unit == null ? new Place(1, 1, 1) : unit.syntax.place(), (unit == null ? "The first values of global variables are" : unit.name() + " is") + " too long to be compiled: a single statement of it is. Split it.");
            return refused();
        }
    }

    private boolean faulty() {
        return texts.stream().anyMatch(t -> !t.faults().none());
    }

    private CompiledProgram refused() {
        return new CompiledProgram(texts.stream().flatMap(t -> t.faults().sorted().stream()).toList());
    }

    /** Types, units, what the machine gives, global variables, and the variables of all units. */
    private void declare() {
        for (Read read : texts) {
            for (UnitSyntax unit : read.syntax().units()) {
                declare(unit, read);
            }
        }
        for (Read read : texts) {
            read.syntax().types().forEach(type -> project.types.declare(type, read.faults()));
        }
        project.declareMachine();
        for (Read read : texts) {
            project.declareGlobals(read.syntax().globals(), read.faults());
        }
        project.types.readAll();
        project.units.values().forEach(unit -> new Declarations(project, unit).read());
    }

    private void declare(UnitSyntax syntax, Read read) {
        String key = Scope.key(syntax.name());
        if (syntax.name().isEmpty()) {
            return;
        }
        if (project.units.containsKey(key)) {
            read.faults().at(syntax.place(), syntax.name() + " is declared already, as a " + word(project.units.get(key).syntax.kind()) + ".");
        } else if (syntax.kind() != UnitSyntax.Kind.PROGRAM && project.types.isType(syntax.name())) {
            read.faults().at(syntax.place(), syntax.name() + " is the name of a type or of a function block already.");
        } else {
            project.index.declared(read.text().file(), syntax.place(), "", "", syntax.name(), NameIndex.Kind.UNIT, syntax.result() == null ? "" : Outline.written(syntax.result()));
            project.units.put(key, new Unit(syntax, read.text().file(), read.faults(), project.global));
        }
    }

    static String word(UnitSyntax.Kind kind) {
        return switch (kind) {
            case PROGRAM -> "program";
            case FUNCTION -> "function";
            case FUNCTION_BLOCK -> "function block";
        };
    }

    private UnitCode body(Unit unit) {
        ExpressionCompiler expressions = new ExpressionCompiler(project, unit.scope, unit.faults, unit);
        List<Action> body = new ArrayList<>(unit.prologue);
        body.addAll(new Statements(expressions).of(unit.syntax.body()));
        if (unit.result != null && unit.syntax.body().isEmpty()) {
            unit.faults.at(unit.syntax.place(), unit.name() + " never gets its value: write " + unit.name() + " := …;");
        }
        return new UnitCode(unit.className(), unit.file, unit.lent(), body, unit.initial);
    }

    // ---- recursion

    /** A unit must not call itself, also not by way of others (IEC 61131-3, 6.6.1). */
    private void recursion() {
        Set<Unit> settled = new HashSet<>();
        for (Unit unit : project.units.values()) {
            if (settled.add(unit)) {
                follow(unit, new LinkedHashMap<>(), settled);
            }
        }
    }

    private void follow(Unit unit, Map<Unit, ExpressionSyntax> way, Set<Unit> settled) {
        for (Map.Entry<Unit, ExpressionSyntax> call : unit.calls.entrySet()) {
            Unit called = call.getKey();
            if (called == unit || way.containsKey(called)) {
                String by = called == unit ? "" : ", by way of " + unit.name();
                unit.faults.at(call.getValue(), called.name() + " calls itself" + by + ", which IEC 61131-3 does not allow.");
            } else if (settled.add(called)) {
                way.put(unit, call.getValue());
                follow(called, way, settled);
                way.remove(unit);
            }
        }
    }
}
