package rueda.format.description;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import rueda.bus.description.DeviceDescription;
import rueda.bus.description.DeviceDescription.Access;
import rueda.bus.description.DeviceDescription.DescribedChoice;
import rueda.bus.description.DeviceDescription.DescribedClock;
import rueda.bus.description.DeviceDescription.DescribedEntry;
import rueda.bus.description.DeviceDescription.DescribedObject;
import rueda.bus.description.DeviceDescription.DescribedPdo;
import rueda.format.Reading;
import rueda.format.Text;
import rueda.format.UnreadableFile;
import rueda.format.xml.XmlElement;
import rueda.format.xml.XmlReader;
import rueda.machine.Bus.Family;
import rueda.machine.Station.Identity;

/**
 * GSDML of a PROFINET device (ISO 15745-4): every access point is a device of its own with the modules that it can use; every submodule
 * with data becomes two messages, every record its parameters. Element names from memory of the GSDML schema.
 */
public final class GsdmlReader {

    private final List<String> remarks = new ArrayList<>();
    private final Map<String, String> texts = new HashMap<>();
    private final Map<String, XmlElement> valueLists = new HashMap<>();

    private GsdmlReader() {
    }

    /** @throws UnreadableFile when it is no GSDML, or contradicts itself */
    public static Reading<List<DeviceDescription>> read(byte[] file) {
        return read(XmlReader.read(file));
    }

    static Reading<List<DeviceDescription>> read(XmlElement root) {
        if (!root.name().equals("ISO15745Profile")) {
            throw new UnreadableFile(root.place(), "<" + root.name() + ">", "<ISO15745Profile> (GSDML)", "choose a GSDML file");
        }
        GsdmlReader reader = new GsdmlReader();
        return new Reading<>(reader.devices(root.need("ProfileBody")), reader.remarks);
    }

    private List<DeviceDescription> devices(XmlElement body) {
        XmlElement identity = body.need("DeviceIdentity");
        XmlElement process = body.need("ApplicationProcess");
        process.first("ExternalTextList").flatMap(l -> l.first("PrimaryLanguage")).ifPresent(l -> l.all("Text").forEach(t -> texts.put(t.needAttribute("TextId"), t.attribute("Value", ""))));
        long vendor = Text.whole(identity.place() + ", VendorID", identity.needAttribute("VendorID"), 0, 0xFFFF);
        long product = Text.whole(identity.place() + ", DeviceID", identity.needAttribute("DeviceID"), 0, 0xFFFF);
        String vendorName = identity.first("VendorName").map(v -> v.attribute("Value", "")).orElse("");
        process.first("ValueList").ifPresent(l -> l.all("ValueItem").forEach(v -> valueLists.put(v.attribute("ID", ""), v)));
        process.need("DeviceAccessPointList").need("DeviceAccessPointItem");
        List<XmlElement> points = process.need("DeviceAccessPointList").all("DeviceAccessPointItem").toList();
        Set<String> names = new HashSet<>();
        List<DeviceDescription> devices = points.stream().map(point -> device(process, point, name(point, names), vendorName, vendor, product)).toList();
        process.children().stream().map(XmlElement::name).filter(n -> !Set.of("DeviceAccessPointList", "ModuleList", "SubmoduleList", "ExternalTextList", "ValueList", "GraphicsList").contains(n))
                .forEach(n -> remarks.add("<" + n + "> is not used"));
        return devices;
    }

    /** What an access point is called; with its ID where another of the file is called the same. */
    private String name(XmlElement point, Set<String> taken) {
        String id = point.attribute("ID", point.place());
        String name = point.first("ModuleInfo").flatMap(m -> m.first("Name")).map(this::text).orElse(point.attribute("DNS_CompatibleName", "device"));
        return taken.add(name) ? name : name + " (" + id + ")";
    }

