package rueda.format.description;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Stream;
import rueda.bus.description.DeviceDescription;
import rueda.bus.description.DeviceDescription.Access;
import rueda.bus.description.DeviceDescription.DescribedChoice;
import rueda.bus.description.DeviceDescription.DescribedClock;
import rueda.bus.description.DeviceDescription.DescribedEntry;
import rueda.bus.description.DeviceDescription.DescribedObject;
import rueda.bus.description.DeviceDescription.DescribedPdo;
import rueda.bus.description.DeviceDescription.DescribedSyncManager;
import rueda.bus.description.DeviceDescription.SyncManagerUse;
import rueda.format.Reading;
import rueda.format.Text;
import rueda.format.UnreadableFile;
import rueda.format.xml.XmlElement;
import rueda.format.xml.XmlReader;
import rueda.machine.Bus.Family;
import rueda.machine.Station.Identity;
import rueda.machine.Station.StartWrite;
import rueda.machine.Station.Transition;

/** EtherCAT slave information, ETG.2000: one file may describe many devices and revisions. */
public final class EsiReader {

    private static final long UNSIGNED_32 = 0xFFFF_FFFFL;
    /** Parts that say nothing of configuration. */
    private static final Set<String> PASSED = Set.of("Type", "Name", "Info", "GroupType", "Fmmu", "Sm", "Image16x14", "ImageData16x14", "Eeprom", "HideType", "URL", "Comment", "RxPdo", "TxPdo",
            "Mailbox", "Dc", "Profile", "Su", "Slots");

    private final List<String> remarks = new ArrayList<>();
    /** data types of the device being read */
    private final Map<String, XmlElement> types = new HashMap<>();

    /** modules of the file by their number as it is written */
    private final Map<String, XmlElement> modules = new LinkedHashMap<>();

    private EsiReader() {
    }

    /** @throws UnreadableFile when it is no ESI, or contradicts itself */
    public static Reading<List<DeviceDescription>> read(byte[] file) {
        return read(XmlReader.read(file));
    }

    static Reading<List<DeviceDescription>> read(XmlElement root) {
        EsiReader reader = new EsiReader();
        if (!root.name().equals("EtherCATInfo")) {
            throw new UnreadableFile(root.place(), "<" + root.name() + ">", "<EtherCATInfo> (ETG.2000)", "choose an ESI file");
        }
        XmlElement vendor = root.need("Vendor");
        long vendorId = vendor.need("Id").whole(0, UNSIGNED_32);
        String vendorName = vendor.textOf("Name", "vendor " + vendorId);
        List<DeviceDescription> devices = new ArrayList<>();
        Set<Identity> seen = new HashSet<>();
        root.need("Descriptions").first("Modules").ifPresent(all -> all.all("Module").forEach(m -> m.first("Type").ifPresent(t -> reader.modules.put(t.attribute("ModuleIdent", ""), m))));
        for (XmlElement device : root.need("Descriptions").need("Devices").all("Device").toList()) {
            DeviceDescription read = reader.device(device, vendorId, vendorName);
            if (!seen.add(read.identity())) {
                throw new UnreadableFile(device.place(), read.name() + " revision " + read.identity().revision(), "each device and revision once", "remove the second");
            }
            devices.add(read);
        }
        if (devices.isEmpty()) {
            throw new UnreadableFile(root.place(), "no <Device>", "at least one device", "choose an ESI file with devices");
        }
        return new Reading<>(devices, reader.remarks);
    }

