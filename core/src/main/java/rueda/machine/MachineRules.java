package rueda.machine;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
import rueda.quantity.InvalidEntry;
import rueda.quantity.Ratio;
import rueda.quantity.Scale;
import rueda.quantity.UserUnit;

/**
 * Says of every entry of a document whether it can be stored. What is refused here cannot run at all; what is
 * merely unwise is a finding of {@code rueda.advice}.
 */
public final class MachineRules {

    static final Pattern IDENTIFIER = Pattern.compile("[A-Za-z_][A-Za-z0-9_]*");
    private static final long UNSIGNED_32 = 0xFFFF_FFFFL;
    private static final int MOST_PROOFS = 64;
    /** As the tables of runs and images hold it. */
    static final int LONGEST_AXIS_NAME = 80;
    /** An axis whose gear is farther off does not do anything that its entries say (our choice); less is a finding. */
    private static final double MOST_GEAR_ERROR = 0.01;

    private final List<EntryFault> faults = new ArrayList<>();

    /** a document without refused entries, or null */
    private final Machine sound;

    private MachineRules(Machine sound) {
        this.sound = sound;
    }

    /** The axis stands in the sound document at the same place: what looks at it alone has nothing to refuse. */
    static boolean same(Machine sound, int index, Axis axis) {
        return sound != null && index < sound.axes().size() && sound.axes().get(index) == axis;
    }

    /** All refused entries, in the order of the document; empty when it can be stored. */
    public static List<EntryFault> check(Machine machine) {
        return check(machine, null);
    }

    /** The same of a document of which parts are those of one without refused entries. @param sound that document, null for none */
    public static List<EntryFault> check(Machine machine, Machine sound) {
        MachineRules rules = new MachineRules(sound);
        rules.machine(machine);
        return List.copyOf(rules.faults);
    }

    private void machine(Machine machine) {
        if (missing("/name", "Machine name", machine.name()) | missing("/bus", "Bus", machine.bus())
                | missing("/plc", "PLC", machine.plc())) {
            return;
        }
        if (machine.name().isBlank() || machine.name().length() > 80) {
            refuse("/name", "Machine name", shortened(machine.name()), "1 to 80 characters", "enter a name");
        }
        int cycle = machine.bus().cycleMicros();
        new StationRules(faults).bus(machine.bus());
        new StationRules(faults).tags(machine.plc().tags());
        if (!new PlcRules(faults).check(machine.plc(), cycle)) {
            return;
        }
        if (machine.axes().size() > 128) {
            refuse("/axes", "Axes", Integer.toString(machine.axes().size()), "up to 128 axes", "remove some");
            return;
        }
        if (machine.proofs().size() > MOST_PROOFS) {
            refuse("/proofs", "Proofs", machine.proofs().size() + " proofs", "up to " + MOST_PROOFS, "remove some");
            return;
        }
        for (int i = 0; i < machine.proofs().size(); i++) {
            if (!new ProofRules(faults, machine).fewEnough("/proofs/" + i, machine.proofs().get(i))) {
                return;
            }
        }
        Set<String> names = new HashSet<>();
        for (int i = 0; i < machine.axes().size(); i++) {
            Axis axis = machine.axes().get(i);
            if (!same(sound, i, axis)) {
                axis("/axes/" + i, axis);
            }
            if (axis.name() != null && !names.add(axis.name().toUpperCase(Locale.ROOT))) {
                refuse("/axes/" + i + "/name", "Axis name", axis.name(), "a name no other axis has", "rename it");
            }
        }
        new VirtualMasterRules(faults).check(machine);
        if (faults.isEmpty()) {
            new FollowRules(faults, machine).check();
        }
        new SafetyRules(faults, machine).check();
        Set<String> proofs = new HashSet<>();
        for (int i = 0; i < machine.proofs().size(); i++) {
            Proof proof = machine.proofs().get(i);
            new ProofRules(faults, machine).check("/proofs/" + i, proof);
            if (proof.name() != null && !proof.name().isBlank() && !proofs.add(proof.name().toUpperCase(Locale.ROOT))) {
                refuse("/proofs/" + i + "/name", "Name of the proof", shortened(proof.name()), "a name no other proof has", "rename it");
            }
        }
        new TextRules(faults).check(machine, sound);
    }

