package rueda.format.eni;

import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import rueda.bus.BusFamily;
import rueda.bus.EtherCat;
import rueda.bus.ProcessDataLayout;
import rueda.bus.StationPlace;
import rueda.drive.CyclicItem;
import rueda.drive.StartUp;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Station.Entry;
import rueda.machine.Station.Identity;

/**
 * What an EtherCAT master is told.
 *
 * @param name        of the machine
 * @param cycleMicros bus cycle, µs
 * @param slaves      in the order of the line
 * @param variables   tags in the process image
 * @param frames      what is sent each cycle
 */
public record NetworkInformation(String name, int cycleMicros, List<Slave> slaves, List<Variable> variables, List<Frame> frames) {

    private static final int FIRST_ADDRESS = 1001;

    /**
     * One station.
     *
     * @param physicalAddress configured station address, 1001 the first
     * @param alias           station alias, 0 for none
     * @param identity        what it must answer
     * @param outputStart     first bit of its outputs in the logical image
     * @param outputBits      their length
     * @param inputStart      first bit of its inputs
     * @param inputBits       their length
     * @param pdos            what is exchanged
     * @param initCommands    what is written at start-up, in order
     * @param referenceClock  it gives the time
     * @param shiftNanos      shift of its SYNC0, ns
     */
    public record Slave(String name, int physicalAddress, int alias, Identity identity, int outputStart, int outputBits, int inputStart, int inputBits, List<Pdo> pdos, List<InitCommand> initCommands,
                        boolean referenceClock, long shiftNanos) {
    }

    /** One logical read-write command in a frame of its own. @param start first byte in the logical image  @param bytes length  @param workingCounter expected */
    public record Frame(int start, int bytes, int workingCounter) {
    }

    /** @param index 1600h … or 1A00h …  @param output PLC to drive */
    public record Pdo(int index, boolean output, List<PdoEntry> entries) {
    }

    /** @param index 0 for a filler */
    public record PdoEntry(int index, int subIndex, int bits, String name, String dataType) {
    }

    /** A write over the mailbox. @param transition such as PS  @param data bytes, least significant first */
    public record InitCommand(String transition, int index, int subIndex, String data, String comment) {
    }

    /** A tag. @param output PLC to drive  @param bitOffset in its image */
    public record Variable(String name, String dataType, int bits, int bitOffset, boolean output) {
    }

    /** The network of a machine on EtherCAT. */
    public static NetworkInformation of(Machine machine) {
        List<Slave> slaves = new ArrayList<>();
        List<Variable> variables = new ArrayList<>();
        String reference = machine.bus().clock().reference().isEmpty() ? machine.axes().stream().findFirst().map(Axis::name).orElse("") : machine.bus().clock().reference();
        List<StationPlace> places = StationPlace.of(machine);
        for (int i = 0; i < machine.axes().size(); i++) {
            Axis axis = machine.axes().get(i);
            StationPlace place = places.get(i);
            List<Pdo> pdos = new ArrayList<>(pdos(axis.station().outputs(), true));
            pdos.addAll(pdos(axis.station().inputs(), false));
            List<InitCommand> commands = StartUp.all(machine.bus(), axis).stream().filter(w -> w.enabled())
                    .map(w -> new InitCommand(w.transition().symbol(), w.object(), w.subIndex(), data(w.value(), w.bits()), w.comment())).toList();
            slaves.add(new Slave(axis.name(), FIRST_ADDRESS + i, axis.station().address().number(), axis.station().identity(), place.outputs() * 8, BusFamily.bytes(machine.bus(), axis.station().outputs()) * 8,
                    place.inputs() * 8, BusFamily.bytes(machine.bus(), axis.station().inputs()) * 8, pdos, commands, axis.name().equals(reference), machine.bus().clock().shiftMicros() * 1000L));
            variables(machine, axis.station().outputs(), true, place.outputs() * 8, variables);
            variables(machine, axis.station().inputs(), false, place.inputs() * 8, variables);
        }
        List<Frame> frames = EtherCat.datagrams(machine).stream().map(d -> new Frame(d.start(), d.bytes(), d.workingCounter())).toList();
        return new NetworkInformation(machine.name(), machine.bus().cycleMicros(), slaves, variables, frames);
    }

    private static void variables(Machine machine, List<Entry> entries, boolean output, int start, List<Variable> into) {
        ProcessDataLayout layout = BusFamily.layout(machine.bus(), entries);
        for (int i = 0; i < entries.size(); i++) {
            if (entries.get(i).hasTag()) {
                into.add(new Variable(entries.get(i).tag(), entries.get(i).tagType(), entries.get(i).bits(), start + layout.bitOffset(i), output));
            }
        }
    }

    private static List<Pdo> pdos(List<Entry> entries, boolean output) {
        TreeMap<Integer, List<PdoEntry>> pdos = new TreeMap<>();
        for (Entry e : entries) {
            CyclicItem item = CyclicItem.find(BusFamily.DriveProfile.CIA402, e.object(), e.subIndex());
            String name = e.fillsGap() ? "" : CyclicItem.title(BusFamily.DriveProfile.CIA402, e);
            pdos.computeIfAbsent(e.pdo(), k -> new ArrayList<>()).add(new PdoEntry(e.object(), e.subIndex(), e.bits(), name, item == null ? "" : item.dataType()));
        }
        return pdos.entrySet().stream().map(p -> new Pdo((output ? 0x1600 : 0x1A00) + p.getKey() - 1, output, List.copyOf(p.getValue()))).toList();
    }

    private static String data(long value, int bits) {
        StringBuilder hex = new StringBuilder();
        for (int i = 0; i < bits / 8; i++) {
            hex.append(String.format("%02x", value >> 8 * i & 0xFF));
        }
        return hex.toString();
    }
}