    private DeviceDescription device(XmlElement device, long vendorId, String vendorName) {
        XmlElement type = device.need("Type");
        long product = Text.whole(type.place() + ", ProductCode", type.needAttribute("ProductCode"), 0, UNSIGNED_32);
        long revision = Text.whole(type.place() + ", RevisionNo", type.attribute("RevisionNo", "0"), 0, UNSIGNED_32);
        String name = device.textOf("Name", type.text());
        device.children().stream().filter(c -> !PASSED.contains(c.name())).forEach(c -> remarks.add(c.place() + " of " + name + " is not used"));
        List<DescribedPdo> pdos = new ArrayList<>();
        Set<Integer> numbers = new HashSet<>();
        for (XmlElement child : device.children()) {
            if (child.name().equals("RxPdo") || child.name().equals("TxPdo")) {
                DescribedPdo pdo = pdo(child, 0, 0);
                if (!numbers.add(pdo.number())) {
                    throw new UnreadableFile(child.place(), String.format(Locale.ROOT, "PDO %04Xh", pdo.number()), "each PDO once", "remove the second");
                }
                pdos.add(pdo);
            }
        }
        slots(device, name, numbers, pdos);
        List<DescribedClock> clocks = device.first("Dc").stream().flatMap(dc -> dc.all("OpMode")).map(mode -> new DescribedClock(mode.textOf("Name", "DC"), mode.textOf("Desc", "") + mode.first("ShiftTimeSync0").map(s -> ", SYNC0 shifted by " + s.text() + " ns").orElse(""),
                (int) mode.first("AssignActivate").map(a -> a.whole(0, 0xFFFF)).orElse(0L).longValue())).toList();
        List<String> mailbox = device.first("Mailbox").map(m -> m.children().stream().map(XmlElement::name).toList()).orElse(List.of());
        return new DeviceDescription(Family.ETHERCAT, "ESI", name, vendorName, new Identity(name, vendorId, product, revision), objects(device), pdos, clocks, mailbox, ports(device), syncManagers(device, mailbox.isEmpty()),
                device.everything().filter(e -> e.name().equals("InitCmd")).map(c -> startWrite(c, name)).flatMap(Optional::stream).toList(), physics(device));
    }

    /** The text tells what an area is for; where older files leave it out, it follows from the order: mailbox out and in, outputs, inputs. */
    private List<DescribedSyncManager> syncManagers(XmlElement device, boolean withoutMailbox) {
        List<DescribedSyncManager> managers = new ArrayList<>();
        int number = 0;
        for (XmlElement sm : device.all("Sm").toList()) {
            SyncManagerUse use = switch (sm.text()) {
                case "MBoxOut" -> SyncManagerUse.MAILBOX_OUT;
                case "MBoxIn" -> SyncManagerUse.MAILBOX_IN;
                case "Outputs" -> SyncManagerUse.OUTPUTS;
                case "Inputs" -> SyncManagerUse.INPUTS;
                case "" -> number + (withoutMailbox ? 2 : 0) < 4 ? SyncManagerUse.values()[number + (withoutMailbox ? 2 : 0)] : null;
                default -> null;
            };
            if (use == null || number > 15) {
                remarks.add(sm.place() + " of " + device.textOf("Name", "") + ": " + (sm.text().isEmpty() ? "a further sync manager" : "“" + sm.text() + "”") + " is not used");
            } else {
                managers.add(new DescribedSyncManager(number, use, attribute(sm, "StartAddress", 0xFFFF), attribute(sm, "DefaultSize", 0xFFFF), attribute(sm, "ControlByte", 0xFF), attribute(sm, "Enable", 0xFF) != 0));
            }
            number++;
        }
        return managers;
    }

    /** A start-up command over CoE; one that does not fit a single write of up to 32 bits is told. */
    private Optional<StartWrite> startWrite(XmlElement command, String device) {
        List<String> transitions = command.all("Transition").map(XmlElement::text).toList();
        Optional<Transition> transition = Stream.of(Transition.values()).filter(t -> transitions.equals(List.of(t.symbol()))).findFirst();
        String data = command.textOf("Data", "").replaceAll("\\s", "");
        boolean fits = data.matches("([0-9A-Fa-f]{2}){1,4}") && data.length() != 6;
        if (transition.isEmpty() || !fits || command.first("Index").isEmpty() || command.attribute("CompleteAccess", "0").matches("1|true")) {
            remarks.add(command.place() + " of " + device + ": the start-up command " + command.textOf("Index", "?") + ":" + command.textOf("SubIndex", "0") + " = " + data + " at " + String.join(", ", transitions)
                    + " is not taken over: only writes of 8, 16 or 32 bits at IP, PS or SO can be");
            return Optional.empty();
        }
        long value = Long.decode(littleEndian(command.need("Data")));
        String comment = command.textOf("Comment", "");
        return Optional.of(new StartWrite((int) command.need("Index").whole(1, 0xFFFF), (int) command.first("SubIndex").map(i -> i.whole(0, 254)).orElse(0L).longValue(), data.length() * 4, value, transition.get(),
                comment.isBlank() ? "asked for by the description" : comment.substring(0, Math.min(200, comment.length())), true));
    }

    private static int attribute(XmlElement element, String name, long high) {
        String text = element.attribute(name, "0");
        return text.equalsIgnoreCase("true") ? 1 : text.equalsIgnoreCase("false") ? 0 : (int) Text.whole(element.place() + ", " + name, text, 0, high);
    }

    private static String physics(XmlElement device) {
        String physics = device.attribute("Physics", "");
        return physics.matches("[YKH ]{1,4}") ? physics.stripTrailing() : "";
    }

