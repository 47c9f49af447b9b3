package rueda.advice;

import static rueda.advice.Numbers.count;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import rueda.bus.BusFamily;
import rueda.bus.ClockDrift;
import rueda.bus.description.DeviceDescription;
import rueda.bus.description.DeviceDescription.DescribedObject;
import rueda.bus.description.DeviceDescription.DescribedPdo;
import rueda.drive.StartUp;
import rueda.machine.Axis;
import rueda.machine.Bus.Family;
import rueda.machine.Bus.IpNetwork;
import rueda.machine.Machine;
import rueda.machine.Station;
import rueda.machine.Station.Address;
import rueda.machine.Station.Entry;
import rueda.machine.Station.StartWrite;

/** Whether a station can be found, is the device that is meant, and takes what is written to it. */
public final class ConnectAdvice {

    /** The clocks are watched so long from power-up, s. */
    private static final double CLOCK_SECONDS = 2;

    private final Machine machine;
    private final Axis axis;
    private final String pointer;
    private final BusFamily family;
    private final List<DeviceDescription> library;
    private final List<Finding> findings = new ArrayList<>();

    private ConnectAdvice(Machine machine, int number, List<DeviceDescription> library) {
        this.machine = machine;
        axis = machine.axes().get(number);
        pointer = "/axes/" + number + "/station";
        family = BusFamily.of(machine.bus());
        this.library = library.stream().filter(d -> d.family() == machine.bus().family()).toList();
    }

    /** @param number of the axis  @param library descriptions that are known */
    public static Advice of(Machine machine, int number, List<DeviceDescription> library) {
        return new ConnectAdvice(machine, number, library).advice();
    }

    private Advice advice() {
        Station station = axis.station();
        address(station.address());
        if (family.usesIp() || family.family() == Family.ETHERCAT) {
            network(station.address().ip());
        }
        if (family.family() == Family.ETHERCAT) {
            clock();
        }
        Optional<DeviceDescription> description = description(station);
        description.ifPresent(d -> {
            startWrites(d);
            layout(d, station.outputs(), true);
            layout(d, station.inputs(), false);
        });
        bus();
        if (findings.isEmpty()) {
            add(Finding.Severity.GOOD, "The PLC can find this station.", "Address, network and description agree.", null);
        }
        List<Figure> figures = new ArrayList<>();
        figures.add(new Figure("Stations", count(machine.axes().size()), "", "one an axis"));
        if (!family.addressWord().isEmpty()) {
            figures.add(new Figure(family.addressWord(), Integer.toString(station.address().number()), "", family.lowestAddress() + " to " + count(family.highestAddress())));
        }
        if (family.usesIp()) {
            figures.add(new Figure("IP address", station.address().ip().address(), "", "mask " + station.address().ip().mask()));
        }
        figures.add(new Figure("Vendor, product", String.format(Locale.ROOT, "%Xh, %Xh", station.identity().vendor(), station.identity().product()), "", "what the device must answer"));
        figures.add(new Figure("Revision", (station.identity().revision() >> 16) + "." + (station.identity().revision() & 0xFFFF), "", String.format(Locale.ROOT, "%08Xh: major and minor, 16 bits each", station.identity().revision())));
        figures.add(new Figure("Writes at start-up, by hand", count(station.startWrites().stream().filter(StartWrite::enabled).count()), "", "enabled ones; others are kept and not written"));
        return new Advice(figures, findings);
    }

    private void add(Finding.Severity severity, String title, String consequence, Finding.Mend mend) {
        findings.add(new Finding("connect", axis.name(), severity, title, consequence, mend));
    }

    private void address(Address address) {
        String word = family.addressWord();
        boolean needsNumber = !word.isEmpty() && family.family() != Family.MODBUS_TCP;
        if (!word.isEmpty() && (address.number() < family.lowestAddress() || address.number() > family.highestAddress())) {
            add(Finding.Severity.FAULT, word + " " + address.number() + " does not exist.", family.family().words() + " has " + family.lowestAddress() + " to " + count(family.highestAddress()) + ".",
                    Finding.Mend.set("Take " + free(), pointer + "/address/number", free()));
        } else if (needsNumber && others().anyMatch(a -> a.station().address().number() == address.number()) && !(family.family() == Family.ETHERCAT && address.number() == 0)) {
            add(Finding.Severity.FAULT, word + " " + address.number() + " is used twice.", "Both stations would answer, or neither.", Finding.Mend.set("Take " + free(), pointer + "/address/number", free()));
        }
        if (family.family() == Family.PROFINET) {
            String better = Station.nameOf(address.name().isBlank() ? axis.name() : address.name());
            if (!address.name().matches("[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?(\\.[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?)*")) {
                add(Finding.Severity.FAULT, "Station name " + (address.name().isEmpty() ? "is missing." : address.name() + " is not allowed."), "Lower-case letters, digits and hyphens, up to 63 in each part (IEC 61158-6-10).",
                        Finding.Mend.set("Make it " + better, pointer + "/address/name", better));
            } else if (others().anyMatch(a -> a.station().address().name().equals(address.name()))) {
                String own = Station.nameOf(axis.name()) + (others().anyMatch(a -> a.station().address().name().equals(Station.nameOf(axis.name()))) ? "-" + free() : "");
                add(Finding.Severity.FAULT, "Station name " + address.name() + " is used twice.", "PROFINET finds a station by its name.", Finding.Mend.set("Make it " + own, pointer + "/address/name", own));
            }
        }
    }

