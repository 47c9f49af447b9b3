package rueda.drive;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import rueda.bus.BusFamily.DriveProfile;
import rueda.bus.ProcessDataLayout;
import rueda.machine.Station.Entry;
import rueda.machine.Unit;

/** What the bits of process data say, in words and in the units of the axis. For people who look on; the loop never comes here. */
public final class CyclicWords {

    /**
     * One entry as it travels now.
     *
     * @param bytes the bytes it lies in, two hexadecimal digits each, in the order of the wire
     * @param raw   its bits as a number, with their sign where the item has one
     * @param words what that means; empty where nothing is known of it
     */
    public record Now(String bytes, long raw, String words) {
    }

    private static final HexFormat HEX = HexFormat.ofDelimiter(" ").withUpperCase();

    /** What 100 % is in N2 and in N4, IEC 61800-7-203. */
    private static final BigDecimal N2_WHOLE = BigDecimal.valueOf(1 << 14);
    private static final BigDecimal N4_WHOLE = BigDecimal.valueOf(1 << 30);

    private CyclicWords() {
    }

    /** Every entry of one direction, in order. @param image the bytes of a cycle */
    public static List<Now> now(DriveProfile profile, ProcessDataLayout layout, byte[] image, Unit unit) {
        List<Now> all = new ArrayList<>();
        for (int i = 0; i < layout.entries().size(); i++) {
            Entry entry = layout.entries().get(i);
            CyclicItem item = CyclicItem.find(profile, entry.object(), entry.subIndex());
            long raw = item != null && item.signed() ? layout.readSigned(image, i) : layout.read(image, i);
            int first = layout.bitOffset(i) / 8;
            int last = (layout.bitOffset(i) + entry.bits() - 1) / 8;
            all.add(new Now(HEX.formatHex(image, first, last + 1), raw, item == null ? "" : words(profile, item, raw, unit)));
        }
        return all;
    }

    /** @param raw as {@link Now#raw} has it */
    static String words(DriveProfile profile, CyclicItem item, long raw, Unit unit) {
        return switch (item.meaning()) {
            case POSITION -> decimal(BigDecimal.valueOf(raw, unit.decimals()), 3) + " " + unit.symbol();
            case SPEED, ACCELERATION, JERK -> decimal(BigDecimal.valueOf(raw, unit.decimals()), 3) + " " + unit.symbol() + item.meaning().overTime();
            case TORQUE -> decimal(BigDecimal.valueOf(raw, 1), 1) + " % of rated";
            case N2 -> decimal(new BigDecimal(raw * 100).divide(N2_WHOLE), 2) + " %";
            case N4 -> decimal(new BigDecimal(raw * 100).divide(N4_WHOLE), 3) + " %";
            case GAIN -> decimal(BigDecimal.valueOf(raw, 3), 3) + " 1/s";
            case SWITCHES -> switches(raw);
            case MODE -> OperationMode.words((int) raw);
            case CONTROLWORD -> ControlWord.command((int) raw);
            case STATUSWORD -> state(profile, (int) raw).words();
            case COUNTS, PLAIN -> Long.toString(raw).replace('-', '−');
        };
    }

    /** The state that a status word shows. */
    public static PowerState state(DriveProfile profile, int word) {
        return PowerState.of(profile == DriveProfile.PROFIDRIVE ? ProfiDriveWords.statusword(word) : word);
    }

    /** Unit in which a person gives the value, empty for a plain number. */
    static String unit(CyclicItem item, Unit unit) {
        return switch (item.meaning()) {
            case POSITION, COUNTS -> unit.symbol();
            case SPEED, ACCELERATION, JERK -> unit.symbol() + item.meaning().overTime();
            case TORQUE, N2, N4 -> "%";
            case GAIN -> "1/s";
            case CONTROLWORD, STATUSWORD, MODE, SWITCHES, PLAIN -> "";
        };
    }

    private static String decimal(BigDecimal value, int places) {
        return value.setScale(places, RoundingMode.HALF_EVEN).toPlainString().replace('-', '−');
    }

    /** Bits of 60FDh, IEC 61800-7-201. */
    private static String switches(long raw) {
        List<String> active = new ArrayList<>();
        String[] names = {"negative limit", "positive limit", "reference cam"};
        for (int bit = 0; bit < names.length; bit++) {
            if ((raw >> bit & 1) != 0) {
                active.add(names[bit]);
            }
        }
        return active.isEmpty() ? "no switch active" : String.join(", ", active);
    }

    static String hexadecimal(long value, int digits) {
        return String.format(Locale.ROOT, "%0" + digits + "Xh", value);
    }
}