    private void axis(String at, Axis axis) {
        if (axis.name() == null || axis.name().length() > LONGEST_AXIS_NAME || !IDENTIFIER.matcher(axis.name()).matches()) {
            refuse(at + "/name", "Axis name", shortened(String.valueOf(axis.name())), "a letter, then letters, digits or _, up to " + LONGEST_AXIS_NAME + " characters",
                    "the program uses it as an identifier");
        }
        if (missing(at + "/unit", "Unit", axis.unit()) | missing(at + "/motor", "Motor", axis.motor())
                | missing(at + "/kind", "Kind of axis", axis.kind()) | missing(at + "/modulo", "Modulo", axis.modulo())
                | missing(at + "/encoder", "Encoder", axis.encoder()) | missing(at + "/train", "Drive train", axis.train())
                | missing(at + "/load", "Load", axis.load()) | missing(at + "/brake", "Holding brake", axis.brake())
                | missing(at + "/travel", "Travel", axis.travel()) | missing(at + "/limits", "Limits", axis.limits())
                | missing(at + "/supervision", "Supervision", axis.supervision()) | missing(at + "/loadEncoder", "Encoder on the load", axis.loadEncoder())
                | missing(at + "/duty", "Duty", axis.duty()) | missing(at + "/homing", "Homing", axis.homing())
                | missing(at + "/control", "Control", axis.control()) | missing(at + "/station", "Station", axis.station())
                | missing(at + "/wiring", "Wiring", axis.wiring()) | missing(at + "/moves", "Move list", axis.moves()) | missing(at + "/following", "Following", axis.following()) | missing(at + "/guard", "Guard", axis.guard())
                | missing(at + "/commandedBy", "Commanded by", axis.commandedBy())) {
            return;
        }
        motor(at + "/motor", axis.motor());
        load(at + "/load", axis);
        brake(at + "/brake", axis.brake());
        scale(at, axis);
        travel(at + "/travel", axis);
        limits(at + "/limits", axis);
        supervision(at + "/supervision", axis.supervision(), axis.unit().symbol());
        positive(at + "/duty/distance", "Way of a move", axis.duty().distance(), axis.unit().symbol());
        notNegative(at + "/duty/pause", "Pause", axis.duty().pause(), "s");
        homing(at + "/homing", axis.homing());
        positive(at + "/control/positionGain", "Position gain", axis.control().positionGain(), "1/s");
        positive(at + "/control/velocityGain", "Velocity gain", axis.control().velocityGain(), "N·m·s/rad");
        positive(at + "/control/integralTime", "Integral time", axis.control().integralTime(), "ms");
        share(at + "/control/feedForward", "Speed feed-forward", axis.control().feedForward());
        share(at + "/control/torqueForward", "Torque feed-forward", axis.control().torqueForward());
        new StationRules(faults).station(at + "/station", axis.station());
        terminals(at + "/wiring/terminals", axis.wiring().terminals());
        new MoveRules(faults, axis).check(at + "/moves");
        notNegative(at + "/wiring/analogueTorque", "Torque at 10 V", axis.wiring().analogueTorque(), "%");
        if (axis.wiring().analogueTorque() > 1000) {
            refuse(at + "/wiring/analogueTorque", "Torque at 10 V", axis.wiring().analogueTorque() + " %", "0 to 1000 % of the rated torque", "enter a share of the rated torque");
        }
    }

