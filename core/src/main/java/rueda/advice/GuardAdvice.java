package rueda.advice;

import static rueda.advice.Numbers.down;
import static rueda.advice.Numbers.fixed;
import static rueda.advice.Numbers.significant;
import static rueda.advice.Numbers.up;

import java.util.EnumSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import rueda.advice.Finding.Change;
import rueda.advice.Finding.Mend;
import rueda.advice.Finding.Severity;
import rueda.guard.SafeDistance;
import rueda.guard.Safeguard;
import rueda.machine.Axis;
import rueda.machine.AxisGuard;
import rueda.machine.AxisGuard.Ask;
import rueda.machine.Following;
import rueda.machine.Machine;
import rueda.machine.SafetyFunction;
import rueda.machine.SafetyRequest;
import rueda.machine.StopRules;
import rueda.machine.StopRules.Restart;
import rueda.machine.StopRules.Watch;

/** Consequences of the guard of an axis: how long and how far it goes on, what the watch leaves, what holds a hanging load. For planning; it replaces no validation on the machine. */
public final class GuardAdvice extends AxisAdvice {

    /** A guard whose scale differs by more than this share sees other speeds than there are (our choice). */
    private static final double SCALE_OFF = 1e-3;
    /** A watch that begins later than this many times the ramp leaves most of it unwatched (our choice). */
    private static final double LATE = 1;

    private final Machine machine;
    private final AxisGuard guard;
    private final String at;

    private GuardAdvice(Machine machine, Axis axis, String pointer) {
        super("guard", axis, pointer);
        this.machine = machine;
        guard = axis.guard();
        at = pointer + "/guard";
    }

    /** @param number of the axis; with the first one stands what is of no axis */
    public static Advice of(Machine machine, int number) {
        Axis axis = machine.axes().get(number);
        GuardAdvice advice = new GuardAdvice(machine, axis, "/axes/" + number);
        if (number == 0) {
            advice.unanswered();
        }
        if (!axis.guard().fitted()) {
            advice.unguarded();
            return advice.advice();
        }
        advice.stops();
        advice.encoder();
        advice.standing();
        advice.hanging();
        advice.restarts();
        advice.following();
        if (axis.guard().asks().isEmpty()) {
            advice.finding(Severity.WARNING, "Nothing asks its guard.", "It watches nothing until a request asks it for something.", null);
        } else if (axis.guard().asks().stream().noneMatch(a -> a.function().stops())) {
            advice.finding(Severity.WARNING, "No request stops it.", "What is asked of its guard limits it, and does not bring it to rest.", null);
        }
        if (advice.nothingFound()) {
            advice.finding(Severity.GOOD, "It stops as its guard expects.", "Ramp, delays, window and brake fit each other. Prove it on the machine all the same.", null);
        }
        return advice.advice();
    }

    /** Once requests are there, an axis that none of them reaches is told. */
    private void unguarded() {
        if (!machine.safetyRequests().isEmpty()) {
            finding(Severity.WARNING, "No request stops it.", "The machine has requests, and this axis has no guard that hears them.", null);
        }
    }

    private void unanswered() {
        for (SafetyRequest request : machine.safetyRequests()) {
            if (machine.axes().stream().noneMatch(a -> a.guard().fitted() && a.guard().asks().stream().anyMatch(ask -> ask.request().equals(request.name())))) {
                finding(Severity.WARNING, "No axis answers " + request.name() + ".", "Its contacts open, and nothing happens.", null);
            }
        }
    }

    private SafetyRequest request(String name) {
        return machine.safetyRequests().stream().filter(r -> r.name().equals(name)).findFirst().orElse(null);
    }

    private void stops() {
        EnumSet<SafetyFunction> judged = EnumSet.noneOf(SafetyFunction.class);
        for (Ask ask : guard.asks()) {
            SafetyRequest request = request(ask.request());
            if (request == null || !ask.function().endsMotion()) {
                continue;
            }
            GuardPlan plan = GuardPlan.of(machine, axis, ask.function(), request);
            told(ask, request, plan);
            if (judged.add(ask.function()) && ask.function() != SafetyFunction.SAFE_TORQUE_OFF) {
                ramp(ask.function(), plan);
            }
        }
    }

