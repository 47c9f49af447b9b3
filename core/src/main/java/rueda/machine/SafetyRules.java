package rueda.machine;

import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/** Which requests and guards can be stored; part of {@link MachineRules}. */
final class SafetyRules {

    private static final double MOST = 1e9;
    private static final double LONGEST_FILTER = 1000;
    private static final double LONGEST_DISCREPANCY = 10_000;
    private static final double LONGEST = 60_000;
    private static final int MOST_ASKS = 256;

    private final List<EntryFault> faults;
    private final Machine machine;

    SafetyRules(List<EntryFault> faults, Machine machine) {
        this.faults = faults;
        this.machine = machine;
    }

    /** Requests, and of whose axes the guard is all there. */
    void check() {
        List<SafetyRequest> requests = machine.safetyRequests();
        if (requests.size() > SafetyRequest.MOST) {
            refuse("/safetyRequests", "Requests", Integer.toString(requests.size()), "up to " + SafetyRequest.MOST, "remove some");
            return;
        }
        Set<String> names = new HashSet<>();
        for (int i = 0; i < requests.size(); i++) {
            String at = "/safetyRequests/" + i;
            SafetyRequest request = requests.get(i);
            if (!missing(at + "/name", "Name of the request", request.name())) {
                if (request.name().isBlank() || request.name().length() > MachineRules.LONGEST_AXIS_NAME) {
                    refuse(at + "/name", "Name of the request", MachineRules.shortened(request.name()), "1 to " + MachineRules.LONGEST_AXIS_NAME + " characters", "enter a name");
                } else if (!names.add(request.name().toUpperCase(Locale.ROOT))) {
                    refuse(at + "/name", "Name of the request", request.name(), "a name no other request has", "rename it");
                }
            }
            between(at + "/reaction", "Reaction time of the sensor", request.reaction(), 0, LONGEST_FILTER, "ms");
            protection(at + "/protection", request.protection());
            between(at + "/filter", "Filter of the request", request.filter(), 0, LONGEST_FILTER, "ms");
            between(at + "/discrepancy", "Discrepancy time", request.discrepancy(), 0, LONGEST_DISCREPANCY, "ms");
            between(at + "/stopping", "Measured stopping time", request.stopping(), 0, LONGEST, "ms");
        }
        for (int i = 0; i < machine.axes().size(); i++) {
            Axis axis = machine.axes().get(i);
            if (axis.guard() != null && axis.unit() != null && axis.unit().symbol() != null) {
                guard("/axes/" + i + "/guard", axis.guard(), axis.unit().symbol());
            }
        }
    }

    private void protection(String at, Protection protection) {
        if (missing(at, "Protection", protection) || missing(at + "/kind", "Protection", protection.kind())) {
            return;
        }
        between(at + "/resolution", "Resolution", protection.resolution(), 0, Protection.COARSEST, "mm");
        between(at + "/height", "Height", protection.height(), 0, 1000, "mm");
        between(at + "/reach", "Reach", protection.reach(), 0, 850, "mm");
        if (protection.kind() == Protection.Kind.LIGHT_CURTAIN && protection.resolution() > 70) {
            refuse(at + "/resolution", "Resolution", protection.resolution() + " mm", "0 to 70 mm for a light curtain", "enter a finer resolution");
        }
        if (protection.kind() == Protection.Kind.PARALLEL_FIELD && protection.resolution() > protection.height() / 15 + 50) {
            refuse(at + "/resolution", "Resolution", protection.resolution() + " mm", "up to " + plain(Math.floor(protection.height() / 15 + 50)) + " mm at this height (ISO 13855, 6.3)", "enter a finer resolution, or a greater height");
        }
    }

