package rueda.proof;

import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import rueda.bench.AxisSignal;
import rueda.bench.Bench;
import rueda.bench.Recording;
import rueda.drive.DriveError;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.MotorSide;
import rueda.machine.Proof;
import rueda.plc.ProgramFault;
import rueda.plcopen.CommandLog;
import rueda.plcopen.MotionError;

/** Finds the reason for what the recording shows, and says it in words with its numbers. */
final class Causes {

    /** @param words the reason, null for none  @param mend a change that would mend it, or null */
    record Explanation(String words, Verdict.Replacement mend) {
        static final Explanation NONE = new Explanation(null, null);
    }

    private final Machine machine;
    private final Bench bench;
    private final Recording recording;

    Causes(Machine machine, Bench bench) {
        this.machine = machine;
        this.bench = bench;
        this.recording = bench.recording();
    }

    /** The last order given to an axis at or before a time, or null. */
    private CommandLog.Entry entryAt(int axis, double time) {
        CommandLog.Entry last = null;
        for (int i = 0; i < bench.log().size(); i++) {
            CommandLog.Entry entry = bench.log().entry(i);
            if (entry.axis() == axis && entry.time() * 1e-9 <= time) {
                last = entry;
            }
        }
        return last;
    }

    Verdict.Order orderAt(int axis, double time) {
        CommandLog.Entry entry = entryAt(axis, time);
        return entry == null ? null : new Verdict.Order(entry.line(), entry.block(), words(entry));
    }

    String words(CommandLog.Entry entry) {
        String unit = machine.axes().get(entry.axis()).unit().symbol();
        return switch (entry.kind()) {
            case MOVE -> say("move to %s %s with %s %s/s and %s %s/s²", Prover.plain(entry.target()), unit,
                    Prover.plain(entry.velocity()), unit, Prover.plain(entry.acceleration()), unit);
            case HOME -> "homing";
            case HALT -> "halt";
            case TORQUE -> Double.isNaN(entry.target()) ? "torque from the analogue input" : say("torque of %s N·m, at most %s %s/s", Prover.plain(entry.target()), Prover.plain(entry.velocity()), unit);
            case ERROR -> Double.isNaN(entry.target()) ? "refused order" : say("refused move to %s %s", Prover.plain(entry.target()), unit);
        };
    }

    String neverHappened(String event) {
        ProgramFault fault = bench.task().fault();
        if (fault != null) {
            return event + " never turned true: the program stopped in line " + fault.line() + ". " + fault.getMessage();
        }
        for (int i = 0; i < bench.log().size(); i++) {
            if (bench.log().entry(i).kind() == CommandLog.Kind.ERROR) {
                return event + " never turned true. Before it, " + refused(bench.log().entry(i));
            }
        }
        return event + " never turned true in " + Prover.plain(machine.proof().duration()) + " s. The program stood in line " + bench.task().line()
                + " at the end; a longer duration may be needed.";
    }

    String neverArrived(int axis, double since, double closest, String unit) {
        String words = say("It came no nearer than %.4f %s. ", closest, unit);
        for (int i = 0; i < bench.log().size(); i++) {
            CommandLog.Entry entry = bench.log().entry(i);
            if (entry.kind() == CommandLog.Kind.ERROR && entry.axis() == axis && entry.time() * 1e-9 >= since - 0.01) {
                return words + refused(entry);
            }
        }
        long code = bench.drive(axis).dictionary().get(rueda.drive.DriveObject.ERROR_CODE);
        return words + (code != 0 ? driveFault((int) code) : "Tolerance, dwell or duration may be too tight for this move.");
    }

    String late(int axis, double since, double measured, double within) {
        CommandLog.Entry entry = entryAt(axis, since + measured);
        String words = say("It arrived %.3f s late. ", measured - within);
        if (entry == null || entry.kind() != CommandLog.Kind.MOVE) {
            return words;
        }
        return words + say("The move of line %d takes %.3f s even in theory, with the speed and acceleration it was given.", entry.line(), entry.duration());
    }

    String refused(CommandLog.Entry entry) {
        Axis axis = machine.axes().get(entry.axis());
        String unit = axis.unit().symbol();
        String reason = entry.error().words();
        if (entry.error() == MotionError.PAST_SOFT_LIMIT) {
            reason = say("the target %s %s lies past the soft limits, %s to %s %s", Prover.plain(entry.target()), unit,
                    Prover.plain(axis.limits().softMin()), Prover.plain(axis.limits().softMax()), unit);
        } else if (entry.error() == MotionError.BAD_VALUE) {
            reason = say("speed must be above 0 and at most %s %s/s, acceleration and deceleration at most %s %s/s², jerk at most %s %s/s³",
                    Prover.plain(axis.limits().max().speed()), unit, Prover.plain(axis.limits().max().acceleration()), unit, Prover.plain(axis.limits().max().jerk()), unit);
        }
        return say("%s in line %d was refused at %.3f s: %s (ErrorID 16#%04X).", entry.block(), entry.line(), entry.time() * 1e-9, reason, entry.error().id());
    }

