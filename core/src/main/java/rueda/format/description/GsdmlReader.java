package rueda.format.description;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import rueda.bus.description.DeviceDescription;
import rueda.bus.description.DeviceDescription.Access;
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

/** GSDML of a PROFINET device (ISO 15745-4): every submodule with data becomes two messages, every record its parameters. */
public final class GsdmlReader {

    private final List<String> remarks = new ArrayList<>();
    private final Map<String, String> texts = new HashMap<>();

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
        return new Reading<>(List.of(reader.device(root.need("ProfileBody"))), reader.remarks);
    }

    private DeviceDescription device(XmlElement body) {
        XmlElement identity = body.need("DeviceIdentity");
        XmlElement process = body.need("ApplicationProcess");
        process.first("ExternalTextList").flatMap(l -> l.first("PrimaryLanguage")).ifPresent(l -> l.all("Text").forEach(t -> texts.put(t.needAttribute("TextId"), t.attribute("Value", ""))));
        long vendor = Text.whole(identity.place() + ", VendorID", identity.needAttribute("VendorID"), 0, 0xFFFF);
        long product = Text.whole(identity.place() + ", DeviceID", identity.needAttribute("DeviceID"), 0, 0xFFFF);
        String vendorName = identity.first("VendorName").map(v -> v.attribute("Value", "")).orElse("");
        XmlElement access = process.need("DeviceAccessPointList").need("DeviceAccessPointItem");
        String name = access.first("ModuleInfo").flatMap(m -> m.first("Name")).map(this::text).orElse(access.attribute("DNS_CompatibleName", "device"));
        long revision = access.first("ModuleInfo").flatMap(m -> m.first("SoftwareRelease")).map(r -> release(r)).orElse(0L);
        List<DescribedPdo> pdos = new ArrayList<>();
        List<DescribedObject> objects = new ArrayList<>();
        Set<Long> numbers = new HashSet<>();
        Set<Long> parameters = new HashSet<>();
        process.everything().filter(e -> e.name().equals("SubmoduleItem") || e.name().equals("VirtualSubmoduleItem")).forEach(item -> submodule(item, numbers, parameters, pdos, objects));
        List<DescribedClock> clocks = access.everything().filter(e -> e.name().equals("SynchronisationMode")).map(s -> new DescribedClock("IRT", s.attribute("SupportedRole", ""), 0)).toList();
        process.children().stream().map(XmlElement::name).filter(n -> !Set.of("DeviceAccessPointList", "ModuleList", "SubmoduleList", "ExternalTextList", "ValueList", "GraphicsList").contains(n))
                .forEach(n -> remarks.add("<" + n + "> is not used"));
        return new DeviceDescription(Family.PROFINET, "GSDML", name, vendorName, new Identity(name, vendor, product, revision), objects, pdos, clocks, List.of("record data"), List.of());
    }

    private static long release(XmlElement element) {
        java.util.regex.Matcher numbers = java.util.regex.Pattern.compile("V?(\\d{1,5})\\.(\\d{1,5}).*").matcher(element.attribute("Value", ""));
        return numbers.matches() ? Long.parseLong(numbers.group(1)) << 16 | Long.parseLong(numbers.group(2)) : 0;
    }

    private String text(XmlElement element) {
        return texts.getOrDefault(element.attribute("TextId", ""), element.attribute("TextId", element.name()));
    }

    private void submodule(XmlElement item, Set<Long> numbers, Set<Long> parameters, List<DescribedPdo> pdos, List<DescribedObject> objects) {
        long number = Text.whole(item.place() + ", SubmoduleIdentNumber", item.attribute("SubmoduleIdentNumber", "0"), 0, 0xFFFF_FFFFL);
        if (!numbers.add(number)) {
            throw new UnreadableFile(item.place() + ", SubmoduleIdentNumber", item.attribute("SubmoduleIdentNumber", ""), "each number once", "correct it");
        }
        String name = item.first("ModuleInfo").flatMap(m -> m.first("Name")).map(this::text).orElse(item.attribute("ID", "submodule"));
        boolean fixed = item.name().equals("VirtualSubmoduleItem");
        item.first("IOData").ifPresent(data -> {
            data.first("Output").ifPresent(o -> pdos.add(new DescribedPdo((int) (number & 0x7FFF_FFFF), name, true, true, fixed, pdos.isEmpty(), List.of(), entries(o))));
            data.first("Input").ifPresent(i -> pdos.add(new DescribedPdo((int) (number & 0x7FFF_FFFF), name, false, true, fixed, pdos.size() < 2, List.of(), entries(i))));
        });
        item.first("RecordDataList").ifPresent(records -> records.all("ParameterRecordDataItem").forEach(record -> record(record, parameters, objects)));
    }

    private List<DescribedEntry> entries(XmlElement direction) {
        List<DescribedEntry> entries = new ArrayList<>();
        int signal = 0;
        for (XmlElement item : direction.all("DataItem").toList()) {
            String type = DataTypes.gsdml(item.needAttribute("DataType"));
            int bits = DataTypes.bits(type) > 0 ? DataTypes.bits(type) : (int) Text.whole(item.place() + ", Length", item.attribute("Length", "0"), 1, 1440) * 8;
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

    private void record(XmlElement record, Set<Long> seen, List<DescribedObject> objects) {
        int index = (int) Text.whole(record.place() + ", Index", record.needAttribute("Index"), 0, 0x7FFF);
        long length = Text.whole(record.place() + ", Length", record.attribute("Length", "0"), 0, 65_535);
        for (XmlElement ref : record.all("Ref").toList()) {
            String type = DataTypes.gsdml(ref.needAttribute("DataType"));
            long offset = Text.whole(ref.place() + ", ByteOffset", ref.attribute("ByteOffset", "0"), 0, 65_535);
            if (!seen.add((long) index << 16 | offset)) {
                throw new UnreadableFile(ref.place() + ", ByteOffset", Long.toString(offset), "each place of a record once", "correct it");
            }
            if (length > 0 && offset + (DataTypes.bits(type) + 7) / 8 > length) {
                throw new UnreadableFile(ref.place() + ", ByteOffset", Long.toString(offset), "within the " + length + " bytes of the record", "correct offset or length");
            }
            String[] range = ref.attribute("AllowedValues", "").split("\\.\\.");
            objects.add(DataTypes.checked(new DescribedObject(index, (int) Math.min(255, offset), text(ref), type, DataTypes.bits(type),
                    ref.attribute("Changeable", "true").equals("false") ? Access.READ : Access.READ_WRITE, range.length == 2 ? range[0] : "", range.length == 2 ? range[1] : "", ref.attribute("DefaultValue", ""), false), ref.place()));
        }
    }
}
