package rueda.advice;

import static rueda.advice.Numbers.count;
import static rueda.advice.Numbers.significant;

import java.util.ArrayList;
import java.util.List;
import rueda.machine.Axis;
import rueda.quantity.Ratio;
import rueda.quantity.Scale;

/** Consequences of encoder, reducer, feed, load and limits. Servo sizing as in machine-design handbooks. */
public final class ScaleAdvice {

    private ScaleAdvice() {
    }

    /**
     * @param axis    an axis whose entries can be stored
     * @param pointer JSON pointer of the axis in the document
     */
    public static Advice of(Axis axis, String pointer) {
        return new Advice(figures(axis), findings(axis, pointer));
    }

    private static List<Figure> figures(Axis axis) {
        Scale scale = axis.scale();
        String unit = axis.unit().symbol();
        Ratio counts = scale.countsPerUnit();
        String feed = axis.feed().perTurn().stripTrailingZeros().toPlainString();
        String gear = axis.reducer().motorTurns() + "/" + axis.reducer().outputTurns();
        double turn = scale.unitsPerMotorTurn().toDouble();
        List<Figure> figures = new ArrayList<>();
        figures.add(new Figure("Counts per " + unit, counts.denominator() == 1 ? count(counts.numerator())
                : count(counts.numerator()) + " : " + count(counts.denominator()), "",
                "608Fh × 6091h ÷ 6092h = " + count(axis.encoder().countsPerTurn()) + " × " + gear + " ÷ " + feed + " " + unit));
        figures.add(new Figure("One count moves", significant(scale.unitsPerCount().toDouble(), 4), unit,
                "1 ÷ counts per " + unit));
        figures.add(new Figure("One motor turn moves", significant(turn, 6), unit, feed + " " + unit + " ÷ (" + gear + ")"));
        figures.add(new Figure("608Fh encoder resolution", count(axis.encoder().countsPerTurn()) + " : 1", "", "counts : motor revolutions"));
        figures.add(new Figure("6091h gear ratio", count(axis.reducer().motorTurns()) + " : " + count(axis.reducer().outputTurns()), "",
                "motor : shaft revolutions"));
        Ratio wireFeed = Ratio.of(axis.feed().perTurn().scaleByPowerOfTen(scale.decimals()));
        figures.add(new Figure("6092h feed constant", count(wireFeed.numerator()) + " : " + count(wireFeed.denominator()), "",
                "feed in wire units of 10⁻" + scale.decimals() + " " + unit + " : shaft revolutions"));
        figures.add(new Figure("Position overflows after", "±" + significant(scale.travelBeforeWireOverflow(), 6), unit,
                "(2³¹ − 1) wire units of 10⁻" + scale.decimals() + " " + unit));
        figures.add(new Figure("32-bit count overflows after", "±" + significant(scale.travelBeforeCountOverflow(), 6), unit,
                "(2³¹ − 1) counts"));
        figures.add(new Figure("Highest speed of the motor", significant(scale.highestSpeed(axis.motor().maxSpeed()), 5), unit + "/s",
                significant(axis.motor().maxSpeed(), 6) + " 1/min ÷ 60 × " + significant(turn, 6) + " " + unit));
        figures.add(new Figure("Motor at highest axis speed", significant(scale.motorTurnsPerMinute(axis.limits().maxSpeed()), 5), "1/min",
                significant(axis.limits().maxSpeed(), 6) + " " + unit + "/s × 60 ÷ " + significant(turn, 6) + " " + unit));
        figures.add(new Figure("Inertia at the motor", significant(axis.totalInertia() * 1e4, 4), "kg·cm²",
                "J + m·r² with r = " + significant(axis.metresPerRadian() * 1000, 4) + " mm/rad"));
        figures.add(new Figure("Load to motor inertia", significant(axis.totalInertia() / axis.motor().inertia() - 1, 3) + " : 1", "", "m·r² ÷ J"));
        figures.add(new Figure("Acceleration at peak torque", significant(possibleAcceleration(axis), 4), unit + "/s²",
                "(peak torque − friction) × r ÷ inertia"));
        return figures;
    }