    private void told(Ask ask, SafetyRequest request, GuardPlan plan) {
        String called = request.name() + ", " + ask.function().words() + ": ";
        if (plan.stands() == null) {
            figure(called + "stopping time", "–", "s", "nothing slows it down: friction and brake are less than its weight");
            finding(Severity.FAULT, "Without torque it does not stop.", "Friction and brake together are less than the weight that pulls at it.", null);
            return;
        }
        boolean coasts = ask.function() == SafetyFunction.SAFE_TORQUE_OFF;
        String coasting = plan.brake() == null ? "it coasts against friction" : "it coasts until the brake holds " + significant(plan.brake() - plan.torque(), 3) + " ms later, then slows down with " + significant(plan.deceleration(), 4) + " " + unit + "/s²";
        String reaction = significant(plan.reaction(), 3) + " ms";
        String v = significant(plan.speed(), 4) + " " + unit + "/s";
        String a = significant(plan.deceleration(), 4) + " " + unit + "/s²";
        SlowingDown slowing = SlowingDown.of(axis, plan.speed(), plan.deceleration());
        String ramp = significant(1e3 * slowing.seconds(), 4) + " ms" + (slowing.curved() ? ", T = v/a + a/j, or 2·√(v/j) where a is never reached, with j = " + significant(slowing.jerk(), 4) + " " + unit + "/s³" : "");
        figure(called + "stopping time", fixed(plan.stands() * 1e-3, 3), "s", coasts ? "torque off after " + reaction + "; " + coasting : "reaction " + reaction + " + " + (slowing.curved() ? "ramp " + ramp + ", a = " + a : v + " ÷ " + a));
        figure(called + "stopping distance", significant(plan.distance(), 4), unit, coasts ? "from " + v + "; " + coasting : slowing.curved() ? "v·t + v·T/2 with v = " + v + ", t = " + reaction + ", T = " + ramp : "v·t + v²/2a with v = " + v + ", t = " + reaction + ", a = " + a);
        Safeguard safeguard = Safeguard.of(request.protection());
        if (safeguard != null) {
            boolean measured = request.stopping() > 0;
            SafeDistance distance = safeguard.distance((measured ? request.stopping() : plan.stands()) * 1e-3);
            figure(request.name() + ": safe distance" + (measured ? "" : " from " + axis.name()), fixed(distance.distance(), 0), "mm", distance.words() + " (ISO 13855, " + distance.clause()
                    + (measured ? "; the stopping time is the one that was measured on the machine)" : "; the stopping time is predicted, measure it on the machine; every axis that it stops has a distance of its own)"));
            if (measured && request.stopping() < plan.stands()) {
                finding(Severity.WARNING, "The measured stopping time of " + request.name() + " is shorter than this axis needs.", "From its highest speed with this load it needs " + significant(plan.stands(), 4) + " ms until it stands; measured were " + significant(request.stopping(), 4) + " ms. Measure from the highest speed, with the heaviest load.",
                        Mend.set("Take the reckoned time until it has been measured anew", "/safetyRequests/" + machine.safetyRequests().indexOf(request) + "/stopping", 0.0));
            }
        }
        figure(called + "energy to be taken", significant(plan.energy(), 3), "J", "½·J·ω² of motor and load at " + significant(plan.speed(), 4) + " " + unit + "/s");
        if (coasts) {
            return;
        }
        StopRules stop = guard.of(ask.function());
        if (stop.watch() == Watch.TIME) {
            figure(called + "time that is left", significant(plan.watched() + stop.time() - plan.stands(), 3), "ms", "it must stand " + significant(plan.watched() + stop.time(), 4) + " ms after the request, and stands after " + significant(plan.stands(), 4) + " ms");
            return;
        }
        figure(called + "room to the limit", significant(plan.room(), 3), "ms", "it stands after " + significant(plan.stands(), 4) + " ms; the limit begins after " + significant(plan.watched(), 4) + " ms with the " + significant(plan.begins(), 4) + " " + unit + "/s that are there then, and has come down to standstill after " + significant(plan.stands() + plan.room(), 4) + " ms");
    }