    private java.util.stream.Stream<Axis> others() {
        return machine.axes().stream().filter(a -> a != axis);
    }

    private int free() {
        int number = Math.max(1, family.lowestAddress());
        while (true) {
            int tried = number;
            if (machine.axes().stream().noneMatch(a -> a.station().address().number() == tried)) {
                return number;
            }
            number++;
        }
    }

    private void network(IpNetwork ip) {
        IpNetwork plc = machine.bus().plc();
        /* over EtherCAT it carries the mailbox only */
        Finding.Severity broken = family.usesIp() ? Finding.Severity.FAULT : Finding.Severity.WARNING;
        long mask = IpNetwork.number(ip.mask()).orElse(0);
        long host = IpNetwork.number(ip.address()).orElse(0) & ~mask & 0xFFFF_FFFFL;
        if (ip.address().equals(plc.address())) {
            add(broken, "The PLC has the address " + ip.address() + " too.", "Neither would be reached reliably.", freeIp());
        } else if (others().anyMatch(a -> a.station().address().ip().address().equals(ip.address()))) {
            add(broken, "IP address " + ip.address() + " is used twice.", "Neither would be reached reliably.", freeIp());
        } else if (host == 0 || host == (~mask & 0xFFFF_FFFFL)) {
            add(broken, ip.address() + (host == 0 ? " names the network itself." : " is the broadcast address."), "No station can have it with the mask " + ip.mask() + ".", freeIp());
        } else if (!ip.mask().equals(plc.mask())) {
            add(Finding.Severity.WARNING, "Its mask " + ip.mask() + " differs from the PLC's " + plc.mask() + ".", "Some addresses one side holds for near, the other for far.", Finding.Mend.set("Take the PLC's mask", pointer + "/address/ip/mask", plc.mask()));
        } else if (!ip.reaches(plc)) {
            add(broken, ip.address() + " is not in the PLC's network " + plc.address() + ".", "The PLC does not reach it" + (family.family() == Family.PROFINET ? "; PROFINET does not pass a router." : " without a gateway, and cyclic data not in time."), freeIp());
        }
        if (!ip.gateway().isBlank()) {
            IpNetwork gateway = new IpNetwork(ip.gateway(), ip.mask(), "");
            if (!ip.reaches(gateway)) {
                add(broken, "Gateway " + ip.gateway() + " is not in the station's own network.", "It could not be reached.", Finding.Mend.set("Take it out", pointer + "/address/ip/gateway", ""));
            } else if (!plc.gateway().isBlank() && !plc.gateway().equals(ip.gateway())) {
                add(Finding.Severity.WARNING, "Gateway " + ip.gateway() + " differs from the PLC's " + plc.gateway() + ".", "One network usually has one.", Finding.Mend.set("Take the PLC's gateway", pointer + "/address/ip/gateway", plc.gateway()));
            }
        }
    }

    /** The station acts in time: its clock stays with the reference. */
    private void clock() {
        int window = machine.bus().clock().windowNanos();
        ClockDrift.StationClock clock = ClockDrift.station(machine, machine.axes().indexOf(axis), CLOCK_SECONDS);
        if (window > 0 && clock.inTime() < 0) {
            int wide = (int) (Math.ceil(clock.settled() * 1.5 / 100) * 100);
            add(Finding.Severity.FAULT, "The clock of " + axis.name() + " leaves its window of " + count(window) + " ns.", "Its oscillator is off by " + Numbers.fixed(clock.ppm(), 1) + " ppm: between two corrections it runs away, by "
                    + Numbers.fixed(clock.settled(), 0) + " ns at the most. Widen the window, or shorten the bus cycle.", Finding.Mend.set("Widen it to " + count(wide) + " ns", "/bus/clock/windowNanos", wide));
        }
    }

