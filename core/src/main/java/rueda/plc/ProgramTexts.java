package rueda.plc;

import java.util.ArrayList;
import java.util.List;
import java.util.function.BiFunction;
import rueda.machine.Plc;
import rueda.plc.syntax.NameUses;

/** A name in all texts of a PLC: where it is used, and another name in its place. Costs a reading of their tokens. */
public final class ProgramTexts {

    private ProgramTexts() {
    }

    /** The PLC with one name in place of another in all of its texts; see {@link NameUses#renamed}. */
    public static Plc renamed(Plc plc, String from, String to) {
        return plc.withFiles(plc.files().stream().map(f -> new Plc.SourceFile(f.name(), f.source() == null ? null : NameUses.renamed(f.source(), from, to))).toList());
    }

    /** Places that name it, in the order of the texts: a line, with its file where there are several. */
    public static List<String> uses(Plc plc, String name) {
        return places(plc, name, NameUses::lines);
    }

    /** Places that name it by itself, not as the head of a longer name; see {@link NameUses#linesAlone}. */
    public static List<String> usesAlone(Plc plc, String name) {
        return places(plc, name, NameUses::linesAlone);
    }

    private static List<String> places(Plc plc, String name, BiFunction<String, String, List<Integer>> search) {
        List<String> places = new ArrayList<>();
        for (Plc.SourceFile file : plc.files()) {
            for (int line : search.apply(file.source() == null ? "" : file.source(), name)) {
                places.add(plc.files().size() > 1 ? line + " of " + file.name() : String.valueOf(line));
            }
        }
        return places;
    }
}
