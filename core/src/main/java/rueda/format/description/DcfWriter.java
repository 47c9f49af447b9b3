package rueda.format.description;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import rueda.bus.description.DeviceDescription;
import rueda.bus.description.DeviceDescription.DescribedObject;
import rueda.drive.StartUp;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Station.StartWrite;

/** The device configuration file of one CANopen station, CiA 306: its data sheet with the values it is given. */
public final class DcfWriter {

    private DcfWriter() {
    }

    /** Values by index·256 + sub-index, as they stand in the objects after start-up; identifiers contain the node id. */
    public static Map<Long, Long> values(Machine machine, Axis axis) {
        Map<Long, Long> values = new LinkedHashMap<>();
        for (StartWrite write : StartUp.all(machine.bus(), axis)) {
            if (write.enabled()) {
                boolean identifier = (write.object() & 0xFF00) >= 0x1400 && (write.object() < 0x1600 || write.object() >= 0x1800 && write.object() < 0x1A00) && write.subIndex() == 1;
                values.put((long) write.object() << 8 | write.subIndex(), write.value() + (identifier ? axis.station().address().number() : 0));
            }
        }
        return values;
    }

    /** @param date such as 11-23-2026, @param time such as 08:00AM */
    public static String write(Machine machine, Axis axis, DeviceDescription device, String date, String time) {
        StringBuilder out = new StringBuilder();
        line(out, "[FileInfo]", "FileName=" + axis.name() + ".dcf", "FileVersion=1", "FileRevision=0", "EDSVersion=4.0", "Description=" + axis.name(), "CreationTime=" + time, "CreationDate=" + date, "CreatedBy=Rueda", "");
        line(out, "[DeviceInfo]", "VendorName=" + device.vendor(), "VendorNumber=" + hex(device.identity().vendor()), "ProductName=" + device.name(), "ProductNumber=" + hex(device.identity().product()),
                "RevisionNumber=" + hex(device.identity().revision()), "");
        line(out, "[DeviceComissioning]", "NodeID=" + axis.station().address().number(), "NodeName=" + axis.name(), "Baudrate=" + machine.bus().kiloBits(), "");
        Map<Integer, List<DescribedObject>> byIndex = new TreeMap<>();
        device.objects().forEach(o -> byIndex.computeIfAbsent(o.index(), k -> new java.util.ArrayList<>()).add(o));
        list(out, "MandatoryObjects", byIndex.keySet().stream().filter(i -> i == 0x1000 || i == 0x1001 || i == 0x1018).toList());
        list(out, "OptionalObjects", byIndex.keySet().stream().filter(i -> i > 0x1001 && i != 0x1018 && (i < 0x2000 || i >= 0x6000)).toList());
        list(out, "ManufacturerObjects", byIndex.keySet().stream().filter(i -> i >= 0x2000 && i < 0x6000).toList());
        Map<Long, Long> values = values(machine, axis);
        byIndex.forEach((index, objects) -> {
            boolean single = objects.size() == 1 && objects.get(0).subIndex() == 0;
            String group = objects.get(0).name().contains(", ") ? objects.get(0).name().substring(0, objects.get(0).name().indexOf(", ")) : objects.get(0).name();
            if (!single) {
                line(out, String.format(Locale.ROOT, "[%04X]", index), "ParameterName=" + group, "ObjectType=0x9", "SubNumber=" + objects.size(), "");
            }
            for (DescribedObject object : objects) {
                object(out, object, single, group, values.get((long) index << 8 | object.subIndex()));
            }
        });
        return out.toString();
    }

    private static void object(StringBuilder out, DescribedObject object, boolean single, String group, Long value) {
        String name = single || !object.name().startsWith(group + ", ") ? object.name() : object.name().substring(group.length() + 2);
        line(out, String.format(Locale.ROOT, single ? "[%04X]" : "[%04Xsub%X]", object.index(), object.subIndex()), "ParameterName=" + name, "ObjectType=0x7",
                String.format(Locale.ROOT, "DataType=0x%04X", DataTypes.codeOf(object.dataType())), "AccessType=" + object.access().symbol());
        if (!object.low().isEmpty()) {
            line(out, "LowLimit=" + object.low());
        }
        if (!object.high().isEmpty()) {
            line(out, "HighLimit=" + object.high());
        }
        line(out, "DefaultValue=" + object.preset(), "PDOMapping=" + (object.cyclic() ? 1 : 0));
        if (value != null) {
            line(out, "ParameterValue=" + value);
        }
        out.append('\n');
    }

    private static void list(StringBuilder out, String name, List<Integer> objects) {
        line(out, "[" + name + "]", "SupportedObjects=" + objects.size());
        for (int i = 0; i < objects.size(); i++) {
            line(out, String.format(Locale.ROOT, "%d=0x%04X", i + 1, objects.get(i)));
        }
        out.append('\n');
    }

    private static String hex(long value) {
        return String.format(Locale.ROOT, "0x%08X", value);
    }

    private static void line(StringBuilder out, String... lines) {
        for (String line : lines) {
            out.append(line).append('\n');
        }
    }
}
