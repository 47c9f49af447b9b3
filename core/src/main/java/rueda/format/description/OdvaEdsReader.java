package rueda.format.description;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import rueda.bus.description.DeviceDescription;
import rueda.bus.description.DeviceDescription.Access;
import rueda.bus.description.DeviceDescription.DescribedChoice;
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
    private static final int MOST_MEMBERS = 10_000;
    private static final int READ_ONLY = 0x10;
    private static final String ESCAPED = "\"\\nt";
    private static final String ESCAPES = "\"\\\n\t";
    private static final Pattern MEMBER = Pattern.compile("(param|assem)\\d+");
    private static final Pattern SEGMENT_BYTE = Pattern.compile("[0-9a-fA-F]{2}");
    /** What is known of assemblies without being process data. */
    private static final Set<String> ASSEMBLY_KEYWORDS = Set.of("revision", "object_name", "object_class_code", "maxinst", "number_of_static_instances", "max_number_of_dynamic_instances");

    private final Map<String, Map<String, List<String>>> sections = new LinkedHashMap<>();
    /** assemblies walked through, in all */
    private int visited;
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
        /* the field holds a text */
        boolean joined = false;
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
                if (c == '\\' && i + 1 < text.length() && ESCAPED.indexOf(text.charAt(i + 1)) >= 0) {
                    i++;
                    field.append(ESCAPES.charAt(ESCAPED.indexOf(text.charAt(i))));
                } else if (quoted) {
                    field.append(c);
                }
            } else if (c == '"') {
                quoted = true;
                joined = true;
                if (field.toString().isBlank()) {
                    field.setLength(0);
                }
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
                joined = false;
                if (c == ';') {
                    if (sections.get(section).put(keyword, List.copyOf(fields)) != null) {
                        throw new UnreadableFile("line " + keywordLine, keyword, "each keyword of a section once", "remove the second");
                    }
                    lines.put(section + "/" + keyword, keywordLine);
                    fields.clear();
                    keyword = null;
                }
            } else if (!joined || !Character.isWhitespace(c)) {
                /* texts behind each other are one, whatever blanks and line ends are between them */
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
        Map<String, DescribedObject> params = params(remarks);
        Map<String, Use> uses = new LinkedHashMap<>();
        List<DescribedPdo> pdos = new ArrayList<>();
        connections(params, uses, pdos, remarks);
        sections.getOrDefault("assembly", Map.of()).forEach((keyword, fields) -> {
            if (!keyword.matches("assem\\d+")) {
                if (!ASSEMBLY_KEYWORDS.contains(keyword)) {
                    remarks.add(place("assembly", keyword) + " is not used");
                }
                return;
            }
            DescribedPdo assembly = assembly(keyword, params, uses.get(keyword));
            switch (uses.getOrDefault(keyword, Use.NONE)) {
                case TO_DEVICE, FROM_DEVICE -> pdos.add(assembly);
                case CONFIGURATION -> remarks.add(place("assembly", keyword) + " “" + assembly.name() + "”, instance " + assembly.number() + ", " + (assembly.bits() + 7) / 8
                        + " bytes, is sent when a connection opens; it is no process data and is not used");
                case NONE -> {
                    if (!isMember(keyword)) {
                        remarks.add(place("assembly", keyword) + " “" + assembly.name() + "” is in no connection, so its direction is not known, and is not used");
                    }
                }
            }
        });
        return new Reading<>(List.of(new DeviceDescription(Family.ETHERNET_IP, "EDS of ODVA", name, field("device", "vendname", 0, ""), identity, List.copyOf(params.values()), pdos,
                List.of(), List.of("CIP"), List.of())), remarks);
    }

    /** What an assembly is for. */
    private enum Use { TO_DEVICE, FROM_DEVICE, CONFIGURATION, NONE }

    private boolean isMember(String keyword) {
        return sections.get("assembly").values().stream().anyMatch(f -> f.stream().skip(6).anyMatch(m -> m.equalsIgnoreCase(keyword)));
    }

    /** Param: reserved, link path size, link path, descriptor, data type, size in bytes, name, unit, help, low, high, default. */
    private Map<String, DescribedObject> params(List<String> remarks) {
        Map<String, DescribedObject> params = new LinkedHashMap<>();
        sections.getOrDefault("params", Map.of()).forEach((keyword, fields) -> {
            if (keyword.matches("enum\\d+")) {
                return;
            }
            if (!keyword.matches("param\\d{1,6}")) {
                remarks.add(place("params", keyword) + " is not used");
                return;
            }
            String type = DataTypes.cip((int) whole("params", keyword, 4, 0, 0xFF));
            int bits = field("params", keyword, 5, "").isEmpty() ? DataTypes.bits(type) : (int) whole("params", keyword, 5, 0, 64) * 8;
            long descriptor = fields.size() > 3 && !fields.get(3).isEmpty() ? whole("params", keyword, 3, 0, 0xFFFF) : 0;
            DescribedObject object = new DescribedObject(Integer.parseInt(keyword.substring(5)), 0, field("params", keyword, 6, keyword), type, bits,
                    (descriptor & READ_ONLY) != 0 ? Access.READ : Access.READ_WRITE, field("params", keyword, 9, ""), field("params", keyword, 10, ""), field("params", keyword, 11, ""), true,
                    choices("enum" + keyword.substring(5)));
            params.put(keyword, DataTypes.checked(object, place("params", keyword)));
        });
        sections.getOrDefault("params", Map.of()).keySet().stream().filter(k -> k.startsWith("enum") && k.matches("enum\\d+") && !params.containsKey("param" + k.substring(4)))
                .forEach(k -> remarks.add(place("params", k) + " belongs to no parameter and is not used"));
        return params;
    }

    /** Enum: value and text by turns. */
    private List<DescribedChoice> choices(String keyword) {
        List<String> fields = sections.get("params").getOrDefault(keyword, List.of());
        List<DescribedChoice> choices = new ArrayList<>();
        for (int i = 0; i + 1 < fields.size(); i += 2) {
            choices.add(new DescribedChoice(whole("params", keyword, i, Integer.MIN_VALUE, 0xFFFF_FFFFL), fields.get(i + 1)));
        }
        return choices;
    }

    /**
     * Connection: trigger, parameters; O→T and T→O: RPI, size, format each; two times size and format of a configuration; name, help, path.
     * A format names an assembly. Where it is empty, the size alone counts, and the path says which assembly instance is meant.
     */
    private void connections(Map<String, DescribedObject> params, Map<String, Use> uses, List<DescribedPdo> bySize, List<String> remarks) {
        String section = "connection manager";
        sections.getOrDefault(section, Map.of()).forEach((keyword, fields) -> {
            if (!keyword.matches("connection\\d+")) {
                remarks.add(place(section, keyword) + " is not used");
                return;
            }
            List<Integer> points = instances(field(section, keyword, 14, ""));
            String named = "“" + field(section, keyword, 12, keyword) + "”";
            boolean used = false;
            for (int direction = 0; direction < 2; direction++) {
                boolean output = direction == 0;
                int at = output ? 3 : 6;
                String format = field(section, keyword, at + 1, "").toLowerCase(Locale.ROOT);
                long bytes = size(section, keyword, at, params);
                if (format.matches("assem\\d+")) {
                    if (!sections.getOrDefault("assembly", Map.of()).containsKey(format)) {
                        throw new UnreadableFile(place(section, keyword), field(section, keyword, at + 1, ""), "an assembly of [Assembly]", "add the assembly");
                    }
                    Use use = output ? Use.TO_DEVICE : Use.FROM_DEVICE;
                    Use before = uses.get(format);
                    if (before != null && before != use && before != Use.CONFIGURATION) {
                        remarks.add(place(section, keyword) + " uses " + format + " in the other direction too; it stays " + (before == Use.TO_DEVICE ? "an output" : "an input"));
                    } else {
                        uses.put(format, use);
                    }
                    used = true;
                } else if (!format.isEmpty()) {
                    remarks.add(place(section, keyword) + " " + named + ": the format " + field(section, keyword, at + 1, "") + " is not used");
                } else if (bytes > 0) {
                    /* the points behind the configuration: first that to the device, then that from it */
                    int point = points.size() - 2 + direction;
                    if (point >= 0 && point < points.size()) {
                        int instance = points.get(point);
                        if (bySize.stream().noneMatch(p -> p.number() == instance && p.output() == output)) {
                            bySize.add(new DescribedPdo(instance, field(section, keyword, 12, keyword) + ", " + bytes + " bytes", output, true, false, true, List.of(), fillers((int) bytes * 8)));
                        }
                        used = true;
                    } else {
                        remarks.add(place(section, keyword) + " " + named + ": " + bytes + " bytes without an assembly, and its path names none");
                    }
                }
            }
            for (int at : new int[] {9, 11}) {
                String configuration = field(section, keyword, at, "").toLowerCase(Locale.ROOT);
                if (configuration.matches("assem\\d+")) {
                    uses.putIfAbsent(configuration, Use.CONFIGURATION);
                }
            }
            if (!used) {
                remarks.add(place(section, keyword) + " " + named + " carries no process data and is not used");
            }
        });
    }

    private static List<DescribedEntry> fillers(int bits) {
        List<DescribedEntry> entries = new ArrayList<>();
        for (int left = bits; left > 0; left -= 64) {
            entries.add(new DescribedEntry(0, 0, Math.min(64, left), "filler", "", true));
        }
        return entries;
    }

    /** A size is a number of bytes, or a parameter whose default it is; 0 where nothing is told. */
    private long size(String section, String keyword, int number, Map<String, DescribedObject> params) {
        String text = field(section, keyword, number, "");
        DescribedObject param = params.get(text.toLowerCase(Locale.ROOT));
        return text.isEmpty() ? 0 : Text.whole(place(section, keyword), param == null ? text : param.preset().isEmpty() ? "0" : param.preset(), 0, 65_535);
    }

    /**
     * Instances and connection points of a path (CIP volume 1, appendix C, logical segments; from memory): 24h and 2Ch are followed by
     * 1 byte, 25h and 2Dh by a filler and 2 bytes, the least significant first; what is written in brackets is a parameter and passed.
     */
    private static List<Integer> instances(String path) {
        List<Integer> instances = new ArrayList<>();
        List<String> bytes = List.of(path.strip().split("\\s+"));
        for (int i = 0; i < bytes.size(); i++) {
            if (!SEGMENT_BYTE.matcher(bytes.get(i)).matches()) {
                continue;
            }
            int segment = Integer.parseInt(bytes.get(i), 16);
            boolean counts = (segment & 0xFC) == 0x24 || (segment & 0xFC) == 0x2C;
            if ((segment & 0xE3) == 0x20 && i + 1 < bytes.size()) {
                i++;
                if (counts && SEGMENT_BYTE.matcher(bytes.get(i)).matches()) {
                    instances.add(Integer.parseInt(bytes.get(i), 16));
                }
            } else if ((segment & 0xE3) == 0x21 && i + 3 < bytes.size()) {
                if (counts && SEGMENT_BYTE.matcher(bytes.get(i + 2)).matches() && SEGMENT_BYTE.matcher(bytes.get(i + 3)).matches()) {
                    instances.add(Integer.parseInt(bytes.get(i + 2), 16) | Integer.parseInt(bytes.get(i + 3), 16) << 8);
                }
                i += 3;
            } else if (segment == 0x34 && i + 1 < bytes.size() && SEGMENT_BYTE.matcher(bytes.get(i + 1)).matches()) {
                /* electronic key: format, then its bytes */
                i += 9;
            }
        }
        return instances;
    }

    /** Assem: name, path, size in bytes, descriptor, two reserved, then width in bits and member by turns. */
    private DescribedPdo assembly(String keyword, Map<String, DescribedObject> params, Use use) {
        List<DescribedEntry> entries = new ArrayList<>();
        members(keyword, params, entries, List.of());
        int bits = entries.stream().mapToInt(DescribedEntry::bits).sum();
        String size = field("assembly", keyword, 2, "");
        if (!size.isEmpty() && !MEMBER.matcher(size.toLowerCase(Locale.ROOT)).matches()) {
            long told = whole("assembly", keyword, 2, 0, 65_535) * 8;
            if (entries.isEmpty()) {
                entries.addAll(fillers((int) told));
            } else if (told != (bits + 7) / 8 * 8) {
                throw new UnreadableFile(place("assembly", keyword), size + " bytes", "the " + (bits + 7) / 8 + " bytes of its members", "correct the size");
            }
        }
        List<Integer> path = instances(field("assembly", keyword, 1, ""));
        int number = path.isEmpty() ? (int) Text.whole(place("assembly", keyword), keyword.substring(5), 0, 65_535) : path.get(0);
        return new DescribedPdo(number, field("assembly", keyword, 0, keyword), use == Use.TO_DEVICE, true, false, use == Use.TO_DEVICE || use == Use.FROM_DEVICE, List.of(), entries);
    }

    /** A member is a parameter, an assembly with all its members, or a filler; a width that is left out is that of the member. */
    private void members(String keyword, Map<String, DescribedObject> params, List<DescribedEntry> into, List<String> within) {
        List<String> fields = sections.get("assembly").get(keyword);
        if (within.contains(keyword)) {
            throw new UnreadableFile(place("assembly", keyword), keyword, "an assembly that is not a member of itself", "correct its members");
        }
        if (++visited > MOST_MEMBERS || into.size() > MOST_MEMBERS) {
            throw new UnreadableFile(place("assembly", keyword), keyword, "up to " + MOST_MEMBERS + " members in all assemblies together", "take members out");
        }
        for (int i = 6; i < fields.size(); i += 2) {
            String member = i + 1 < fields.size() ? fields.get(i + 1).toLowerCase(Locale.ROOT) : "";
            String width = fields.get(i);
            if (member.isEmpty() && (width.isEmpty() || width.equals("0"))) {
                continue;
            }
            DescribedObject param = params.get(member);
            if (sections.get("assembly").containsKey(member) && member.startsWith("assem")) {
                int first = into.size();
                List<String> deeper = new ArrayList<>(within);
                deeper.add(keyword);
                members(member, params, into, deeper);
                int bits = into.subList(first, into.size()).stream().mapToInt(DescribedEntry::bits).sum();
                if (!width.isEmpty() && whole("assembly", keyword, i, 0, 65_535) != bits) {
                    throw new UnreadableFile(place("assembly", keyword), width + " bits for " + fields.get(i + 1), bits + " bits", "correct the width");
                }
                continue;
            }
            if (param == null && !member.isEmpty()) {
                throw new UnreadableFile(place("assembly", keyword), fields.get(i + 1), "a parameter of [Params], an assembly, or nothing for a filler", "add the parameter");
            }
            int bits = width.isEmpty() ? param.dataType().equals("BOOL") ? 1 : param.bits() : (int) whole("assembly", keyword, i, 1, 2048);
            if (param != null && param.bits() > 0 && param.bits() != bits && !param.dataType().equals("BOOL")) {
                throw new UnreadableFile(place("assembly", keyword), bits + " bits for " + param.name(), param.bits() + " bits", "correct the width");
            }
            if (bits < 1) {
                throw new UnreadableFile(place("assembly", keyword), fields.get(i + 1), "a width in bits: the parameter has none", "add the width");
            }
            into.add(new DescribedEntry(param == null ? 0 : param.index(), 0, bits, param == null ? "filler" : param.name(), param == null ? "" : param.dataType(), true));
        }
    }
}
