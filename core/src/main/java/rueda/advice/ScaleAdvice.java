package rueda.advice;

import static rueda.advice.Numbers.count;
import static rueda.advice.Numbers.significant;

import java.util.stream.Collectors;
import rueda.advice.Finding.Mend;
import rueda.advice.Finding.Severity;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.Dynamics;
import rueda.machine.Feed;
import rueda.machine.Limits;
import rueda.machine.LoadEncoder;
import rueda.machine.MotorSide;
import rueda.quantity.Ratio;
import rueda.quantity.Scale;

/** Consequences of encoder, drive train, load and limits. Servo sizing as in machine-design handbooks. */
public final class ScaleAdvice extends AxisAdvice {

    private static final double SECONDS_PER_DAY = 86_400;
    /** Share of the position window that an axis with ends may be off without a warning (our choice). */
    private static final double NEGLIGIBLE = 0.01;
    /** Share of the rated torque that one wire unit may make (our choice). */
    private static final double COARSE_SETPOINT = 0.2;

    private final Scale scale;
    private final MotorSide side;
    private final Limits limits;

    private ScaleAdvice(Axis axis, String pointer) {
        super("scale", axis, pointer);
        scale = axis.scale();
        side = axis.motorSide();
        limits = axis.limits();
    }

    /**
     * @param axis    an axis whose entries can be stored
     * @param bus     the bus it hangs on
     * @param pointer JSON pointer of the axis in the document
     */
    public static Advice of(Axis axis, Bus bus, String pointer) {
        ScaleAdvice advice = new ScaleAdvice(axis, pointer);
        advice.scales();
        advice.setpointSteps(bus);
        advice.electronicGear();
        advice.loadEncoder();
        advice.rawValues();
        advice.range();
        advice.speed();
        advice.torque();
        advice.duty();
        advice.stopping();
        advice.defaults();
        return advice.advice();
    }

    private void scales() {
        Ratio counts = scale.countsPerUnit();
        String gear = scale.gear().numerator() + "/" + scale.gear().denominator();
        String feed = significant(scale.feed().toDouble(), 8);
        String turn = significant(scale.unitsPerMotorTurn().toDouble(), 6);
        figure("Counts per " + unit, counts.denominator() == 1 ? count(counts.numerator()) : count(counts.numerator()) + " : " + count(counts.denominator()), "",
                "608Fh × 6091h ÷ 6092h = " + count(axis.encoder().countsPerTurn()) + " × " + gear + " ÷ " + feed + " " + unit);
        figure("One count moves", significant(scale.unitsPerCount().toDouble(), 4), unit, "1 ÷ counts per " + unit);
        figure("One motor turn moves", turn, unit, feed + " " + unit + " ÷ (" + gear + ")");
        figure("608Fh encoder resolution", count(axis.encoder().countsPerTurn()) + " : 1", "",
                axis.encoder().kind() == rueda.machine.Encoder.Kind.INCREMENTAL ? "4 edges × " + count(axis.encoder().lines()) + " lines : motor revolutions"
                        : "2^" + axis.encoder().singleTurnBits() + " : motor revolutions");
        figure("6091h gear ratio", count(scale.gear().numerator()) + " : " + count(scale.gear().denominator()), "",
                axis.train().reducers().isEmpty() ? "no reducer" : axis.train().reducers().stream().map(r -> r.motorTurns() + "/" + r.outputTurns()).collect(Collectors.joining(" × ")) + ", reduced");
        Ratio held = scale.feedConstant();
        boolean exact = held.equals(scale.wireFeed());
        figure("6092h feed constant", count(held.numerator()) + " : " + count(held.denominator()), "",
                "feed in wire units of 10⁻" + scale.decimals() + " " + unit + " : shaft revolutions" + (exact ? "" : "; the nearest fraction of two 32-bit numbers to " + scale.wireFeed()));
        double wireUnit = 1.0 / scale.wireUnitsPerUnit();
        double resolution = scale.unitsPerCount().toDouble();
        if (resolution > wireUnit) {
            finding(Severity.WARNING, "The encoder is coarser than the unit on the wire.",
                    "One count moves " + significant(resolution, 3) + " " + unit + ", the last decimal says " + significant(wireUnit, 3) + " " + unit + ".",
                    scale.decimals() > 0 ? Mend.set("Use one decimal less", pointer + "/unit/decimals", scale.decimals() - 1) : null);
        }
    }

