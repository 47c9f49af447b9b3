package rueda.drive;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rueda.bus.BusFamily;
import rueda.bus.ProcessDataLayout;
import rueda.bus.StandardTelegram;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.Bus.Family;
import rueda.machine.Station.Entry;

/**
 * The process data of a station as they lie on its bus, as a person sees them.
 *
 * @param outputs  PLC to drive
 * @param inputs   drive to PLC
 * @param telegram number of the standard telegram with which they begin, 0 for none
 */
public record StationLayout(LayoutDirection outputs, LayoutDirection inputs, int telegram) {

    /**
     * @param bytes    of the whole image
     * @param messages in their order; one where the family has no more
     * @param places   one for each entry, in order
     */
    public record LayoutDirection(int bytes, List<LayoutMessage> messages, List<EntryPlace> places) {
    }

    /**
     * A message (PDO).
     *
     * @param pdo        its number
     * @param identifier by which it is found on the bus, empty where it has none of its own (CiA 301, predefined connection set)
     * @param bits       that its entries take
     * @param bytes      that it takes
     */
    public record LayoutMessage(int pdo, String identifier, int bits, int bytes) {
    }

    /**
     * An entry.
     *
     * @param at      where: bytes such as 4–7, a bit such as 12.3, or on Modbus a register
     * @param title   its own name, or that of what travels in it; "filler" for a gap
     * @param symbol  such as 6040h or STW1; empty where nothing is known of it
     * @param meaning how its bits are meant; PLAIN where nothing is known of it
     * @param unit    in which a person gives the value, empty for a plain number
     * @param known   the drive knows what it is
     */
    public record EntryPlace(String at, String title, String symbol, CyclicItem.Meaning meaning, String unit, boolean known) {
    }

    public static StationLayout of(Bus bus, Axis axis) {
        List<Entry> outputs = axis.station().outputs();
        List<Entry> inputs = axis.station().inputs();
        return new StationLayout(direction(bus, axis, outputs, true), direction(bus, axis, inputs, false),
                BusFamily.of(bus).profile() == BusFamily.DriveProfile.PROFIDRIVE ? StandardTelegram.of(outputs, inputs).map(StandardTelegram::number).orElse(0) : 0);
    }

    private static LayoutDirection direction(Bus bus, Axis axis, List<Entry> entries, boolean output) {
        BusFamily family = BusFamily.of(bus);
        ProcessDataLayout layout = BusFamily.layout(bus, entries);
        int first = output ? family.firstOutput() : family.firstInput();
        List<EntryPlace> places = new ArrayList<>();
        List<LayoutMessage> messages = new ArrayList<>();
        for (int i = 0; i < entries.size(); i++) {
            Entry entry = entries.get(i);
            CyclicItem item = CyclicItem.find(family.profile(), entry.object(), entry.subIndex());
            String at = bus.family() == Family.MODBUS_TCP ? register(first, layout.bitOffset(i), entry.bits()) : bytes(layout.bitOffset(i), entry.bits());
            places.add(entry.fillsGap() ? new EntryPlace(at, "filler", "", CyclicItem.Meaning.PLAIN, "", false)
                    : new EntryPlace(at, CyclicItem.title(family.profile(), entry), item == null ? "" : item.symbol(), item == null ? CyclicItem.Meaning.PLAIN : item.meaning(),
                            item == null ? "" : CyclicWords.unit(item, axis.unit()), item != null));
            int last = messages.size() - 1;
            if (last < 0 || messages.get(last).pdo() != entry.pdo()) {
                String identifier = family.mostMessages() > 1 ? CyclicWords.hexadecimal(first + (entry.pdo() - 1) * 0x100L + axis.station().address().number(), 3) : "";
                messages.add(new LayoutMessage(entry.pdo(), identifier, 0, 0));
                last++;
            }
            LayoutMessage message = messages.get(last);
            int bits = message.bits() + entry.bits();
            messages.set(last, new LayoutMessage(message.pdo(), message.identifier(), bits, (bits + 7) / 8));
        }
        return new LayoutDirection(layout.bytes(), List.copyOf(messages), List.copyOf(places));
    }

    private static String bytes(int offset, int bits) {
        int first = offset / 8;
        if (offset % 8 != 0 || bits < 8) {
            return first + "." + offset % 8;
        }
        return bits == 8 ? Integer.toString(first) : first + "–" + (first + (bits + 7) / 8 - 1);
    }

    /** The higher byte of a register travels first. */
    private static String register(int from, int offset, int bits) {
        int first = offset / 8;
        return String.format(Locale.ROOT, "%04Xh", from + first / 2) + (bits == 8 ? first % 2 == 1 ? " low" : " high" : "");
    }
}
