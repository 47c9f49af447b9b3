package rueda.format.description;

import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import rueda.format.Text;
import rueda.format.UnreadableFile;

/** Sections of keys and values, CiA 306 clause 4: keys without case, comments begin with a semicolon. */
final class IniFile {

    /** A value and where it stands. */
    record Value(String text, int line) {
    }

    private final Map<String, Map<String, Value>> sections = new LinkedHashMap<>();

    static IniFile read(byte[] file) {
        IniFile ini = new IniFile();
        Map<String, Value> section = null;
        int number = 0;
        String text = Text.decoded(file);
        for (String raw : (Iterable<String>) text.lines()::iterator) {
            number++;
            String line = raw.strip();
            if (line.isEmpty() || line.startsWith(";")) {
                continue;
            }
            if (line.startsWith("[")) {
                if (!line.endsWith("]") || line.length() < 3) {
                    throw new UnreadableFile("line " + number, line, "[section]", "correct it");
                }
                String name = line.substring(1, line.length() - 1).strip().toLowerCase(Locale.ROOT);
                section = new LinkedHashMap<>();
                if (ini.sections.putIfAbsent(name, section) != null) {
                    throw new UnreadableFile("line " + number, line, "each section once", "remove the second");
                }
                continue;
            }
            int equals = line.indexOf('=');
            if (equals < 1 || section == null) {
                throw new UnreadableFile("line " + number, line, section == null ? "a [section] first" : "key=value", "correct it; the file may be cut off");
            }
            section.put(line.substring(0, equals).strip().toLowerCase(Locale.ROOT), new Value(line.substring(equals + 1).strip(), number));
        }
        return ini;
    }

    Map<String, Map<String, Value>> sections() {
        return sections;
    }

    boolean has(String section) {
        return sections.containsKey(section);
    }

    String text(String section, String key, String otherwise) {
        Value value = sections.getOrDefault(section, Map.of()).get(key);
        return value == null || value.text().isEmpty() ? otherwise : value.text();
    }

    String place(String section, String key) {
        Value value = sections.getOrDefault(section, Map.of()).get(key);
        return (value == null ? "" : "line " + value.line() + ", ") + "[" + section + "] " + key;
    }

    /** A number, or the other when the key is missing. */
    long whole(String section, String key, long otherwise, long low, long high) {
        String text = text(section, key, null);
        return text == null ? otherwise : Text.octalOrWhole(place(section, key), text, low, high);
    }
}
