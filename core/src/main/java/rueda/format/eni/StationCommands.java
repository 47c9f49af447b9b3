package rueda.format.eni;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HexFormat;
import java.util.List;
import rueda.bus.EtherCat;
import rueda.bus.EtherCatCommand;
import rueda.bus.EtherCatRegister;
import rueda.bus.description.DeviceDescription.DescribedSyncManager;
import rueda.bus.description.DeviceDescription.SyncManagerUse;
import rueda.format.eni.NetworkInformation.Check;
import rueda.format.eni.NetworkInformation.Clock;
import rueda.format.eni.NetworkInformation.RegisterCommand;
import rueda.format.eni.NetworkInformation.SyncManager;
import rueda.machine.Station.Identity;

/**
 * The orders by which a master leads stations from one state to the next (ETG.1000.6, EtherCAT state machine; ETG.1000.4, registers;
 * both from memory): who is there and where, the mailbox, process data and their place in the logical image, clocks, the state itself.
 *
 * <p>Transitions are written with the first letters of both states: I init, P pre-operational, S safe-operational, O operational.
 */
final class StationCommands {

    private static final int PREOP_MILLIS = 3_000;
    private static final int OP_MILLIS = 10_000;
    private static final int BACK_TO_INIT_MILLIS = 5_000;
    private static final int BACK_TO_SAFEOP_MILLIS = 200;
    private static final int MEMORY_MILLIS = 100;
    /** Words of the identity memory (ETG.1000.6, slave information interface). */
    private static final int VENDOR_WORD = 0x0008;
    private static final int PRODUCT_WORD = 0x000A;
    private static final int MEMORY_READ = 0x0100;
    private static final int INIT = 1;
    private static final int PREOP = 2;
    private static final int SAFEOP = 4;
    private static final int OP = 8;
    private static final int ACKNOWLEDGE = 0x10;
    /** Mapping types: the master reads, the master writes. */
    private static final int READ_MAPPING = 1;
    private static final int WRITE_MAPPING = 2;

    private final List<RegisterCommand> commands = new ArrayList<>();
    private final int address;

    private StationCommands(int address) {
        this.address = address;
    }

    /** What is said to all stations at once before the first is started. @param stations how many must answer */
    static List<RegisterCommand> toAll(int stations) {
        List<RegisterCommand> all = new ArrayList<>();
        List<String> start = List.of("IP");
        all.add(new RegisterCommand(start, "Number of stations", EtherCatCommand.BRD, 0, EtherCatRegister.STATE.address(), "", EtherCatRegister.STATE.bytes(), stations, null));
        all.add(broadcast("Interrupts of the master off", EtherCatRegister.INTERRUPT_MASK, "0400"));
        all.add(broadcast("Counters of receive errors to zero", EtherCatRegister.RECEIVE_ERRORS, zeros(EtherCatRegister.RECEIVE_ERRORS.bytes())));
        all.add(broadcast("No mapping", EtherCatRegister.MAPPINGS, zeros(16 * EtherCatRegister.MAPPINGS.bytes())));
        all.add(broadcast("No sync manager", EtherCatRegister.SYNC_MANAGERS, zeros(16 * EtherCatRegister.SYNC_MANAGERS.bytes())));
        all.add(broadcast("SYNC signals off", EtherCatRegister.SYNC_ACTIVATION, zeros(2)));
        all.add(broadcast("Clocks to zero", EtherCatRegister.SYSTEM_TIME, zeros(EtherCatRegister.SYSTEM_TIME.bytes())));
        all.add(broadcast("Clock offsets to zero", EtherCatRegister.TIME_OFFSET, zeros(EtherCatRegister.TIME_OFFSET.bytes())));
        all.add(broadcast("Clock speed, start", EtherCatRegister.SPEED_START, little(0x1000, 2)));
        all.add(broadcast("Clock speed, depth of the filter", EtherCatRegister.FILTER_DEPTH, little(0x0C00, 2)));
        all.add(broadcast("Identity memory to the master, by force", EtherCatRegister.MEMORY_OWNER, "02"));
        all.add(broadcast("Identity memory to the master", EtherCatRegister.MEMORY_OWNER, "00"));
        all.add(broadcast("State init, errors acknowledged", EtherCatRegister.STATE_ASKED, little(INIT | ACKNOWLEDGE, 2)));
        return all;
    }