    /**
     * Setpoints are whole wire units: when one comes late by a unit, its second difference over a bus cycle is fed forward
     * as torque, J·Δθ/T².
     */
    private void setpointSteps(Bus bus) {
        double angle = 2 * Math.PI / scale.unitsPerMotorTurn().toDouble() / scale.wireUnitsPerUnit();
        double cycle = bus.cycleMicros() * 1e-6;
        double kick = side.inertia() * angle / cycle / cycle * axis.control().torqueForward() / axis.motor().ratedTorque();
        figure("One wire unit kicks with", significant(100 * kick, 3), "% of rated torque", "J × " + significant(Math.toDegrees(angle), 3) + "° of the motor ÷ (" + bus.cycleMicros() + " µs)² × torque feed-forward ÷ rated torque");
        if (kick > COARSE_SETPOINT && scale.decimals() < 6) {
            finding(Severity.WARNING, "The wire unit is too coarse for torque feed-forward.",
                    "Each step of it kicks the motor with " + significant(100 * kick, 3) + " % of its rated torque: it growls as it moves.", Mend.set("Use one decimal more", pointer + "/unit/decimals", scale.decimals() + 1));
        }
    }

    private void electronicGear() {
        Ratio exact = scale.countsPerWireUnit();
        Ratio held = axis.electronicGear();
        figure("Electronic gear", count(held.numerator()) + " : " + count(held.denominator()), "",
                "counts : wire units, " + (held.equals(exact) ? "exact in " : "nearest in ") + axis.gearBits() + " bits each; exact " + count(exact.numerator()) + " : " + count(exact.denominator()));
        if (held.equals(exact)) {
            return;
        }
        double share = axis.gearError();
        double perTurn = share * scale.feed().toDouble();
        double perDay = share * limits.normal().speed() * SECONDS_PER_DAY;
        figure("Drift per output turn", significant(perTurn, 3), unit, "(gear held ÷ exact gear − 1) × " + significant(scale.feed().toDouble(), 6) + " " + unit);
        figure("Drift per day", significant(perDay, 3), unit, "at the default speed, one way");
        double off = Math.abs(share) * (axis.endless() ? scale.feed().toDouble() : axis.travel().length());
        Severity severity = off > axis.supervision().positionWindow() ? Severity.FAULT : Math.abs(share) * axis.travel().length() < NEGLIGIBLE * axis.supervision().positionWindow() && !axis.endless() ? Severity.GOOD : Severity.WARNING;
        boolean byFeed = !scale.feedConstant().equals(scale.wireFeed());
        finding(severity, byFeed ? "The feed constant does not fit into 32 bits." : "The electronic gear does not fit into " + axis.gearBits() + " bits.",
                axis.endless() ? "The drive takes the nearest fraction: turning one way, the axis drifts " + significant(Math.abs(perDay), 3) + " " + unit + " a day."
                        : "The drive takes the nearest fraction: over the whole travel the position is " + significant(Math.abs(share) * axis.travel().length(), 3) + " " + unit + " off.",
                scale.decimals() > 0 ? Mend.set("Use one decimal less", pointer + "/unit/decimals", scale.decimals() - 1) : null);
    }

