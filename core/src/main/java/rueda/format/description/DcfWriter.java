package rueda.format.description;

import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import rueda.drive.StartUp;
import rueda.format.Text;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Station.StartWrite;

/** The device configuration file of one CANopen station, CiA 306: its data sheet, every line of it, with the values it is given. */
public final class DcfWriter {

    private DcfWriter() {
    }

    /** Values by index·256 + sub-index, as they stand in the objects after start-up; identifiers contain the node id. */
    public static Map<Long, Long> values(Machine machine, Axis axis) {
        Map<Long, Long> values = new LinkedHashMap<>();
        for (StartWrite write : StartUp.all(machine.bus(), axis)) {
            if (write.enabled()) {
                values.put((long) write.object() << 8 | write.subIndex(), write.value() + (isIdentifier(write.object(), write.subIndex()) ? axis.station().address().number() : 0));
            }
        }
        return values;
    }

    /** The identifier of a PDO (CiA 301, communication parameters 1400h to 15FFh and 1800h to 19FFh). */
    static boolean isIdentifier(int object, int subIndex) {
        return subIndex == 1 && (object >= 0x1400 && object < 0x1600 || object >= 0x1800 && object < 0x1A00);
    }

    /** The name of the station, or that of the axis where it has none. */
    static String nodeName(Axis axis) {
        String own = axis.station().address().name();
        return own.isBlank() ? axis.name() : own;
    }

    /**
     * @param sheet EDS or DCF of the device, as it is stored; a value that a DCF gave to another node is taken out
     * @param date  such as 11-23-2026
     * @param time  such as 08:00AM
     */
    public static String write(Machine machine, Axis axis, byte[] sheet, String date, String time) {
        IniFile keys = IniFile.read(sheet);
        IniEditor out = new IniEditor(Text.decoded(sheet));
        out.removeEverywhere("ParameterValue");
        keys.sections().keySet().stream().filter(s -> s.matches("[0-9a-f]{4}value")).forEach(out::removeSections);
        out.set("FileInfo", "LastEDS", keys.text("fileinfo", "lasteds", keys.text("fileinfo", "filename", "")), "FileInfo");
        out.set("FileInfo", "FileName", axis.name() + ".dcf", "FileInfo");
        out.set("FileInfo", "ModificationTime", time, "FileInfo");
        out.set("FileInfo", "ModificationDate", date, "FileInfo");
        out.set("FileInfo", "ModifiedBy", "Rueda", "FileInfo");
        String commissioning = keys.has("devicecommissioning") ? "DeviceCommissioning" : "DeviceComissioning";
        out.set(commissioning, "NodeID", Integer.toString(axis.station().address().number()), "DeviceInfo");
        out.set(commissioning, "NodeName", nodeName(axis), "DeviceInfo");
        out.set(commissioning, "Baudrate", Integer.toString(machine.bus().kiloBits()), "DeviceInfo");
        Map<Integer, TreeMap<Integer, Long>> compact = new TreeMap<>();
        values(machine, axis).forEach((key, value) -> {
            int index = (int) (key >> 8);
            int sub = (int) (key & 0xFF);
            String object = String.format(Locale.ROOT, "%04X", index);
            if (keys.has(object.toLowerCase(Locale.ROOT) + String.format(Locale.ROOT, "sub%x", sub))) {
                out.set(object + String.format(Locale.ROOT, "sub%X", sub), "ParameterValue", value.toString(), object);
            } else if (sub > 0 && sub <= keys.whole(object.toLowerCase(Locale.ROOT), "compactsubobj", 0, 0, 254)) {
                compact.computeIfAbsent(index, k -> new TreeMap<>()).put(sub, value);
            } else if (sub == 0 && keys.has(object.toLowerCase(Locale.ROOT)) && keys.whole(object.toLowerCase(Locale.ROOT), "compactsubobj", 0, 0, 254) == 0) {
                out.set(object, "ParameterValue", value.toString(), object);
            }
        });
        compact.forEach((index, elements) -> {
            String object = String.format(Locale.ROOT, "%04X", index);
            out.set(object + "Value", "NrOfEntries", Integer.toString(elements.size()), object);
            elements.forEach((sub, value) -> out.set(object + "Value", Integer.toString(sub), value.toString(), object));
        });
        return out.text();
    }
}