    private void motor(String at, Motor motor) {
        positive(at + "/inertia", "Rotor inertia", motor.inertia(), "kg·m²");
        positive(at + "/ratedTorque", "Rated torque", motor.ratedTorque(), "N·m");
        if (!(motor.peakTorque() >= motor.ratedTorque()) || !(motor.peakTorque() < 1e6)) {
            refuse(at + "/peakTorque", "Peak torque", motor.peakTorque() + " N·m", "at least the rated torque", "enter the motor's peak torque");
        }
        positive(at + "/ratedSpeed", "Rated speed", motor.ratedSpeed(), "1/min");
        if (!(motor.maxSpeed() >= motor.ratedSpeed()) || !(motor.maxSpeed() < 1e6)) {
            refuse(at + "/maxSpeed", "Highest motor speed", motor.maxSpeed() + " 1/min", "at least the rated speed", "enter the motor's highest speed");
        }
        if (!(motor.torqueAtMaxSpeed() >= 0 && motor.torqueAtMaxSpeed() <= motor.peakTorque())) {
            refuse(at + "/torqueAtMaxSpeed", "Peak torque at highest speed", motor.torqueAtMaxSpeed() + " N·m", "0 to the peak torque", "read it off the torque–speed curve");
        }
    }

    private void load(String at, Axis axis) {
        Load load = axis.load();
        boolean linear = axis.train().feed() != null && axis.train().feed().kind() != null && axis.train().feed().linear();
        notNegative(at + "/mass", "Mass", load.mass(), "kg");
        notNegative(at + "/inertia", "Inertia", load.inertia(), "kg·m²");
        notNegative(at + "/coulomb", "Coulomb friction", load.coulomb(), linear ? "N" : "N·m");
        notNegative(at + "/viscous", "Viscous friction", load.viscous(), linear ? "N·s/m" : "N·m·s/rad");
        between(at + "/slope", "Slope", load.slope(), -90, 90);
        notNegative(at + "/stiffness", "Stiffness", load.stiffness(), "N·m/rad");
        notNegative(at + "/damping", "Damping", load.damping(), "N·m·s/rad");
        notNegative(at + "/backlash", "Backlash", load.backlash(), axis.unit().symbol());
        if (load.stiffness() > 0 && !linear && !(load.inertia() > 0)) {
            refuse(at + "/inertia", "Inertia", load.inertia() + " kg·m²", "greater than 0 behind a spring", "enter the load's inertia, or 0 stiffness for a rigid one");
        }
        if (load.backlash() > 0 && load.stiffness() == 0) {
            refuse(at + "/backlash", "Backlash", Double.toString(load.backlash()), "0 for a rigid load", "enter the stiffness first");
        }
    }

    private void brake(String at, Brake brake) {
        notNegative(at + "/torque", "Brake torque", brake.torque(), "N·m");
        whole(at + "/releaseMillis", "Brake opens in", brake.releaseMillis(), 0, 2000);
        whole(at + "/closeMillis", "Brake closes in", brake.closeMillis(), 0, 2000);
    }

