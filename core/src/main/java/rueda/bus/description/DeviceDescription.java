package rueda.bus.description;

import java.util.List;
import java.util.Optional;
import rueda.machine.Bus.Family;
import rueda.machine.Station.Identity;
import rueda.machine.Station.StartWrite;

/**
 * One device in one revision.
 *
 * @param family    bus it is for
 * @param format    file format it came from, such as "ESI"
 * @param name      product name
 * @param vendor    name of the vendor
 * @param identity  numbers it answers with
 * @param objects   object dictionary or parameters
 * @param pdos      messages it offers: PDOs, telegrams, assemblies
 * @param clocks    ways to synchronise
 * @param mailbox   acyclic protocols
 * @param terminals where told
 * @param syncManagers areas of memory it shares with an EtherCAT master, in order of their number; none when not told
 * @param startWrites what a master is asked to write while the device starts, in order
 * @param ports     letters of its EtherCAT ports in the order 0 to 3 as ETG.2000 has them (attribute Physics, from memory): Y copper, H fibre, K internal,
 *                  a blank for none; empty when not told
 */
public record DeviceDescription(Family family, String format, String name, String vendor, Identity identity, List<DescribedObject> objects,
                                List<DescribedPdo> pdos, List<DescribedClock> clocks, List<String> mailbox, List<String> terminals, List<DescribedSyncManager> syncManagers, List<StartWrite> startWrites, String ports) {

    public DeviceDescription {
        objects = List.copyOf(objects);
        pdos = List.copyOf(pdos);
        clocks = List.copyOf(clocks);
        mailbox = List.copyOf(mailbox);
        terminals = List.copyOf(terminals);
        syncManagers = List.copyOf(syncManagers);
        startWrites = List.copyOf(startWrites);
    }

    /** Without areas shared with a master and without start-up writes: a device of another family than EtherCAT. */
    public DeviceDescription(Family family, String format, String name, String vendor, Identity identity, List<DescribedObject> objects, List<DescribedPdo> pdos, List<DescribedClock> clocks,
                             List<String> mailbox, List<String> terminals) {
        this(family, format, name, vendor, identity, objects, pdos, clocks, mailbox, terminals, List.of(), List.of(), "");
    }

    /** Who may read and write an object. */
    public enum Access {
        READ("ro"), WRITE("wo"), READ_WRITE("rw"), CONSTANT("const");

        private final String symbol;

        Access(String symbol) {
            this.symbol = symbol;
        }

        public String symbol() {
            return symbol;
        }

        public boolean writable() {
            return this == WRITE || this == READ_WRITE;
        }
    }

    /**
     * One object or parameter.
     *
     * @param index    index of the dictionary, or number of the parameter
     * @param subIndex 0 to 255
     * @param name     name in words
     * @param dataType such as UDINT, of IEC 61131-3 where there is one
     * @param bits     width, 0 when not told
     * @param access   who may read and write
     * @param low      lowest value as it stands in the file, empty when not told
     * @param high     highest value
     * @param preset   default value
     * @param cyclic   may travel cyclically
     * @param choices  values that have a name, in the order of the file; none for a plain number
     */
    public record DescribedObject(int index, int subIndex, String name, String dataType, int bits, Access access, String low, String high, String preset, boolean cyclic, List<DescribedChoice> choices) {
        public DescribedObject {
            choices = List.copyOf(choices);
        }

        /** A plain number. */
        public DescribedObject(int index, int subIndex, String name, String dataType, int bits, Access access, String low, String high, String preset, boolean cyclic) {
            this(index, subIndex, name, dataType, bits, access, low, high, preset, cyclic, List.of());
        }
    }

    /** A value of an enumeration. */
    public record DescribedChoice(long value, String name) {
    }

    /**
     * A message the device offers.
     *
     * @param number    index of the PDO (1600h …), of the telegram or the assembly
     * @param name      name in words
     * @param output    PLC to device
     * @param fixed     its entries cannot be changed
     * @param mandatory it always travels
     * @param chosen    it travels unless something else is chosen
     * @param excludes  messages that cannot travel with it
     * @param entries   in the order of the bytes
     */
    public record DescribedPdo(int number, String name, boolean output, boolean fixed, boolean mandatory, boolean chosen, List<Integer> excludes, List<DescribedEntry> entries) {
        public DescribedPdo {
            excludes = List.copyOf(excludes);
            entries = List.copyOf(entries);
        }

        public int bits() {
            return entries.stream().mapToInt(DescribedEntry::bits).sum();
        }
    }

    /** @param index 0 for a filler  @param bits 1 to 2048  @param fixed cannot be taken out */
    public record DescribedEntry(int index, int subIndex, int bits, String name, String dataType, boolean fixed) {
    }

    /** A way to synchronise. @param assignActivate register value of EtherCAT, 0 when not told */
    public record DescribedClock(String name, String words, int assignActivate) {
    }

    /** What travels through an area shared with a master: ETG.2000, element Sm (from memory). */
    public enum SyncManagerUse {
        MAILBOX_OUT, MAILBOX_IN, OUTPUTS, INPUTS
    }

    /**
     * An area of memory shared with an EtherCAT master (ETG.1000.4, sync manager).
     *
     * @param number  0 to 15
     * @param use     what travels through it
     * @param start   first byte in the memory of the device, 0 to 65 535
     * @param length  bytes, 0 when they follow from the process data
     * @param control control byte: mode, direction, interrupts, watchdog
     * @param enabled it is in use
     */
    public record DescribedSyncManager(int number, SyncManagerUse use, int start, int length, int control, boolean enabled) {
    }

    public Optional<DescribedObject> object(int index, int subIndex) {
        return objects.stream().filter(o -> o.index() == index && o.subIndex() == subIndex).findFirst();
    }

    /** The same product, in any revision. */
    public boolean sameProduct(Identity other) {
        return identity.vendor() == other.vendor() && identity.product() == other.product();
    }
}
