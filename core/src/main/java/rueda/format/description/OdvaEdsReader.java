package rueda.format.description;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import rueda.bus.description.DeviceDescription;
import rueda.bus.description.DeviceDescription.Access;
import rueda.bus.description.DeviceDescription.DescribedEntry;
import rueda.bus.description.DeviceDescription.DescribedObject;
import rueda.bus.description.DeviceDescription.DescribedPdo;
import rueda.format.Reading;
import rueda.format.Text;
import rueda.format.UnreadableFile;
import rueda.machine.Bus.Family;
import rueda.machine.Station.Identity;

/**
 * Electronic data sheet of ODVA (CIP volume 1, chapter 7): sections of keywords whose fields are separated by commas and end with a
 * semicolon; comments begin with $. The assembly of a connection from T to O is read, from O to T written.
 */
public final class OdvaEdsReader {

    private static final Set<String> USED = Set.of("file", "device", "device classification", "params", "assembly", "connection manager", "groups", "capacity");
    private static final int WRITABLE_FLAG = 0x10;

    private final Map<String, Map<String, List<String>>> sections = new LinkedHashMap<>();
    private final Map<String, Integer> lines = new HashMap<>();

    private OdvaEdsReader() {
    }

    /** @throws UnreadableFile when it is no such sheet, or contradicts itself */
    public static Reading<List<DeviceDescription>> read(byte[] file) {
        OdvaEdsReader reader = new OdvaEdsReader();
        reader.parse(Text.decoded(file));
        return reader.device();
    }

