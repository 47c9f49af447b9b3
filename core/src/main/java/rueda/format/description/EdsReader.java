package rueda.format.description;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
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

/** Electronic data sheet and device configuration file, CiA 306. */
public final class EdsReader {

    private static final long UNSIGNED_32 = 0xFFFF_FFFFL;
    /** Numbers of entries from here on say that a PDO is multiplexed: 254 by the source, 255 by the destination (CiA 301). */
    private static final int MULTIPLEXED = 254;
    private static final Pattern OBJECT = Pattern.compile("([0-9a-f]{4})(?:sub([0-9a-f]{1,2}))?");
    private static final Pattern KNOWN = Pattern.compile("fileinfo|deviceinfo|devicecomissioning|devicecommissioning|dummyusage|comments|mandatoryobjects|optionalobjects|manufacturerobjects|tools|[0-9a-f]{4}(sub[0-9a-f]{1,2}|name|value|denotation)?");
    /** A number that counts from the node id (CiA 306): $NODEID alone, or before or behind an offset. */
    private static final Pattern NODE_ID = Pattern.compile("(?i)(?:([0-9a-fx]+)\\s*\\+\\s*)?\\$NODEID(?:\\s*\\+\\s*([0-9a-fx]+))?");
    private static final Pattern OCTAL = Pattern.compile("-?0[0-7]+");

    private EdsReader() {
    }

    /**
     * A DCF besides its description.
     *
     * @param node   node id, 0 when the file is an EDS
     * @param kiloBits bit rate, 0 when not told
     * @param values ParameterValue by index·256 + sub-index, as it stands in the file
     */
    public record Configured(DeviceDescription device, String nodeName, int node, int kiloBits, Map<Long, String> values) {

        /** The file says something of one node, not only of its device. */
        public boolean isConfiguration() {
            return node > 0 || !values.isEmpty();
        }

        /**
         * The values as numbers.
         *
         * @param remarks takes a sentence for each value that is no number of 8, 16 or 32 bits
         * @throws UnreadableFile when a value is none of its type
         */
        public NodeConfiguration configuration(List<String> remarks) {
            List<NodeConfiguration.Value> numbers = new ArrayList<>();
            values.forEach((key, text) -> {
                int index = (int) (key >> 8);
                int sub = (int) (key & 0xFF);
                DescribedObject object = device.object(index, sub).orElseThrow();
                String place = String.format(Locale.ROOT, "%04Xh:%02X", index, sub);
                if (object.bits() != 8 && object.bits() != 16 && object.bits() != 32 || sub > 254) {
                    remarks.add(place + " (" + object.name() + "): the value " + text + " of " + object.dataType() + " is not taken over; values of 8, 16 and 32 bits can be written at start-up");
                } else if (!object.access().writable()) {
                    remarks.add(place + " (" + object.name() + "): the value " + text + " is not taken over; the object can only be read");
                } else {
                    numbers.add(new NodeConfiguration.Value(index, sub, object.bits(), value(place, text, object), object.name()));
                }
            });
            return new NodeConfiguration(nodeName, node, kiloBits, numbers);
        }

        private long value(String place, String text, DescribedObject object) {
            if (object.dataType().equals("REAL")) {
                try {
                    return Float.floatToIntBits(Float.parseFloat(text.strip())) & UNSIGNED_32;
                } catch (NumberFormatException hexadecimal) {
                    return Text.octalOrWhole(place, text, 0, UNSIGNED_32);
                }
            }
            Matcher withNode = NODE_ID.matcher(text.strip());
            String number = withNode.matches() ? withNode.group(1) == null ? withNode.group(2) == null ? "0" : withNode.group(2) : withNode.group(1) : text;
            return Text.octalOrWhole(place, number, -1L << object.bits() - 1, (1L << object.bits()) - 1) + (withNode.matches() ? node : 0);
        }
    }

    /** @throws UnreadableFile when it is no EDS, or contradicts itself */
    public static Reading<List<DeviceDescription>> read(byte[] file) {
        Reading<Configured> read = configured(file);
        return new Reading<>(List.of(read.value().device()), read.remarks());
    }

