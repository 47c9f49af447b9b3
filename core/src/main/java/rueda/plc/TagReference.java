package rueda.plc;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import rueda.plc.NameIndex.How;
import rueda.plc.NameIndex.Kind;
import rueda.plc.NameIndex.Named;
import rueda.plc.NameIndex.Use;
import rueda.plc.StructuredTextCompiler.Text;
import rueda.plc.syntax.Branches;
import rueda.plc.syntax.Complaints;
import rueda.plc.syntax.Parser;
import rueda.plc.syntax.Place;
import rueda.plc.syntax.UnitSyntax;

/**
 * Who reads and who writes a tag.
 *
 * @param reads  places where programs read it
 * @param writes places where programs write it
 * @param twice  two places may write it in one cycle, so that the first is lost: they stand in no two branches of one IF or CASE
 */
public record TagReference(String name, String type, List<Use> reads, List<Use> writes, boolean twice) {

    /** All tags that the environment gives, in its order. */
    public static List<TagReference> of(List<Text> texts, Environment environment) {
        NameIndex index = StructuredTextCompiler.index(texts, environment);
        Map<String, List<Branches.Located>> statements = new HashMap<>();
        for (Text text : texts) {
            for (UnitSyntax unit : Parser.parse(text.source(), Complaints.NONE).units()) {
                statements.computeIfAbsent(text.file(), file -> new ArrayList<>()).addAll(Branches.of(unit.body()));
            }
        }
        return index.all(Kind.TAG::equals).stream().map(tag -> of(tag, statements)).toList();
    }

    private static TagReference of(Named tag, Map<String, List<Branches.Located>> statements) {
        List<Use> writes = tag.uses().stream().filter(u -> u.how() == How.WRITTEN).toList();
        boolean twice = false;
        for (int i = 0; i < writes.size(); i++) {
            for (int j = i + 1; j < writes.size(); j++) {
                twice |= !exclusive(writes.get(i), writes.get(j), statements);
            }
        }
        return new TagReference(tag.name(), tag.type(), tag.uses().stream().filter(u -> u.how() != How.WRITTEN).toList(), writes, twice);
    }

    private static boolean exclusive(Use a, Use b, Map<String, List<Branches.Located>> statements) {
        if (!a.file().equals(b.file()) || !a.unit().equalsIgnoreCase(b.unit())) {
            return false;
        }
        Branches.Located one = statement(a, statements.getOrDefault(a.file(), List.of()));
        Branches.Located other = statement(b, statements.getOrDefault(b.file(), List.of()));
        return one != null && other != null && one.excludes(other);
    }

    /** The innermost statement in which a use stands: the last one that begins before it. */
    private static Branches.Located statement(Use use, List<Branches.Located> all) {
        Branches.Located last = null;
        for (Branches.Located located : all) {
            Place place = located.statement().place();
            if (place.line() < use.line() || place.line() == use.line() && place.column() <= use.column()) {
                last = located;
            }
        }
        return last;
    }
}