    /** Where the rules of a function stand; what ends safe torque off is said by safe stop 1. */
    private String rules(SafetyFunction function) {
        return at + "/" + AxisGuard.entry(function == SafetyFunction.SAFE_TORQUE_OFF ? SafetyFunction.SAFE_STOP_1 : function);
    }

    private void ramp(SafetyFunction function, GuardPlan plan) {
        StopRules stop = guard.of(function);
        String rules = rules(function);
        String per = unit + "/s²";
        double asked = guard.slowing() == AxisGuard.Slowing.DRIVE ? axis.limits().quickStop() : axis.limits().normal().deceleration();
        String slowing = guard.slowing() == AxisGuard.Slowing.DRIVE ? "its quick stop" : "its default deceleration";
        if (plan.deceleration() < 0.999 * asked) {
            finding(Severity.WARNING, "The motor lacks torque for the ramp of " + function.words() + ".", "Downhill it can slow down with " + significant(plan.deceleration(), 3) + " " + per + "; " + slowing + " is " + significant(asked, 3) + " " + per + ".", null);
        }
        if (stop.watch() == Watch.TIME) {
            double needed = plan.stands() - plan.watched();
            if (stop.time() < needed) {
                finding(Severity.FAULT, "It still moves when " + function.words() + " expects it to stand.", "From the highest speed it needs " + significant(needed, 3) + " ms after the delay; " + significant(stop.time(), 3) + " ms are allowed.", Mend.set("Allow " + fixed(up(needed * 1.1), 0) + " ms", rules + "/time", up(needed * 1.1)));
            }
            return;
        }
        if (plan.deceleration() <= stop.flattest()) {
            double flat = down(0.8 * plan.deceleration());
            finding(Severity.FAULT, "The ramp is flatter than " + function.words() + " allows.", "It slows down with " + significant(plan.deceleration(), 3) + " " + per + ", and the watch asks for more than " + significant(stop.flattest(), 3) + " " + per + ": the torque goes while it still moves.",
                    Mend.set("Allow a ramp of " + significant(flat, 3) + " " + per, rules + "/flattest", flat));
        } else if (plan.beyond() > stop.filterDistance()) {
            late(function, plan, stop);
        }
        if (stop.steepest() > 0 && plan.deceleration() > stop.steepest()) {
            double steep = up(1.2 * plan.deceleration());
            finding(Severity.FAULT, "The ramp is steeper than " + function.words() + " allows.", "It slows down with " + significant(plan.deceleration(), 3) + " " + per + ", at most " + significant(stop.steepest(), 3) + " " + per + " are allowed.", Mend.set("Allow a ramp of " + significant(steep, 3) + " " + per, rules + "/steepest", steep));
        }
        double whole = plan.stands() - plan.ramp();
        if (stop.delay() > LATE * whole && stop.delay() > 2 * (plan.ramp() - (plan.watched() - stop.delay()))) {
            double delay = up(plan.ramp() - plan.watched() + stop.delay() + guard.cycle());
            finding(Severity.WARNING, "The watch of " + function.words() + " begins when it should be over.", "The delay of " + significant(stop.delay(), 3) + " ms is longer than the whole ramp, " + significant(whole, 3) + " ms: an axis that does not slow down goes " + significant(plan.speed() * stop.delay() * 1e-3, 3) + " " + unit + " unwatched.",
                    Mend.set("Delay the watch by " + fixed(delay, 0) + " ms", rules + "/delay", delay));
        }
    }

