package rueda.machine;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
import rueda.quantity.InvalidEntry;

/**
 * Says of every entry of a document whether it can be stored. What is refused here cannot run at all; what is
 * merely unwise is a finding of {@code rueda.advice}.
 */
public final class MachineRules {

    private static final Pattern IDENTIFIER = Pattern.compile("[A-Za-z_][A-Za-z0-9_]*");
    private static final Pattern TAG = Pattern.compile("[A-Za-z_][A-Za-z0-9_]*(\\.[A-Za-z_][A-Za-z0-9_]*)*");
    private static final Set<String> TAG_TYPES = Set.of("BOOL", "SINT", "INT", "DINT", "LINT", "USINT", "UINT", "UDINT",
            "ULINT", "BYTE", "WORD", "DWORD", "LWORD", "REAL", "LREAL");

    private final List<EntryFault> faults = new ArrayList<>();

    private MachineRules() {
    }

    /** All refused entries, in the order of the document; empty when it can be stored. */
    public static List<EntryFault> check(Machine machine) {
        MachineRules rules = new MachineRules();
        rules.machine(machine);
        return List.copyOf(rules.faults);
    }

    private void machine(Machine machine) {
        if (missing("/name", "Machine name", machine.name()) | missing("/bus", "Bus", machine.bus())
                | missing("/plc", "PLC", machine.plc()) | missing("/proof", "Proof", machine.proof())) {
            return;
        }
        if (machine.name().isBlank() || machine.name().length() > 80) {
            refuse("/name", "Machine name", machine.name(), "1 to 80 characters", "enter a name");
        }
        int cycle = machine.bus().cycleMicros();
        if (cycle < 250 || cycle > 8000 || cycle % 125 != 0) {
            refuse("/bus/cycleMicros", "Bus cycle", cycle + " µs", "250 to 8000 µs in steps of 125", "choose 1000 µs");
        }
        int interval = machine.plc().taskIntervalMicros();
        if (cycle > 0 && (interval < cycle || interval > 100_000 || interval % cycle != 0)) {
            refuse("/plc/taskIntervalMicros", "Task interval", interval + " µs", "a multiple of the bus cycle up to 100 000 µs",
                    "choose " + cycle + " µs");
        }
        whole("/plc/instructionBudget", "Instruction budget", machine.plc().instructionBudget(), 1000, 10_000_000);
        if (!missing("/plc/program", "Program", machine.plc().program()) && machine.plc().program().length() > 200_000) {
            refuse("/plc/program", "Program", machine.plc().program().length() + " characters", "up to 200 000 characters", "shorten it");
        }
        if (machine.axes().isEmpty() || machine.axes().size() > 128) {
            refuse("/axes", "Axes", Integer.toString(machine.axes().size()), "1 to 128 axes", "add an axis");
        }
        Set<String> names = new HashSet<>();
        for (int i = 0; i < machine.axes().size(); i++) {
            Axis axis = machine.axes().get(i);
            axis("/axes/" + i, axis);
            if (axis.name() != null && !names.add(axis.name().toUpperCase(Locale.ROOT))) {
                refuse("/axes/" + i + "/name", "Axis name", axis.name(), "a name no other axis has", "rename it");
            }
        }
        proof(machine);
    }

    private void axis(String at, Axis axis) {
        if (axis.name() == null || !IDENTIFIER.matcher(axis.name()).matches()) {
            refuse(at + "/name", "Axis name", String.valueOf(axis.name()), "a letter, then letters, digits or _",
                    "the program uses it as an identifier");
        }
        if (missing(at + "/unit", "Unit", axis.unit()) | missing(at + "/motor", "Motor", axis.motor())
                | missing(at + "/encoder", "Encoder", axis.encoder()) | missing(at + "/reducer", "Reducer", axis.reducer())
                | missing(at + "/feed", "Feed", axis.feed()) | missing(at + "/load", "Load", axis.load())
                | missing(at + "/travel", "Travel", axis.travel()) | missing(at + "/limits", "Limits", axis.limits())
                | missing(at + "/homing", "Homing", axis.homing()) | missing(at + "/control", "Control", axis.control())
                | missing(at + "/station", "Station", axis.station())) {
            return;
        }
        scale(at, axis);
        Axis.Motor motor = axis.motor();
        positive(at + "/motor/inertia", "Rotor inertia", motor.inertia(), "kg·m²");
        positive(at + "/motor/ratedTorque", "Rated torque", motor.ratedTorque(), "N·m");
        if (!(motor.peakTorque() >= motor.ratedTorque()) || !(motor.peakTorque() < 1e6)) {
            refuse(at + "/motor/peakTorque", "Peak torque", motor.peakTorque() + " N·m", "at least the rated torque", "enter the motor's peak torque");
        }
        positive(at + "/motor/maxSpeed", "Highest motor speed", motor.maxSpeed(), "1/min");
        positive(at + "/load/mass", "Mass", axis.load().mass(), "kg");
        notNegative(at + "/load/coulomb", "Coulomb friction", axis.load().coulomb(), "N");
        notNegative(at + "/load/viscous", "Viscous friction", axis.load().viscous(), "N·s/m");
        travel(at + "/travel", axis.travel());
        limits(at + "/limits", axis.limits());
        homing(at + "/homing", axis.homing());
        positive(at + "/control/positionGain", "Position gain", axis.control().positionGain(), "1/s");
        positive(at + "/control/velocityGain", "Velocity gain", axis.control().velocityGain(), "N·m·s/rad");
        positive(at + "/control/integralTime", "Integral time", axis.control().integralTime(), "ms");
        share(at + "/control/feedForward", "Speed feed-forward", axis.control().feedForward());
        share(at + "/control/torqueForward", "Torque feed-forward", axis.control().torqueForward());
        entries(at + "/station/outputs", axis.station().outputs());
        entries(at + "/station/inputs", axis.station().inputs());
    }

