package rueda.app.bus;

import io.swagger.v3.oas.annotations.Operation;
import java.time.Clock;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import rueda.advice.PlcComparison;
import rueda.advice.TableComparison;
import rueda.app.machine.Checked;
import rueda.app.devices.DeviceLibrary;
import rueda.bus.BusFamily;
import rueda.bus.ClockDrift;
import rueda.bus.CycleTimes;
import rueda.bus.StandardTelegram;
import rueda.bus.WireOrder;
import rueda.drive.CyclicItem;
import rueda.drive.StartUp;
import rueda.drive.WordBits;
import rueda.format.Text;
import rueda.format.description.DcfWriter;
import rueda.format.description.NodeConfiguration;
import rueda.format.eni.EniFile;
import rueda.format.eni.NetworkInformation;
import rueda.format.tags.TagCsv;
import rueda.format.tags.TagTable;
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
    private final Clock clock;

    BusController(DeviceLibrary library, Clock clock) {
        this.library = library;
        this.clock = clock;
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
        LocalDateTime now = LocalDateTime.now(clock);
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

    /** @param csv headings and first lines to choose columns by, null for the other formats */
    record TagTablePreview(TagTable.Format format, TagCsv.Preview csv) {
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
        TagTable.Format format = TagTable.format(table.text());
        return new TagTablePreview(format, format == TagTable.Format.CSV ? TagTable.preview(table.text()) : null);
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
        Checked.axis(machine, q.axis());
        if (q.alignment() != 1 && q.alignment() != 2 && q.alignment() != 4 && q.alignment() != 8) {
            throw new InvalidEntry("alignment", Integer.toString(q.alignment()), "1, 2, 4 or 8 bytes", "choose 1 for a packed PLC");
        }
        List<TagRow> rows = TagTable.read(q.text(), q.columns(), q.alignment(), q.counts() == null ? ProcessAddress.Counts.BYTES : q.counts());
        return TableComparison.of(machine, q.axis(), rows, q.order(), q.output());
    }

    /** @param text members as in a structure, such as Probe : ARRAY[1..2] OF DINT; or whole TYPE and VAR_GLOBAL blocks */
    record DeclarationText(String text) {
    }

    @Operation(summary = "Tags of declarations in Structured Text: structures and arrays become one tag a value")
    @PostMapping("/declared")
    List<Plc.DeclaredTag> declared(@RequestBody DeclarationText q) {
        return TagTable.declared(q.text());
    }

    /** @param format how to write */
    record ExportQuestion(Machine machine, TagTable.Format format) {
    }

    record ExportAnswer(String name, String text) {
    }

    @Operation(summary = "All bound tags with their addresses, station after station, as CSV, XML of IEC 61131-10 or Structured Text")
    @PostMapping("/tags")
    ExportAnswer tags(@RequestBody ExportQuestion q) {
        Machine machine = Checked.machine(q.machine());
        TagTable.Format format = q.format() == null ? TagTable.Format.CSV : q.format();
        return new ExportAnswer(TagTable.fileName(format), TagTable.write(format, BoundTags.of(machine), machine.name(), LocalDateTime.now(clock)));
    }
}
