package rueda.format.tags;

import java.util.HashSet;
import java.util.Locale;
import java.util.Set;
import rueda.plc.type.Type;
import rueda.plc.syntax.Words;

/**
 * Identifiers for the names of tags within one scope. An identifier of IEC 61131-3 (6.1.2) has no dots, no double or closing underscore, is no
 * word of the language and is unique whatever its case; a tag's name may be all of that, so the writers put the name itself beside an
 * identifier that differs from it. Not thread-safe.
 */
final class DeclaredNames {

    private final Set<String> taken = new HashSet<>();

    /** The identifier nearest to a name that nobody in this scope has yet. */
    String identifier(String name) {
        String plain = name.replace('.', '_').replaceAll("__+", "_").replaceAll("_$", "");
        if (plain.isEmpty()) {
            plain = "Tag";
        }
        String identifier = plain;
        for (int n = 1; isReserved(identifier) || !taken.add(identifier.toLowerCase(Locale.ROOT)); n++) {
            identifier = plain + "_" + n;
        }
        return identifier;
    }

    private static boolean isReserved(String identifier) {
        return Words.isKeyword(identifier) || Type.named(identifier) != null || identifier.equalsIgnoreCase("PERSISTENT");
    }
}