    private void scale(String at, Axis axis) {
        int before = faults.size();
        Axis.Unit unit = axis.unit();
        if (unit.symbol() == null || unit.symbol().isBlank() || unit.symbol().length() > 12) {
            refuse(at + "/unit/symbol", "Unit", String.valueOf(unit.symbol()), "1 to 12 characters", "enter a unit such as mm");
        }
        if (unit.decimals() < 0 || unit.decimals() > 6) {
            refuse(at + "/unit/decimals", "Decimals", Integer.toString(unit.decimals()), "0 to 6", "choose the decimals on the wire");
        }
        if (unit.metres() == null || unit.metres().signum() <= 0) {
            refuse(at + "/unit/metres", "Metres per unit", String.valueOf(unit.metres()), "greater than 0", "1 mm is 0.001 m");
        }
        whole(at + "/encoder/countsPerTurn", "Counts per turn", axis.encoder().countsPerTurn(), 4, 0xFFFF_FFFFL);
        whole(at + "/reducer/motorTurns", "Reducer, motor turns", axis.reducer().motorTurns(), 1, Integer.MAX_VALUE);
        whole(at + "/reducer/outputTurns", "Reducer, output turns", axis.reducer().outputTurns(), 1, Integer.MAX_VALUE);
        whole(at + "/feed/teeth", "Teeth of the pinion", axis.feed().teeth(), 1, 1000);
        if (axis.feed().pitch() == null || axis.feed().pitch().signum() <= 0 || axis.feed().pitch().precision() > 12) {
            refuse(at + "/feed/pitch", "Pitch", String.valueOf(axis.feed().pitch()), "greater than 0, at most 12 digits", "enter the travel of one tooth");
        }
        if (faults.size() > before) {
            return;
        }
        try {
            axis.scale();
        } catch (InvalidEntry refused) {
            refuse(at + "/reducer/motorTurns", "Scale", refused.value(), refused.allowed(), refused.mend());
        }
    }

    private void travel(String at, Axis.Travel travel) {
        positive(at + "/length", "Way between the stops", travel.length(), "units");
        between(at + "/negativeLimit", "Negative limit switch", travel.negativeLimit(), 0, travel.length());
        between(at + "/positiveLimit", "Positive limit switch", travel.positiveLimit(), travel.negativeLimit(), travel.length());
        between(at + "/camFrom", "Reference cam, lower edge", travel.camFrom(), 0, travel.length());
        between(at + "/camTo", "Reference cam, upper edge", travel.camTo(), travel.camFrom(), travel.length());
        between(at + "/parkedAt", "Parked at", travel.parkedAt(), 0, travel.length());
    }

    private void limits(String at, Axis.Limits limits) {
        if (!(limits.softMax() > limits.softMin()) || Double.isInfinite(limits.softMax() - limits.softMin())) {
            refuse(at + "/softMax", "Positive soft limit", Double.toString(limits.softMax()), "greater than the negative soft limit", "exchange the two");
        }
        positive(at + "/maxSpeed", "Highest speed", limits.maxSpeed(), "units/s");
        positive(at + "/maxAcceleration", "Highest acceleration", limits.maxAcceleration(), "units/s²");
        notNegative(at + "/maxJerk", "Highest jerk", limits.maxJerk(), "units/s³");
        positive(at + "/quickStop", "Quick-stop deceleration", limits.quickStop(), "units/s²");
        positive(at + "/followingError", "Allowed following error", limits.followingError(), "units");
        whole(at + "/followingErrorTime", "Following error time", limits.followingErrorTime(), 0, 10_000);
    }

