package rueda.advice.program;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import rueda.advice.Finding.Severity;
import rueda.advice.program.ProgramFinding.Kind;
import rueda.machine.Machine;
import rueda.machine.Plc;
import rueda.plc.Environment;
import rueda.plc.syntax.UnitSyntax;
import rueda.plc.type.Type;

/** What is wrong with a program that can be compiled, found without running it. Costs about as much as compiling it. */
public final class ProgramAdvice {

    private ProgramAdvice() {
    }

    /** In the order of the texts. @param machine whose program can be compiled  @param environment what the program may name */
    public static List<ProgramFinding> of(Machine machine, Environment environment) {
        ProgramModel model = new ProgramModel(machine, environment);
        List<ProgramFinding> all = new ArrayList<>();
        new HomingRules(model, all::add).check();
        new OrderRules(model, all::add).check();
        new StateRules(model, all::add).check();
        new WaitRules(model, all::add).check();
        new ValueRules(model, all::add).check();
        List<String> files = machine.plc().files().stream().map(Plc.SourceFile::name).toList();
        all.sort(Comparator.comparingInt((ProgramFinding f) -> files.indexOf(f.file())).thenComparingInt(ProgramFinding::line).thenComparingInt(ProgramFinding::column));
        tasks(model, environment, all);
        return List.copyOf(all);
    }

    /** Tasks that name what there is not. */
    private static void tasks(ProgramModel model, Environment environment, List<ProgramFinding> all) {
        for (Plc.Task task : model.machine.plc().tasks()) {
            for (String program : task.programs()) {
                if (model.units.stream().noneMatch(u -> u.syntax().kind() == UnitSyntax.Kind.PROGRAM && u.syntax().name().equalsIgnoreCase(program))) {
                    all.add(new ProgramFinding(Kind.PROGRAM_MISSING, "", 0, 0, Severity.FAULT, "Task " + task.name() + " runs " + program + ", which is in no file", "Take it out of the task, or bring in the file with PROGRAM " + program + ".", null));
                }
            }
            if (!task.onTag().isEmpty() && environment.tags().stream().noneMatch(t -> t.name().equalsIgnoreCase(task.onTag()) && t.type() == Type.BOOL)) {
                all.add(new ProgramFinding(Kind.TAG_MISSING, "", 0, 0, Severity.FAULT, "Task " + task.name() + " never starts", "It waits for the tag " + task.onTag() + ", and there is no BOOL tag of this name. Bind one in Map, or choose another one.", null));
            }
        }
    }
}