    /** Physics has a letter for each port: Y is Ethernet over copper, K an internal one, H fibre. */
    private static List<String> ports(XmlElement device) {
        List<String> ports = new ArrayList<>();
        String physics = physics(device);
        for (int i = 0; i < physics.length(); i++) {
            String kind = switch (physics.charAt(i)) {
                case 'Y' -> "100BASE-TX";
                case 'H' -> "100BASE-FX";
                case 'K' -> "internal";
                default -> "";
            };
            if (!kind.isEmpty()) {
                ports.add("port " + i + ", " + kind);
            }
        }
        return ports;
    }

    /**
     * Devices with slots (ETG.5001, modular device profile; element names from memory): the PDOs of the module that stands in a slot by
     * default are those of the device. Every slot moves the numbers of PDOs and objects on.
     */
    private void slots(XmlElement device, String name, Set<Integer> numbers, List<DescribedPdo> pdos) {
        XmlElement slots = device.first("Slots").orElse(null);
        if (slots == null) {
            return;
        }
        int number = 0;
        for (XmlElement slot : slots.all("Slot").toList()) {
            int pdoStep = step(slot, slots, "SlotPdoIncrement");
            int indexStep = step(slot, slots, "SlotIndexIncrement");
            List<XmlElement> offered = slot.all("ModuleIdent").toList();
            XmlElement ident = offered.stream().filter(i -> flag(i, "Default")).findFirst().orElse(offered.size() == 1 ? offered.get(0) : null);
            XmlElement module = ident == null ? null : modules.get(ident.text());
            if (module == null) {
                remarks.add(slot.place() + " of " + name + ": " + (ident == null ? offered.size() + " modules fit and none stands there by default" : "no module " + ident.text() + " is in the file") + "; the slot stays empty");
            } else {
                remarks.add(slot.place() + " of " + name + ": module " + module.textOf("Name", ident.text()) + " is taken" + (offered.size() > 1 ? "; " + (offered.size() - 1) + " others that fit are not" : ""));
                for (XmlElement child : module.children()) {
                    if (child.name().equals("RxPdo") || child.name().equals("TxPdo")) {
                        DescribedPdo pdo = pdo(child, number * pdoStep, number * indexStep);
                        if (numbers.add(pdo.number())) {
                            pdos.add(pdo);
                        } else {
                            remarks.add(child.place() + String.format(Locale.ROOT, ": PDO %04Xh is there already; that of the module is not used", pdo.number()));
                        }
                    } else if (!PASSED.contains(child.name())) {
                        remarks.add(child.place() + " of module " + module.textOf("Name", ident.text()) + " is not used");
                    }
                }
            }
            number++;
        }
    }

    private static int step(XmlElement slot, XmlElement slots, String name) {
        return slot.attributes().containsKey(name) ? attribute(slot, name, 0xFFFF) : attribute(slots, name, 0xFFFF);
    }

    /** @param pdoShift added to its number where it depends on the slot, {@code indexShift} likewise to the objects */
    private DescribedPdo pdo(XmlElement pdo, int pdoShift, int indexShift) {
        XmlElement own = pdo.need("Index");
        int number = (int) own.whole(0x1600, 0x1BFF) + (flag(own, "DependOnSlot") ? pdoShift : 0);
        if (number > 0x1BFF) {
            throw new UnreadableFile(own.place(), String.format(Locale.ROOT, "%04Xh", number), "1600h to 1BFFh in every slot", "correct SlotPdoIncrement");
        }
        List<DescribedEntry> entries = new ArrayList<>();
        for (XmlElement entry : pdo.all("Entry").toList()) {
            int written = (int) entry.need("Index").whole(0, 0xFFFF);
            int index = Math.min(0xFFFF, written + (written != 0 && flag(entry.need("Index"), "DependOnSlot") ? indexShift : 0));
            int bits = (int) entry.need("BitLen").whole(1, 2048);
            int sub = (int) entry.first("SubIndex").map(s -> s.whole(0, 255)).orElse(0L).longValue();
            String type = entry.textOf("DataType", "");
            if (index != 0 && DataTypes.BITS.containsKey(type) && !type.equals("BOOL") && DataTypes.bits(type) != bits) {
                throw new UnreadableFile(entry.place() + ", BitLen", Integer.toString(bits), type + " has " + DataTypes.bits(type) + " bits", "correct BitLen or DataType");
            }
            entries.add(new DescribedEntry(index, sub, bits, entry.textOf("Name", index == 0 ? "filler" : ""), type, flag(entry, "Fixed")));
        }
        List<Integer> excludes = pdo.all("Exclude").map(e -> (int) e.whole(0x1600, 0x1BFF)).toList();
        return new DescribedPdo(number, pdo.textOf("Name", ""), pdo.name().equals("RxPdo"), flag(pdo, "Fixed"), flag(pdo, "Mandatory"), !pdo.attribute("Sm", "").isBlank(), excludes, entries);
    }

