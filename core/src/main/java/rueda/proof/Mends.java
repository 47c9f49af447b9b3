package rueda.proof;

import static rueda.proof.Words.plain;
import static rueda.proof.Words.say;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import rueda.advice.Finding.Change;
import rueda.advice.Finding.Mend;
import rueda.advice.Numbers;
import rueda.bench.AxisSignal;
import rueda.machine.Axis;
import rueda.machine.Expectation;
import rueda.machine.Expectation.Quantity;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.plcopen.CommandLog;
import rueda.plcopen.MotionError;
import rueda.profile.MotionProfile;

/**
 * What could be changed so that an expectation holds: one number of the program or one entry of the document, tried with the next run, which tells
 * whether it does. Where only the sense of the program decides (an order of events, two axes in each other's way) nothing is proposed.
 */
final class Mends {

    /** The longest a proof may run, s. */
    private static final double LONGEST = 7200;
    private static final int FOLLOWING_ERROR = 0x8611;

    private final Proof proof;
    private final RecordedRun run;
    private final Machine machine;
    private final Causes causes;

    Mends(Proof proof, RecordedRun run) {
        this.proof = proof;
        this.run = run;
        machine = run.machine();
        causes = new Causes(run);
    }

    /** What became of an expectation, with what would mend it where something is known; of one that cannot be read there is not. */
    Verdict judged(Expectation e) {
        Claim claim = Claim.of(e);
        try {
            return mended(e, claim.judge(run));
        } catch (Reading.SaysNothing open) {
            return claim.judged(run);
        }
    }

    private Verdict mended(Expectation e, Verdict verdict) {
        if (verdict.holds() || verdict.mend() != null || run.fault() != null) {
            return verdict;
        }
        Optional<CommandLog.Entry> refused = refused(e, verdict);
        if (refused.isPresent()) {
            return verdict.withMend(allowed(refused.get()));
        }
        return switch (e.kind()) {
            case ARRIVES -> verdict.measured() != null ? verdict.withMend(faster(verdict, number(e), verdict.measured() - e.within())) : fellBehind(number(e)) >= 0 ? followed(verdict, number(e))
                    : verdict.from() == run.end() || run.end() - verdict.from() < e.within() + e.stays() ? longer(verdict) : verdict;
            case TIME -> verdict.measured() == null ? longer(verdict) : verdict.measured() > e.within() ? verdict.withMend(faster(verdict, slowest(verdict), verdict.measured() - e.within())) : verdict;
            case BOUND -> e.quantity() == Quantity.FOLLOWING_ERROR ? fedForward(verdict, number(e)) : never(verdict) ? longer(verdict) : verdict;
            case BETWEEN, VALUE_AT -> never(verdict) ? longer(verdict) : verdict.withMend(beyond(verdict, e.low(), e.high()));
            case COUNT -> verdict.measured() < e.low() ? longer(verdict) : verdict;
            case ORDER, SENTENCE -> never(verdict) ? longer(verdict) : verdict;
            case ENDS -> moving(number(e)) && e.end() != Expectation.End.OFF && e.end() != Expectation.End.STOPPED_BY_AN_ERROR ? longer(verdict) : verdict;
            case RMS_TORQUE, PEAK_TORQUE -> verdict.withMend(lessTorque(e, verdict));
            case NO_ERROR -> followed(verdict, number(e));
            case NEVER_BOTH, TASK_TIME, DIFFERS -> verdict;
        };
    }

    private int number(Expectation e) {
        return Claim.of(e).axisIn(machine);
    }

    /** What it speaks of did not come about before the end of the run. */
    private boolean never(Verdict verdict) {
        return verdict.measured() == null && verdict.time() == run.end();
    }

    private double last(AxisSignal signal, int axis) {
        return run.value(run.signal(signal.of(machine.axes().get(axis).name())), run.samples() - 1);
    }

    private boolean moving(int axis) {
        return last(AxisSignal.COMMANDED_SPEED, axis) != 0;
    }

    /** First sample at which the drive says that the axis fell behind too far, −1 for none. */
    private long fellBehind(int axis) {
        int code = run.signal(AxisSignal.ERROR_CODE.of(machine.axes().get(axis).name()));
        for (long sample = 0; sample < run.samples(); sample++) {
            if (run.value(code, sample) == FOLLOWING_ERROR) {
                return sample;
            }
        }
        return -1;
    }

