package rueda.format.description;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * The lines of a file of sections and keys (CiA 306 clause 4) with single values changed: everything else, comments and line ends
 * too, stays as it stands. Not thread-safe.
 */
final class IniEditor {

    private final List<String> lines;
    private final String lineEnd;

    /** @param text of the file, as it is stored */
    IniEditor(String text) {
        lineEnd = text.contains("\r\n") ? "\r\n" : "\n";
        lines = new ArrayList<>(text.lines().toList());
    }

    private static String section(String line) {
        String stripped = line.strip();
        return stripped.startsWith("[") && stripped.endsWith("]") ? stripped.substring(1, stripped.length() - 1).strip().toLowerCase(Locale.ROOT) : null;
    }

    private static boolean isKey(String line, String key) {
        int equals = line.indexOf('=');
        return equals > 0 && line.substring(0, equals).strip().equalsIgnoreCase(key);
    }

    /** The line of a section's heading, −1 when there is none. */
    private int heading(String section) {
        for (int i = 0; i < lines.size(); i++) {
            if (section.equalsIgnoreCase(section(lines.get(i)))) {
                return i;
            }
        }
        return -1;
    }

    private int endOf(int heading) {
        int end = heading + 1;
        while (end < lines.size() && section(lines.get(end)) == null) {
            end++;
        }
        return end;
    }

    /** Sets a key of a section; a new key comes behind the others, a new section behind the one named. */
    void set(String section, String key, String value, String behind) {
        int heading = heading(section);
        if (heading < 0) {
            int before = heading(behind);
            heading = before < 0 ? lines.size() : endOf(before);
            lines.addAll(heading, List.of("[" + section + "]", ""));
        }
        int last = heading;
        for (int i = heading + 1; i < endOf(heading); i++) {
            String line = lines.get(i);
            if (isKey(line, key)) {
                lines.set(i, line.substring(0, line.indexOf('=') + 1) + value);
                return;
            }
            if (!line.isBlank() && !line.strip().startsWith(";")) {
                last = i;
            }
        }
        lines.add(last + 1, key + "=" + value);
    }

    /** Takes a key out of every section. */
    void removeEverywhere(String key) {
        lines.removeIf(line -> section(line) == null && isKey(line, key));
    }

    /** Takes out the sections whose name ends like this. */
    void removeSections(String ending) {
        for (int i = lines.size() - 1; i >= 0; i--) {
            String name = section(lines.get(i));
            if (name != null && name.endsWith(ending)) {
                lines.subList(i, endOf(i)).clear();
            }
        }
    }

    String text() {
        return String.join(lineEnd, lines) + lineEnd;
    }
}