    /** The lowest address after the PLC's that nobody has. */
    private Finding.Mend freeIp() {
        IpNetwork plc = machine.bus().plc();
        long candidate = IpNetwork.number(plc.address()).orElse(0) + 10;
        while (true) {
            String text = IpNetwork.dotted(candidate);
            if (machine.axes().stream().noneMatch(a -> a.station().address().ip().address().equals(text))) {
                return new Finding.Mend("Take " + text, List.of(new Finding.Change("replace", pointer + "/address/ip/address", text), new Finding.Change("replace", pointer + "/address/ip/mask", plc.mask())));
            }
            candidate++;
        }
    }

    /** The description of exactly this revision; of several the one of the planned name, as access points of one PROFINET device have theirs. */
    private Optional<DeviceDescription> description(Station station) {
        if (family.family() == Family.MODBUS_TCP) {
            return Optional.empty();
        }
        List<DeviceDescription> product = library.stream().filter(d -> d.sameProduct(station.identity())).toList();
        Optional<DeviceDescription> exact = product.stream().filter(d -> d.identity().revision() == station.identity().revision())
                .min(java.util.Comparator.comparing(d -> !d.identity().equals(station.identity())));
        if (product.isEmpty()) {
            add(Finding.Severity.WARNING, "No description of " + station.identity().device() + " is known.", "Bring its " + switch (family.family()) {
                case ETHERCAT -> "ESI";
                case CANOPEN -> "EDS";
                case PROFINET -> "GSDML";
                default -> "EDS";
            } + " file in under Devices; its rules cannot be checked without.", null);
        } else if (exact.isEmpty()) {
            DeviceDescription nearest = product.stream().min(java.util.Comparator.comparingLong(d -> Math.abs(d.identity().revision() - station.identity().revision()))).orElseThrow();
            String known = (nearest.identity().revision() >> 16) + "." + (nearest.identity().revision() & 0xFFFF);
            add(Finding.Severity.WARNING, "Revision " + (station.identity().revision() >> 16) + "." + (station.identity().revision() & 0xFFFF) + " differs from the description's " + known + ".",
                    "Objects may be missing or mean something else.", Finding.Mend.set("Plan revision " + known, pointer + "/identity/revision", nearest.identity().revision()));
        }
        return exact;
    }

    private void startWrites(DeviceDescription description) {
        if (description.objects().isEmpty() || family.profile() == BusFamily.DriveProfile.PROFIDRIVE || family.family() == Family.ETHERNET_IP) {
            return;
        }
        List<StartWrite> present = StartUp.all(machine.bus(), axis);
        List<StartWrite> asked = description.startWrites().stream().filter(w -> present.stream().noneMatch(p -> p.object() == w.object() && p.subIndex() == w.subIndex())).toList();
        if (!asked.isEmpty()) {
            add(Finding.Severity.WARNING, "The description asks for " + asked.size() + (asked.size() == 1 ? " write" : " writes") + " at start-up that " + (asked.size() == 1 ? "is" : "are") + " not planned.",
                    "First " + String.format(Locale.ROOT, "%04Xh:%02X", asked.get(0).object(), asked.get(0).subIndex()) + " = " + asked.get(0).value() + ": " + asked.get(0).comment() + ".",
                    new Finding.Mend("Add " + (asked.size() == 1 ? "it" : "them"), asked.stream().map(w -> new Finding.Change("add", pointer + "/startWrites/-", w)).toList()));
        }
        for (int i = 0; i < axis.station().startWrites().size(); i++) {
            StartWrite write = axis.station().startWrites().get(i);
            if (!write.enabled()) {
                continue;
            }
            String symbol = String.format(Locale.ROOT, "%04Xh:%02X", write.object(), write.subIndex());
            String at = pointer + "/startWrites/" + i;
            Finding.Mend off = Finding.Mend.set("Keep it, and do not write it", at + "/enabled", false);
            Optional<DescribedObject> object = description.object(write.object(), write.subIndex());
            if (object.isEmpty()) {
                add(Finding.Severity.FAULT, "The device has no object " + symbol + ".", "It refuses the write, and does not start.", off);
            } else if (!object.get().access().writable()) {
                add(Finding.Severity.FAULT, object.get().name() + " " + symbol + " cannot be written.", "The device refuses the write, and does not start.", off);
            } else if (object.get().bits() > 0 && object.get().bits() != write.bits()) {
                add(Finding.Severity.FAULT, object.get().name() + " has " + object.get().bits() + " bits, the write " + write.bits() + ".", "The device refuses the write, and does not start.", Finding.Mend.set("Make it " + object.get().bits() + " bits", at + "/bits", object.get().bits()));
            } else if (outside(write.value(), object.get())) {
                add(Finding.Severity.FAULT, object.get().name() + " " + write.value() + " is out of range.", "The device takes " + object.get().low() + " to " + object.get().high() + ".", off);
            }
        }
    }

