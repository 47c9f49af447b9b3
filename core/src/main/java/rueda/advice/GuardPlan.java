package rueda.advice;

import java.util.ArrayList;
import java.util.List;
import rueda.guard.GuardRules;
import rueda.guard.StopLink;
import rueda.machine.Axis;
import rueda.machine.AxisGuard;
import rueda.machine.Machine;
import rueda.machine.MotorSide;
import rueda.machine.SafetyFunction;
import rueda.machine.SafetyRequest;
import rueda.machine.StopRules;

/**
 * What one stop of an axis comes to from its highest speed: when who knows of it, how fast the axis then is, and what the guard allows. Times in ms since something happened that asks for it,
 * the worst where a clock decides; speeds in units/s, without sign.
 *
 * <p>With t_r until the ramp begins, v the speed and a the deceleration the axis needs t_r + v/a, and goes v·t_r + v²/2a (uniform deceleration, any textbook of mechanics); limited in jerk where the program slows it down ({@link SlowingDown}).
 *
 * @param chain        what passes one after the other: until the ramp begins or the torque goes, until it stands, and from there on
 * @param path         predicted speed over time
 * @param limit        the highest speed that the guard allows, from where its watch begins; where only the time is watched from where it must stand; empty without a watch
 * @param least        the lowest one; empty where any ramp may be steeper
 * @param watched      when the watch over the ramp begins
 * @param begins       how fast it then is: where the limits begin, units/s
 * @param ramp         when the axis begins to slow down
 * @param stands       when it stands; infinite speeds never do: null
 * @param brake        when the brake holds, null where none closes
 * @param torque       when the torque goes, null where it stays
 * @param speed        v
 * @param deceleration a, as far as the motor gives it; of safe torque off that of friction and brake
 * @param reaction     t_r
 * @param distance     from what happened until it stands, units, null where it never stands
 * @param beyond       most that is gone beyond the limit in one go, units, against the filter distance; null for nothing that comes to an end
 * @param room         from when it stands until the limit has come down to standstill, ms; negative where it stands later. 0 without a watch over the ramp
 * @param energy       ½·J·ω² of motor and load, J
 * @param sag          fall between the torque's end and the brake's grip, ½·g·t² along the axis, units; 0 for what does not hang
 * @param grips        where the drawing of it can be taken hold of
 */