    /** An order with a number that is not allowed, before what went wrong. Nothing is known of what depends on an axis it does not name. */
    private Optional<CommandLog.Entry> refused(Expectation e, Verdict verdict) {
        CommandLog.Entry error = causes.lastError(e.axis() == null ? -1 : number(e), verdict.time());
        return Optional.ofNullable(error).filter(entry -> entry.error() == MotionError.BAD_VALUE);
    }

    /** The first number of an order that is more than the axis may do, brought down to that; a refused order tells its target only, so the number is read where it stands. */
    private Verdict.Replacement allowed(CommandLog.Entry entry) {
        Axis axis = causes.axis(entry.axis());
        var max = axis.limits().max();
        String unit = axis.unit().symbol();
        for (Number one : List.of(new Number("Velocity", max.speed(), "/s"), new Number("Acceleration", max.acceleration(), "/s²"), new Number("Deceleration", max.acceleration(), "/s²"), new Number("Jerk", max.jerk(), "/s³"))) {
            Verdict.Replacement lower = causes.mend(entry, one.name(), one.most(), say("Lower the %s to the %s %s%s that the axis may do.", one.name().toLowerCase(Locale.ROOT), plain(one.most()), unit, one.per()));
            if (lower != null && Double.parseDouble(lower.find().replaceFirst(".*:=\\s*", "").replace("_", "")) > one.most()) {
                return lower;
            }
        }
        return null;
    }

    private record Number(String name, double most, String per) {
    }

    private Verdict longer(Verdict verdict) {
        double duration = Math.min(LONGEST, Math.ceil(2 * proof.duration()));
        if (!(duration > proof.duration())) {
            return verdict;
        }
        String at = "/proofs/" + machine.proofs().indexOf(proof) + "/duration";
        return verdict.withChange(new Mend(say("Let it run %s s instead of %s s.", plain(duration), plain(proof.duration())), List.of(new Change("replace", at, duration))));
    }

    /** The axis whose move took longest of those ordered in the stretch, −1 for none. */
    private int slowest(Verdict verdict) {
        CommandLog.Entry slowest = null;
        for (int i = 0; i < run.orders().size(); i++) {
            CommandLog.Entry entry = run.orders().entry(i);
            boolean inside = entry.time() * 1e-9 >= verdict.from() - 2 * run.interval() && entry.time() * 1e-9 <= verdict.to();
            slowest = inside && entry.kind() == CommandLog.Kind.MOVE && entry.axis() < machine.axes().size() && (slowest == null || entry.duration() > slowest.duration()) ? entry : slowest;
        }
        return slowest == null ? -1 : slowest.axis();
    }

    /**
     * More speed for the longest move in the stretch, else more acceleration as far as the torque goes: the least with which it is so much shorter.
     *
     * @param late s
     */
    private Verdict.Replacement faster(Verdict verdict, int axisNumber, double late) {
        CommandLog.Entry move = axisNumber < 0 ? null : causes.moveAt(axisNumber, verdict.time());
        if (move == null) {
            return null;
        }
        Axis axis = machine.axes().get(axisNumber);
        double way = Math.abs(move.target() - run.value(run.signal(AxisSignal.COMMANDED_POSITION.of(axis.name())), causes.sample(move.time() * 1e-9)));
        boolean own = causes.given(move, "Deceleration");
        double reach = Math.min(axis.limits().max().acceleration(), causes.reachable(axisNumber, move));
        double wanted = move.duration() - late * 1.1 - 2 * run.interval();
        Duration bySpeed = speed -> duration(way, speed, move.acceleration(), move.deceleration(), move.jerk());
        Duration byAcceleration = a -> duration(way, move.velocity(), a, own ? move.deceleration() : a, move.jerk());
        String unit = axis.unit().symbol();
        Verdict.Replacement raised = raised(move, "Velocity", move.velocity(), axis.limits().max().speed(), bySpeed, wanted, unit + "/s");
        return raised != null ? raised : raised(move, "Acceleration", move.acceleration(), reach, byAcceleration, wanted, unit + "/s²");
    }

    @FunctionalInterface
    private interface Duration {
        /** s */
        double of(double value);
    }