    /** An xs:boolean; anything else is told and taken as false. */
    private boolean flag(XmlElement element, String name) {
        String value = element.attribute(name, "0").strip();
        if (!value.matches("(?i)0|1|true|false")) {
            remarks.add(element.place() + ": " + name + " is “" + value + "”, neither 0, 1, true nor false; taken as 0");
        }
        return value.equals("1") || value.equalsIgnoreCase("true");
    }

    private List<DescribedObject> objects(XmlElement device) {
        XmlElement dictionary = device.all("Profile").flatMap(p -> p.all("Dictionary")).findFirst().orElse(null);
        if (dictionary == null) {
            return List.of();
        }
        types.clear();
        device.all("Profile").flatMap(p -> p.all("Dictionary")).skip(1).forEach(d -> remarks.add(d.place() + " of " + device.textOf("Name", "") + ", a second dictionary, is not used"));
        dictionary.at("DataTypes").ifPresent(all -> all.all("DataType").forEach(t -> types.put(t.textOf("Name", ""), t)));
        Map<Long, DescribedObject> objects = new TreeMap<>();
        for (XmlElement object : dictionary.at("Objects").map(o -> o.all("Object").toList()).orElse(List.of())) {
            int index = (int) object.need("Index").whole(1, 0xFFFF);
            XmlElement type = types.get(object.textOf("Type", ""));
            List<XmlElement> subItems = type == null ? List.of() : type.all("SubItem").toList();
            if (subItems.isEmpty()) {
                put(objects, one(index, 0, object.textOf("Name", ""), object.need("Type").text(), object.first("BitSize").map(b -> (int) b.whole(0, 1 << 16)).orElse(0), object.first("Flags"), object.first("Info"), object), object);
            } else {
                members(index, object, subItems, objects);
            }
        }
        return List.copyOf(objects.values());
    }

    private void members(int index, XmlElement object, List<XmlElement> subItems, Map<Long, DescribedObject> into) {
        List<XmlElement> infos = object.first("Info").map(i -> i.all("SubItem").toList()).orElse(List.of());
        long total = object.first("BitSize").map(b -> b.whole(0, 1 << 20)).orElse(0L);
        long end = 0;
        for (int i = 0; i < subItems.size(); i++) {
            XmlElement item = subItems.get(i);
            int sub = (int) item.first("SubIdx").map(s -> s.whole(0, 255)).orElse((long) i).longValue();
            XmlElement told = told(item, i, infos);
            XmlElement info = told == null ? null : told.first("Info").orElse(null);
            int bits = item.first("BitSize").map(b -> (int) b.whole(0, 1 << 16)).orElse(0);
            XmlElement array = types.get(item.need("Type").text());
            Optional<XmlElement> elements = array == null ? Optional.empty() : array.first("ArrayInfo");
            int count = elements.flatMap(a -> a.first("Elements")).map(e -> (int) e.whole(1, 255)).orElse(1);
            String type = elements.isPresent() ? array.need("BaseType").text() : item.need("Type").text();
            int first = elements.isPresent() && item.first("SubIdx").isEmpty() ? (int) elements.get().first("LBound").map(b -> b.whole(0, 255)).orElse(1L).longValue() : sub;
            if (first + count - 1 > 255) {
                throw new UnreadableFile(item.place() + String.format(Locale.ROOT, " of %04Xh", index), "sub-index " + (first + count - 1), "0 to 255", "correct LBound or Elements");
            }
            for (int k = 0; k < count; k++) {
                String name = object.textOf("Name", "") + ", " + item.textOf("Name", "sub-index " + sub) + (count > 1 ? " " + (first + k) : "");
                put(into, one(index, first + k, name, type, bits / count, item.first("Flags"), Optional.ofNullable(info), told == null ? item : told), item);
            }
            end = Math.max(end, item.first("BitOffs").map(b -> b.whole(0, 1 << 20)).orElse(0L) + item.first("BitSize").map(b -> b.whole(0, 1 << 16)).orElse(0L));
        }
        if (total > 0 && end > total) {
            throw new UnreadableFile(object.place() + String.format(Locale.ROOT, ", %04Xh", index), total + " bits", "at least the " + end + " bits of its sub-items", "correct BitSize");
        }
    }

