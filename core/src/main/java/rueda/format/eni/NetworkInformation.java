package rueda.format.eni;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Stream;
import rueda.bus.BusFamily;
import rueda.bus.EtherCat;
import rueda.bus.EtherCatCommand;
import rueda.bus.EtherCatRegister;
import rueda.bus.ProcessDataLayout;
import rueda.bus.StationPlace;
import rueda.bus.description.DeviceDescription;
import rueda.bus.description.DeviceDescription.DescribedClock;
import rueda.bus.description.DeviceDescription.SyncManagerUse;
import rueda.drive.CyclicItem;
import rueda.drive.StartUp;
import rueda.machine.Axis;
import rueda.machine.Bus.Family;
import rueda.machine.Machine;
import rueda.machine.Station;
import rueda.machine.Station.Entry;
import rueda.machine.Station.Identity;
import rueda.machine.Station.StartWrite;

/**
 * What an EtherCAT master is told.
 *
 * @param name           of the machine
 * @param cycleMicros    bus cycle, µs
 * @param masterCommands orders to all stations before the first is started
 * @param slaves         in the order of the line
 * @param variables      tags in the process image
 * @param imageBytes     size of the process image of each direction, bytes
 * @param frames         what is sent each cycle
 */
public record NetworkInformation(String name, int cycleMicros, List<RegisterCommand> masterCommands, List<Slave> slaves, List<Variable> variables, int imageBytes, List<Frame> frames) {

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
     * @param syncManagers    areas of its memory that are shared
     * @param protocols       acyclic protocols of its mailbox, such as CoE
     * @param initCommands    what is written to its objects at start-up, in order
     * @param commands        what is written to its registers and read from them, for every change of state
     * @param previous        configured address of the station before it in the line, 0 for the first; it hangs at port B of that one
     * @param clock           how it is synchronised
     * @param ports           letters of its ports as its description tells them; two of copper where nothing is known
     */
    public record Slave(String name, int physicalAddress, int alias, Identity identity, int outputStart, int outputBits, int inputStart, int inputBits, List<Pdo> pdos, List<SyncManager> syncManagers,
                        List<String> protocols, List<InitCommand> initCommands, List<RegisterCommand> commands, int previous, Clock clock, String ports) {

        Optional<SyncManager> manager(SyncManagerUse use) {
            return syncManagers.stream().filter(m -> m.use() == use && m.enabled()).findFirst();
        }
    }

    /**
     * A sync manager as it is set up.
     *
     * @param number  0 to 15
     * @param start   first byte in the memory of the station
     * @param bytes   length
     * @param control control byte (ETG.1000.4)
     */
    public record SyncManager(int number, SyncManagerUse use, int start, int bytes, int control, boolean enabled) {
    }

    /**
     * Distributed clock of a station.
     *
     * @param reference      it gives the time
     * @param assignActivate what is activated, 0 for none
     * @param cycleNanos     cycle of SYNC0, ns
     * @param shiftNanos     SYNC0 after the cycle begins, ns
     */
    public record Clock(boolean reference, int assignActivate, int cycleNanos, long shiftNanos) {
    }

    /**
     * An order to registers.
     *
     * @param transitions    when, such as IP
     * @param address        position or configured address, 0 to 65 535; of a broadcast 0
     * @param register       0 to 65 535
     * @param data           bytes that are written, hexadecimal, least significant first; empty when it reads
     * @param bytes          how many are written or read
     * @param workingCounter expected, or {@link #NOT_COUNTED}
     * @param check          what must be read, null for anything
     */
    public record RegisterCommand(List<String> transitions, String comment, EtherCatCommand command, int address, int register, String data, int bytes, int workingCounter, Check check) {
        public static final int NOT_COUNTED = -1;
    }

    /** What an answer must be. @param data expected bytes  @param mask bits that count  @param timeoutMillis how long it is asked again, ms */
    public record Check(String data, String mask, int timeoutMillis) {
    }

    /** What travels together. */
    public record Frame(List<Datagram> datagrams) {
        /** Cyclic orders in logical addresses: process data. */
        Stream<Datagram> processData() {
            return datagrams.stream().filter(d -> d.command() == EtherCatCommand.LRW);
        }
    }

    /**
     * An order of a cyclic frame.
     *
     * @param states         in which the network is while it is sent
     * @param address        logical address, or configured address · 65 536 + register
     * @param bytes          length of its data
     * @param workingCounter expected
     * @param imageOffset    first byte in the process image, of both directions
     */
    public record Datagram(List<String> states, String comment, EtherCatCommand command, long address, int bytes, int workingCounter, int imageOffset) {
        /** Process data: first byte in the logical image. */
        public int start() {
            return (int) (address - EtherCat.LOGICAL_START);
        }
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

