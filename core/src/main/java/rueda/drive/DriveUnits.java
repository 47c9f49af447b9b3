package rueda.drive;

import rueda.machine.Axis;
import rueda.quantity.CountScaler;
import rueda.quantity.Ratio;

/**
 * Conversions of one drive between encoder counts, wire units, radians of the motor and the user's units. Counts and wire units are
 * exact in each other ({@link CountScaler}); all else is a double. Immutable, and allocates nothing; thread-safe.
 */
final class DriveUnits {

    private final CountScaler countsPerWire;
    private final CountScaler wirePerCount;
    final double countsPerWireUnit;
    final double wireUnitsPerUnit;
    final double unitsPerCount;
    /** user units per radian of the motor */
    final double unitsPerRadian;
    /** wire units/s per rad/s of the motor */
    final double wireSpeedPerRadian;
    final double radiansPerCount;
    /** s */
    final double subStep;
    final int subStepsPerCycle;
    /** rad/s of one count in one sub-step */
    final double speedPerCount;
    /** rad/s of one count in one bus cycle */
    final double speedPerCycleCount;
    /** rad/s² of one count more than in the bus cycle before */
    final double accelerationPerCycleCount;
    /** a setpoint that stands may jump by a rounding each bus cycle: no motion, rad/s */
    final double roundingSpeed;

    /**
     * @param gear    counts per wire unit
     * @param subStep s
     */
    DriveUnits(Axis axis, Ratio gear, double subStep, int subStepsPerCycle) {
        countsPerWire = new CountScaler(gear);
        wirePerCount = new CountScaler(gear.inverse());
        countsPerWireUnit = gear.toDouble();
        wireUnitsPerUnit = axis.scale().wireUnitsPerUnit();
        unitsPerCount = 1 / (countsPerWireUnit * wireUnitsPerUnit);
        radiansPerCount = 2 * Math.PI / axis.encoder().countsPerTurn();
        unitsPerRadian = unitsPerCount / radiansPerCount;
        wireSpeedPerRadian = 1 / radiansPerCount / countsPerWireUnit;
        this.subStep = subStep;
        this.subStepsPerCycle = subStepsPerCycle;
        double cycle = subStep * subStepsPerCycle;
        speedPerCount = radiansPerCount / subStep;
        speedPerCycleCount = radiansPerCount / cycle;
        accelerationPerCycleCount = radiansPerCount / (cycle * cycle);
        roundingSpeed = 2.5 * speedPerCycleCount * Math.max(1, countsPerWireUnit);
    }

    long counts(long wire) {
        return countsPerWire.scale(wire);
    }

    long wire(long counts) {
        return wirePerCount.scale(counts);
    }

    CountScaler wirePerCount() {
        return wirePerCount;
    }
}