    private static boolean outside(long value, DescribedObject object) {
        try {
            return !object.low().isBlank() && value < Long.decode(object.low()) || !object.high().isBlank() && value > Long.decode(object.high());
        } catch (NumberFormatException unknown) {
            return false;
        }
    }

    /** Rules of the device: fixed layouts, entries that cannot travel, mandatory messages. */
    private void layout(DeviceDescription description, List<Entry> entries, boolean output) {
        if (family.profile() != BusFamily.DriveProfile.CIA402) {
            return;
        }
        for (int i = 0; i < entries.size(); i++) {
            Entry entry = entries.get(i);
            Optional<DescribedObject> object = entry.fillsGap() ? Optional.empty() : description.object(entry.object(), entry.subIndex());
            if (!entry.fillsGap() && !description.objects().isEmpty() && (object.isEmpty() || !object.get().cyclic())) {
                add(Finding.Severity.FAULT, String.format(Locale.ROOT, "%04Xh:%02X", entry.object(), entry.subIndex()) + (object.isEmpty() ? " is not in" : " may not travel by") + " the description of revision " + (description.identity().revision() & 0xFFFF) + ".",
                        "The station would refuse this layout.", new Finding.Mend("Remove it", List.of(new Finding.Change("remove", pointer + (output ? "/outputs/" : "/inputs/") + i, null))));
            }
        }
        messages(description, entries, output);
        for (DescribedPdo pdo : description.pdos()) {
            if (pdo.output() == output && pdo.mandatory() && pdo.entries().stream().anyMatch(e -> e.index() != 0 && entries.stream().noneMatch(x -> x.object() == e.index() && x.subIndex() == e.subIndex()))) {
                add(Finding.Severity.FAULT, pdo.name() + " must travel.", "The device asks for it: add its entries in Map.", null);
            }
        }
    }

    /** Messages that exclude each other, or whose entries are fixed. */
    private void messages(DeviceDescription description, List<Entry> entries, boolean output) {
        int first = output ? 0x1600 : 0x1A00;
        List<Integer> used = entries.stream().map(e -> first + e.pdo() - 1).distinct().toList();
        for (DescribedPdo pdo : description.pdos()) {
            if (pdo.output() != output || !used.contains(pdo.number())) {
                continue;
            }
            pdo.excludes().stream().filter(used::contains).findFirst().ifPresent(other -> add(Finding.Severity.FAULT, String.format(Locale.ROOT, "%04Xh and %04Xh exclude each other.", pdo.number(), other),
                    "The description lets only one of them travel.", null));
            List<Entry> own = entries.stream().filter(e -> first + e.pdo() - 1 == pdo.number()).toList();
            boolean same = own.size() == pdo.entries().size() && java.util.stream.IntStream.range(0, own.size()).allMatch(i -> own.get(i).object() == pdo.entries().get(i).index()
                    && own.get(i).subIndex() == pdo.entries().get(i).subIndex() && own.get(i).bits() == pdo.entries().get(i).bits());
            if (pdo.fixed() && !same) {
                add(Finding.Severity.FAULT, "The entries of " + pdo.name() + " cannot be changed.", "The description says they are fixed; take this layout of the device in Map as it is.", null);
            }
        }
    }

    private void bus() {
        String refused = family.refusesCycle(machine.bus().cycleMicros());
        if (refused != null) {
            int usual = family.usualCycleMicros();
            List<Finding.Change> changes = new ArrayList<>(List.of(new Finding.Change("replace", "/bus/cycleMicros", usual)));
            changes.addAll(TaskIntervals.fitting(machine.plc(), usual));
            add(Finding.Severity.FAULT, family.family().words() + " has no cycle of " + count(machine.bus().cycleMicros()) + " µs.", "Allowed: " + refused + ".", new Finding.Mend("Make it " + count(usual) + " µs", changes));
        }
        String reference = machine.bus().clock().reference();
        if (family.family() == Family.ETHERCAT && !reference.isEmpty() && machine.axis(reference).isEmpty()) {
            add(Finding.Severity.FAULT, "The reference station " + reference + " does not exist.", "Nobody would give the time.", Finding.Mend.set("Take the first station", "/bus/clock/reference", ""));
        }
    }
}
