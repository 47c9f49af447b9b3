package rueda.machine;

import java.math.BigDecimal;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/** Which virtual masters can be stored; part of {@link MachineRules}. */
final class VirtualMasterRules {

    private static final int MOST = 16;
    private static final double LARGEST = 1e9;

    private final List<EntryFault> faults;

    VirtualMasterRules(List<EntryFault> faults) {
        this.faults = faults;
    }

    void check(Machine machine) {
        List<VirtualMaster> masters = machine.plc().virtualMasters();
        if (masters.size() > MOST) {
            refuse("/plc/virtualMasters", "Virtual masters", Integer.toString(masters.size()), "up to " + MOST, "remove some");
            return;
        }
        Set<String> names = new HashSet<>();
        machine.axes().stream().filter(a -> a.name() != null).forEach(a -> names.add(a.name().toUpperCase(Locale.ROOT)));
        for (int i = 0; i < masters.size(); i++) {
            VirtualMaster master = masters.get(i);
            String at = "/plc/virtualMasters/" + i;
            boolean named = master.name() != null && master.name().length() <= MachineRules.LONGEST_AXIS_NAME && MachineRules.IDENTIFIER.matcher(master.name()).matches();
            if (!named) {
                refuse(at + "/name", "Name of the virtual master", master.name() == null ? "missing" : master.name(), "a letter, then letters, digits or _, up to " + MachineRules.LONGEST_AXIS_NAME + " characters", "the program uses it as an identifier");
            } else if (!names.add(master.name().toUpperCase(Locale.ROOT))) {
                refuse(at + "/name", "Name of the virtual master", master.name(), "a name that no axis and no other virtual master has", "rename it");
            }
            one(at, master);
        }
    }

    private void one(String at, VirtualMaster master) {
        if (master.unit() == null || master.unit().symbol() == null || master.modulo() == null) {
            refuse(at + (master.modulo() == null ? "/modulo" : "/unit"), master.modulo() == null ? "Modulo of the virtual master" : "Unit of the virtual master", "missing", "a value", "enter it");
            return;
        }
        String symbol = master.unit().symbol();
        boolean fits = !symbol.isBlank() && symbol.length() <= 12 && master.unit().decimals() >= 0 && master.unit().decimals() <= 6;
        if (symbol.isBlank() || symbol.length() > 12) {
            refuse(at + "/unit/symbol", "Unit of the virtual master", symbol, "1 to 12 characters", "enter a unit such as °");
        }
        if (master.unit().decimals() < 0 || master.unit().decimals() > 6) {
            refuse(at + "/unit/decimals", "Decimals of the virtual master", Integer.toString(master.unit().decimals()), "0 to 6", "choose the smallest step that matters");
        }
        boolean sized = master.modulo().signum() > 0 && master.modulo().precision() <= 15 && Math.abs(master.modulo().scale()) <= 15;
        boolean whole = fits && sized && onTheWire(master).stripTrailingZeros().scale() <= 0 && onTheWire(master).compareTo(BigDecimal.valueOf(Integer.MAX_VALUE)) <= 0;
        if (fits && !whole) {
            refuse(at + "/modulo", "Modulo of the virtual master", master.modulo() + " " + symbol, "above 0, with no more decimals than its unit, at most 2 147 483 647 of its smallest steps", "enter such a way");
        }
        between(at + "/highestSpeed", "Highest speed of the virtual master", master.highestSpeed(), 1e-6, LARGEST, symbol + "/s");
        between(at + "/speed", "Speed of the virtual master", master.speed(), 1e-6, Math.max(1e-6, master.highestSpeed()), symbol + "/s");
        between(at + "/acceleration", "Acceleration of the virtual master", master.acceleration(), 1e-6, LARGEST, symbol + "/s²");
        between(at + "/jerk", "Jerk of the virtual master", master.jerk(), 0, 1e12, symbol + "/s³");
    }

    private static BigDecimal onTheWire(VirtualMaster master) {
        return master.modulo().movePointRight(master.unit().decimals());
    }

    private void between(String field, String label, double value, double low, double high, String unit) {
        if (!(value >= low && value <= high)) {
            refuse(field, label, value + " " + unit, low + " to " + high + " " + unit, "enter a number in this range");
        }
    }

    private void refuse(String field, String label, String value, String allowed, String mend) {
        faults.add(new EntryFault(field, label, value, allowed, mend));
    }
}
