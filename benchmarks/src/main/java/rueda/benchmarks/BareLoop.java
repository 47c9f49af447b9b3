package rueda.benchmarks;

/**
 * The same equations as one drive and its plant, written as plainly as can be: no bus, no state machine, no
 * supervision, no recording. What a sub-step costs at the least.
 */
final class BareLoop {

    private static final double DT = 125e-6;
    private static final double COUNTS_PER_RADIAN = 524_288 / (2 * Math.PI);
    private static final double INERTIA = 8.148e-4;
    private static final double COULOMB = 0.0944;
    private static final double VISCOUS = 2.64e-4;
    private static final double DECAY = Math.exp(-VISCOUS * DT / INERTIA);
    private static final double GAIN = (1 - DECAY) / VISCOUS;
    private static final double REACH = GAIN * INERTIA;
    private static final double DRIFT = (DT - REACH) / VISCOUS;

    double angle;
    double speed;
    double integral;
    long counts;
    double demand;
    double demandSpeed;
    double phase;

    void cycle(int subSteps) {
        phase += 0.001;
        double target = 300 + 50 * Math.sin(phase);
        double start = demand;
        demandSpeed = (target - start) / (subSteps * DT);
        for (int k = 0; k < subSteps; k++) {
            demand = start + (target - start) * (k + 1) / subSteps;
            step();
        }
    }

    private void step() {
        double wanted = 60 * (demand - counts / COUNTS_PER_RADIAN) + demandSpeed;
        long before = counts;
        double error = wanted - speedMeasured;
        double torque = Math.max(-2.4, Math.min(2.4, 0.25 * (error + integral)));
        integral += error * DT / 0.02;
        if (speed != 0 || Math.abs(torque) > COULOMB) {
            double direction = speed != 0 ? Math.signum(speed) : Math.signum(torque);
            double net = torque - COULOMB * direction;
            double after = DECAY * speed + GAIN * net;
            angle += REACH * speed + DRIFT * net;
            speed = speed != 0 && after * direction < 0 ? 0 : after;
        }
        counts = (long) Math.floor(angle * COUNTS_PER_RADIAN);
        speedMeasured = (counts - before) / COUNTS_PER_RADIAN / DT;
    }

    private double speedMeasured;
}