    /** The watch begins before the axis slows down as it asks: a ramp limited in jerk comes to that only after a while, and one that is left again soon may never keep it. */
    private void late(SafetyFunction function, GuardPlan plan, StopRules stop) {
        SlowingDown slowing = SlowingDown.of(axis, plan.speed(), plan.deceleration());
        double delay = up(plan.ramp() - plan.watched() + stop.delay() + (slowing.curved() ? 1e3 * stop.flattest() / slowing.jerk() : 0));
        double watched = plan.watched() - stop.delay() + delay;
        boolean kept = slowing.beyond((watched - plan.ramp()) * 1e-3, stop.flattest(), stop.standstillSpeed()) <= stop.filterDistance();
        double flat = down(stop.flattest() / 2);
        finding(Severity.FAULT, "The watch of " + function.words() + " begins before the ramp" + (slowing.curved() ? " is steep enough." : "."),
                "It goes " + significant(plan.beyond(), 3) + " " + unit + " beyond the limit; " + significant(stop.filterDistance(), 3) + " " + unit + " are allowed.",
                kept ? Mend.set("Delay the watch by " + fixed(delay, 0) + " ms", rules(function) + "/delay", delay) : Mend.set("Allow a ramp of " + significant(flat, 3) + " " + unit + "/s²", rules(function) + "/flattest", flat));
    }

    private void encoder() {
        double own = axis.motorSide().unitsPerRadian() * 2 * Math.PI;
        double share = guard.unitsPerTurn() / own - 1;
        double perCount = Math.abs(guard.unitsPerTurn()) / guard.countsPerTurn();
        figure("Speed known to", significant(perCount / (guard.cycle() * 1e-3), 3), unit + "/s", "one count of the guard's encoder a cycle: " + significant(perCount, 3) + " " + unit + " ÷ " + significant(guard.cycle(), 3) + " ms");
        figure("Reaction of the guard", significant(2 * guard.cycle(), 3), "ms", "torque off after a limit is broken: two cycles of " + significant(guard.cycle(), 3) + " ms, beyond the filter distance");
        if (Math.abs(share) > SCALE_OFF) {
            finding(Severity.FAULT, "Its guard has another scale than the axis.", "A turn of the motor is " + significant(own, 6) + " " + unit + "; the guard takes it for " + significant(guard.unitsPerTurn(), 6) + " " + unit + ", so that its limits are off by " + significant(100 * share, 3) + " %.",
                    Mend.set("Give the guard the scale of the axis", at + "/unitsPerTurn", own));
        }
    }

    private void standing() {
        Set<SafetyFunction> stops = new LinkedHashSet<>(guard.asks().stream().map(Ask::function).filter(SafetyFunction::stops).toList());
        double perCount = Math.abs(guard.unitsPerTurn()) / guard.countsPerTurn();
        double perCycle = perCount / (guard.cycle() * 1e-3);
        for (SafetyFunction function : stops) {
            if (function == SafetyFunction.SAFE_TORQUE_OFF) {
                continue;
            }
            StopRules stop = guard.of(function);
            String rules = rules(function);
            if (stop.standstillSpeed() < perCycle) {
                double speed = up(2 * perCycle);
                finding(Severity.WARNING, "The standstill speed of " + function.words() + " is less than the guard can tell.", "One count a cycle is " + significant(perCycle, 3) + " " + unit + "/s.", Mend.set("Take " + significant(speed, 3) + " " + unit + "/s", rules + "/standstillSpeed", speed));
            }
            boolean holds = function != SafetyFunction.SAFE_STOP_1;
            double loop = axis.supervision().positionWindow();
            double least = Math.max(2 * perCount, 2 * loop);
            if (holds && stop.window() < least) {
                double window = up(least);
                finding(Severity.FAULT, "The standstill window of " + function.words() + " is too small.", stop.window() < 2 * perCount ? "The encoder of the guard tells " + significant(perCount, 3) + " " + unit + " apart." : "The loop holds the place to " + significant(loop, 3) + " " + unit + " (position window), and the axis settles by as much.",
                        Mend.set("Take " + significant(window, 3) + " " + unit, rules + "/window", window));
            }
            if (holds && stop.filterDistance() > stop.window()) {
                finding(Severity.WARNING, "The filter distance of " + function.words() + " hides what it should tell.", "The axis may go " + significant(stop.filterDistance(), 3) + " " + unit + " at any speed before that counts: more than its window of standstill, " + significant(stop.window(), 3) + " " + unit + ".",
                        Mend.set("Take half of the window", rules + "/filterDistance", down(stop.window() / 2)));
            }
        }
        boolean limited = guard.asks().stream().anyMatch(a -> a.function() == SafetyFunction.SAFELY_LIMITED_SPEED);
        if (limited && guard.speed().limit() >= axis.limits().max().speed()) {
            finding(Severity.WARNING, "The safely limited speed limits nothing.", "The axis never goes faster than " + significant(axis.limits().max().speed(), 4) + " " + unit + "/s.", null);
        }
    }