    private void loadEncoder() {
        if (!axis.loadEncoder().fitted()) {
            return;
        }
        long perTurn = axis.loadEncoder().encoder().countsPerTurn();
        Ratio motorPerLoad = Ratio.of(axis.encoder().countsPerTurn()).times(scale.gear()).dividedBy(Ratio.of(perTurn));
        double resolution = scale.feed().toDouble() / perTurn;
        figure("Motor counts per load turn", count(Ratio.of(axis.encoder().countsPerTurn()).times(scale.gear()).numerator()) + (scale.gear().denominator() == 1 ? "" : " : " + count(scale.gear().denominator())), "", "encoder resolution × gear");
        figure("Motor counts per load count", count(motorPerLoad.numerator()) + " : " + count(motorPerLoad.denominator()), "", count(axis.encoder().countsPerTurn()) + " × " + scale.gear() + " ÷ " + count(perTurn));
        figure("One count on the load", significant(resolution, 4), unit, significant(scale.feed().toDouble(), 6) + " " + unit + " ÷ " + count(perTurn));
        if (axis.loadEncoder().use() == LoadEncoder.Use.POSITION_LOOP && resolution > axis.supervision().positionWindow()) {
            finding(Severity.WARNING, "The encoder on the load is coarser than the position window.", "One count is " + significant(resolution, 3) + " " + unit + ": the loop over the load cannot stand still inside "
                    + significant(axis.supervision().positionWindow(), 3) + " " + unit + ".", Mend.set("Use it for reference only", pointer + "/loadEncoder/use", LoadEncoder.Use.REFERENCE));
        }
    }

    /** What stands in the objects, with its implied decimals. */
    private void rawValues() {
        double torque = axis.torqueLimit() / axis.motor().ratedTorque();
        figure("Raw 6072h, max torque", count(Math.round(1000 * torque)), "= " + significant(100 * torque, 4) + " %", "one implied decimal: tenths of a percent of the rated torque");
        figure("Raw 607Fh, max speed", count(scale.wireFromUnits(limits.max().speed())), "= " + significant(limits.max().speed(), 6) + " " + unit + "/s", scale.decimals() + " implied decimals");
        if (!axis.endless()) {
            figure("Raw 607Dh:02, soft limit", count(scale.wireFromUnits(limits.softMax())), "= " + significant(limits.softMax(), 6) + " " + unit, scale.decimals() + " implied decimals");
        }
    }

    private void range() {
        figure("32-bit count overflows after", "±" + significant(scale.travelBeforeCountOverflow(), 6), unit, "(2³¹ − 1) counts");
        if (axis.endless()) {
            endlessRange();
            return;
        }
        figure("Position overflows after", "±" + significant(scale.travelBeforeWireOverflow(), 6), unit, "(2³¹ − 1) wire units of 10⁻" + scale.decimals() + " " + unit);
        double reach = Math.max(Math.abs(limits.softMin()), Math.abs(limits.softMax()));
        if (reach > scale.travelBeforeWireOverflow()) {
            finding(Severity.FAULT, "The position overflows inside the soft limits.",
                    "A signed 32-bit position with " + scale.decimals() + " decimals ends at " + significant(scale.travelBeforeWireOverflow(), 6) + " " + unit + ".",
                    scale.decimals() > 0 ? Mend.set("Use one decimal less", pointer + "/unit/decimals", scale.decimals() - 1) : null);
        }
    }

    private void endlessRange() {
        if (axis.modulo().signum() == 0) {
            double range = (double) axis.wireModulo() / scale.wireUnitsPerUnit();
            figure("Position begins again after", significant(range, 6), unit, "2³² wire units of 10⁻" + scale.decimals() + " " + unit);
            return;
        }
        Ratio counts = Ratio.of(axis.modulo()).times(scale.countsPerUnit());
        boolean whole = counts.denominator() == 1;
        figure("Counts per modulo", whole ? count(counts.numerator()) : significant(counts.toDouble(), 10), "", "modulo × counts per " + unit);
        if (!whole) {
            double lost = (Math.round(counts.toDouble()) - counts.toDouble()) * scale.unitsPerCount().toDouble();
            double perDay = lost / axis.modulo().doubleValue() * limits.normal().speed() * SECONDS_PER_DAY;
            finding(Severity.WARNING, "The modulo is not a whole number of counts.",
                    "A PLC or drive that keeps whole counts drifts " + significant(Math.abs(perDay), 3) + " " + unit + " a day at the default speed. This drive counts fractions and does not.", null);
        }
    }

