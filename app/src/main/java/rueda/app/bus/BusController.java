package rueda.app.bus;

import io.swagger.v3.oas.annotations.Operation;
import java.nio.charset.StandardCharsets;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import rueda.advice.PlcComparison;
import rueda.app.machine.Checked;
import rueda.app.devices.DeviceLibrary;
import rueda.bus.BusFamily;
import rueda.bus.ClockDrift;
import rueda.bus.CycleTimes;
import rueda.bus.ProcessDataLayout;
import rueda.bus.StandardTelegram;
import rueda.bus.StationPlace;
import rueda.bus.WireOrder;
import rueda.drive.CyclicItem;
import rueda.drive.StartUp;
import rueda.drive.WordBits;
import rueda.format.Text;
import rueda.format.description.DcfWriter;
import rueda.format.description.NodeConfiguration;
import rueda.format.eni.EniFile;
import rueda.format.eni.NetworkInformation;
import rueda.format.tags.PlcOpenXml;
import rueda.format.tags.TagCsv;
import rueda.format.tags.TagDeclarationsReader;
import rueda.format.tags.TagDeclarationsWriter;
import rueda.machine.Axis;
import rueda.machine.Bus.Family;
import rueda.machine.Machine;
import rueda.machine.Plc;
import rueda.machine.Station.Entry;
import rueda.machine.Station.StartWrite;
import rueda.plc.BoundTags;
import rueda.plc.ProcessAddress;
import rueda.plc.TagRow;
import rueda.quantity.InvalidEntry;

/** What the bus decides, and the PLC's side of its data: stateless questions. */
@RestController
@RequestMapping("/api/calc/bus")
class BusController {

    private final DeviceLibrary library;

    BusController(DeviceLibrary library) {
        this.library = library;
    }

    /** A standard telegram, its entries without tags. */
    record TelegramView(int number, String words, List<Entry> outputs, List<Entry> inputs) {
    }

    /**
     * What a family decides.
     *
     * @param words        its name
     * @param profile      where control and status words get their meaning
     * @param byteOrder    of a value
     * @param nameWord     what the name of a station is called, empty when it has none
     * @param addressWord  what the number in an address is called, empty when it has none
     * @param mostMessages PDOs a direction
     * @param outputsFrom  first register written, or identifier of the first RPDO of node 0; 0 where there is none
     * @param inputsFrom   first register read, or identifier of the first TPDO of node 0
     * @param items        what the drive can exchange
     * @param telegrams    standard telegrams, empty without
     * @param controlBits  names of the bits of the control word
     * @param statusBits   names of the bits of the status word
     */
    record FamilyView(Family family, String words, String profile, String byteOrder, String addressWord, String nameWord, int lowestAddress, int highestAddress, boolean usesIp, String outputsWord, String inputsWord,
                      int mostMessages, int outputsFrom, int inputsFrom, List<CyclicItem> items, List<TelegramView> telegrams, List<String> controlBits, List<String> statusBits) {
    }

    @Operation(summary = "What each bus family decides")
    @GetMapping("/families")
    List<FamilyView> families() {
        return Arrays.stream(Family.values()).map(BusController::view).toList();
    }

    private static FamilyView view(Family family) {
        BusFamily rules = BusFamily.of(family);
        boolean telegrams = rules.profile() == BusFamily.DriveProfile.PROFIDRIVE;
        return new FamilyView(family, family.words(), rules.profile().words(), rules.order(new rueda.machine.Bus(1000)).words(), rules.addressWord(), rules.nameWord(), rules.lowestAddress(), rules.highestAddress(), rules.usesIp(),
                rules.directionWord(true), rules.directionWord(false), rules.mostMessages(), rules.firstOutput(), rules.firstInput(), CyclicItem.of(rules.profile()),
                telegrams ? Arrays.stream(StandardTelegram.values()).map(t -> new TelegramView(t.number(), t.words(), StandardTelegram.entries(t.outputs()), StandardTelegram.entries(t.inputs()))).toList() : List.of(),
                WordBits.control(rules.profile()), WordBits.status(rules.profile()));
    }

    record FamilyQuestion(Machine machine, Family family) {
    }

