package rueda.machine;

/**
 * An axis as its motor shaft feels it (servo sizing in machine-design handbooks): everything reduced to the shaft by
 * the lever r, metres or radians of the load per motor radian.
 * <pre>  J = J_motor + J_load/i² + m·r²,  M_c = F_c·r,  b = b_load·r²,  M_g = m·g·sin(slope)·r </pre>
 *
 * @param unitsPerRadian user units per motor radian
 * @param motorInertia   kg·m²
 * @param loadInertia    kg·m²
 * @param coulomb        N·m
 * @param viscous        N·m·s/rad
 * @param gravity        N·m that hold the load against its weight
 */
public record MotorSide(double unitsPerRadian, double motorInertia, double loadInertia, double coulomb, double viscous, double gravity) {

    /** @throws rueda.quantity.InvalidEntry when the entries make no scale */
    public static MotorSide of(Axis axis) {
        Load load = axis.load();
        double perRadian = 1 / (axis.train().gear().toDouble() * 2 * Math.PI);
        boolean linear = axis.train().feed().linear();
        double lever = lever(axis);
        double turning = 2 * Math.PI * perRadian;
        return new MotorSide(axis.scale().unitsPerMotorTurn().toDouble() / (2 * Math.PI), axis.motor().inertia(),
                (linear ? load.mass() * lever * lever : 0) + load.inertia() * turning * turning,
                load.coulomb() * lever, load.viscous() * lever * lever,
                linear ? load.mass() * Load.GRAVITY * Math.sin(Math.toRadians(load.slope())) * lever : 0);
    }

    /** What one N along the line, or one N·m at the last shaft, makes at the motor shaft: N·m. */
    public static double lever(Axis axis) {
        double perRadian = 1 / (axis.train().gear().toDouble() * 2 * Math.PI);
        return axis.train().feed().linear() ? axis.train().feed().metresPerTurn() * perRadian : 2 * Math.PI * perRadian;
    }

    /** Motor and load together, kg·m². */
    public double inertia() {
        return motorInertia + loadInertia;
    }

    /** Friction torque at a speed, N·m, with the sign of the speed. @param speed units/s */
    public double friction(double speed) {
        return Math.signum(speed) * coulomb + viscous * speed / unitsPerRadian;
    }

    /** Torque for a motion, N·m. @param speed units/s  @param acceleration units/s² */
    public double torque(double speed, double acceleration) {
        return inertia() * acceleration / unitsPerRadian + friction(speed) + gravity;
    }

    /** Acceleration that a torque gives, units/s². @param torque N·m  @param speed units/s */
    public double acceleration(double torque, double speed) {
        return (torque - friction(speed) - gravity) / inertia() * unitsPerRadian;
    }
}