    /** The network of a machine on EtherCAT. @param library descriptions that are known; a station without one gets what most drives have */
    public static NetworkInformation of(Machine machine, List<DeviceDescription> library) {
        List<Slave> slaves = new ArrayList<>();
        List<Variable> variables = new ArrayList<>();
        List<StationPlace> places = StationPlace.of(machine);
        for (int i = 0; i < machine.axes().size(); i++) {
            Axis axis = machine.axes().get(i);
            slaves.add(slave(machine, axis, i, places.get(i), described(axis.station().identity(), library)));
            variables(machine, axis.station().outputs(), true, places.get(i).outputs() * 8, variables);
            variables(machine, axis.station().inputs(), false, places.get(i).inputs() * 8, variables);
        }
        List<Frame> frames = new ArrayList<>();
        int bytes = 0;
        for (EtherCat.Datagram d : EtherCat.datagrams(machine)) {
            frames.add(new Frame(List.of(new Datagram(List.of("SAFEOP", "OP"), "Process data", EtherCatCommand.LRW, (long) EtherCat.LOGICAL_START + d.start(), d.bytes(), d.workingCounter(), d.start()))));
            bytes = d.start() + d.bytes();
        }
        int timeAt = (bytes + 7) / 8 * 8;
        int statesAt = timeAt + EtherCatRegister.SYSTEM_TIME.bytes();
        long reference = EtherCat.referenceAddress(machine);
        frames.add(new Frame(List.of(
                new Datagram(List.of("PREOP", "SAFEOP", "OP"), "Time of the reference station, to all", EtherCatCommand.FRMW, reference << 16 | EtherCatRegister.SYSTEM_TIME.address(), EtherCatRegister.SYSTEM_TIME.bytes(), slaves.size(), timeAt),
                new Datagram(List.of("PREOP", "SAFEOP", "OP"), "States of all stations", EtherCatCommand.BRD, EtherCatRegister.STATE.address(), EtherCatRegister.STATE.bytes(), slaves.size(), statesAt))));
        return new NetworkInformation(machine.name(), machine.bus().cycleMicros(), StationCommands.toAll(slaves.size()), slaves, variables, statesAt + EtherCatRegister.STATE.bytes(), frames);
    }

    private static Slave slave(Machine machine, Axis axis, int position, StationPlace place, Optional<DeviceDescription> description) {
        Station station = axis.station();
        int address = EtherCat.FIRST_ADDRESS + position;
        int outputBytes = BusFamily.bytes(machine.bus(), station.outputs());
        int inputBytes = BusFamily.bytes(machine.bus(), station.inputs());
        List<Pdo> pdos = new ArrayList<>(pdos(station.outputs(), true));
        pdos.addAll(pdos(station.inputs(), false));
        List<InitCommand> writes = StartUp.all(machine.bus(), axis).stream().filter(StartWrite::enabled)
                .map(w -> new InitCommand(w.transition().symbol(), w.object(), w.subIndex(), StationCommands.little(w.value(), w.bits() / 8), w.comment())).toList();
        List<SyncManager> managers = StationCommands.managers(description.map(DeviceDescription::syncManagers).orElse(List.of()), outputBytes, inputBytes);
        Clock clock = new Clock(address == EtherCat.referenceAddress(machine), assignActivate(description), machine.bus().cycleMicros() * 1000, machine.bus().clock().shiftMicros() * 1000L);
        return new Slave(axis.name(), address, station.address().number(), station.identity(), place.outputs() * 8, outputBytes * 8, place.inputs() * 8, inputBytes * 8, pdos, managers,
                description.map(DeviceDescription::mailbox).orElse(List.of("CoE")), writes,
                StationCommands.of(address, position, station.identity(), managers, place.outputs() * 8, outputBytes * 8, place.inputs() * 8, inputBytes * 8, clock), position == 0 ? 0 : address - 1, clock,
                description.map(DeviceDescription::ports).filter(p -> !p.isBlank()).orElse("YY"));
    }

    /** The description of this revision, or else of the nearest one. */
    private static Optional<DeviceDescription> described(Identity identity, List<DeviceDescription> library) {
        return library.stream().filter(d -> d.family() == Family.ETHERCAT && d.sameProduct(identity)).min(Comparator.comparingLong(d -> Math.abs(d.identity().revision() - identity.revision())));
    }

    /** The first way to synchronise that uses clocks; SYNC0 where nothing is known (common practice, no source). */
    private static int assignActivate(Optional<DeviceDescription> description) {
        if (description.isEmpty()) {
            return 0x0300;
        }
        return description.get().clocks().stream().mapToInt(DescribedClock::assignActivate).filter(a -> a != 0).findFirst().orElse(0);
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
}