    private void homing(String at, Axis.Homing homing) {
        if (homing.method() != 11 && homing.method() != 17 && homing.method() != 37) {
            refuse(at + "/method", "Homing method", Integer.toString(homing.method()), "11, 17 or 37", "choose one of them");
        }
        positive(at + "/searchSpeed", "Search speed", homing.searchSpeed(), "units/s");
        positive(at + "/creepSpeed", "Creep speed", homing.creepSpeed(), "units/s");
        positive(at + "/acceleration", "Homing acceleration", homing.acceleration(), "units/s²");
        if (!Double.isFinite(homing.zeroOffset()) || Math.abs(homing.zeroOffset()) > 1e9) {
            refuse(at + "/zeroOffset", "Zero offset", Double.toString(homing.zeroOffset()), "−1e9 to 1e9", "enter the position of the zero");
        }
    }

    private void entries(String at, List<Station.Entry> entries) {
        for (int i = 0; i < entries.size(); i++) {
            Station.Entry entry = entries.get(i);
            whole(at + "/" + i + "/bits", "Bits", entry.bits(), 1, 64);
            whole(at + "/" + i + "/object", "Object", entry.object(), 0, 0xFFFF);
            whole(at + "/" + i + "/subIndex", "Sub-index", entry.subIndex(), 0, 254);
            if (entry.isBound() && !TAG.matcher(entry.tag()).matches()) {
                refuse(at + "/" + i + "/tag", "PLC tag", entry.tag(), "names of letters, digits and _, joined by dots", "rename the tag");
            }
            if (entry.isBound() && !TAG_TYPES.contains(String.valueOf(entry.tagType()))) {
                refuse(at + "/" + i + "/tagType", "Tag type", String.valueOf(entry.tagType()), "an elementary type such as DINT", "choose a type");
            }
        }
    }

    private void proof(Machine machine) {
        Proof proof = machine.proof();
        if (!(proof.duration() >= 0.1 && proof.duration() <= 600)) {
            refuse("/proof/duration", "Duration", proof.duration() + " s", "0.1 to 600 s", "enter how long the program runs");
        }
        for (int i = 0; i < proof.expectations().size(); i++) {
            Proof.Expectation expectation = proof.expectations().get(i);
            String at = "/proof/expectations/" + i;
            if (expectation.kind() == null) {
                refuse(at + "/kind", "Expectation", "none", "arrives, bound or no error", "choose a sentence");
                continue;
            }
            if (expectation.axis() == null || machine.axis(expectation.axis()).isEmpty()) {
                refuse(at + "/axis", "Axis", String.valueOf(expectation.axis()), "an axis of this machine", "choose an axis");
            }
            switch (expectation.kind()) {
                case ARRIVES -> {
                    if (expectation.after() == null || expectation.after().isBlank()) {
                        refuse(at + "/after", "Event", "none", "the name of a BOOL of the program", "choose an event");
                    }
                    finite(at + "/position", "Position", expectation.position());
                    positiveSlot(at + "/tolerance", "Tolerance", expectation.tolerance());
                    positiveSlot(at + "/within", "Time", expectation.within());
                    finite(at + "/stays", "Stays", expectation.stays());
                }
                case BOUND -> {
                    if (expectation.quantity() == null) {
                        refuse(at + "/quantity", "Quantity", "none", "speed, torque or following error", "choose one");
                    }
                    positiveSlot(at + "/limit", "Limit", expectation.limit());
                }
                case NO_ERROR -> { }
            }
        }
    }

    private boolean missing(String field, String label, Object value) {
        if (value == null) {
            refuse(field, label, "missing", "a value", "enter it");
        }
        return value == null;
    }

    private void positiveSlot(String field, String label, Double value) {
        if (value == null || !(value > 0) || value.isInfinite()) {
            refuse(field, label, String.valueOf(value), "greater than 0", "enter a number");
        }
    }

    private void finite(String field, String label, Double value) {
        if (value == null || !Double.isFinite(value)) {
            refuse(field, label, String.valueOf(value), "a number", "enter a number");
        }
    }

    private void positive(String field, String label, double value, String unit) {
        if (!(value > 0 && value < 1e12)) {
            refuse(field, label, value + " " + unit, "greater than 0", "enter a positive number");
        }
    }

    private void notNegative(String field, String label, double value, String unit) {
        if (!(value >= 0 && value < 1e12)) {
            refuse(field, label, value + " " + unit, "0 or more", "enter 0 or a positive number");
        }
    }

    private void share(String field, String label, double value) {
        if (!(value >= 0 && value <= 1)) {
            refuse(field, label, Double.toString(value), "0 to 1", "1 feeds the whole value forward");
        }
    }

    private void between(String field, String label, double value, double low, double high) {
        if (!(value >= low && value <= high)) {
            refuse(field, label, Double.toString(value), low + " to " + high, "move it between its neighbours");
        }
    }

    private void whole(String field, String label, long value, long low, long high) {
        if (value < low || value > high) {
            refuse(field, label, Long.toString(value), low + " to " + high, "enter a whole number in this range");
        }
    }

    private void refuse(String field, String label, String value, String allowed, String mend) {
        faults.add(new EntryFault(field, label, value, allowed, mend));
    }
}