    @Operation(summary = "The machine on another bus, with the usual layouts of it; tags stay bound where their values still travel")
    @PostMapping("/family")
    Machine family(@RequestBody FamilyQuestion q) {
        if (q.family() == null) {
            throw new InvalidEntry("family", "missing", Arrays.toString(Family.values()), "choose a bus");
        }
        return BusFamily.moved(Checked.machine(q.machine()), q.family());
    }

    @Operation(summary = "Every frame of a cycle with its time on the wire")
    @PostMapping("/times")
    CycleTimes times(@RequestBody Machine machine) {
        return BusFamily.of(Checked.machine(machine).bus()).times(machine);
    }

    /** @param derived those that follow from the configuration  @param byHand of the station */
    record StartUpView(List<StartWrite> derived, List<StartWrite> byHand) {
    }

    record StationQuestion(Machine machine, int axis) {
    }

    @Operation(summary = "What is written to a station while it starts, in order")
    @PostMapping("/startup")
    StartUpView startUp(@RequestBody StationQuestion q) {
        Axis axis = Checked.axis(q.machine(), q.axis());
        return new StartUpView(StartUp.derived(q.machine().bus(), axis), axis.station().startWrites());
    }

    @Operation(summary = "Clocks of the stations from power-up, against the reference station")
    @PostMapping("/clocks")
    ClockDrift.Drift clocks(@RequestBody Machine machine) {
        return ClockDrift.run(Checked.machine(machine), 2);
    }

    @Operation(summary = "Network information for an EtherCAT master (ENI, ETG.2100)")
    @PostMapping("/eni")
    ExportAnswer eni(@RequestBody Machine machine) {
        if (Checked.machine(machine).bus().family() != Family.ETHERCAT) {
            throw new InvalidEntry("bus", machine.bus().family().words(), "EtherCAT", "ENI is of EtherCAT");
        }
        return new ExportAnswer("network.eni.xml", EniFile.write(NetworkInformation.of(machine, library.descriptions())));
    }

    @Operation(summary = "Configuration file of a CANopen station (DCF, CiA 306): its data sheet with the values it is given")
    @PostMapping("/dcf")
    ExportAnswer dcf(@RequestBody StationQuestion q) {
        Axis axis = Checked.axis(q.machine(), q.axis());
        if (q.machine().bus().family() != Family.CANOPEN) {
            throw new InvalidEntry("bus", q.machine().bus().family().words(), "CANopen", "DCF is of CANopen");
        }
        byte[] sheet = library.dataSheet(axis.station().identity()).orElseThrow(() -> new InvalidEntry("identity", axis.station().identity().device(), "a device with an EDS", "bring its EDS in under Devices"));
        LocalDateTime now = LocalDateTime.now();
        return new ExportAnswer(axis.name() + ".dcf", DcfWriter.write(q.machine(), axis, sheet, now.format(DateTimeFormatter.ofPattern("MM-dd-yyyy")), now.format(DateTimeFormatter.ofPattern("hh:mma", Locale.ROOT))));
    }

    /** @param configuration what a DCF says of its node */
    record ConfigurationQuestion(Machine machine, int axis, NodeConfiguration configuration) {
    }

    @Operation(summary = "The machine with the configuration of a DCF taken over for one axis, and what that changes")
    @PostMapping("/dcf/taken")
    NodeConfiguration.Taken taken(@RequestBody ConfigurationQuestion q) {
        Checked.axis(q.machine(), q.axis());
        return q.configuration().into(q.machine(), q.axis());
    }

    private static final Pattern BEGINNING = Pattern.compile("(?i)(TYPE|VAR(_GLOBAL|_INPUT|_OUTPUT)?)\\b");

    /** How a tag table is written. */
    enum TableFormat { CSV, XML, STRUCTURED_TEXT }

    /** @param csv headings and first lines to choose columns by, null for the other formats */
    record TagTablePreview(TableFormat format, TagCsv.Preview csv) {
    }

    record TagTableText(String text) {
    }

    @Operation(summary = "The text of a tag table in whatever encoding it was saved")
    @PostMapping(path = "/table/text", consumes = "application/octet-stream")
    TagTableText text(@RequestBody(required = false) byte[] file) {
        return new TagTableText(Text.decoded(file == null ? new byte[0] : file));
    }