    private void scale(String at, Axis axis) {
        int before = faults.size();
        Unit unit = axis.unit();
        if (unit.symbol() == null || unit.symbol().isBlank() || unit.symbol().length() > 12) {
            refuse(at + "/unit/symbol", "Unit", String.valueOf(unit.symbol()), "1 to 12 characters", "enter a unit such as mm");
        }
        whole(at + "/unit/decimals", "Decimals", unit.decimals(), 0, 6);
        encoder(at + "/encoder", axis.encoder());
        if (!missing(at + "/loadEncoder/use", "Encoder on the load", axis.loadEncoder().use())
                & !missing(at + "/loadEncoder/encoder", "Encoder on the load", axis.loadEncoder().encoder())) {
            encoder(at + "/loadEncoder/encoder", axis.loadEncoder().encoder());
        }
        for (int i = 0; i < axis.train().reducers().size(); i++) {
            Reducer reducer = axis.train().reducers().get(i);
            whole(at + "/train/reducers/" + i + "/motorTurns", "Reducer, motor turns", reducer.motorTurns(), 1, Integer.MAX_VALUE);
            whole(at + "/train/reducers/" + i + "/outputTurns", "Reducer, output turns", reducer.outputTurns(), 1, Integer.MAX_VALUE);
        }
        if (axis.train().reducers().size() > 6) {
            refuse(at + "/train/reducers", "Reducers", axis.train().reducers().size() + " reducers", "up to 6", "multiply two of them into one");
        }
        feed(at + "/train/feed", axis.train().feed());
        whole(at + "/gearBits", "Width of the electronic gear", axis.gearBits(), 8, 32);
        if (faults.size() > before) {
            return;
        }
        try {
            Scale made = axis.scale();
            Ratio gear = made.gear();
            if (Math.max(gear.numerator(), gear.denominator()) > UNSIGNED_32) {
                refuse(at + "/train/reducers/0/motorTurns", "Reducers", gear.toString(), "a ratio that fits 6091h: two numbers of 32 bits", "multiply the reducers by smaller whole numbers");
                return;
            }
            double off = axis.gearError();
            if (Math.abs(off) > MOST_GEAR_ERROR) {
                boolean coarse = made.countsPerWireUnit().toDouble() > 1;
                refuse(at + "/unit/decimals", "Decimals", Integer.toString(unit.decimals()), "counts per wire unit that a gear of " + axis.gearBits() + " bits holds; " + String.format(Locale.ROOT, "%.3g", made.countsPerWireUnit().toDouble())
                        + " are not, the nearest is " + axis.electronicGear() + ", " + String.format(Locale.ROOT, "%.2g", 100 * Math.abs(off)) + " % off", (coarse ? "use more decimals" : "use fewer decimals") + ", or a wider gear");
                return;
            }
        } catch (InvalidEntry refused) {
            String field = switch (refused.field()) {
                case "unit", "unit.symbol" -> "/unit/symbol";
                case "feed.perTurn" -> "/train/feed/amount";
                case "encoder.countsPerTurn" -> axis.encoder().kind() == Encoder.Kind.INCREMENTAL ? "/encoder/lines" : "/encoder/singleTurnBits";
                default -> axis.train().reducers().isEmpty() ? "/unit/decimals" : "/train/reducers/0/motorTurns";
            };
            refuse(at + field, field.startsWith("/unit/symbol") ? "Unit" : "Scale", refused.value(), refused.allowed(), refused.mend());
            return;
        }
        modulo(at, axis);
    }

    private void encoder(String at, Encoder encoder) {
        if (missing(at + "/kind", "Encoder", encoder.kind())) {
            return;
        }
        if (encoder.kind() == Encoder.Kind.INCREMENTAL) {
            whole(at + "/lines", "Encoder lines", encoder.lines(), 1, 1_000_000);
        } else {
            whole(at + "/singleTurnBits", "Bits within a turn", encoder.singleTurnBits(), 4, 31);
            whole(at + "/multiTurnBits", "Bits of whole turns", encoder.multiTurnBits(), 0, 24);
        }
    }

    private void feed(String at, Feed feed) {
        if (missing(at, "Feed", feed) || missing(at + "/kind", "Feed", feed.kind()) || feed.kind() == Feed.Kind.DIRECT) {
            return;
        }
        if (feed.usesTeeth()) {
            whole(at + "/teeth", feed.kind() == Feed.Kind.RACK ? "Teeth of the pinion" : "Teeth of the pulley", feed.teeth(), 1, 1000);
        }
        String what = switch (feed.kind()) {
            case SCREW -> "Lead";
            case FEEDER -> "Amount per turn";
            default -> "Pitch";
        };
        if (feed.amount() == null || feed.amount().signum() <= 0 || feed.amount().precision() > 12) {
            refuse(at + "/amount", what, String.valueOf(feed.amount()), "greater than 0, at most 12 digits", "enter what one turn or one tooth moves");
        }
        if (feed.unit() == null || feed.unit().isBlank() || feed.unit().length() > 12) {
            refuse(at + "/unit", "Unit of the " + what.toLowerCase(Locale.ROOT), String.valueOf(feed.unit()), "1 to 12 characters", "enter a unit such as mm");
        } else if (feed.linear() && UserUnit.of(feed.unit()).quantity() != UserUnit.Quantity.LENGTH) {
            refuse(at + "/unit", "Unit of the " + what.toLowerCase(Locale.ROOT), feed.unit(), "a length: mm, µm, m or in", "choose a length");
        }
    }