    /** Reads an EDS or a DCF. */
    public static Reading<Configured> configured(byte[] file) {
        IniFile ini = IniFile.read(file);
        if (!ini.has("deviceinfo")) {
            throw new UnreadableFile("File", "no section [DeviceInfo]", "an EDS or DCF (CiA 306)", "choose another file");
        }
        List<String> remarks = new ArrayList<>();
        ini.sections().keySet().stream().filter(s -> !KNOWN.matcher(s).matches()).forEach(s -> remarks.add("section [" + s + "] is not used"));
        Map<Long, DescribedObject> objects = new TreeMap<>();
        Map<Long, String> values = new TreeMap<>();
        Map<String, Integer> subIndexes = new TreeMap<>();
        for (String section : ini.sections().keySet()) {
            Matcher name = OBJECT.matcher(section);
            if (name.matches()) {
                object(ini, section, Integer.parseInt(name.group(1), 16), name.group(2) == null ? -1 : Integer.parseInt(name.group(2), 16), objects, values);
                subIndexes.merge(name.group(1), name.group(2) == null ? 0 : 1, Integer::sum);
            }
        }
        subIndexes.forEach((section, there) -> counted(ini, section, there, remarks));
        listed(ini, objects);
        String product = ini.text("deviceinfo", "productname", "device");
        Identity identity = new Identity(product, ini.whole("deviceinfo", "vendornumber", 0, 0, UNSIGNED_32), ini.whole("deviceinfo", "productnumber", 0, 0, UNSIGNED_32),
                ini.whole("deviceinfo", "revisionnumber", 0, 0, UNSIGNED_32));
        List<DescribedPdo> pdos = new ArrayList<>();
        pdos(objects, 0x1600, true, pdos, remarks);
        pdos(objects, 0x1A00, false, pdos, remarks);
        String commissioning = ini.has("devicecomissioning") ? "devicecomissioning" : "devicecommissioning";
        DeviceDescription device = new DeviceDescription(Family.CANOPEN, values.isEmpty() && ini.whole(commissioning, "nodeid", 0, 0, 127) == 0 ? "EDS" : "DCF", product, ini.text("deviceinfo", "vendorname", ""), identity, List.copyOf(objects.values()), pdos,
                List.of(), List.of("SDO"), List.of());
        return new Reading<>(new Configured(device, ini.text(commissioning, "nodename", ""), (int) ini.whole(commissioning, "nodeid", 0, 0, 127), (int) ini.whole(commissioning, "baudrate", 0, 0, 1000),
                Collections.unmodifiableMap(values)), remarks);
    }

    /** SubNumber tells how many sections of sub-indexes follow; one that tells otherwise is told, and those that are there are taken. */
    private static void counted(IniFile ini, String section, int there, List<String> remarks) {
        long told = ini.whole(section, "subnumber", -1, 0, 255);
        if (told > 0 && there > 0 && told != there) {
            remarks.add(ini.place(section, "subnumber") + " is " + told + ", but " + there + " sub-indexes have a section");
        }
    }

    private static void object(IniFile ini, String section, int index, int sub, Map<Long, DescribedObject> into, Map<Long, String> values) {
        int kind = (int) ini.whole(section, "objecttype", 7, 0, 9);
        boolean composed = sub < 0 && (kind == 8 || kind == 9);
        int compact = sub < 0 ? (int) ini.whole(section, "compactsubobj", 0, 0, 254) : 0;
        if (compact > 0) {
            compact(ini, section, index, compact, into, values);
            return;
        }
        if (composed) {
            return;
        }
        int subIndex = Math.max(0, sub);
        long key = (long) index << 8 | subIndex;
        String type = DataTypes.cia301((int) Text.whole(ini.place(section, "datatype"), ini.text(section, "datatype", "0x0F"), 0, 0xFFFF));
        String name = ini.text(section, "parametername", section);
        String parent = sub >= 0 ? ini.text(String.format(Locale.ROOT, "%04x", index), "parametername", "") : "";
        String low = number(ini.text(section, "lowlimit", ""));
        String high = number(ini.text(section, "highlimit", ""));
        DescribedObject object = new DescribedObject(index, subIndex, parent.isEmpty() ? name : parent + ", " + name, type, DataTypes.bits(type), access(ini, section), low, high,
                DataTypes.bits(type) == 0 ? "" : number(ini.text(section, "defaultvalue", "")), ini.whole(section, "pdomapping", 0, 0, 1) == 1);
        put(into, DataTypes.checked(object, ini.place(section, "datatype")), section);
        String value = ini.text(section, "parametervalue", null);
        if (value != null) {
            values.put(key, value);
        }
    }

    /** A number that begins with 0 is octal (CiA 306); from here on all are decimal or hexadecimal. */
    private static String number(String text) {
        return OCTAL.matcher(text).matches() && text.length() < 22 ? Long.toString(Long.parseLong(text, 8)) : text;
    }

    /** An array written once for all its elements (CiA 306, CompactSubObj): names and values of single ones stand in sections of their own. */
    private static void compact(IniFile ini, String section, int index, int elements, Map<Long, DescribedObject> into, Map<Long, String> values) {
        String type = DataTypes.cia301((int) Text.whole(ini.place(section, "datatype"), ini.text(section, "datatype", "0x0F"), 0, 0xFFFF));
        String name = ini.text(section, "parametername", section);
        String preset = DataTypes.bits(type) == 0 ? "" : number(ini.text(section, "defaultvalue", ""));
        put(into, new DescribedObject(index, 0, name + ", number of entries", "USINT", 8, Access.READ, "", "", Integer.toString(elements), false), section);
        for (int sub = 1; sub <= elements; sub++) {
            String own = ini.text(section + "name", Integer.toString(sub), "element " + sub);
            put(into, DataTypes.checked(new DescribedObject(index, sub, name + ", " + own, type, DataTypes.bits(type), access(ini, section), number(ini.text(section, "lowlimit", "")), number(ini.text(section, "highlimit", "")),
                    preset, ini.whole(section, "pdomapping", 0, 0, 1) == 1), ini.place(section, "datatype")), section);
            String value = ini.text(section + "value", Integer.toString(sub), null);
            if (value != null) {
                values.put((long) index << 8 | sub, value);
            }
        }
    }