    String driveFault(int code) {
        String words = DriveError.words(code);
        return say("The drive stopped with fault %04Xh: %s.", code, words);
    }

    /** Why speed, torque or following error went above a limit. */
    Explanation exceeded(int axisNumber, Proof.Quantity quantity, double from, double worst) {
        Axis axis = machine.axes().get(axisNumber);
        CommandLog.Entry entry = entryAt(axisNumber, worst);
        if (entry == null || entry.kind() != CommandLog.Kind.MOVE) {
            return new Explanation(entry == null ? "No order of the program was in force."
                    : "This happened during " + words(entry) + ", ordered in line " + entry.line() + ".", null);
        }
        if (quantity == Proof.Quantity.SPEED) {
            return new Explanation(say("Line %d ordered %s %s/s.", entry.line(), Prover.plain(entry.velocity()), axis.unit().symbol()), null);
        }
        return torqueShort(axis, axisNumber, entry, from);
    }

    /** M = J·a/r + M_c + b·ω at the motor; lacking torque shows as following error. */
    private Explanation torqueShort(Axis axis, int axisNumber, CommandLog.Entry entry, double from) {
        MotorSide side = axis.motorSide();
        String unit = axis.unit().symbol();
        int commandedSpeed = recording.indexOf(AxisSignal.COMMANDED_SPEED.of(axis.name()));
        int limitedSignal = recording.indexOf(AxisSignal.TORQUE_LIMITED.of(axis.name()));
        long sample = Math.max(1, Math.min(recording.count() - 1, Math.round(from * 1e9 / recording.cycleNanos()) - 1));
        double speedNow = recording.value(commandedSpeed, sample);
        double speedBefore = recording.value(commandedSpeed, Math.max(0, sample - 5));
        boolean braking = Math.abs(speedNow) < Math.abs(speedBefore);
        double ordered = braking ? entry.deceleration() : entry.acceleration();
        /* in the direction of the motion, braking turned over: friction and, going up, the weight help */
        double held = (side.friction(entry.velocity()) + side.gravity() * Math.signum(speedNow)) * (braking ? -1 : 1);
        double needed = side.inertia() * ordered / side.unitsPerRadian() + held;
        double peak = axis.torqueLimit();
        long saturated = 0;
        for (long k = 0; k < recording.count(); k++) {
            double t = recording.time(k);
            boolean inMove = t >= entry.time() * 1e-9 && t <= entry.time() * 1e-9 + entry.duration() + 0.2;
            saturated += inMove && recording.value(limitedSignal, k) != 0 ? 1 : 0;
        }
        double saturatedMs = saturated * recording.cycleNanos() * 1e-6;
        String which = braking ? "Deceleration" : "Acceleration";
        String carried = axis.train().feed().linear() ? say("With %s kg on board the", Prover.plain(axis.load().mass())) : "The";
        String words = say("At %.3f s line %d (%s) ordered %s of %s %s/s². %s motor needs %.2f N·m for it, friction included; it can give %.2f N·m. ",
                entry.time() * 1e-9, entry.line(), entry.block(), which.toLowerCase(Locale.ROOT), Prover.plain(ordered), unit,
                carried, needed, peak);
        if (needed <= peak) {
            return new Explanation(words + "The torque suffices, so look at the gains and the feed-forward.", null);
        }
        double possible = (0.95 * peak - held) / side.inertia() * side.unitsPerRadian();
        double step = Math.pow(10, Math.max(0, Math.floor(Math.log10(possible)) - 1));
        double advised = Math.floor(possible / step) * step;
        Verdict.Replacement mend = mend(entry.line(), which, advised, unit);
        return new Explanation(words + say("So the torque stood at its limit for %.0f ms and the axis fell behind.", saturatedMs), mend);
    }

    private Verdict.Replacement mend(int line, String parameter, double value, String unit) {
        String[] lines = machine.plc().program().split("\n", -1);
        Pattern given = Pattern.compile("\\b" + parameter + "\\s*:=\\s*[0-9][0-9_.]*(?:[eE][+-]?[0-9]+)?", Pattern.CASE_INSENSITIVE);
        for (int i = line - 1; i >= 0 && i < lines.length; i++) {
            Matcher match = given.matcher(lines[i]);
            if (match.find()) {
                String replacement = parameter + " := " + say("%.1f", value);
                return new Verdict.Replacement(i + 1, match.group(), replacement,
                        say("Lower the %s to %s %s/s²: this leaves 5 %% of the torque in reserve.", parameter.toLowerCase(Locale.ROOT), Prover.plain(value), unit));
            }
            if (lines[i].contains(";")) {
                return null;
            }
        }
        return null;
    }

    private static String say(String pattern, Object... values) {
        return String.format(Locale.ROOT, pattern, values);
    }
}
