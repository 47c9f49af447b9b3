package rueda.advice;

import rueda.machine.Axis;
import rueda.machine.Control;
import rueda.machine.MotorSide;

/**
 * Stability margins of the velocity and position loops, read off their frequency responses (Nyquist; any textbook of
 * control engineering):
 * <pre>
 *   P(s)  = 1/(J·s + b), or for two masses (J_l·s² + d·s + c) / (s·(J_m·J_l·s² + (J_m + J_l)·(d·s + c)))
 *   L_v(s) = Kp·(1 + 1/(Ti·s))·S(s)·P(s),  S(jω) = x/tan x · e^(−2jx),  x = ω·T/2
 *   L_p(s) = Kv/s · L_v/(1 + L_v)
 * </pre>
 * S is the sampling in sub-steps T: the speed is a difference of positions, the torque is held; each costs half a
 * sub-step. For one mass this is exact: the difference equation {@code ω₊ = ω − a·(ω + ω₋)/2} with {@code a = Kp·T/J} is
 * stable up to a = 2 (Jury's criterion).
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
            double w = 2 * Math.PI * frequency;
            Complex s = new Complex(0, w);
            Complex plant;
            if (stiffness > 0) {
                double jm = side.motorInertia();
                double jl = side.loadInertia();
                Complex spring = new Complex(stiffness, damping * w);
                Complex above = new Complex(-jl * w * w, 0).plus(spring);
                Complex below = s.times(new Complex(-jm * jl * w * w, 0).plus(spring.times(new Complex(jm + jl, 0))));
                plant = above.over(below);
            } else {
                plant = new Complex(1, 0).over(new Complex(side.viscous(), side.inertia() * w));
            }
            double x = SUB_STEP * w / 2;
            double size = x / Math.tan(x);
            Complex sampled = new Complex(size * Math.cos(2 * x), -size * Math.sin(2 * x));
            Complex controller = new Complex(control.velocityGain(), -control.velocityGain() / (control.integralTime() * 1e-3 * w));
            return controller.times(sampled).times(plant);
        }

        Complex position(double frequency) {
            Complex open = velocity(frequency);
            Complex closed = open.over(open.plus(new Complex(1, 0)));
            return closed.times(new Complex(0, -control.positionGain() / (2 * Math.PI * frequency)));
        }
    }
}