    private DeviceDescription device(XmlElement process, XmlElement point, String name, String vendorName, long vendor, long product) {
        long revision = point.first("ModuleInfo").flatMap(m -> m.first("SoftwareRelease")).map(GsdmlReader::release).orElse(0L);
        List<DescribedPdo> pdos = new ArrayList<>();
        List<DescribedObject> objects = new ArrayList<>();
        Set<Integer> messages = new HashSet<>();
        submodules(point, "", false, messages, pdos, objects);
        List<XmlElement> carriers = new ArrayList<>(List.of(point));
        for (Plugged module : plugged(process, "ModuleList", "ModuleItem", List.of(point), "UseableModules", "ModuleItemRef", "ModuleItemTarget")) {
            carriers.add(module.item());
            submodules(module.item(), module.slots(), module.standsThere(), messages, pdos, objects);
        }
        Set<Long> numbers = new HashSet<>();
        for (Plugged submodule : plugged(process, "SubmoduleList", "SubmoduleItem", carriers, "UseableSubmodules", "SubmoduleItemRef", "SubmoduleItemTarget")) {
            submodule(submodule.item(), submodule.slots(), submodule.standsThere(), numbers, messages, pdos, objects);
        }
        List<DescribedClock> clocks = point.everything().filter(e -> e.name().equals("SynchronisationMode")).map(s -> new DescribedClock("IRT", s.attribute("SupportedRole", ""), 0)).toList();
        return new DeviceDescription(Family.PROFINET, "GSDML", name, vendorName, new Identity(name, vendor, product, revision), objects, pdos, clocks, List.of("record data"), List.of());
    }

    /** A module or submodule that fits. @param slots where it fits, in words, empty when not told  @param standsThere it is plugged unless something else is chosen */
    private record Plugged(XmlElement item, String slots, boolean standsThere) {
    }

    /**
     * What of a list the carriers (access point, modules) can use, in the order of their references. Where the file has no reference of
     * this kind at all, as files of simple devices do, every item of the list fits.
     */
    private List<Plugged> plugged(XmlElement process, String list, String item, List<XmlElement> carriers, String useable, String reference, String target) {
        Map<String, XmlElement> items = new LinkedHashMap<>();
        process.first(list).ifPresent(l -> l.all(item).forEach(i -> items.put(i.attribute("ID", i.place()), i)));
        if (process.everything().noneMatch(e -> e.name().equals(reference))) {
            return items.values().stream().map(i -> new Plugged(i, "", false)).toList();
        }
        Map<String, Plugged> plugged = new LinkedHashMap<>();
        for (XmlElement carrier : carriers) {
            carrier.first(useable).ifPresent(l -> l.all(reference).forEach(ref -> {
                String id = ref.needAttribute(target);
                XmlElement meant = items.get(id);
                if (meant == null) {
                    remarks.add(ref.place() + ": no <" + item + "> with the ID " + id + " is in the file");
                } else {
                    String kind = reference.startsWith("Module") ? "slot " : "subslot ";
                    String places = java.util.stream.Stream.of("FixedIn", "UsedIn", "AllowedIn").flatMap(use -> java.util.stream.Stream.of(use + "Slots", use + "Subslots")).map(a -> ref.attribute(a, "").strip())
                            .filter(a -> !a.isEmpty()).findFirst().orElse("");
                    boolean standsThere = ref.attributes().keySet().stream().anyMatch(a -> a.startsWith("FixedIn") || a.startsWith("UsedIn"));
                    plugged.putIfAbsent(id, new Plugged(meant, places.isEmpty() ? "" : ", " + kind + places.replaceAll("\\s+", ", ").replace("..", " to "), standsThere));
                }
            }));
        }
        return List.copyOf(plugged.values());
    }

    private static long release(XmlElement element) {
        java.util.regex.Matcher numbers = java.util.regex.Pattern.compile("V?(\\d{1,5})\\.(\\d{1,5}).*").matcher(element.attribute("Value", ""));
        return numbers.matches() ? Long.parseLong(numbers.group(1)) << 16 | Long.parseLong(numbers.group(2)) : 0;
    }

