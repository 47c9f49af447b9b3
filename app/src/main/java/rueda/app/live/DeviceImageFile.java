package rueda.app.live;

import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.time.Instant;
import java.util.List;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVPrinter;
import org.apache.commons.csv.CSVRecord;
import rueda.app.devices.ImageStore.ImageView;
import rueda.app.machine.MachineJson;
import rueda.drive.ParameterGroup;
import rueda.format.SpreadsheetCells;
import rueda.format.Text;
import rueda.format.UnreadableFile;
import rueda.machine.Axis;
import rueda.machine.EntryFault;
import rueda.machine.Machine;
import rueda.machine.MachineRules;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.BooleanNode;
import tools.jackson.databind.node.DecimalNode;
import tools.jackson.databind.node.MissingNode;
import tools.jackson.databind.node.ObjectNode;
import tools.jackson.databind.node.StringNode;

/** A device image as a file: JSON that is read back, and CSV for other programs. */
final class DeviceImageFile {

    private static final List<String> HEADINGS = List.of("Group", "Parameter", "Value");
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
        String text = Text.decoded(file);
        Content content = text.stripLeading().startsWith("{") ? json(text) : fromCsv(text, machine);
        /* the guard is another device: who asks it is not looked at */
        Axis held = content.held().guard() == null ? content.held() : content.held().withGuard(content.held().guard().withAsks(List.of()));
        for (EntryFault fault : MachineRules.check(machine.withAxes(List.of(held)).withProofs(List.of()))) {
            throw new UnreadableFile("held" + fault.field().replaceFirst("^/axes/0", ""), fault.value(), fault.allowed(), fault.mend());
        }
        return content;
    }

    private static Content json(String text) {
        Content content;
        try {
            content = MachineJson.readHeld(text, Content.class, "/held");
        } catch (JacksonException broken) {
            String path = broken.getPathReference();
            throw new UnreadableFile(path == null || path.isBlank() ? "File" : path, broken.getOriginalMessage(), "a device image taken out as JSON", "choose another file");
        }
        if (content == null || !FORMAT.equals(content.format()) || content.held() == null || content.held().name() == null) {
            throw new UnreadableFile("format", content == null ? "nothing" : content.format(), FORMAT, "choose a device image taken out as JSON");
        }
        return content;
    }

    /** The device named in the first row, with every value that the table gives. */
    private static Content fromCsv(String text, Machine machine) {
        try (CSVParser rows = CSVFormat.RFC4180.builder().setHeader().setSkipHeaderRecord(true).setIgnoreEmptyLines(true).get().parse(new StringReader(text))) {
            if (!rows.getHeaderNames().equals(HEADINGS)) {
                throw new UnreadableFile("line 1", String.join(",", rows.getHeaderNames()), String.join(",", HEADINGS), "choose a device image taken out as CSV or JSON");
            }
            ObjectNode held = null;
            Axis named = null;
            for (CSVRecord row : rows) {
                String place = "line " + (row.getRecordNumber() + 1);
                if (row.size() != HEADINGS.size()) {
                    throw new UnreadableFile(place, row.size() + " columns", HEADINGS.size() + " columns", "the file may be cut off: take it out again");
                }
                if (held == null) {
                    named = row.get(1).equals("/name") ? machine.axis(SpreadsheetCells.read(row.get(2))).orElse(null) : null;
                    if (named == null) {
                        throw new UnreadableFile(place, row.get(1) + " " + row.get(2), "/name with the name of an axis of this machine", "correct the name of the axis");
                    }
                    held = (ObjectNode) MachineJson.tree(named).deepCopy();
                } else {
                    put(held, row.get(1), SpreadsheetCells.read(row.get(2)), place);
                }
            }
            if (held == null) {
                throw new UnreadableFile("File", "no row", "a row for each value", "choose another file");
            }
            return new Content(FORMAT, named.name() + " from CSV", named.name(), Instant.EPOCH, MachineJson.read(held.toString(), Axis.class));
        } catch (IOException | UncheckedIOException | IllegalArgumentException | IllegalStateException | JacksonException broken) {
            throw new UnreadableFile("File", String.valueOf(broken.getMessage()), "a device image taken out as CSV or JSON", "choose another file");
        }
    }

    private static void put(ObjectNode held, String pointer, String value, String place) {
        JsonNode now = pointer.startsWith("/") ? held.at(pointer) : MissingNode.getInstance();
        if (now.isMissingNode() || now.isContainer()) {
            throw new UnreadableFile(place, pointer, "a parameter of this device", "the image may be of another version of the axis");
        }
        JsonNode parent = held.at(pointer.substring(0, pointer.lastIndexOf('/')));
        String key = pointer.substring(pointer.lastIndexOf('/') + 1);
        JsonNode typed;
        if (now.isNumber()) {
            try {
                typed = DecimalNode.valueOf(new BigDecimal(value));
            } catch (NumberFormatException none) {
                throw new UnreadableFile(place + ", " + pointer, value, "a number", "correct it");
            }
        } else if (now.isBoolean()) {
            if (!value.equals("true") && !value.equals("false")) {
                throw new UnreadableFile(place + ", " + pointer, value, "true or false", "correct it");
            }
            typed = BooleanNode.valueOf(value.equals("true"));
        } else {
            typed = StringNode.valueOf(value);
        }
        if (parent instanceof ObjectNode object) {
            object.set(key, typed);
        } else if (parent instanceof ArrayNode array) {
            array.set(Integer.parseInt(key), typed);
        }
    }

    /** The device, then group, parameter and value of each. */
    static String csv(Axis held) {
        StringBuilder text = new StringBuilder();
        try (CSVPrinter out = new CSVPrinter(text, CSVFormat.RFC4180)) {
            out.printRecord(HEADINGS);
            out.printRecord("Device", "/name", SpreadsheetCells.written(held.name()));
            for (ParameterGroup group : ParameterGroup.values()) {
                for (DeviceValues.DeviceValue value : DeviceValues.of(group, held)) {
                    out.printRecord(group.words(), value.name(), SpreadsheetCells.written(value.project()));
                }
            }
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return text.toString();
    }
}