    private static double duration(double way, double speed, double acceleration, double deceleration, double jerk) {
        MotionProfile profile = new MotionProfile();
        profile.plan(0, 0, 0, way, 0, speed, acceleration, deceleration, jerk);
        return profile.duration();
    }

    private Verdict.Replacement raised(CommandLog.Entry move, String parameter, double now, double most, Duration duration, double wanted, String unit) {
        if (!(most > now) || duration.of(most) > wanted) {
            return null;
        }
        double low = now;
        double high = most;
        for (int i = 0; i < 40; i++) {
            double middle = (low + high) / 2;
            if (duration.of(middle) > wanted) {
                low = middle;
            } else {
                high = middle;
            }
        }
        double advised = Math.min(most, Numbers.up(high));
        return causes.mend(move, parameter, advised, say("Raise the %s to %s %s: the move then takes %.3f s in theory instead of %.3f s.", parameter.toLowerCase(Locale.ROOT), plain(advised), unit, duration.of(advised), move.duration()));
    }

    /** A following error for which the torque suffices is left by a speed that is not fed forward. */
    private Verdict fedForward(Verdict verdict, int axis) {
        if (!(machine.axes().get(axis).control().feedForward() < 1)) {
            return verdict;
        }
        return verdict.withChange(Mend.set(say("Feed the whole speed of %s forward.", machine.axes().get(axis).name()), "/axes/" + axis + "/control/feedForward", 1));
    }

    /** The drive gave up because the axis fell behind. */
    private Verdict followed(Verdict verdict, int axis) {
        long sample = fellBehind(axis);
        if (sample < 0) {
            return verdict;
        }
        Verdict.Replacement mend = causes.exceeded(axis, Quantity.FOLLOWING_ERROR, 0, run.time(sample), run.time(sample)).mend();
        return mend == null ? fedForward(verdict, axis) : verdict.withMend(mend);
    }

    /** Speed, torque or following error of an axis beyond a bound. */
    private Verdict.Replacement beyond(Verdict verdict, double low, double high) {
        for (int axis = 0; axis < machine.axes().size(); axis++) {
            String name = machine.axes().get(axis).name();
            Quantity quantity = verdict.signal().equalsIgnoreCase(AxisSignal.SPEED.of(name)) ? Quantity.SPEED : verdict.signal().equalsIgnoreCase(AxisSignal.TORQUE.of(name)) ? Quantity.TORQUE
                    : verdict.signal().equalsIgnoreCase(AxisSignal.FOLLOWING_ERROR.of(name)) ? Quantity.FOLLOWING_ERROR : null;
            double bound = verdict.measured() > high ? high : -low;
            if (quantity != null && bound > 0) {
                return causes.exceeded(axis, quantity, bound, verdict.from(), verdict.time()).mend();
            }
        }
        return null;
    }

    /**
     * A softer move where the torque is highest. The peak follows M = J·a/r + M_c; in the effective torque √(∑M²·t/∑t) a move counts with M² over the
     * time v/a, so that it falls with the root of the acceleration (servo sizing in machine-design handbooks).
     */
    private Verdict.Replacement lessTorque(Expectation e, Verdict verdict) {
        int number = number(e);
        CommandLog.Entry move = causes.moveAt(number, verdict.time());
        if (move == null) {
            return null;
        }
        boolean braking = causes.braking(number, verdict.time());
        double now = braking ? move.deceleration() : move.acceleration();
        double share = e.limit() / verdict.measured();
        boolean peak = e.kind() == Expectation.Kind.PEAK_TORQUE;
        double possible = peak ? causes.acceleration(number, move, verdict.time(), 0.98 * e.limit() / 100 * machine.axes().get(number).motor().peakTorque()) : 0.95 * now * share * share;
        if (!(possible > 0 && possible < now)) {
            return null;
        }
        double advised = Numbers.down(possible);
        String which = braking && causes.given(move, "Deceleration") ? "deceleration" : "acceleration";
        return causes.mend(move, braking ? "Deceleration" : "Acceleration", advised, say(peak ? "Lower the %s of this move to %s %s/s²: that needs less than the torque allowed." : "Lower the %s of this move to %s %s/s²: its part of the effective torque falls with the root of that.", which,
                plain(advised), machine.axes().get(number).unit().symbol()));
    }
}