    @Operation(summary = "Which format a tag table has, and the columns of a CSV")
    @PostMapping("/table")
    TagTablePreview table(@RequestBody TagTableText table) {
        TableFormat format = format(table.text());
        return new TagTablePreview(format, format == TableFormat.CSV ? TagCsv.preview(bytes(table.text())) : null);
    }

    private static TableFormat format(String text) {
        String head = code(text == null ? "" : text.replaceFirst("^\uFEFF", ""));
        return head.startsWith("<") ? TableFormat.XML : BEGINNING.matcher(head).lookingAt() ? TableFormat.STRUCTURED_TEXT : TableFormat.CSV;
    }

    /** The text from where it is neither blank nor comment; a comment that is not closed leaves nothing. */
    private static String code(String text) {
        int at = 0;
        while (at < text.length()) {
            int end = Character.isWhitespace(text.charAt(at)) ? at + 1 : text.startsWith("(*", at) ? behind(text, "*)", at + 2) : text.startsWith("//", at) ? behind(text, "\n", at) : at;
            if (end == at) {
                return text.substring(at, Math.min(text.length(), at + 40));
            }
            at = end;
        }
        return "";
    }

    private static int behind(String text, String end, int from) {
        int found = text.indexOf(end, from);
        return found < 0 ? text.length() : found + end.length();
    }

    private static byte[] bytes(String text) {
        return text == null ? new byte[0] : text.getBytes(StandardCharsets.UTF_8);
    }

    /**
     * @param text      the table
     * @param columns   of a CSV; suggested ones when left out
     * @param alignment bytes the PLC aligns members to: 1, 2, 4 or 8
     * @param counts    what the numbers of addresses count
     * @param order     how the PLC reads bytes; left out: as the bus has them
     * @param output    direction of rows that tell none and whose names are not bound
     */
    record ComparisonQuestion(Machine machine, int axis, String text, TagCsv.Columns columns, int alignment, ProcessAddress.Counts counts, WireOrder order, boolean output) {
    }

    @Operation(summary = "The process data of a station against the PLC's own tag table, both directions")
    @PostMapping("/comparison")
    List<PlcComparison.Compared> comparison(@RequestBody ComparisonQuestion q) {
        Machine machine = Checked.machine(q.machine());
        Axis axis = Checked.axis(machine, q.axis());
        if (q.alignment() != 1 && q.alignment() != 2 && q.alignment() != 4 && q.alignment() != 8) {
            throw new InvalidEntry("alignment", Integer.toString(q.alignment()), "1, 2, 4 or 8 bytes", "choose 1 for a packed PLC");
        }
        ProcessAddress.Counts counts = q.counts() == null ? ProcessAddress.Counts.BYTES : q.counts();
        List<TagRow> rows = ofAxis(axis, machine, switch (format(q.text())) {
            case CSV -> TagCsv.read(bytes(q.text()), q.columns() == null ? TagCsv.preview(bytes(q.text())).suggested() : q.columns(), counts);
            case XML -> PlcOpenXml.read(bytes(q.text()), q.alignment(), counts);
            case STRUCTURED_TEXT -> TagDeclarationsReader.read(bytes(q.text()), q.alignment(), counts);
        });
        boolean tellsDirections = rows.stream().anyMatch(r -> r.output() != null || bound(axis.station().outputs(), r) || bound(axis.station().inputs(), r));
        List<PlcComparison.Compared> compared = new ArrayList<>();
        for (boolean output : new boolean[] {true, false}) {
            List<TagRow> direction = rows.stream().filter(r -> output == writes(r, axis, q.output())).toList();
            if (!direction.isEmpty()) {
                compared.add(PlcComparison.of(machine, axis, "/axes/" + q.axis(), output, direction, q.order()));
            } else if (tellsDirections && (output ? axis.station().outputs() : axis.station().inputs()).stream().anyMatch(e -> !e.fillsGap())) {
                compared.add(PlcComparison.missing(machine, axis, "/axes/" + q.axis(), output));
            }
        }
        return compared;
    }

