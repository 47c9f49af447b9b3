package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.OptionalLong;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The fieldbus.
 *
 * @param family       which fieldbus it is
 * @param cycleMicros  bus cycle in µs, a multiple of 125, 250 to 100 000
 * @param kiloBits     bit rate in kbit/s; CANopen 10 to 1000, else 100 000
 * @param lowWordFirst Modbus: of a 32-bit value the register with the low word comes first
 * @param plc          where the PLC is in the network; used by the families that speak IP
 * @param clock        distributed clocks
 */
@RecordBuilder
public record Bus(Family family, int cycleMicros, int kiloBits, boolean lowWordFirst, IpNetwork plc, Clock clock) implements BusBuilder.With {

    /** The fieldbuses Rueda lays out; what each decides stands in {@code rueda.bus}. */
    public enum Family {
        ETHERCAT("EtherCAT"), CANOPEN("CANopen"), PROFINET("PROFINET"), ETHERNET_IP("EtherNet/IP"), MODBUS_TCP("Modbus TCP");

        private final String words;

        Family(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * A place in an IPv4 network.
     *
     * @param address such as 192.168.40.1
     * @param mask    such as 255.255.255.0
     * @param gateway empty for none
     */
    public record IpNetwork(String address, String mask, String gateway) {
        public static final IpNetwork USUAL_PLC = new IpNetwork("192.168.40.1", "255.255.255.0", "");
        private static final Pattern DOTTED = Pattern.compile("(\\d{1,3})\\.(\\d{1,3})\\.(\\d{1,3})\\.(\\d{1,3})");

        /** An address as a number of 32 bits, the first part highest; empty when it is none. */
        public static OptionalLong number(String text) {
            Matcher parts = DOTTED.matcher(text == null ? "" : text);
            if (!parts.matches()) {
                return OptionalLong.empty();
            }
            long number = 0;
            for (int i = 1; i <= 4; i++) {
                int part = Integer.parseInt(parts.group(i));
                if (part > 255) {
                    return OptionalLong.empty();
                }
                number = number << 8 | part;
            }
            return OptionalLong.of(number);
        }

        /** A number of 32 bits as an address. */
        public static String dotted(long number) {
            return (number >> 24 & 255) + "." + (number >> 16 & 255) + "." + (number >> 8 & 255) + "." + (number & 255);
        }

        /** Both are in the network that this mask makes. */
        public boolean reaches(IpNetwork other) {
            long bits = number(mask).orElse(0);
            return (number(address).orElse(0) & bits) == (number(other.address).orElse(0) & bits);
        }
    }

    /**
     * Distributed clocks.
     *
     * @param reference   axis whose station gives the time, empty for the first
     * @param shiftMicros how long after the cycle begins the stations act, µs, 0 to the cycle
     * @param windowNanos deviation from the reference that is still in time, ns, 0 for not watched
     */
    public record Clock(String reference, int shiftMicros, int windowNanos) {
        public static final Clock USUAL = new Clock("", 0, 1000);

        public Clock withReference(String changed) {
            return new Clock(changed, shiftMicros, windowNanos);
        }
    }

    /** EtherCAT with this cycle. */
    public Bus(int cycleMicros) {
        this(Family.ETHERCAT, cycleMicros, 100_000, false, IpNetwork.USUAL_PLC, Clock.USUAL);
    }

    public Bus withFamily(Family changed, int cycle, int rate) {
        return withFamily(changed).withCycleMicros(cycle).withKiloBits(rate);
    }

}