    /** Highest acceleration with peak torque at the highest axis speed, user units/s². */
    static double possibleAcceleration(Axis axis) {
        double lever = axis.metresPerRadian();
        return (axis.motor().peakTorque() - friction(axis)) * lever / axis.totalInertia() / axis.unit().metres().doubleValue();
    }

    private static double friction(Axis axis) {
        double speed = axis.limits().maxSpeed() * axis.unit().metres().doubleValue();
        return (axis.load().coulomb() + axis.load().viscous() * speed) * axis.metresPerRadian();
    }

    private static List<Finding> findings(Axis axis, String pointer) {
        Scale scale = axis.scale();
        String unit = axis.unit().symbol();
        List<Finding> findings = new ArrayList<>();
        double fastest = scale.highestSpeed(axis.motor().maxSpeed());
        if (axis.limits().maxSpeed() > fastest) {
            double advised = Math.floor(fastest / 10) * 10;
            findings.add(new Finding("scale", axis.name(), Finding.Severity.FAULT, "The motor is too slow for the highest speed.",
                    significant(axis.limits().maxSpeed(), 6) + " " + unit + "/s needs " + significant(scale.motorTurnsPerMinute(axis.limits().maxSpeed()), 5)
                            + " 1/min; the motor turns " + significant(axis.motor().maxSpeed(), 6) + " at most.",
                    Finding.Mend.set("Lower it to " + significant(advised, 6) + " " + unit + "/s", pointer + "/limits/maxSpeed", advised)));
        } else {
            findings.add(new Finding("scale", axis.name(), Finding.Severity.GOOD, "The motor reaches the highest speed.",
                    "It runs at " + significant(100 * axis.limits().maxSpeed() / fastest, 3) + " % of its own.", null));
        }
        double possible = possibleAcceleration(axis);
        if (axis.limits().maxAcceleration() > possible) {
            double needed = axis.totalInertia() * axis.limits().maxAcceleration() * axis.unit().metres().doubleValue() / axis.metresPerRadian() + friction(axis);
            double lacks = (needed / axis.motor().peakTorque() - 1) * 100;
            double advised = Math.max(1, Math.floor(possible * 0.95 / 100) * 100);
            findings.add(new Finding("scale", axis.name(), Finding.Severity.WARNING,
                    "At the highest acceleration the motor lacks " + significant(lacks, 2) + " % torque.",
                    significant(axis.limits().maxAcceleration(), 6) + " " + unit + "/s² needs " + significant(needed, 3) + " N·m, friction included; the peak is "
                            + significant(axis.motor().peakTorque(), 3) + " N·m. The axis would fall behind.",
                    Finding.Mend.set("Lower it to " + significant(advised, 6) + " " + unit + "/s²", pointer + "/limits/maxAcceleration", advised)));
        }
        double reach = Math.max(Math.abs(axis.limits().softMin()), Math.abs(axis.limits().softMax()));
        if (reach > scale.travelBeforeWireOverflow()) {
            findings.add(new Finding("scale", axis.name(), Finding.Severity.FAULT, "The position overflows inside the soft limits.",
                    "A signed 32-bit position with " + scale.decimals() + " decimals ends at " + significant(scale.travelBeforeWireOverflow(), 6) + " " + unit + ".",
                    scale.decimals() > 0 ? Finding.Mend.set("Use one decimal less", pointer + "/unit/decimals", scale.decimals() - 1) : null));
        }
        double wireUnit = 1.0 / scale.wireUnitsPerUnit();
        double resolution = scale.unitsPerCount().toDouble();
        if (resolution > wireUnit) {
            findings.add(new Finding("scale", axis.name(), Finding.Severity.WARNING, "The encoder is coarser than the unit on the wire.",
                    "One count moves " + significant(resolution, 3) + " " + unit + ", the last decimal says " + significant(wireUnit, 3) + " " + unit + ".",
                    scale.decimals() > 0 ? Finding.Mend.set("Use one decimal less", pointer + "/unit/decimals", scale.decimals() - 1) : null));
        }
        return findings;
    }
}
