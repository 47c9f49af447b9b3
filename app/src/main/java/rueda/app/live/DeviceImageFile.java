package rueda.app.live;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Instant;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import rueda.app.devices.ImageStore.ImageView;
import rueda.app.machine.MachineJson;
import rueda.drive.ParameterGroup;
import rueda.format.Text;
import rueda.format.UnreadableFile;
import rueda.machine.Axis;
import rueda.machine.EntryFault;
import rueda.machine.Machine;
import rueda.machine.MachineRules;
import tools.jackson.core.JacksonException;

/** A device image as a file: JSON that is read back, and CSV for other programs. */
final class DeviceImageFile {

    static final String FORMAT = "rueda-device-image-1";

    private DeviceImageFile() {
    }

    /** @param format always {@link #FORMAT}  @param takenAt ISO 8601  @param held all parameters, shaped like an axis of the machine file */
    record Content(String format, String name, String axis, Instant takenAt, Axis held) {
    }

    static Content of(ImageView view, Axis held) {
        return new Content(FORMAT, view.name(), view.axis(), view.takenAt(), held);
    }

    /** @throws UnreadableFile when it is no image, or holds values that no device takes */
    static Content read(byte[] file, Machine machine) {
        Content content;
        try {
            content = MachineJson.read(Text.decoded(file), Content.class);
        } catch (JacksonException broken) {
            String path = broken.getPathReference();
            throw new UnreadableFile(path == null || path.isBlank() ? "File" : path, broken.getOriginalMessage(), "a device image taken out as JSON", "choose another file");
        }
        if (content == null || !FORMAT.equals(content.format()) || content.held() == null || content.held().name() == null) {
            throw new UnreadableFile("format", content == null ? "nothing" : content.format(), FORMAT, "choose a device image taken out as JSON");
        }
        for (EntryFault fault : MachineRules.check(new Machine(machine.name(), machine.bus(), machine.plc(), java.util.List.of(content.held()), new rueda.machine.Proof("image", 1, java.util.List.of())))) {
            throw new UnreadableFile("held" + fault.field().replaceFirst("^/axes/0", ""), fault.value(), fault.allowed(), fault.mend());
        }
        return content;
    }

    /** Group, parameter, value. */
    static String csv(Axis held) {
        StringBuilder text = new StringBuilder();
        try (CSVPrinter out = new CSVPrinter(text, CSVFormat.RFC4180)) {
            out.printRecord("Group", "Parameter", "Value");
            for (ParameterGroup group : ParameterGroup.values()) {
                for (DeviceValues.DeviceValue value : DeviceValues.of(group, held)) {
                    out.printRecord(group.words(), value.name(), value.project());
                }
            }
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return text.toString();
    }
}
