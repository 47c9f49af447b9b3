package rueda.plc;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import rueda.machine.Plc;
import rueda.plc.StructuredTextCompiler.Text;
import rueda.plc.syntax.Words;
import rueda.quantity.InvalidEntry;

/** Gives a name of a program another one, wherever it stands, and nothing else that is called the same. */
public final class Renaming {

    private Renaming() {
    }

    /**
     * The controller with a name in place of another: in all texts, and in the tasks where it is a program's.
     *
     * @param named to be renamed; declared in one of the texts
     * @throws InvalidEntry when the name cannot be had, or is taken where it would stand
     */
    public static Plc of(Plc plc, Environment environment, NameIndex.Named named, String name) {
        if (named.declaration().isEmpty()) {
            throw new InvalidEntry("name", named.name(), "a name that a text declares", "what the machine or the standard gives is renamed where it is given");
        }
        String fault = !name.matches("[A-Za-z_]\\w*") ? "A name is a letter, then letters, digits or _." : Words.faultOfName(name);
        if (fault != null) {
            throw new InvalidEntry("name", name, "a letter, then letters, digits or _, no word of the language", fault);
        }
        Plc changed = inTasks(inTexts(plc, named.uses(), name), named, name);
        boolean onlyCase = named.name().equalsIgnoreCase(name);
        long before = faults(plc, environment);
        List<Diagnostic> after = StructuredTextCompiler.compile(Text.of(changed), environment).diagnostics();
        String owner = named.owner().equalsIgnoreCase(named.name()) ? name : named.owner();
        int uses = StructuredTextCompiler.index(Text.of(changed), environment).find(owner, name).map(n -> n.uses().size()).orElse(0);
        if (!onlyCase && (after.size() > before || uses != named.uses().size())) {
            throw new InvalidEntry("name", name, "a name that nothing else has where it would stand", after.size() > before ? after.get(0).message() : "choose another one");
        }
        return changed;
    }

    private static long faults(Plc plc, Environment environment) {
        return StructuredTextCompiler.compile(Text.of(plc), environment).diagnostics().size();
    }

    private static Plc inTexts(Plc plc, List<NameIndex.Use> uses, String name) {
        Map<String, List<NameIndex.Use>> byFile = uses.stream().collect(Collectors.groupingBy(NameIndex.Use::file, TreeMap::new, Collectors.toList()));
        return plc.withFiles(plc.files().stream().map(f -> byFile.containsKey(f.name()) ? new Plc.SourceFile(f.name(), replaced(f.source(), byFile.get(f.name()), name)) : f).toList());
    }

    /** From the end, so that places before stay where they are. */
    private static String replaced(String source, List<NameIndex.Use> uses, String name) {
        String[] lines = source.split("\n", -1);
        for (NameIndex.Use use : uses.stream().sorted(Comparator.comparingInt(NameIndex.Use::column).reversed()).toList()) {
            String line = lines[use.line() - 1];
            lines[use.line() - 1] = line.substring(0, use.column() - 1) + name + line.substring(use.column() - 1 + use.length());
        }
        return String.join("\n", lines);
    }

    private static Plc inTasks(Plc plc, NameIndex.Named named, String name) {
        if (named.kind() != NameIndex.Kind.UNIT) {
            return plc;
        }
        List<Plc.Task> tasks = new ArrayList<>();
        plc.tasks().forEach(t -> tasks.add(t.withPrograms(t.programs().stream().map(p -> p.equalsIgnoreCase(named.name()) ? name : p).toList())));
        return plc.withTasks(tasks);
    }
}