    /** A modulo must be a whole number of wire units, and fit a signed 32-bit position. */
    private void modulo(String at, Axis axis) {
        if (!axis.endless()) {
            return;
        }
        BigDecimal wire = axis.modulo().movePointRight(axis.unit().decimals());
        if (axis.modulo().signum() < 0 || wire.compareTo(BigDecimal.valueOf(Integer.MAX_VALUE)) > 0) {
            refuse(at + "/modulo", "Modulo", axis.modulo().toPlainString(), "0 for none, or up to " + Integer.MAX_VALUE + " wire units", "use fewer decimals or a smaller modulo");
        } else if (wire.stripTrailingZeros().scale() > 0) {
            refuse(at + "/modulo", "Modulo", axis.modulo().toPlainString(), "a whole number of wire units: at most " + axis.unit().decimals() + " decimals",
                    "use more decimals on the wire");
        }
    }

    private void travel(String at, Axis axis) {
        Travel travel = axis.travel();
        positive(at + "/length", axis.endless() ? "Way after which the cam comes again" : "Way between the stops", travel.length(), axis.unit().symbol());
        if (!axis.endless()) {
            between(at + "/negativeLimit", "Negative limit switch", travel.negativeLimit(), 0, travel.length());
            between(at + "/positiveLimit", "Positive limit switch", travel.positiveLimit(), travel.negativeLimit(), travel.length());
        }
        between(at + "/camFrom", "Reference cam, lower edge", travel.camFrom(), 0, travel.length());
        between(at + "/camTo", "Reference cam, upper edge", travel.camTo(), travel.camFrom(), travel.length());
        between(at + "/parkedAt", "Parked at", travel.parkedAt(), 0, travel.length());
    }

    private void limits(String at, Axis axis) {
        Limits limits = axis.limits();
        if (missing(at + "/normal", "Defaults", limits.normal()) | missing(at + "/max", "Maximums", limits.max())) {
            return;
        }
        if (!axis.endless() && (!(limits.softMax() > limits.softMin()) || Double.isInfinite(limits.softMax() - limits.softMin()))) {
            refuse(at + "/softMax", "Positive soft limit", Double.toString(limits.softMax()), "greater than the negative soft limit", "exchange the two");
        }
        String unit = axis.unit().symbol();
        dynamics(at + "/max", "Highest ", limits.max(), unit);
        dynamics(at + "/normal", "Default ", limits.normal(), unit);
        positive(at + "/quickStop", "Quick-stop deceleration", limits.quickStop(), unit + "/s²");
    }

    private void supervision(String at, Supervision s, String unit) {
        positive(at + "/followingError", "Allowed following error", s.followingError(), unit);
        if (!(s.followingErrorAtSpeed() >= s.followingError() && s.followingErrorAtSpeed() < 1e12)) {
            refuse(at + "/followingErrorAtSpeed", "Following error at highest speed", s.followingErrorAtSpeed() + " " + unit, "at least the one at standstill", "enter " + s.followingError() + " for one that does not grow");
        }
        notNegative(at + "/followingFrom", "Speed from which the following error grows", s.followingFrom(), unit + "/s");
        whole(at + "/followingErrorTime", "Following error time", s.followingErrorTime(), 0, 10_000);
        positive(at + "/positionWindow", "Position window", s.positionWindow(), unit);
        whole(at + "/positionDwell", "Time in the position window", s.positionDwell(), 0, 10_000);
        whole(at + "/positionTolerance", "Tolerance time", s.positionTolerance(), 0, 60_000);
        positive(at + "/standstillWindow", "Standstill window", s.standstillWindow(), unit);
        whole(at + "/standstillDwell", "Time in the standstill window", s.standstillDwell(), 0, 10_000);
    }

