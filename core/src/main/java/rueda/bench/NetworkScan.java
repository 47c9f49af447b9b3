package rueda.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import rueda.bus.BusFamily;
import rueda.machine.Axis;
import rueda.machine.Bus.IpNetwork;
import rueda.machine.Machine;
import rueda.machine.Station;
import rueda.machine.Station.Address;
import rueda.machine.Station.Identity;

/** Looks for the devices on the bench and holds them against the plan. */
public final class NetworkScan {

    private NetworkScan() {
    }

    /**
     * A device that answered.
     *
     * @param axis the axis whose motor it drives
     */
    public record Found(String axis, Identity identity, Address address) {
    }

    /** What differs. */
    public enum Kind {
        MISSING("not found"),
        ADDRESS("address"),
        NAME("station name"),
        NETWORK("IP address"),
        REVISION("revision"),
        PRODUCT("product"),
        PARAMETERS("parameters");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** How a difference can be resolved: the plan takes it over, the device gets the planned address, it is exchanged for the planned one. */
    public enum Resolution {
        TAKE_OVER("Take it over into the plan"),
        READDRESS("Give the device the planned address"),
        EXCHANGE("Exchange it for the planned one"),
        KEEP_IMAGE("Keep an image");

        private final String words;

        Resolution(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * One difference.
     *
     * @param planned     empty when nothing is planned
     * @param found       empty when nothing was found
     * @param consequence what it leads to
     * @param ways        how it can be resolved
     */
    public record Difference(String axis, Kind kind, String planned, String found, String consequence, List<Resolution> ways) {
    }

    /** @param found every device in the range that answered  @param differences against the plan */
    public record ScanResult(List<Found> found, List<Difference> differences) {
    }

    /** The devices as they stand on the bench. @param other those that are not as planned, by axis; empty for one that is not there */
    public static List<Found> stand(Machine machine, Map<String, Optional<Found>> other) {
        List<Found> found = new ArrayList<>();
        for (Axis axis : machine.axes()) {
            Optional<Found> device = other.getOrDefault(axis.name(), Optional.of(new Found(axis.name(), axis.station().identity(), axis.station().address())));
            device.ifPresent(found::add);
        }
        return found;
    }

    /** The planned device of an axis with something else about it; empty when it is missing. */
    public static Optional<Found> changed(Machine machine, Axis axis, Set<StandChange> changed) {
        if (changed.contains(StandChange.MISSING)) {
            return Optional.empty();
        }
        BusFamily family = BusFamily.of(machine.bus());
        Identity identity = axis.station().identity();
        Address address = axis.station().address();
        if (changed.contains(StandChange.OLDER_REVISION)) {
            identity = new Identity(identity.device(), identity.vendor(), identity.product(), Math.max(0, identity.revision() - 1));
        }
        if (changed.contains(StandChange.OTHER_DEVICE)) {
            identity = new Identity("Wheelwright W2", identity.vendor(), identity.product() + 1, identity.revision());
        }
        if (changed.contains(StandChange.OTHER_ADDRESS)) {
            int number = Math.min(family.highestAddress(), address.number() + 60);
            address = new Address(number, "new-" + number, new IpNetwork(shifted(address.ip().address(), 60), address.ip().mask(), address.ip().gateway()));
        }
        if (changed.contains(StandChange.OTHER_SUBNET)) {
            address = address.withIp(new IpNetwork("10.0.7." + (10 + machine.axes().indexOf(axis)), "255.255.255.0", ""));
        }
        return Optional.of(new Found(axis.name(), identity, address));
    }

    private static String shifted(String ip, int by) {
        long number = IpNetwork.number(ip).orElse(0);
        return IpNetwork.dotted((number & ~0xFFL) | Math.min(254, (number & 0xFF) + by));
    }

    /**
     * Looks for devices.
     *
     * @param stand what is on the bench
     * @param from  lowest address asked: the number of the family, or the last part of the IP address; @param to highest
     */
    public static ScanResult of(Machine machine, List<Found> stand, Set<String> holdData, int from, int to) {
        BusFamily family = BusFamily.of(machine.bus());
        List<Found> answered = stand.stream().filter(f -> within(place(family, f.address()), from, to)).toList();
        List<Difference> differences = new ArrayList<>();
        for (Axis axis : machine.axes()) {
            Station planned = axis.station();
            Found found = answered.stream().filter(f -> f.axis().equals(axis.name())).findFirst().orElse(null);
            if (found == null) {
                differences.add(new Difference(axis.name(), Kind.MISSING, planned.identity().device() + at(family, planned.address()), "",
                        "Nothing answers" + (from > 0 || to < 255 ? " between " + from + " and " + to : "") + ": the axis cannot be moved. Look at cable and supply.", List.of(Resolution.EXCHANGE)));
                continue;
            }
            compare(family, axis.name(), planned, found, differences);
            if (holdData.contains(axis.name())) {
                differences.add(new Difference(axis.name(), Kind.PARAMETERS, "the project's parameters", "parameters of its own", "Writing would lose them: keep an image first.", List.of(Resolution.KEEP_IMAGE)));
            }
        }
        return new ScanResult(answered, differences);
    }

    /** What a range of addresses counts. */
    private static int place(BusFamily family, Address address) {
        return family.addressWord().isEmpty() ? (int) (IpNetwork.number(address.ip().address()).orElse(0) & 0xFF) : address.number();
    }

    private static boolean within(int place, int from, int to) {
        return place >= from && place <= to;
    }

    private static void compare(BusFamily family, String axis, Station planned, Found found, List<Difference> into) {
        List<Resolution> addressWays = List.of(Resolution.READDRESS, Resolution.TAKE_OVER);
        if (!family.addressWord().isEmpty() && planned.address().number() != found.address().number()) {
            into.add(new Difference(axis, Kind.ADDRESS, Integer.toString(planned.address().number()), Integer.toString(found.address().number()),
                    "The PLC looks for " + family.addressWord().toLowerCase(java.util.Locale.ROOT) + " " + planned.address().number() + " and finds nobody.", addressWays));
        }
        if (family.family() == rueda.machine.Bus.Family.PROFINET && !planned.address().name().equals(found.address().name())) {
            into.add(new Difference(axis, Kind.NAME, planned.address().name(), found.address().name(), "PROFINET finds a station by its name.", addressWays));
        }
        if (family.usesIp() && !Objects.equals(planned.address().ip(), found.address().ip())) {
            into.add(new Difference(axis, Kind.NETWORK, planned.address().ip().address(), found.address().ip().address(), "The PLC asks at another address.", addressWays));
        }
        if (planned.identity().vendor() != found.identity().vendor() || planned.identity().product() != found.identity().product()) {
            into.add(new Difference(axis, Kind.PRODUCT, planned.identity().device(), found.identity().device(), "Another product: the PLC refuses it at start-up.", List.of(Resolution.EXCHANGE, Resolution.TAKE_OVER)));
        } else if (planned.identity().revision() != found.identity().revision()) {
            into.add(new Difference(axis, Kind.REVISION, revision(planned.identity()), revision(found.identity()), "Another revision: objects may be missing. The description must fit it.", List.of(Resolution.TAKE_OVER, Resolution.EXCHANGE)));
        }
    }

    private static String at(BusFamily family, Address address) {
        return family.addressWord().isEmpty() ? " at " + address.ip().address() : " at " + address.number();
    }

    /** Major and minor revision, the upper and lower 16 bits. */
    public static String revision(Identity identity) {
        return (identity.revision() >> 16) + "." + (identity.revision() & 0xFFFF);
    }

    /** The PLC brings this station into operation: it is there, at its address, and is the planned product. */
    public static boolean reachable(Machine machine, Axis axis, List<Found> stand) {
        return of(machine, stand, Set.of(), 0, Integer.MAX_VALUE).differences().stream().noneMatch(d -> d.axis().equals(axis.name()) && d.kind() != Kind.REVISION && d.kind() != Kind.PARAMETERS);
    }
}
