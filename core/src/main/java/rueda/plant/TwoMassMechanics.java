package rueda.plant;

import rueda.machine.Axis;
import rueda.machine.MotorSide;

/**
 * Motor and load joined by a spring with damping and play, everything reduced to the motor shaft (two-mass system;
 * textbooks of controlled electric drives):
 * <pre>
 *   J_m·dω_m/dt = M − M_s,   J_l·dω_l/dt = M_s − b·ω_l − M_c·sgn(ω_l) − M_g,   M_s = c·φ + d·(ω_m − ω_l),   φ = θ_m − θ_l
 * </pre>
 * Torques are constant within a step, so each step is solved exactly with the matrix exponential, computed once for
 * the four cases: the spring bears or the shaft is in its play, the load slides or sticks. A case holds for a whole
 * step, so sticking and bearing begin up to one step late. Not thread-safe.
 */
final class TwoMassMechanics extends Mechanics {

    private static final int FREE = 1;
    private static final int STUCK = 2;
    private static final int STATES = 5;
    private static final int COLUMNS = 7;

    private final double stiffness;
    private final double damping;
    private final double coulomb;
    private final double gravity;
    private final double halfPlay;
    /** For each case, rows θ_m, θ_l, ω_m, ω_l: what a step adds for φ, ω_m, ω_l, M and the torque on the load. */
    private final double[][] steps = new double[4][];

    private double motorAngle;
    private double motorSpeed;
    private double loadAngle;
    private double loadSpeed;

    TwoMassMechanics(Axis axis, double dt) {
        super(axis);
        MotorSide side = axis.motorSide();
        stiffness = axis.load().stiffness();
        damping = axis.load().damping();
        coulomb = side.coulomb();
        gravity = side.gravity();
        halfPlay = axis.load().backlash() / side.unitsPerRadian() / 2;
        for (int kind = 0; kind < 4; kind++) {
            boolean free = (kind & FREE) != 0;
            boolean stuck = (kind & STUCK) != 0;
            steps[kind] = step(side, free ? 0 : stiffness, free ? 0 : damping, stuck, dt);
        }
    }

    /** Rows of exp(A·dt) for the state θ_m, θ_l, φ, ω_m, ω_l and the constant inputs M and M_l. */
    private static double[] step(MotorSide side, double c, double d, boolean stuck, double dt) {
        double[][] a = new double[COLUMNS][COLUMNS];
        double jm = side.motorInertia();
        a[0][3] = 1;
        a[2][3] = 1;
        a[3][2] = -c / jm;
        a[3][3] = -d / jm;
        a[3][5] = 1 / jm;
        if (!stuck) {
            double jl = side.loadInertia();
            a[1][4] = 1;
            a[2][4] = -1;
            a[3][4] = d / jm;
            a[4][2] = c / jl;
            a[4][3] = d / jl;
            a[4][4] = -(d + side.viscous()) / jl;
            a[4][6] = 1 / jl;
        }
        double[][] whole = MatrixExponential.of(a, dt);
        double[] rows = new double[4 * STATES];
        int[] from = {0, 1, 3, 4};
        for (int r = 0; r < 4; r++) {
            for (int k = 0; k < STATES; k++) {
                rows[r * STATES + k] = whole[from[r]][k + 2];
            }
        }
        return rows;
    }

    @Override
    void rest(double angle) {
        motorAngle = angle;
        loadAngle = angle;
        motorSpeed = 0;
        loadSpeed = 0;
    }

    @Override
    void take(double angleOfMotor, double speedOfMotor, double angleOfLoad, double speedOfLoad) {
        motorAngle = angleOfMotor;
        motorSpeed = speedOfMotor;
        loadAngle = angleOfLoad;
        loadSpeed = speedOfLoad;
    }

    @Override
    void advance(double motorTorque, double brakeHolds) {
        double twist = motorAngle - loadAngle;
        boolean free = Math.abs(twist) < halfPlay;
        double bearing = free ? 0 : twist > 0 ? twist - halfPlay : twist + halfPlay;
        double shaft = free ? 0 : stiffness * bearing + damping * (motorSpeed - loadSpeed);
        double outside = pushed() - gravity;
        double driving = shaft + outside;
        boolean stuck = loadSpeed == 0 && Math.abs(driving) <= coulomb;
        double direction = loadSpeed != 0 ? loadSpeed : driving;
        double onLoad = stuck ? 0 : outside - (direction > 0 ? coulomb : -coulomb);
        if (brakeHolds > 0 && Math.abs(motorTorque - shaft) <= brakeHolds) {
            motorSpeed = 0;
            motorTorque = shaft;
        }
        move(steps[(free ? FREE : 0) | (stuck ? STUCK : 0)], stuck, bearing, motorTorque, onLoad);
    }

    /** One step of the case that holds, exactly. */
    private void move(double[] m, boolean stuck, double bearing, double motorTorque, double onLoad) {
        double wm = motorSpeed;
        double wl = loadSpeed;
        motorAngle += m[0] * bearing + m[1] * wm + m[2] * wl + m[3] * motorTorque + m[4] * onLoad;
        motorSpeed = m[10] * bearing + m[11] * wm + m[12] * wl + m[13] * motorTorque + m[14] * onLoad;
        if (!stuck) {
            loadAngle += m[5] * bearing + m[6] * wm + m[7] * wl + m[8] * motorTorque + m[9] * onLoad;
            loadSpeed = m[15] * bearing + m[16] * wm + m[17] * wl + m[18] * motorTorque + m[19] * onLoad;
            if (loadSpeed * wl < 0) {
                loadSpeed = 0;
            }
        }
    }

    @Override
    double holdAt(double stop, int inward) {
        loadAngle = stop;
        double impact = 0;
        if (loadSpeed * inward < 0) {
            impact = Math.abs(loadSpeed);
            loadSpeed = 0;
        }
        return impact;
    }

    @Override
    public double angle() {
        return motorAngle;
    }

    @Override
    public double speed() {
        return motorSpeed;
    }

    @Override
    public double loadAngle() {
        return loadAngle;
    }

    @Override
    public double loadSpeed() {
        return loadSpeed;
    }
}