    private void parse(String text) {
        String section = null;
        String keyword = null;
        int keywordLine = 0;
        List<String> fields = new ArrayList<>();
        StringBuilder field = new StringBuilder();
        boolean quoted = false;
        int line = 1;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c == '\n') {
                line++;
            }
            if (quoted) {
                if (c == '\n') {
                    throw new UnreadableFile("line " + (line - 1), field.toString(), "a text that ends with \" on its line", "close the quotation mark");
                }
                quoted = c != '"';
                if (quoted) {
                    field.append(c);
                }
            } else if (c == '"') {
                quoted = true;
            } else if (c == '$') {
                i = endOfLine(text, i) - 1;
            } else if (c == '[' && keyword == null && field.toString().isBlank()) {
                int end = text.indexOf(']', i);
                if (end < 0 || text.substring(i, end).indexOf('\n') >= 0) {
                    throw new UnreadableFile("line " + line, text.substring(i, Math.min(text.length(), i + 20)), "[Section]", "close the bracket");
                }
                section = text.substring(i + 1, end).strip().toLowerCase(Locale.ROOT);
                if (sections.putIfAbsent(section, new LinkedHashMap<>()) != null) {
                    throw new UnreadableFile("line " + line, "[" + section + "]", "each section once", "remove the second");
                }
                i = end;
                field.setLength(0);
            } else if (c == '=' && keyword == null) {
                keyword = field.toString().strip().toLowerCase(Locale.ROOT);
                keywordLine = line;
                field.setLength(0);
                if (section == null) {
                    throw new UnreadableFile("line " + line, keyword, "a [Section] first", "correct it");
                }
            } else if ((c == ',' || c == ';') && keyword != null) {
                fields.add(field.toString().strip());
                field.setLength(0);
                if (c == ';') {
                    if (sections.get(section).put(keyword, List.copyOf(fields)) != null) {
                        throw new UnreadableFile("line " + keywordLine, keyword, "each keyword of a section once", "remove the second");
                    }
                    lines.put(section + "/" + keyword, keywordLine);
                    fields.clear();
                    keyword = null;
                }
            } else {
                field.append(c);
            }
        }
        if (keyword != null || quoted || !field.toString().isBlank()) {
            throw new UnreadableFile("line " + line, keyword == null ? field.toString() : keyword, "every entry ends with a semicolon", "the file may be cut off: get it again");
        }
    }

    private static int endOfLine(String text, int from) {
        int end = text.indexOf('\n', from);
        return end < 0 ? text.length() : end;
    }

    private String field(String section, String keyword, int number, String otherwise) {
        List<String> fields = sections.getOrDefault(section, Map.of()).getOrDefault(keyword, List.of());
        return number < fields.size() && !fields.get(number).isEmpty() ? fields.get(number) : otherwise;
    }

    private String place(String section, String keyword) {
        return "line " + lines.getOrDefault(section + "/" + keyword, 1) + ", [" + section + "] " + keyword;
    }

    private long whole(String section, String keyword, int number, long low, long high) {
        return Text.whole(place(section, keyword), field(section, keyword, number, ""), low, high);
    }

    private Reading<List<DeviceDescription>> device() {
        if (!sections.containsKey("device")) {
            throw new UnreadableFile("File", "no section [Device]", "an EDS of ODVA", "choose another file");
        }
        List<String> remarks = new ArrayList<>();
        sections.keySet().stream().filter(s -> !USED.contains(s)).forEach(s -> remarks.add("section [" + s + "] is not used"));
        String name = field("device", "prodname", 0, "device");
        long revision = whole("device", "majrev", 0, 0, 255) << 16 | whole("device", "minrev", 0, 0, 255);
        Identity identity = new Identity(name, whole("device", "vendcode", 0, 0, 0xFFFF), whole("device", "prodcode", 0, 0, 0xFFFF), revision);
        Map<String, DescribedObject> params = params();
        Map<String, Boolean> directions = directions(remarks);
        List<DescribedPdo> pdos = new ArrayList<>();
        sections.getOrDefault("assembly", Map.of()).forEach((keyword, fields) -> {
            if (keyword.matches("assem\\d+")) {
                pdos.add(assembly(keyword, fields, params, directions));
            }
        });
        return new Reading<>(List.of(new DeviceDescription(Family.ETHERNET_IP, "EDS of ODVA", name, field("device", "vendname", 0, ""), identity, List.copyOf(params.values()), pdos,
                List.of(), List.of("CIP"), List.of())), remarks);
    }

    /** Param: reserved, link path size, link path, descriptor, data type, size in bytes, name, unit, help, low, high, default. */
    private Map<String, DescribedObject> params() {
        Map<String, DescribedObject> params = new LinkedHashMap<>();
        sections.getOrDefault("params", Map.of()).forEach((keyword, fields) -> {
            if (!keyword.matches("param\\d+")) {
                return;
            }
            String type = DataTypes.cip((int) whole("params", keyword, 4, 0, 0xFF));
            int bits = (int) whole("params", keyword, 5, 0, 64) * 8;
            long descriptor = fields.size() > 3 && !fields.get(3).isEmpty() ? whole("params", keyword, 3, 0, 0xFFFF) : 0;
            DescribedObject object = new DescribedObject(Integer.parseInt(keyword.substring(5).length() > 6 ? "0" : keyword.substring(5)), 0, field("params", keyword, 6, keyword), type, bits,
                    (descriptor & WRITABLE_FLAG) != 0 ? Access.READ : Access.READ_WRITE, field("params", keyword, 9, ""), field("params", keyword, 10, ""), field("params", keyword, 11, ""), true);
            params.put(keyword, DataTypes.checked(object, place("params", keyword)));
        });
        return params;
    }

    /** Connection: trigger, parameters, O→T RPI, size, format, T→O RPI, size, format …; the formats name the assemblies. */
    private Map<String, Boolean> directions(List<String> remarks) {
        Map<String, Boolean> directions = new HashMap<>();
        sections.getOrDefault("connection manager", Map.of()).forEach((keyword, fields) -> {
            if (!keyword.matches("connection\\d+")) {
                return;
            }
            String there = field("connection manager", keyword, 4, "").toLowerCase(Locale.ROOT);
            String back = field("connection manager", keyword, 7, "").toLowerCase(Locale.ROOT);
            if (!there.matches("assem\\d+") || !back.matches("assem\\d+")) {
                remarks.add(place("connection manager", keyword) + " names no assemblies and is not used");
                return;
            }
            directions.put(there, true);
            directions.put(back, false);
        });
        return directions;
    }

    /** Assem: name, path, size in bytes, descriptor, two reserved, then width in bits and parameter by turns. */
    private DescribedPdo assembly(String keyword, List<String> fields, Map<String, DescribedObject> params, Map<String, Boolean> directions) {
        List<DescribedEntry> entries = new ArrayList<>();
        for (int i = 6; i + 1 < fields.size(); i += 2) {
            int bits = (int) whole("assembly", keyword, i, 1, 2048);
            String member = fields.get(i + 1).toLowerCase(Locale.ROOT);
            DescribedObject param = params.get(member);
            if (param == null && !member.isEmpty()) {
                throw new UnreadableFile(place("assembly", keyword), fields.get(i + 1), "a parameter of [Params], or nothing for a filler", "add the parameter");
            }
            if (param != null && param.bits() > 0 && param.bits() != bits) {
                throw new UnreadableFile(place("assembly", keyword), bits + " bits for " + param.name(), param.bits() + " bits", "correct the width");
            }
            entries.add(new DescribedEntry(param == null ? 0 : param.index(), 0, bits, param == null ? "filler" : param.name(), param == null ? "" : param.dataType(), true));
        }
        int bits = entries.stream().mapToInt(DescribedEntry::bits).sum();
        String size = field("assembly", keyword, 2, "");
        if (!size.isEmpty() && whole("assembly", keyword, 2, 0, 65_535) * 8 != (bits + 7) / 8 * 8) {
            throw new UnreadableFile(place("assembly", keyword), size + " bytes", "the " + (bits + 7) / 8 + " bytes of its members", "correct the size");
        }
        long number = Text.whole(place("assembly", keyword), keyword.substring(5), 0, 65_535);
        return new DescribedPdo((int) number, field("assembly", keyword, 0, keyword), directions.getOrDefault(keyword, false), true, false, directions.containsKey(keyword), List.of(), entries);
    }
}