    private void hanging() {
        if (axis.motorSide().gravity() == 0 || guard.asks().stream().noneMatch(a -> a.function() == SafetyFunction.SAFE_STOP_1)) {
            return;
        }
        StopRules stop = guard.stop1();
        Double unheld = GuardPlan.unheld(axis);
        if (unheld == null) {
            if (GuardPlan.fall(axis, 1000) > 0) {
                finding(Severity.FAULT, "Nothing holds the load once the torque has gone.", "It hangs, and the axis has no holding brake.", null);
            }
            return;
        }
        double sag = GuardPlan.fall(axis, unheld);
        figure("Sag of the load", significant(sag, 3), unit, "½·a·t² with t = " + significant(unheld, 3) + " ms from the end of the torque until the brake holds; friction counted");
        if (sag > 0) {
            double delay = up(stop.brakeDelay() + axis.brake().closeMillis() + 2 * guard.cycle());
            finding(Severity.FAULT, "The torque goes before the brake holds.", "The brake needs " + axis.brake().closeMillis() + " ms to close; for " + significant(unheld, 3) + " ms nothing holds the load, and it falls " + significant(sag, 3) + " " + unit + ".",
                    new Mend("Keep the torque for " + fixed(delay, 0) + " ms" + (guard.brake() ? "" : " and let the guard close the brake"), List.of(new Change("replace", at + "/brake", true), new Change("replace", at + "/stop1/torqueDelay", delay))));
        }
    }

    private void restarts() {
        Set<SafetyFunction> stops = new LinkedHashSet<>(guard.asks().stream().map(Ask::function).filter(SafetyFunction::stops).toList());
        for (SafetyFunction function : stops) {
            StopRules stop = function == SafetyFunction.SAFE_TORQUE_OFF ? guard.stop1() : guard.of(function);
            String rules = rules(function);
            if (stop.restart() == Restart.AUTOMATIC) {
                finding(Severity.WARNING, "After " + function.words() + " motion is allowed again without an acknowledge.", "When the request goes the axis may move at once, while somebody is still there (IEC 60204-1, 9.2.3.3: a reset must not start motion by itself; from memory).", Mend.set("Ask for an acknowledge", rules + "/restart", Restart.ACKNOWLEDGED.name()));
            }
        }
    }

    private void following() {
        if (axis.following().source() != Following.Source.SETPOINT && axis.following().source() != Following.Source.ACTUAL) {
            return;
        }
        Axis master = machine.axis(axis.following().master()).orElse(null);
        if (master == null) {
            return;
        }
        for (SafetyRequest request : machine.safetyRequests()) {
            Set<SafetyFunction> here = asked(axis, request);
            Set<SafetyFunction> there = asked(master, request);
            if (!here.equals(there)) {
                finding(Severity.WARNING, request.name() + " stops it apart from its master " + master.name() + ".", "Here it asks for " + words(here) + ", there for " + words(there) + ": they come out of step.", null);
            }
        }
    }

    private static Set<SafetyFunction> asked(Axis axis, SafetyRequest request) {
        Set<SafetyFunction> all = EnumSet.noneOf(SafetyFunction.class);
        if (axis.guard().fitted()) {
            axis.guard().asks().stream().filter(a -> a.request().equals(request.name()) && a.function().stops()).forEach(a -> all.add(a.function()));
        }
        return all;
    }

    private static String words(Set<SafetyFunction> functions) {
        return functions.isEmpty() ? "nothing" : String.join(" and ", functions.stream().map(SafetyFunction::words).toList());
    }
}