    private String text(XmlElement element) {
        return texts.getOrDefault(element.attribute("TextId", ""), element.attribute("TextId", element.name()));
    }

    /** Numbers of submodules are their module's own: other modules may use them again. */
    private void submodules(XmlElement module, String slots, boolean standsThere, Set<Integer> messages, List<DescribedPdo> pdos, List<DescribedObject> objects) {
        Set<Long> numbers = new HashSet<>();
        module.everything().filter(e -> e.name().equals("SubmoduleItem") || e.name().equals("VirtualSubmoduleItem")).forEach(item -> submodule(item, slots, standsThere, numbers, messages, pdos, objects));
    }

    /** The number of a submodule, or a free one where another module has it already. */
    private static int message(long number, Set<Integer> taken) {
        int message = (int) (number & 0x7FFF_FFFF);
        while (!taken.add(message)) {
            message = (message + 0x0100_0000) & 0x7FFF_FFFF;
        }
        return message;
    }

    private void submodule(XmlElement item, String slots, boolean standsThere, Set<Long> numbers, Set<Integer> messages, List<DescribedPdo> pdos, List<DescribedObject> objects) {
        long number = Text.whole(item.place() + ", SubmoduleIdentNumber", item.attribute("SubmoduleIdentNumber", "0"), 0, 0xFFFF_FFFFL);
        if (!numbers.add(number)) {
            throw new UnreadableFile(item.place() + ", SubmoduleIdentNumber", item.attribute("SubmoduleIdentNumber", ""), "each number once", "correct it");
        }
        String name = item.first("ModuleInfo").flatMap(m -> m.first("Name")).map(this::text).orElse(item.attribute("ID", "submodule")) + slots;
        boolean fixed = item.name().equals("VirtualSubmoduleItem");
        int message = message(number, messages);
        item.first("IOData").ifPresent(data -> {
            data.first("Output").ifPresent(o -> pdos.add(new DescribedPdo(message, name, true, true, fixed, standsThere || pdos.isEmpty(), List.of(), entries(o))));
            data.first("Input").ifPresent(i -> pdos.add(new DescribedPdo(message, name, false, true, fixed, standsThere || pdos.size() < 2, List.of(), entries(i))));
        });
        // Indices of records are their submodule's own as well.
        Set<Long> places = new HashSet<>();
        item.first("RecordDataList").ifPresent(records -> records.all("ParameterRecordDataItem").forEach(record -> record(record, name, places, objects)));
    }

    private List<DescribedEntry> entries(XmlElement direction) {
        List<DescribedEntry> entries = new ArrayList<>();
        int signal = 0;
        for (XmlElement item : direction.all("DataItem").toList()) {
            String type = DataTypes.gsdml(item.needAttribute("DataType"));
            int own = DataTypes.gsdmlBytes(item.needAttribute("DataType")) * 8;
            int bits = own > 0 ? own : DataTypes.bits(type) > 0 ? DataTypes.bits(type) : (int) Text.whole(item.place() + ", Length", item.attribute("Length", "0"), 1, 1440) * 8;
            if (item.attributes().containsKey("Length") && DataTypes.bits(type) > 0 && Text.whole(item.place() + ", Length", item.attribute("Length", ""), 1, 1440) * 8 != bits) {
                throw new UnreadableFile(item.place() + ", Length", item.attribute("Length", ""), type + " has " + bits / 8 + " bytes", "correct the length");
            }
            String name = text(item);
            rueda.bus.ProfiDriveSignal known = java.util.Arrays.stream(rueda.bus.ProfiDriveSignal.values()).filter(s -> name.equals(s.name())).findFirst().orElse(null);
            entries.add(new DescribedEntry(known == null ? 0x800 + signal : known.number(), 0, bits, name, type, true));
            signal++;
        }
        return entries;
    }