    private void dynamics(String at, String which, Dynamics dynamics, String unit) {
        positive(at + "/speed", which + "speed", dynamics.speed(), unit + "/s");
        positive(at + "/acceleration", which + "acceleration", dynamics.acceleration(), unit + "/s²");
        positive(at + "/deceleration", which + "deceleration", dynamics.deceleration(), unit + "/s²");
        notNegative(at + "/jerk", which + "jerk", dynamics.jerk(), unit + "/s³");
        if (!(dynamics.torque() > 0 && dynamics.torque() <= 1000)) {
            refuse(at + "/torque", which + "torque", dynamics.torque() + " %", "above 0 to 1000 % of the rated torque", "enter a share of the rated torque");
        }
    }

    private void homing(String at, Homing homing) {
        if (!Homing.METHODS.contains(homing.method())) {
            refuse(at + "/method", "Homing method", Integer.toString(homing.method()), "1 to 14, 17 to 30, 33, 34, 35, 37, or −1 to −4", "choose one of them");
        }
        positive(at + "/searchSpeed", "Search speed", homing.searchSpeed(), "units/s");
        positive(at + "/creepSpeed", "Creep speed", homing.creepSpeed(), "units/s");
        positive(at + "/acceleration", "Homing acceleration", homing.acceleration(), "units/s²");
        if (!Double.isFinite(homing.zeroOffset()) || Math.abs(homing.zeroOffset()) > 1e9) {
            refuse(at + "/zeroOffset", "Zero offset", Double.toString(homing.zeroOffset()), "−1e9 to 1e9", "enter the position of the zero");
        }
        if (!(homing.stopTorque() > 0 && homing.stopTorque() <= 1000)) {
            refuse(at + "/stopTorque", "Torque at the stop", homing.stopTorque() + " %", "above 0 to 1000 % of the rated torque", "enter a share of the rated torque");
        }
        whole(at + "/stopTime", "Time at the stop", homing.stopTime(), 1, 10_000);
        missing(at + "/atPowerUp", "Position at power-up", homing.atPowerUp());
        if (!Double.isFinite(homing.encoderOffset()) || Math.abs(homing.encoderOffset()) > 1e9) {
            refuse(at + "/encoderOffset", "Encoder offset", Double.toString(homing.encoderOffset()), "−1e9 to 1e9", "enter the position the axis has where the encoder reads 0");
        }
        if (!(homing.timeLimit() > 0 && homing.timeLimit() <= 3600)) {
            refuse(at + "/timeLimit", "Time limit", homing.timeLimit() + " s", "above 0 to 3600 s", "enter how long the search may take");
        }
    }

    private void terminals(String at, List<Terminal> terminals) {
        Set<String> names = new HashSet<>();
        if (terminals.size() > 32) {
            refuse(at, "Terminals", terminals.size() + " terminals", "up to 32", "remove some");
        }
        for (int i = 0; i < terminals.size(); i++) {
            Terminal terminal = terminals.get(i);
            if (missing(at + "/" + i + "/kind", "Kind of terminal", terminal.kind()) | missing(at + "/" + i + "/function", "Function", terminal.function())
                    | missing(at + "/" + i + "/name", "Terminal", terminal.name())) {
                continue;
            }
            if (!names.add(terminal.name())) {
                refuse(at + "/" + i + "/name", "Terminal", terminal.name(), "a name no other terminal has", "rename it");
            }
            if (!terminal.function().fits(terminal.kind())) {
                refuse(at + "/" + i + "/function", "Function of " + terminal.name(), terminal.function().words(),
                        switch (terminal.kind()) {
                            case OUTPUT -> "a function of an output";
                            case INPUT, FAST_INPUT -> "a function of an input";
                            case SAFE_TORQUE_OFF -> "safe torque off";
                            case ANALOGUE_INPUT -> "torque, or not used";
                            case SECOND_ENCODER -> "encoder on the load, or not used";
                        }, "choose another function");
            }
            whole(at + "/" + i + "/filterMicros", "Filter of " + terminal.name(), terminal.filterMicros(), 0, 100_000);
        }
    }

    static String shortened(String text) {
        return text.length() > 60 ? text.substring(0, 60) + "…" : text;
    }

    private boolean missing(String field, String label, Object value) {
        if (value == null) {
            refuse(field, label, "missing", "a value", "enter it");
        }
        return value == null;
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
