package rueda.edit;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import rueda.bus.BusFamily;
import rueda.bus.BusFamily.DriveProfile;
import rueda.bus.StandardTelegram;
import rueda.drive.CyclicItem;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Plc.DeclaredTag;
import rueda.machine.Station;
import rueda.machine.Station.Entry;
import rueda.quantity.InvalidEntry;

/** Changes of the process data of a station that concern many entries at once; what is bound stays bound where its value still travels. */
public final class ProcessDataEdit {

    private ProcessDataEdit() {
    }

    /** Every entry that the drive knows and that has no tag gets one named after the axis and the entry, such as Shuttle.Cmd.TargetPosition. */
    public static Station withTags(Machine machine, int axisNumber) {
        Axis axis = machine.axes().get(axisNumber);
        DriveProfile profile = BusFamily.of(machine.bus()).profile();
        Set<String> taken = new HashSet<>();
        for (Axis any : machine.axes()) {
            any.station().outputs().forEach(e -> taken.add(key(e.tag())));
            any.station().inputs().forEach(e -> taken.add(key(e.tag())));
        }
        machine.plc().tags().stream().map(DeclaredTag::name).forEach(name -> taken.add(key(name)));
        Station station = axis.station();
        return station.withEntries(tagged(profile, station.outputs(), axis.name() + ".Cmd.", taken), tagged(profile, station.inputs(), axis.name() + ".Fb.", taken));
    }

    private static List<Entry> tagged(DriveProfile profile, List<Entry> entries, String prefix, Set<String> taken) {
        List<Entry> all = new ArrayList<>();
        for (Entry entry : entries) {
            CyclicItem item = CyclicItem.find(profile, entry.object(), entry.subIndex());
            if (entry.fillsGap() || entry.hasTag() || item == null) {
                all.add(entry);
                continue;
            }
            String wanted = prefix + identifier(CyclicItem.title(profile, entry));
            String name = wanted;
            for (int n = 2; !taken.add(key(name)); n++) {
                name = wanted + n;
            }
            all.add(entry.withTag(name, item.dataType()));
        }
        return all;
    }

    /** How many entries {@link #withTags} would bind. */
    public static int unbound(Machine machine, int axisNumber) {
        DriveProfile profile = BusFamily.of(machine.bus()).profile();
        Station station = machine.axes().get(axisNumber).station();
        return (int) java.util.stream.Stream.concat(station.outputs().stream(), station.inputs().stream())
                .filter(e -> !e.fillsGap() && !e.hasTag() && CyclicItem.find(profile, e.object(), e.subIndex()) != null).count();
    }

    private static String key(String tag) {
        return tag == null ? "" : tag.toUpperCase(Locale.ROOT);
    }

    /** The letters and digits of a title, each word with a capital: an identifier of IEC 61131-3. */
    private static String identifier(String title) {
        StringBuilder name = new StringBuilder();
        boolean begins = true;
        for (char c : title.toCharArray()) {
            boolean usable = c >= 'A' && c <= 'Z' || c >= 'a' && c <= 'z' || c >= '0' && c <= '9';
            if (usable) {
                name.append(begins ? Character.toUpperCase(c) : c);
            }
            begins = !usable;
        }
        return name.length() == 0 || Character.isDigit(name.charAt(0)) ? "Value" + name : name.toString();
    }

    /**
     * Another standard telegram; the tags of signals that both have stay.
     *
     * @throws InvalidEntry when there is no such telegram
     */
    public static Station withTelegram(Station station, int number) {
        for (StandardTelegram telegram : StandardTelegram.values()) {
            if (telegram.number() == number) {
                return station.withEntries(kept(StandardTelegram.entries(telegram.outputs()), station.outputs()), kept(StandardTelegram.entries(telegram.inputs()), station.inputs()));
            }
        }
        throw new InvalidEntry("number", Integer.toString(number), "the number of a standard telegram", "choose one of the list");
    }

    private static List<Entry> kept(List<Entry> fresh, List<Entry> before) {
        return fresh.stream().map(e -> before.stream().filter(b -> b.object() == e.object() && b.subIndex() == e.subIndex()).findFirst().orElse(e)).toList();
    }
}