public record GuardPlan(List<Link> chain, List<Point> path, List<Point> limit, List<Point> least, double watched, double begins, double ramp, Double stands, Double brake, Double torque, double speed, double deceleration, double reaction,
                        Double distance, Double beyond, double room, double energy, double sag, List<StopGrip> grips) {

    /** @param of what passes  @param words the same in words  @param millis for how long at most  @param reaction before the ramp begins, or the torque goes */
    public record Link(StopLink of, String words, double millis, boolean reaction) {
        Link(StopLink of, double millis) {
            this(of, of.words(), millis, of.reaction());
        }
    }

    /** @param time ms  @param value units/s */
    public record Point(double time, double value) {
    }

    private static final double SUB_STEP = 0.125;

    /**
     * @param function that stops
     * @param request  that asks for it
     */
    public static GuardPlan of(Machine machine, Axis axis, SafetyFunction function, SafetyRequest request) {
        GuardPlan plan = new Working(machine, axis, function, request).plan();
        return new GuardPlan(plan.chain, plan.path, plan.limit, plan.least, plan.watched, plan.begins, plan.ramp, plan.stands, plan.brake, plan.torque, plan.speed, plan.deceleration, plan.reaction, plan.distance, plan.beyond,
                plan.room, plan.energy, plan.sag, StopGrip.of(plan, axis, function));
    }

    /** Deceleration that a torque gives downhill, where the weight pushes, units/s². */
    static double deceleration(Axis axis, double torque, double speed) {
        MotorSide side = axis.motorSide();
        return (torque + side.friction(Math.abs(speed)) - Math.abs(side.gravity())) / side.inertia() * Math.abs(side.unitsPerRadian());
    }

    /** Safe stop 1: ms from standstill until the brake holds; null where there is none. Who closes it is the guard, or the drive once its torque has gone. */
    private static Double held(Axis axis) {
        if (!axis.brake().fitted()) {
            return null;
        }
        StopRules stop = axis.guard().stop1();
        return (axis.guard().brake() ? stop.brakeDelay() + axis.guard().cycle() : stop.torqueDelay()) + axis.brake().closeMillis();
    }

    /** Safe stop 1: ms from when the torque goes until the brake holds; null where there is none. */
    static Double unheld(Axis axis) {
        Double held = held(axis);
        return held == null ? null : (Double) Math.max(0, held - axis.guard().stop1().torqueDelay());
    }

    /** s = ½·a·t² while only friction is against the weight, units. @param millis t */
    static double fall(Axis axis, double millis) {
        MotorSide side = axis.motorSide();
        double pull = Math.abs(side.gravity()) - Math.abs(side.friction(1e-9));
        double seconds = millis * 1e-3;
        return pull <= 0 ? 0 : pull / side.inertia() * Math.abs(side.unitsPerRadian()) * seconds * seconds / 2;
    }

    private static final class Working {
        private final Machine machine;
        private final Axis axis;
        private final AxisGuard guard;
        private final SafetyFunction function;
        private final List<Link> chain = new ArrayList<>();
        private final double speed;
        private final double bus;

        Working(Machine machine, Axis axis, SafetyFunction function, SafetyRequest request) {
            this.machine = machine;
            this.axis = axis;
            this.function = function;
            guard = axis.guard();
            speed = axis.limits().max().speed();
            bus = machine.bus().cycleMicros() * 1e-3;
            GuardRules rules = GuardRules.of(guard);
            /* the guard looks at both once in its cycle */
            if (request.reaction() > 0) {
                chain.add(new Link(StopLink.SENSOR, rules.cycles(request.reaction()) * guard.cycle()));
            }
            chain.add(new Link(StopLink.FILTER, rules.cycles(request.filter()) * guard.cycle()));
            chain.add(new Link(StopLink.GUARD, guard.cycle()));
        }

        private double sum() {
            return chain.stream().mapToDouble(Link::millis).sum();
        }

        GuardPlan plan() {
            return function == SafetyFunction.SAFE_TORQUE_OFF ? withoutTorque() : slowed();
        }

        private double energy() {
            double omega = speed / axis.motorSide().unitsPerRadian();
            return axis.motorSide().inertia() * omega * omega / 2;
        }

        private GuardPlan withoutTorque() {
            double off = sum();
            double coasting = deceleration(axis, 0, speed);
            boolean brakes = axis.brake().fitted();
            double holds = off + (brakes ? axis.brake().closeMillis() : 0);
            double braked = brakes ? deceleration(axis, axis.brake().torque(), speed) : coasting;
            double there = Math.max(0, speed - coasting * (holds - off) * 1e-3);
            boolean comesToRest = braked > 0;
            Double stands = comesToRest ? (Double) (holds + 1e3 * there / braked) : null;
            List<Point> path = new ArrayList<>(List.of(new Point(0, speed), new Point(off, speed), new Point(holds, there)));
            Double distance = null;
            if (brakes) {
                chain.add(new Link(StopLink.BRAKE, holds - off));
            }
            if (comesToRest) {
                chain.add(new Link(StopLink.RAMP, stands - holds));
                path.add(new Point(stands, 0));
                distance = speed * off * 1e-3 + (speed + there) / 2 * (holds - off) * 1e-3 + there * there / (2 * braked);
            }
            return new GuardPlan(List.copyOf(chain), path, List.of(), List.of(), off, speed, off, stands, brakes ? (Double) holds : null, off, speed, comesToRest ? braked : 0, off, distance, null, 0, energy(), 0, List.of());
        }

        private GuardPlan slowed() {
            StopRules stop = guard.of(function);
            double known = sum();
            double watched = known + Math.ceil(stop.delay() / guard.cycle() - 1e-9) * guard.cycle();
            if (guard.slowing() == AxisGuard.Slowing.DRIVE) {
                chain.add(new Link(StopLink.DRIVE, bus + SUB_STEP));
            } else {
                chain.add(new Link(StopLink.BUS_TO_PLC, bus));
                chain.add(new Link(StopLink.TASK, machine.plc().taskIntervalMicros() * 1e-3));
                chain.add(new Link(StopLink.BUS_TO_DRIVE, bus));
                chain.add(new Link(StopLink.DRIVE, SUB_STEP));
            }
            double ramp = sum();
            double asked = guard.slowing() == AxisGuard.Slowing.DRIVE ? axis.limits().quickStop() : axis.limits().normal().deceleration();
            double a = Math.max(1e-9, Math.min(asked, deceleration(axis, axis.torqueLimit(), speed)));
            SlowingDown slowing = SlowingDown.of(axis, speed, a);
            double stands = ramp + 1e3 * slowing.seconds();
            boolean ramped = stop.watch() == StopRules.Watch.RAMP;
            double f = stop.flattest();
            Double beyond = ramped ? slowing.beyond((watched - ramp) * 1e-3, f, stop.standstillSpeed()) : (Double) 0.0;
            double begins = slowing.at((watched - ramp) * 1e-3);
            double still = watched + 1e3 * Math.max(0, begins - stop.standstillSpeed()) / f;
            List<Point> limit = !ramped ? List.of(new Point(watched + stop.time(), speed), new Point(watched + stop.time(), stop.standstillSpeed())) : List.of(new Point(watched, Math.max(begins, stop.standstillSpeed())), new Point(still, stop.standstillSpeed()));
            List<Point> least = !ramped || stop.steepest() == 0 ? List.of() : List.of(new Point(watched, begins), new Point(watched + 1e3 * begins / stop.steepest(), 0));
            boolean off = function == SafetyFunction.SAFE_STOP_1;
            Double torque = off ? (Double) (stands + stop.torqueDelay()) : null;
            Double held = off ? held(axis) : null;
            Double brake = held == null ? null : (Double) (stands + held);
            double sag = held == null ? 0 : fall(axis, unheld(axis));
            chain.add(new Link(StopLink.RAMP, stands - ramp));
            if (held != null) {
                chain.add(new Link(StopLink.HOLDS, held));
            }
            if (off) {
                chain.add(new Link(StopLink.TORQUE, stop.torqueDelay()));
            }
            List<Point> path = new ArrayList<>(List.of(new Point(0, speed)));
            slowing.drawn().forEach((seconds, v) -> path.add(new Point(ramp + 1e3 * seconds, v)));
            return new GuardPlan(List.copyOf(chain), path, limit, least, watched, begins, ramp, stands, brake, torque, speed, a, ramp, speed * ramp * 1e-3 + slowing.way(), beyond, ramped ? still - stands : 0, energy(), sag, List.of());
        }
    }
}