    private void record(XmlElement record, String submodule, Set<Long> seen, List<DescribedObject> objects) {
        int index = (int) Text.whole(record.place() + ", Index", record.needAttribute("Index"), 0, 0x7FFF);
        long length = Text.whole(record.place() + ", Length", record.attribute("Length", "0"), 0, 65_535);
        for (XmlElement ref : record.all("Ref").toList()) {
            String type = DataTypes.gsdml(ref.needAttribute("DataType"));
            int own = DataTypes.gsdmlBytes(ref.needAttribute("DataType")) * 8;
            boolean single = type.equals("BIT");
            int bits = own > 0 ? own : single ? (int) Text.whole(ref.place() + ", BitLength", ref.attribute("BitLength", "1"), 1, 16) : DataTypes.bits(type);
            long offset = Text.whole(ref.place() + ", ByteOffset", ref.attribute("ByteOffset", "0"), 0, 65_535);
            long bit = single ? Text.whole(ref.place() + ", BitOffset", ref.attribute("BitOffset", "0"), 0, 7) : 0;
            for (long b = 0; b < (single ? bits : 1); b++) {
                if (!seen.add((long) index << 24 | offset << 4 | (single ? 8 : 0) | bit + b)) {
                    throw new UnreadableFile(ref.place() + (single ? ", BitOffset" : ", ByteOffset"), single ? offset + "." + (bit + b) : Long.toString(offset), "each place of a record once", "correct it");
                }
            }
            if (length > 0 && offset + (bit + bits + 7) / 8 > length) {
                throw new UnreadableFile(ref.place() + ", ByteOffset", Long.toString(offset), "within the " + length + " bytes of the record", "correct offset or length");
            }
            String[] range = range(ref);
            // A width that is not the type's own is not held against it: bits, and the Boolean that fills a byte.
            String shown = single || own > 0 ? bits == 8 ? "USINT" : type : type;
            objects.add(DataTypes.checked(new DescribedObject(index, (int) Math.min(255, offset), submodule + ", " + text(ref) + (single ? ", bit " + bit + (bits > 1 ? " to " + (bit + bits - 1) : "") : ""), shown, single && bits > 1 ? 0 : bits,
                    ref.attribute("Changeable", "true").equals("false") ? Access.READ : Access.READ_WRITE, range[0], range[1], ref.attribute("DefaultValue", ""), false, choices(ref)), ref.place()));
        }
    }

    /** Values of a list with their names. */
    private List<DescribedChoice> choices(XmlElement ref) {
        return valueLists.containsKey(ref.attribute("ValueItemTarget", "")) ? valueLists.get(ref.attribute("ValueItemTarget", "")).everything()
                .filter(e -> e.name().equals("Assign") && e.attribute("Content", "").matches("-?\\d{1,18}")).map(e -> new DescribedChoice(Long.parseLong(e.attribute("Content", "")), text(e))).toList() : List.of();
    }

    /** Lowest and highest of what is allowed: AllowedValues lists numbers and ranges, a ValueItem its contents; empty where nothing is told. */
    private String[] range(XmlElement ref) {
        List<Long> ends = new ArrayList<>();
        for (String part : ref.attribute("AllowedValues", "").strip().split("\\s+")) {
            for (String end : part.split("\\.\\.")) {
                if (end.matches("-?\\d{1,18}")) {
                    ends.add(Long.parseLong(end));
                }
            }
        }
        if (ends.isEmpty() && valueLists.containsKey(ref.attribute("ValueItemTarget", ""))) {
            valueLists.get(ref.attribute("ValueItemTarget", "")).everything().filter(e -> e.name().equals("Assign") && e.attribute("Content", "").matches("-?\\d{1,18}"))
                    .forEach(e -> ends.add(Long.parseLong(e.attribute("Content", ""))));
        }
        return ends.isEmpty() ? new String[] {"", ""} : new String[] {ends.stream().min(Long::compare).orElseThrow().toString(), ends.stream().max(Long::compare).orElseThrow().toString()};
    }
}