    private void speed() {
        double fastest = scale.highestSpeed(axis.motor().maxSpeed());
        double highest = limits.max().speed();
        figure("Highest speed of the motor", significant(fastest, 5), unit + "/s",
                significant(axis.motor().maxSpeed(), 6) + " 1/min ÷ 60 × " + significant(scale.unitsPerMotorTurn().toDouble(), 6) + " " + unit);
        figure("Motor at highest axis speed", significant(scale.motorTurnsPerMinute(highest), 5), "1/min",
                significant(highest, 6) + " " + unit + "/s × 60 ÷ " + significant(scale.unitsPerMotorTurn().toDouble(), 6) + " " + unit);
        if (highest > fastest) {
            double advised = roundedDown(fastest);
            finding(Severity.FAULT, "The motor is too slow for the highest speed.",
                    significant(highest, 6) + " " + unit + "/s needs " + significant(scale.motorTurnsPerMinute(highest), 5)
                            + " 1/min; the motor turns " + significant(axis.motor().maxSpeed(), 6) + " at most.",
                    Mend.set("Lower it to " + significant(advised, 6) + " " + unit + "/s", pointer + "/limits/max/speed", advised));
        } else {
            finding(Severity.GOOD, "The motor reaches the highest speed.", "It runs at " + significant(100 * highest / fastest, 3) + " % of its own.", null);
        }
    }

    /** Two significant digits, downward. */
    private static double roundedDown(double value) {
        double step = Math.pow(10, Math.floor(Math.log10(value)) - 1);
        return Double.parseDouble(String.format(java.util.Locale.ROOT, "%.6g", Math.floor(value / step) * step));
    }

    /** Torque there is at the highest axis speed, N·m. */
    private double available() {
        return Math.min(axis.torqueLimit(), axis.motor().peakTorqueAt(scale.motorTurnsPerMinute(limits.max().speed())));
    }

    private void torque() {
        double highest = limits.max().speed();
        Feed feed = axis.train().feed();
        figure("Inertia at the motor", significant(side.inertia() * 1e4, 4), "kg·cm²",
                feed.linear() ? "J + m·r² with r = " + significant(feed.metresPerTurn() / scale.gear().toDouble() / (2 * Math.PI) * 1000, 4) + " mm/rad" : "J + J of the load ÷ i², i = " + significant(scale.gear().toDouble(), 5));
        figure("Load to motor inertia", significant(side.loadInertia() / side.motorInertia(), 3) + " : 1", "", "load, reduced to the motor shaft ÷ rotor");
        if (side.gravity() != 0) {
            figure("Torque to hold the load", significant(side.gravity(), 3), "N·m", "m·g·sin(slope)·r");
        }
        double available = available();
        double possible = side.acceleration(available, highest);
        figure("Acceleration at peak torque", significant(possible, 4), unit + "/s²", "(torque at highest speed − friction" + (side.gravity() != 0 ? " − weight" : "") + ") × r ÷ inertia");
        holding();
        double wanted = limits.max().acceleration();
        if (wanted > possible) {
            double needed = side.torque(highest, wanted);
            double lacks = (needed / available - 1) * 100;
            finding(Severity.WARNING, "At the highest acceleration the motor lacks " + significant(lacks, 2) + " % torque.",
                    significant(wanted, 6) + " " + unit + "/s² needs " + significant(needed, 3) + " N·m, friction included; at the highest speed there are "
                            + significant(available, 3) + " N·m. The axis would fall behind.",
                    possible > 0 ? Mend.set("Lower it to " + significant(roundedDown(possible * 0.95), 6) + " " + unit + "/s²", pointer + "/limits/max/acceleration", roundedDown(possible * 0.95)) : null);
        }
    }

    private void holding() {
        double weight = Math.abs(side.gravity());
        if (weight > axis.motor().ratedTorque()) {
            finding(Severity.FAULT, "The motor cannot hold the load for long.",
                    "The weight needs " + significant(weight, 3) + " N·m, the motor gives " + significant(axis.motor().ratedTorque(), 3) + " N·m continuously.", null);
        }
        if (weight > side.coulomb() && !axis.brake().fitted()) {
            finding(Severity.FAULT, "Without power the load falls.", "The weight is greater than the friction and there is no holding brake.",
                    Mend.set("Fit a brake of twice the weight", pointer + "/brake/torque", Math.ceil(weight * 20) / 10));
        } else if (axis.brake().fitted() && axis.brake().torque() + side.coulomb() < weight) {
            finding(Severity.FAULT, "The holding brake is too weak.",
                    "It holds " + significant(axis.brake().torque(), 3) + " N·m, the weight needs " + significant(weight, 3) + " N·m.",
                    Mend.set("Fit one of twice the weight", pointer + "/brake/torque", Math.ceil(weight * 20) / 10));
        }
    }