    private void guard(String at, AxisGuard guard, String unit) {
        double steps = guard.cycle() / AxisGuard.CYCLE_STEP;
        if (!(guard.cycle() >= AxisGuard.SHORTEST_CYCLE && guard.cycle() <= AxisGuard.LONGEST_CYCLE && steps == Math.rint(steps))) {
            refuse(at + "/cycle", "Cycle of the guard", guard.cycle() + " ms", AxisGuard.SHORTEST_CYCLE + " to " + AxisGuard.LONGEST_CYCLE + " ms in steps of " + AxisGuard.CYCLE_STEP + " ms", "enter such a time");
        }
        if (guard.countsPerTurn() < 1) {
            refuse(at + "/countsPerTurn", "Resolution of the guard's encoder", Integer.toString(guard.countsPerTurn()), "1 to 2 147 483 647 counts per turn of the motor", "enter whole counts");
        }
        if (!(Math.abs(guard.unitsPerTurn()) >= 1e-9 && Math.abs(guard.unitsPerTurn()) <= MOST)) {
            refuse(at + "/unitsPerTurn", "Way per turn of the guard's encoder", guard.unitsPerTurn() + " " + unit, "0.000000001 to 1000000000 " + unit + ", or minus that", "enter the way of the axis for one turn of the motor");
        }
        missing(at + "/slowing", "Slowed down by", guard.slowing());
        stop(at + "/stop1", "safe stop 1", guard.stop1(), unit);
        stop(at + "/stop2", "safe stop 2", guard.stop2(), unit);
        stop(at + "/stop2Second", "the second safe stop 2", guard.stop2Second(), unit);
        if (!missing(at + "/speed", "Safely limited speed", guard.speed())) {
            between(at + "/speed/delay", "Delay of the limited speed", guard.speed().delay(), 0, LONGEST, "ms");
            above(at + "/speed/limit", "Safely limited speed", guard.speed().limit(), unit + "/s");
            between(at + "/speed/filterDistance", "Filter distance of the limited speed", guard.speed().filterDistance(), 0, MOST, unit);
        }
        if (guard.asks().size() > MOST_ASKS) {
            refuse(at + "/asks", "What requests ask for", Integer.toString(guard.asks().size()), "up to " + MOST_ASKS, "remove some");
            return;
        }
        Set<AxisGuard.Ask> asked = new HashSet<>();
        for (int i = 0; i < guard.asks().size(); i++) {
            AxisGuard.Ask ask = guard.asks().get(i);
            if (missing(at + "/asks/" + i + "/request", "Request", ask.request()) | missing(at + "/asks/" + i + "/function", "Safety function", ask.function())) {
                continue;
            }
            if (machine.safetyRequests().stream().noneMatch(r -> ask.request().equals(r.name()))) {
                refuse(at + "/asks/" + i + "/request", "Request", MachineRules.shortened(ask.request()), "a request of the machine", "choose one");
            } else if (!asked.add(ask)) {
                refuse(at + "/asks/" + i + "/function", "Safety function", ask.function().words(), "once for a request", "remove one of them");
            }
        }
    }

    private void stop(String at, String of, StopRules stop, String unit) {
        if (missing(at, "Rules of " + of, stop) || missing(at + "/watch", "What is watched of " + of, stop.watch()) | missing(at + "/restart", "How motion is allowed after " + of, stop.restart())) {
            return;
        }
        between(at + "/delay", "Delay of " + of, stop.delay(), 0, LONGEST, "ms");
        between(at + "/steepest", "Steepest ramp of " + of, stop.steepest(), 0, MOST, unit + "/s²");
        above(at + "/flattest", "Flattest ramp of " + of, stop.flattest(), unit + "/s²");
        between(at + "/time", "Time to stand of " + of, stop.time(), 0, LONGEST, "ms");
        between(at + "/standstillSpeed", "Standstill speed of " + of, stop.standstillSpeed(), 0, MOST, unit + "/s");
        between(at + "/filterDistance", "Filter distance of " + of, stop.filterDistance(), 0, MOST, unit);
        above(at + "/window", "Standstill window of " + of, stop.window(), unit);
        between(at + "/brakeDelay", "Delay of the brake after " + of, stop.brakeDelay(), 0, LONGEST, "ms");
        between(at + "/torqueDelay", "Delay of the torque after " + of, stop.torqueDelay(), 0, LONGEST, "ms");
        if (stop.steepest() > 0 && stop.flattest() > stop.steepest()) {
            refuse(at + "/flattest", "Flattest ramp of " + of, stop.flattest() + " " + unit + "/s²", "up to the steepest, " + stop.steepest() + " " + unit + "/s²", "enter a flatter ramp");
        }
    }

    private boolean missing(String field, String label, Object value) {
        if (value == null) {
            refuse(field, label, "missing", "a value", "enter it");
        }
        return value == null;
    }

    private void above(String field, String label, double value, String unit) {
        if (!(value > 0 && value <= MOST)) {
            refuse(field, label, value + " " + unit, "above 0, up to 1000000000 " + unit, "enter a greater number");
        }
    }

    private void between(String field, String label, double value, double low, double high, String unit) {
        if (!(value >= low && value <= high)) {
            refuse(field, label, (value + " " + unit).strip(), (plain(low) + " to " + plain(high) + " " + unit).strip(), "enter a number in that range");
        }
    }

    private static String plain(double value) {
        return java.math.BigDecimal.valueOf(value).stripTrailingZeros().toPlainString();
    }

    private void refuse(String field, String label, String value, String allowed, String mend) {
        faults.add(new EntryFault(field, label, value, allowed, mend));
    }
}