    private static RegisterCommand broadcast(String comment, EtherCatRegister register, String data) {
        return new RegisterCommand(List.of("IP"), comment, EtherCatCommand.BWR, 0, register.address(), data, data.length() / 2, RegisterCommand.NOT_COUNTED, null);
    }

    /**
     * All orders to one station, in the order in which they are given.
     *
     * @param position 0 for the first in the line
     * @param outputStart first bit in the logical image, likewise of inputs
     */
    static List<RegisterCommand> of(int address, int position, Identity identity, List<SyncManager> managers, int outputStart, int outputBits, int inputStart, int inputBits, Clock clock) {
        StationCommands station = new StationCommands(address);
        station.commands.add(new RegisterCommand(List.of("IP"), "Station address", EtherCatCommand.APWR, -position & 0xFFFF, EtherCatRegister.STATION_ADDRESS.address(), little(address, 2), 2, 1, null));
        station.identity("Vendor", VENDOR_WORD, identity.vendor());
        station.identity("Product", PRODUCT_WORD, identity.product());
        station.write("Identity memory to the station", EtherCatRegister.MEMORY_OWNER, 0, "01", "IP");
        station.ask("State init", INIT | ACKNOWLEDGE, BACK_TO_INIT_MILLIS, "II", "PI", "SI", "OI");
        managers.stream().filter(m -> m.use() == SyncManagerUse.MAILBOX_OUT || m.use() == SyncManagerUse.MAILBOX_IN).forEach(m -> station.manager(m, "IP"));
        station.ask("State pre-operational", PREOP, PREOP_MILLIS, "IP");
        station.ask("State pre-operational", PREOP, BACK_TO_INIT_MILLIS, "SP", "OP");
        List<SyncManager> process = managers.stream().filter(m -> m.use() == SyncManagerUse.OUTPUTS || m.use() == SyncManagerUse.INPUTS).toList();
        if (clock.assignActivate() != 0) {
            station.write("Cycle of SYNC0, ns", EtherCatRegister.SYNC_CYCLES, 0, little(clock.cycleNanos(), 4) + zeros(4), "PS");
            station.write("SYNC signals on, once the master has set their first time (0990h)", EtherCatRegister.SYNC_ACTIVATION, 0, little(clock.assignActivate(), 2), "PS");
        }
        int mapping = 0;
        for (SyncManager manager : process) {
            boolean output = manager.use() == SyncManagerUse.OUTPUTS;
            int bits = output ? outputBits : inputBits;
            if (manager.bytes() > 0) {
                station.manager(manager, "PS");
                station.mapping(mapping++, manager, output ? outputStart : inputStart, bits, output);
            }
        }
        station.ask("State safe-operational", SAFEOP, OP_MILLIS, "PS");
        station.ask("State safe-operational", SAFEOP, BACK_TO_SAFEOP_MILLIS, "OS");
        if (clock.assignActivate() != 0) {
            station.write("SYNC signals off", EtherCatRegister.SYNC_ACTIVATION, 0, zeros(2), "SP", "OP", "SI", "OI");
        }
        for (int i = 0; i < mapping; i++) {
            station.write("Mapping " + i + " off", EtherCatRegister.MAPPINGS, i, zeros(EtherCatRegister.MAPPINGS.bytes()), "SP", "OP", "SI", "OI");
        }
        process.forEach(m -> station.write("Sync manager " + m.number() + " off", EtherCatRegister.SYNC_MANAGERS, m.number(), zeros(EtherCatRegister.SYNC_MANAGERS.bytes()), "SP", "OP", "SI", "OI"));
        station.ask("State operational", OP, OP_MILLIS, "SO");
        return station.commands;
    }

    private void identity(String name, int word, long expected) {
        write(name + ", order to the identity memory", EtherCatRegister.MEMORY_ORDER, 0, little(MEMORY_READ, 2) + little(word, 4), "IP");
        read(name + ", the identity memory has read", EtherCatRegister.MEMORY_ORDER.address(), 2, new Check("0000", "0080", MEMORY_MILLIS), "IP");
        read(name, EtherCatRegister.MEMORY_DATA.address(), EtherCatRegister.MEMORY_DATA.bytes(), new Check(little(expected, 4), "ffffffff", 0), "IP");
    }