    private void duty() {
        DutyLoad load = DutyLoad.of(axis);
        String stated = significant(axis.duty().distance(), 6) + " " + unit + " there and back, " + significant(axis.duty().pause(), 3) + " s rest, default speed and acceleration";
        figure("Duty: one move takes", significant(load.moveTime(), 4), "s", stated);
        figure("Duty: peak torque", significant(100 * load.peak() / axis.torqueLimit(), 3), "% of " + significant(axis.torqueLimit(), 3) + " N·m", stated);
        figure("Duty: RMS torque", significant(100 * load.rms() / axis.motor().ratedTorque(), 3), "% of rated", "√(∫M²dt ÷ T) over " + stated);
        if (load.rms() > axis.motor().ratedTorque()) {
            finding(Severity.WARNING, "The duty overheats the motor.",
                    "Its RMS torque is " + significant(load.rms(), 3) + " N·m, rated are " + significant(axis.motor().ratedTorque(), 3) + " N·m.", null);
        }
        if (load.peak() > load.availableAtPeak()) {
            finding(Severity.WARNING, "The duty needs more torque than there is.",
                    "At " + significant(load.speedAtPeak(), 4) + " " + unit + "/s it takes " + significant(load.peak(), 3) + " N·m; the motor gives " + significant(load.availableAtPeak(), 3) + " N·m there.", null);
        }
    }

    private void stopping() {
        double v = limits.max().speed();
        double way = v * v / 2 / limits.quickStop();
        figure("Quick stop takes", significant(way, 4), unit, "v² ÷ 2a from the highest speed");
        double braking = side.inertia() * limits.quickStop() / side.unitsPerRadian() - side.friction(v) + Math.abs(side.gravity());
        if (braking > available()) {
            finding(Severity.WARNING, "The motor is too weak for this quick stop.",
                    "It needs " + significant(braking, 3) + " N·m, there are " + significant(available(), 3) + " N·m: stopping takes longer than the entry says.",
                    Mend.set("Lower it to what the motor can do", pointer + "/limits/quickStop",
                            roundedDown((available() + side.friction(v) - Math.abs(side.gravity())) / side.inertia() * side.unitsPerRadian() * 0.95)));
        }
        if (axis.endless()) {
            return;
        }
        double spare = axis.travel().length() - (limits.softMax() - limits.softMin());
        if (spare < 2 * way) {
            finding(spare < 0 ? Severity.FAULT : Severity.WARNING,
                    spare < 0 ? "The soft limits are wider than the way between the stops." : "A quick stop does not fit between soft limit and hard stop.",
                    "Stopping takes " + significant(way, 4) + " " + unit + "; outside the soft limits there are " + significant(Math.max(0, spare / 2), 4) + " " + unit + " on each side, if they lie in the middle.", null);
        }
    }

    private void defaults() {
        above("speed", limits.normal().speed(), limits.max().speed(), unit + "/s");
        above("acceleration", limits.normal().acceleration(), limits.max().acceleration(), unit + "/s²");
        above("deceleration", limits.normal().deceleration(), limits.max().deceleration(), unit + "/s²");
        above("torque", limits.normal().torque(), limits.max().torque(), "%");
        Dynamics max = limits.max();
        if (max.jerk() > 0 && (limits.normal().jerk() == 0 || limits.normal().jerk() > max.jerk())) {
            above("jerk", limits.normal().jerk() == 0 ? Double.POSITIVE_INFINITY : limits.normal().jerk(), max.jerk(), unit + "/s³");
        }
    }

    private void above(String what, double normal, double max, String valueUnit) {
        if (normal > max) {
            finding(Severity.FAULT, "The default " + what + " is above the highest.", "Moves that leave it out would be refused.",
                    Mend.set("Take " + significant(max, 6) + " " + valueUnit, pointer + "/limits/normal/" + what, max));
        }
    }
}