    /** What an object tells of a sub-item: by its name; by its place only where the object gives no names. */
    private static XmlElement told(XmlElement item, int place, List<XmlElement> infos) {
        String name = item.textOf("Name", "");
        boolean named = infos.stream().anyMatch(i -> !i.textOf("Name", "").isEmpty());
        if (named) {
            return infos.stream().filter(i -> i.textOf("Name", "").equals(name)).findFirst().orElse(null);
        }
        return place < infos.size() ? infos.get(place) : null;
    }

    private static void put(Map<Long, DescribedObject> into, DescribedObject object, XmlElement at) {
        if (into.put((long) object.index() << 8 | object.subIndex(), object) != null) {
            throw new UnreadableFile(at.place(), String.format(Locale.ROOT, "%04Xh:%02X", object.index(), object.subIndex()), "each index and sub-index once", "remove the second");
        }
    }

    private DescribedObject one(int index, int sub, String name, String declared, int bits, Optional<XmlElement> flags, Optional<XmlElement> info, XmlElement at) {
        // An enumeration, or bits, stand on a type of their own that is as wide as a known one.
        String type = DataTypes.bits(declared) == 0 && types.containsKey(declared) ? types.get(declared).textOf("BaseType", declared) : declared;
        String access = flags.map(f -> f.textOf("Access", "ro")).orElse("ro");
        String mapping = flags.map(f -> f.textOf("PdoMapping", "").strip()).orElse("");
        if (!mapping.matches("(?i)[RT]{0,2}")) {
            remarks.add(at.place() + ": PdoMapping is “" + mapping + "”, neither R, T, RT nor TR; taken as none");
        }
        boolean cyclic = mapping.matches("(?i)[RT]{1,2}");
        if (DataTypes.bits(type) == 0 && bits > 64 && !type.toUpperCase(Locale.ROOT).matches(".*(STRING|ARRAY|BITARR|BYTE|DOMAIN|GUID).*")) {
            remarks.add(at.place() + String.format(Locale.ROOT, ", %04Xh:%02X: a value of type %s with %d bits is shown by its name only; numbers have up to 64", index, sub, declared, bits));
        }
        String preset = info.flatMap(i -> i.first("DefaultValue")).map(XmlElement::text).orElseGet(() -> info.flatMap(i -> i.first("DefaultData")).map(d -> littleEndian(d)).orElse(""));
        return DataTypes.checked(new DescribedObject(index, sub, name, type, bits, access(access, at), limit(info, "Min"), limit(info, "Max"), DataTypes.bits(type) == 0 ? "" : preset, cyclic, choices(declared)), at.place());
    }

    /** Values of an enumeration with their names. */
    private List<DescribedChoice> choices(String declared) {
        return types.containsKey(declared) ? types.get(declared).all("EnumInfo").map(e -> new DescribedChoice(e.need("Enum").whole(Integer.MIN_VALUE, UNSIGNED_32), e.textOf("Text", ""))).toList() : List.of();
    }

    /** A limit as a value, or as the bytes that travel. */
    private String limit(Optional<XmlElement> info, String which) {
        return info.flatMap(i -> i.first(which + "Value")).map(XmlElement::text).orElseGet(() -> info.flatMap(i -> i.first(which + "Data")).map(this::littleEndian).orElse(""));
    }

    /** DefaultData holds the bytes as they travel. */
    private String littleEndian(XmlElement data) {
        String hex = data.text().replaceAll("\\s", "");
        if (!hex.matches("([0-9A-Fa-f]{2}){1,8}")) {
            if (!hex.matches("([0-9A-Fa-f]{2})+")) {
                throw new UnreadableFile(data.place(), hex, "bytes in hexadecimal", "correct it");
            }
            return "";
        }
        StringBuilder reversed = new StringBuilder("0x");
        for (int i = hex.length() - 2; i >= 0; i -= 2) {
            reversed.append(hex, i, i + 2);
        }
        return reversed.length() > 2 + 8 ? "" : reversed.toString();
    }

    private static Access access(String text, XmlElement at) {
        return switch (text.toLowerCase(Locale.ROOT)) {
            case "ro" -> Access.READ;
            case "wo" -> Access.WRITE;
            case "rw", "rww", "rwr" -> Access.READ_WRITE;
            case "const" -> Access.CONSTANT;
            default -> throw new UnreadableFile(at.place() + ", Access", text, "ro, wo, rw or const", "correct it");
        };
    }
}
