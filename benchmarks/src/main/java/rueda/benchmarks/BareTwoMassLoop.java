package rueda.benchmarks;

/**
 * The same equations as one drive with a two-mass plant, written as plainly as can be: the step of the linear system as
 * a matrix, the cascade of the drive, nothing else. What a sub-step costs at the least.
 */
final class BareTwoMassLoop {

    private static final double DT = 125e-6;
    private static final double COUNTS_PER_RADIAN = (1 << 20) / (2 * Math.PI);
    private static final double STIFFNESS = 15;
    private static final double DAMPING = 0.012;
    private static final double MOTOR = 3e-4;
    private static final double LOAD = 6e-4;
    private static final double COULOMB = 0.08;
    private static final double VISCOUS = 0.002;

    double motorAngle;
    double loadAngle;
    double motorSpeed;
    double loadSpeed;
    double demand;
    double demandSpeed;
    double phase;
    private double integral;
    private double measured;
    private long counts;

    void cycle(int subSteps) {
        phase += 0.001;
        double target = 300 + 5 * Math.sin(phase);
        double start = demand;
        demandSpeed = (target - start) / (subSteps * DT);
        for (int k = 0; k < subSteps; k++) {
            demand = start + (target - start) * (k + 1) / subSteps;
            step();
        }
    }

    private void step() {
        double error = 12 * (demand - counts / COUNTS_PER_RADIAN) + demandSpeed - measured;
        double torque = Math.max(-3.9, Math.min(3.9, 0.12 * (error + integral)));
        integral += error * DT / 0.04;
        double shaft = STIFFNESS * (motorAngle - loadAngle) + DAMPING * (motorSpeed - loadSpeed);
        boolean stuck = loadSpeed == 0 && Math.abs(shaft) <= COULOMB;
        motorSpeed += (torque - shaft) / MOTOR * DT;
        motorAngle += motorSpeed * DT;
        if (!stuck) {
            double direction = loadSpeed != 0 ? Math.signum(loadSpeed) : Math.signum(shaft);
            double before = loadSpeed;
            loadSpeed += (shaft - COULOMB * direction - VISCOUS * loadSpeed) / LOAD * DT;
            loadAngle += loadSpeed * DT;
            loadSpeed = before * loadSpeed < 0 ? 0 : loadSpeed;
        }
        long last = counts;
        counts = (long) Math.floor(motorAngle * COUNTS_PER_RADIAN);
        measured = (counts - last) / COUNTS_PER_RADIAN / DT;
    }
}