    private void ask(String comment, int state, int millis, String... transitions) {
        write(comment, EtherCatRegister.STATE_ASKED, 0, little(state, 2), transitions);
        read(comment + " reached", EtherCatRegister.STATE.address(), EtherCatRegister.STATE.bytes(), new Check(little(state & 0x0F, 2), "1f00", millis), transitions);
    }

    /** Start 2, length 2, control 1, status 1, activation 1, control by the device 1 (ETG.1000.4). */
    private void manager(SyncManager m, String transition) {
        write("Sync manager " + m.number(), EtherCatRegister.SYNC_MANAGERS, m.number(), little(m.start(), 2) + little(m.bytes(), 2) + little(m.control(), 1) + "00" + (m.enabled() ? "01" : "00") + "00", transition);
    }

    /** Logical start 4, length 2, first bit, last bit, physical start 2, its first bit, type, active, reserved 3 (ETG.1000.4). */
    private void mapping(int number, SyncManager manager, int startBit, int bits, boolean output) {
        write("Mapping " + number + ", " + (output ? "outputs" : "inputs"), EtherCatRegister.MAPPINGS, number,
                little(EtherCat.LOGICAL_START + startBit / 8, 4) + little(bits / 8, 2) + "0007" + little(manager.start(), 2) + "00" + little(output ? WRITE_MAPPING : READ_MAPPING, 1) + "01" + zeros(3), "PS");
    }

    private void write(String comment, EtherCatRegister register, int which, String data, String... transitions) {
        commands.add(new RegisterCommand(List.of(transitions), comment, EtherCatCommand.FPWR, address, register.address() + which * register.bytes(), data, data.length() / 2, 1, null));
    }

    private void read(String comment, int register, int bytes, Check check, String... transitions) {
        commands.add(new RegisterCommand(List.of(transitions), comment, EtherCatCommand.FPRD, address, register, "", bytes, 1, check));
    }

    private static String zeros(int bytes) {
        return "00".repeat(bytes);
    }

    /** Bytes in hexadecimal, least significant first. */
    static String little(long value, int bytes) {
        byte[] out = new byte[bytes];
        for (int i = 0; i < bytes; i++) {
            out[i] = (byte) (value >> 8 * i);
        }
        return HexFormat.of().formatHex(out);
    }

    /** The sync managers of a station: those of its description; without one, where most drives have them (common practice, no source). */
    static List<SyncManager> managers(List<DescribedSyncManager> described, int outputBytes, int inputBytes) {
        List<SyncManager> managers = new ArrayList<>();
        if (described.isEmpty()) {
            /* three buffers behind each other (ETG.1000.4, buffered mode) */
            int inputs = Math.max(0x1400, (0x1100 + 3 * outputBytes + 0xFF) / 0x100 * 0x100);
            managers.add(new SyncManager(0, SyncManagerUse.MAILBOX_OUT, 0x1000, 128, 0x26, true));
            managers.add(new SyncManager(1, SyncManagerUse.MAILBOX_IN, 0x1080, 128, 0x22, true));
            managers.add(new SyncManager(2, SyncManagerUse.OUTPUTS, 0x1100, outputBytes, 0x64, outputBytes > 0));
            managers.add(new SyncManager(3, SyncManagerUse.INPUTS, inputs, inputBytes, 0x20, inputBytes > 0));
        }
        EnumSet<SyncManagerUse> taken = EnumSet.noneOf(SyncManagerUse.class);
        for (DescribedSyncManager m : described) {
            boolean process = m.use() == SyncManagerUse.OUTPUTS || m.use() == SyncManagerUse.INPUTS;
            /* all process data of a direction travels through the first that is for it */
            int bytes = !process ? m.length() : !taken.add(m.use()) ? 0 : m.use() == SyncManagerUse.OUTPUTS ? outputBytes : inputBytes;
            managers.add(new SyncManager(m.number(), m.use(), m.start(), bytes, m.control(), process ? bytes > 0 : m.enabled()));
        }
        return managers;
    }
}