    private static void put(Map<Long, DescribedObject> into, DescribedObject object, String section) {
        if (into.put((long) object.index() << 8 | object.subIndex(), object) != null) {
            throw new UnreadableFile("[" + section + "]", object.name(), "each index and sub-index once", "remove the second");
        }
    }

    private static Access access(IniFile ini, String section) {
        String text = ini.text(section, "accesstype", "ro");
        return switch (text.toLowerCase(Locale.ROOT)) {
            case "ro" -> Access.READ;
            case "wo" -> Access.WRITE;
            case "rw", "rwr", "rww" -> Access.READ_WRITE;
            case "const" -> Access.CONSTANT;
            default -> throw new UnreadableFile(ini.place(section, "accesstype"), text, "ro, wo, rw, rwr, rww or const", "correct it");
        };
    }

    /** Every object that a list names must have its section. */
    private static void listed(IniFile ini, Map<Long, DescribedObject> objects) {
        for (String list : List.of("mandatoryobjects", "optionalobjects", "manufacturerobjects")) {
            long count = ini.whole(list, "supportedobjects", 0, 0, 0xFFFF);
            for (long i = 1; i <= count; i++) {
                String text = ini.text(list, Long.toString(i), null);
                if (text == null) {
                    throw new UnreadableFile(ini.place(list, "supportedobjects"), count + " objects", "as many as the list names: " + (i - 1), "correct SupportedObjects");
                }
                long index = Text.whole(ini.place(list, Long.toString(i)), text, 0, 0xFFFF);
                if (!ini.has(String.format(Locale.ROOT, "%04x", index))) {
                    throw new UnreadableFile(ini.place(list, Long.toString(i)), text, "an object with a section of its own", "add the section or remove the line");
                }
            }
        }
    }

    /** PDOs from the defaults of the mapping objects: 16 bits index, 8 sub-index, 8 length (CiA 301). */
    private static void pdos(Map<Long, DescribedObject> objects, int mapping, boolean output, List<DescribedPdo> into, List<String> remarks) {
        for (int n = 0; n < 512; n++) {
            DescribedObject count = objects.get((long) (mapping + n) << 8);
            if (count == null) {
                continue;
            }
            List<DescribedEntry> entries = new ArrayList<>();
            int used = count.preset().isBlank() ? 0 : (int) Text.whole(String.format(Locale.ROOT, "[%04X]", mapping + n), count.preset(), 0, 255);
            if (used >= MULTIPLEXED) {
                remarks.add(String.format(Locale.ROOT, "[%04X] is a multiplexed PDO (%d entries stand for its kind, CiA 301) and is not used", mapping + n, used));
                used = 0;
            }
            if (used > 64) {
                throw new UnreadableFile(String.format(Locale.ROOT, "[%04X]", mapping + n), count.preset(), "0 to 64 entries, or 254 and 255 for a multiplexed PDO", "correct it");
            }
            for (int sub = 1; sub <= used; sub++) {
                DescribedObject map = objects.get((long) (mapping + n) << 8 | sub);
                if (map == null || map.preset().isBlank()) {
                    throw new UnreadableFile(String.format(Locale.ROOT, "[%04Xsub%X]", mapping + n, sub), "nothing", "an entry, for " + used + " are mapped", "add it or lower the number of entries");
                }
                long value = Text.whole(String.format(Locale.ROOT, "[%04Xsub%X] DefaultValue", mapping + n, sub), map.preset(), 0, UNSIGNED_32);
                DescribedObject mapped = objects.get(value >> 8);
                int bits = (int) (value & 0xFF);
                if (mapped != null && mapped.bits() > 0 && mapped.bits() != bits) {
                    throw new UnreadableFile(String.format(Locale.ROOT, "[%04Xsub%X] DefaultValue", mapping + n, sub), map.preset(), mapped.name() + " has " + mapped.bits() + " bits", "correct the length");
                }
                boolean dummy = value >> 16 <= 0x1F;
                entries.add(dummy ? new DescribedEntry(0, 0, bits, "filler", "", false) : new DescribedEntry((int) (value >> 16), (int) (value >> 8 & 0xFF), bits, mapped == null ? "" : mapped.name(), mapped == null ? "" : mapped.dataType(), false));
            }
            boolean fixed = !count.access().writable();
            into.add(new DescribedPdo(mapping + n, (output ? "RPDO " : "TPDO ") + (n + 1), output, fixed, false, used > 0, List.of(), entries));
        }
    }
}
