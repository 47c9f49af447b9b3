package rueda.advice;

import rueda.machine.Axis;
import rueda.machine.Control;
import rueda.machine.MotorSide;

/**
 * Stability margins of the velocity and position loops, read off the frequency responses of the difference equations that the drive carries
 * out in each sub-step T (Nyquist; any textbook of digital control), z = e^(jωT):
 * <pre>
 *   C(z)   = Kp·(1 + (T/Ti)/(z − 1))                         the integral takes up the error after it was used
 *   P(z)   = torque held over T, speed as a difference of positions
 *            one mass:   z⁻¹·((1 − bT/2J)·(T/J)/(z − 1 + bT/J) + T/2J)
 *            two masses: the same of both together with b = 0, and the vibration ω, ζ of the motor against the load,
 *                        J_l/(J_m·J·ω²)·(1 − z⁻¹)/T·(b₁z + b₂)/(z² + a₁z + a₂)
 *   L_v(z) = C·P
 *   L_p(z) = Kv·T·z/(z − 1) · L_v/(1 + L_v)
 * </pre>
 * b₁, b₂, a₁, a₂ are those of a second-order system behind a zero-order hold (Åström, Wittenmark: Computer-Controlled Systems, table of
 * zero-order hold sampling; from memory, held against the plant of the bench by a test). For one mass without friction the velocity loop
 * without integral is {@code ω₊ = ω − a·(ω + ω₋)/2} with {@code a = Kp·T/J}, stable up to a = 2 (Jury's criterion).
 *
 * @param crossover   highest frequency at which the gain passes 1, Hz
 * @param phaseMargin least phase left at a crossing, °
 * @param gainMargin  factor the gain may still grow before the loop becomes unstable; infinite when none is found
 */
public record LoopMargins(double crossover, double phaseMargin, double gainMargin) {

    private static final double SUB_STEP = 125e-6;
    private static final double LOWEST = 0.05;
    private static final double HIGHEST = 3500;
    private static final int POINTS = 6000;

    /** The velocity loop of an axis. */
    public static LoopMargins velocity(Axis axis) {
        return of(new Loop(axis), false);
    }

    /** The position loop of an axis, around the velocity loop. */
    public static LoopMargins position(Axis axis) {
        return of(new Loop(axis), true);
    }

    /** Real and imaginary part of the open velocity loop at a frequency, Hz. */
    static double[] velocityResponse(Axis axis, double frequency) {
        Complex value = new Loop(axis).velocity(frequency);
        return new double[] {value.re, value.im};
    }

    private static LoopMargins of(Loop loop, boolean position) {
        double crossover = Double.NaN;
        double phaseMargin = Double.NaN;
        double gainMargin = Double.POSITIVE_INFINITY;
        double phaseBefore = Double.NaN;
        double turns = 0;
        double gainBefore = Double.NaN;
        for (int k = 0; k < POINTS; k++) {
            double frequency = LOWEST * Math.pow(HIGHEST / LOWEST, k / (POINTS - 1.0));
            Complex value = position ? loop.position(frequency) : loop.velocity(frequency);
            double raw = Math.toDegrees(value.angle());
            if (!Double.isNaN(phaseBefore)) {
                turns += raw - phaseBefore > 180 ? -360 : raw - phaseBefore < -180 ? 360 : 0;
            }
            phaseBefore = raw;
            double phase = raw + turns;
            double gain = value.size();
            /* of several crossings, as a resonance makes them, the last frequency and the least phase count */
            if (gainBefore >= 1 && gain < 1) {
                crossover = frequency;
                double margin = phase + 180;
                phaseMargin = Double.isNaN(phaseMargin) ? margin : Math.min(phaseMargin, margin);
            }
            if (phase <= -180 && gain < 1 && !Double.isNaN(crossover)) {
                gainMargin = Math.min(gainMargin, 1 / gain);
            }
            gainBefore = gain;
        }
        return new LoopMargins(crossover, phaseMargin, gainMargin);
    }

    private record Complex(double re, double im) {
        Complex plus(Complex o) {
            return new Complex(re + o.re, im + o.im);
        }

        Complex times(Complex o) {
            return new Complex(re * o.re - im * o.im, re * o.im + im * o.re);
        }

        Complex over(Complex o) {
            double square = o.re * o.re + o.im * o.im;
            return new Complex((re * o.re + im * o.im) / square, (im * o.re - re * o.im) / square);
        }

        double size() {
            return Math.hypot(re, im);
        }

        double angle() {
            return Math.atan2(im, re);
        }
    }

    private static final class Loop {
        private final MotorSide side;
        private final Control control;
        private final double stiffness;
        private final double damping;

        Loop(Axis axis) {
            side = axis.motorSide();
            control = axis.control();
            stiffness = axis.load().stiffness();
            damping = axis.load().damping();
        }

        Complex velocity(double frequency) {
            Complex z = z(frequency);
            Complex minusOne = z.plus(new Complex(-1, 0));
            double integral = control.velocityGain() * SUB_STEP / (control.integralTime() * 1e-3);
            Complex controller = new Complex(control.velocityGain(), 0).plus(new Complex(integral, 0).over(minusOne));
            return controller.times(stiffness > 0 ? together(z, 0).plus(vibration(z)) : together(z, side.viscous()));
        }

        private static Complex z(double frequency) {
            double angle = 2 * Math.PI * frequency * SUB_STEP;
            return new Complex(Math.cos(angle), Math.sin(angle));
        }

        /** Motor and load as one mass. */
        private Complex together(Complex z, double viscous) {
            double inertia = side.inertia();
            double decay = viscous * SUB_STEP / inertia;
            Complex speed = new Complex((1 - decay / 2) * SUB_STEP / inertia, 0).over(z.plus(new Complex(decay - 1, 0)));
            return speed.plus(new Complex(SUB_STEP / (2 * inertia), 0)).over(z);
        }

        /** The motor against the load on the spring between them. */
        private Complex vibration(Complex z) {
            double both = side.motorInertia() + side.loadInertia();
            double reduced = side.motorInertia() * side.loadInertia() / both;
            double natural = Math.sqrt(stiffness / reduced);
            // A spring damped beyond the limit does not swing; just below it the same formulas hold.
            double ratio = Math.min(0.999, damping / (2 * Math.sqrt(stiffness * reduced)));
            double damped = natural * Math.sqrt(1 - ratio * ratio);
            double decay = Math.exp(-ratio * natural * SUB_STEP);
            double cosine = Math.cos(damped * SUB_STEP);
            double sine = Math.sin(damped * SUB_STEP) * ratio * natural / damped;
            double b1 = 1 - decay * (cosine + sine);
            double b2 = decay * decay + decay * (sine - cosine);
            Complex above = new Complex(b1, 0).times(z).plus(new Complex(b2, 0));
            Complex below = z.times(z).plus(new Complex(-2 * decay * cosine, 0).times(z)).plus(new Complex(decay * decay, 0));
            Complex difference = z.plus(new Complex(-1, 0)).over(z.times(new Complex(SUB_STEP, 0)));
            return above.over(below).times(difference).times(new Complex(side.loadInertia() / (side.motorInertia() * both * natural * natural), 0));
        }

        Complex position(double frequency) {
            Complex open = velocity(frequency);
            Complex closed = open.over(open.plus(new Complex(1, 0)));
            Complex z = z(frequency);
            return closed.times(z).over(z.plus(new Complex(-1, 0))).times(new Complex(control.positionGain() * SUB_STEP, 0));
        }
    }
}