    /** Rows of one axis, when the table names axes. */
    private static List<TagRow> ofAxis(Axis axis, Machine machine, List<TagRow> rows) {
        boolean named = rows.stream().anyMatch(r -> begins(r, axis.name()));
        boolean others = rows.stream().anyMatch(r -> machine.axes().stream().anyMatch(a -> a != axis && begins(r, a.name())));
        if (!named && others) {
            throw new InvalidEntry("text", rows.size() + " tags", "tags of " + axis.name(), "choose the axis whose table this is");
        }
        return named ? rows.stream().filter(r -> begins(r, axis.name())).toList() : rows;
    }

    private static boolean begins(TagRow row, String axis) {
        return row.name().toLowerCase(Locale.ROOT).matches(java.util.regex.Pattern.quote(axis.toLowerCase(Locale.ROOT)) + "[._].*");
    }

    private static boolean writes(TagRow row, Axis axis, boolean otherwise) {
        if (row.output() != null) {
            return row.output();
        }
        return bound(axis.station().outputs(), row) || !bound(axis.station().inputs(), row) && otherwise;
    }

    private static boolean bound(List<Entry> entries, TagRow row) {
        String name = row.name().replace('.', '_');
        return entries.stream().anyMatch(e -> e.hasTag() && e.tag().replace('.', '_').equalsIgnoreCase(name));
    }

    /** @param text members as in a structure, such as Probe : ARRAY[1..2] OF DINT; or whole TYPE and VAR_GLOBAL blocks */
    record DeclarationText(String text) {
    }

    @Operation(summary = "Tags of declarations in Structured Text: structures and arrays become one tag a value")
    @PostMapping("/declared")
    List<Plc.DeclaredTag> declared(@RequestBody DeclarationText q) {
        String text = q.text() == null ? "" : q.text().strip();
        boolean whole = text.toUpperCase(Locale.ROOT).matches("(?s)(TYPE|VAR)\\b.*|VAR_\\w+.*");
        String block = whole ? text : "VAR_GLOBAL " + (text.endsWith(";") ? text : text + ";") + " END_VAR";
        return TagDeclarationsReader.read(bytes(block), 1, ProcessAddress.Counts.BYTES).stream().map(r -> new Plc.DeclaredTag(r.name(), r.type().name())).toList();
    }

    /** @param format how to write */
    record ExportQuestion(Machine machine, TableFormat format) {
    }

    record ExportAnswer(String name, String text) {
    }

    @Operation(summary = "All bound tags with their addresses, station after station, as CSV, XML of IEC 61131-10 or Structured Text")
    @PostMapping("/tags")
    ExportAnswer tags(@RequestBody ExportQuestion q) {
        Machine machine = Checked.machine(q.machine());
        List<TagRow> rows = new ArrayList<>();
        List<StationPlace> places = StationPlace.of(machine);
        for (int i = 0; i < places.size(); i++) {
            rows.addAll(tags(machine, machine.axes().get(i).station().outputs(), true, places.get(i).outputs()));
            rows.addAll(tags(machine, machine.axes().get(i).station().inputs(), false, places.get(i).inputs()));
        }
        Set<String> names = new HashSet<>();
        rows.stream().filter(row -> !names.add(row.name().toLowerCase(Locale.ROOT))).findFirst().ifPresent(twice -> {
            throw new InvalidEntry("machine", "tag " + twice.name() + " bound more than once", "each tag bound to one entry, capital letters or not", "bind the other entry to a tag of its own");
        });
        return switch (q.format() == null ? TableFormat.CSV : q.format()) {
            case CSV -> new ExportAnswer("tags.csv", TagCsv.write(rows));
            case XML -> new ExportAnswer("tags.xml", PlcOpenXml.write(machine.name(), LocalDateTime.now().truncatedTo(ChronoUnit.SECONDS).toString(), rows));
            case STRUCTURED_TEXT -> new ExportAnswer("tags.st", TagDeclarationsWriter.write(rows));
        };
    }

    private static List<TagRow> tags(Machine machine, List<Entry> entries, boolean output, int from) {
        ProcessDataLayout layout = BusFamily.layout(machine.bus(), entries);
        return BoundTags.of(entries, IntStream.range(0, entries.size()).map(layout::bitOffset).toArray(), output, from);
    }
}
