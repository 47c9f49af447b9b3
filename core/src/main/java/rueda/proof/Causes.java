package rueda.proof;

import static rueda.proof.Words.plain;
import static rueda.proof.Words.say;

import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import rueda.bench.AxisSignal;
import rueda.drive.DriveError;
import rueda.machine.Axis;
import rueda.machine.Expectation.Quantity;
import rueda.machine.Machine;
import rueda.machine.MotorSide;
import rueda.machine.Plc;
import rueda.plc.run.ProgramFault;
import rueda.plcopen.CommandLog;
import rueda.plcopen.MotionError;

/** Finds the reason for what the recording shows, and says it in words with its numbers. */
final class Causes {

    /** @param words the reason, null for none  @param mend a change that would mend it, or null */
    record Explanation(String words, Verdict.Replacement mend) {
        static final Explanation NONE = new Explanation(null, null);
    }

    private final RecordedRun run;
    private final Machine machine;

    Causes(RecordedRun run) {
        this.run = run;
        machine = run.machine();
    }

    /** The last order given to an axis at or before a time, or null. */
    private CommandLog.Entry entryAt(int axis, double time) {
        CommandLog.Entry last = null;
        for (int i = 0; i < run.orders().size(); i++) {
            CommandLog.Entry entry = run.orders().entry(i);
            if (entry.axis() == axis && entry.time() * 1e-9 <= time) {
                last = entry;
            }
        }
        return last;
    }

    Verdict.Order orderAt(int axis, double time) {
        CommandLog.Entry entry = entryAt(axis, time);
        return entry == null ? null : new Verdict.Order(entry.call().file(), entry.line(), entry.block(), words(entry));
    }

    /** Where it stands in the program, with the file where there are several. */
    private String place(String file, int line) {
        return "line " + line + (machine.plc().files().size() > 1 && !file.isEmpty() ? " of " + file : "");
    }

    private String place(CommandLog.Entry entry) {
        return place(entry.call().file(), entry.line());
    }

    /** Why and where the program stopped. */
    String stopped(ProgramFault fault) {
        return "The program stopped in " + place(fault.file(), fault.line()) + ": " + fault.getMessage();
    }

    /** @param number of an axis, or beyond them of a virtual master */
    private Axis axis(int number) {
        int axes = machine.axes().size();
        return number < axes ? machine.axes().get(number) : machine.plc().virtualMasters().get(number - axes).asAxis();
    }

    String words(CommandLog.Entry entry) {
        String unit = axis(entry.axis()).unit().symbol();
        return switch (entry.kind()) {
            case MOVE -> say("move to %s %s with %s %s/s and %s %s/s²", plain(entry.target()), unit,
                    plain(entry.velocity()), unit, plain(entry.acceleration()), unit);
            case HOME -> "homing";
            case HALT -> "halt";
            case FOLLOW -> "following";
            case ADD -> say("%s %s added with %s %s/s", plain(entry.target()), unit, plain(entry.velocity()), unit);
            case TORQUE -> Double.isNaN(entry.target()) ? "torque from the analogue input" : say("torque of %s N·m, at most %s %s/s", plain(entry.target()), plain(entry.velocity()), unit);
            case ERROR -> Double.isNaN(entry.target()) ? "refused order" : say("refused move to %s %s", plain(entry.target()), unit);
        };
    }

    /** What was seen, and what went wrong before it or happened last. @param axis −1 for none */
    String around(int axis, double time, String seen) {
        StringBuilder words = new StringBuilder(seen);
        ProgramFault fault = run.fault();
        if (fault != null) {
            return words.append(' ').append(stopped(fault)).toString();
        }
        CommandLog.Entry error = lastError(axis, time);
        if (error != null) {
            words.append(" Before it, ").append(refused(error));
        }
        int code = axis >= 0 && axis < machine.axes().size() ? (int) run.value(run.signal(AxisSignal.ERROR_CODE.of(machine.axes().get(axis).name())), sample(time)) : 0;
        if (code != 0) {
            words.append(' ').append(driveFault(code));
        }
        Happened last = null;
        for (Happened one : run.happened()) {
            last = one.time() <= time ? one : last;
        }
        if (last != null) {
            words.append(say(" At %.3f s %s.", last.time(), last.words()));
        }
        return words.toString();
    }

    private long sample(double time) {
        return Math.max(0, Math.min(run.samples() - 1, Math.round(time / run.interval()) - 1));
    }

    /** The last order that was refused at or before a time, or null. @param axis −1 for any */
    private CommandLog.Entry lastError(int axis, double time) {
        CommandLog.Entry last = null;
        for (int i = 0; i < run.orders().size(); i++) {
            CommandLog.Entry entry = run.orders().entry(i);
            if (entry.kind() == CommandLog.Kind.ERROR && entry.time() * 1e-9 <= time && (axis < 0 || entry.axis() == axis)) {
                last = entry;
            }
        }
        return last;
    }

    String neverHappened(String event) {
        ProgramFault fault = run.fault();
        if (fault != null) {
            return event + " never turned true: the program stopped in " + place(fault.file(), fault.line()) + ". " + fault.getMessage();
        }
        for (int i = 0; i < run.orders().size(); i++) {
            if (run.orders().entry(i).kind() == CommandLog.Kind.ERROR) {
                return event + " never turned true. Before it, " + refused(run.orders().entry(i));
            }
        }
        return event + " never turned true in " + plain(run.end()) + " s; a longer duration may be needed.";
    }

    String neverArrived(int axis, double since, double closest, String unit) {
        String words = say("It came no nearer than %.4f %s. ", closest, unit);
        for (int i = 0; i < run.orders().size(); i++) {
            CommandLog.Entry entry = run.orders().entry(i);
            if (entry.kind() == CommandLog.Kind.ERROR && entry.axis() == axis && entry.time() * 1e-9 >= since - 0.01) {
                return words + refused(entry);
            }
        }
        int code = run.errorCode(axis);
        return words + (code != 0 ? driveFault(code) : "Tolerance, dwell or duration may be too tight for this move.");
    }

    String late(int axis, double since, double measured, double within) {
        CommandLog.Entry entry = entryAt(axis, since + measured);
        String words = say("It arrived %.3f s late. ", measured - within);
        if (entry == null || entry.kind() != CommandLog.Kind.MOVE) {
            return words;
        }
        return words + say("The move of %s takes %.3f s even in theory, with the speed and acceleration it was given.", place(entry), entry.duration());
    }

    String refused(CommandLog.Entry entry) {
        Axis axis = axis(entry.axis());
        String unit = axis.unit().symbol();
        String reason = entry.error().words();
        if (entry.error() == MotionError.PAST_SOFT_LIMIT) {
            reason = say("the target %s %s lies past the soft limits, %s to %s %s", plain(entry.target()), unit,
                    plain(axis.limits().softMin()), plain(axis.limits().softMax()), unit);
        } else if (entry.error() == MotionError.BAD_VALUE) {
            reason = say("speed must be above 0 and at most %s %s/s, acceleration and deceleration at most %s %s/s², jerk at most %s %s/s³",
                    plain(axis.limits().max().speed()), unit, plain(axis.limits().max().acceleration()), unit, plain(axis.limits().max().jerk()), unit);
        }
        return say("%s in %s was refused at %.3f s: %s (ErrorID 16#%04X).", entry.block(), place(entry), entry.time() * 1e-9, reason, entry.error().id());
    }

    String driveFault(int code) {
        String words = DriveError.words(code);
        return say("The drive stopped with fault %04Xh: %s.", code, words);
    }

    /** Why speed, torque or following error went above a limit. @param limit in the unit of the quantity */
    Explanation exceeded(int axisNumber, Quantity quantity, double limit, double from, double worst) {
        Axis axis = machine.axes().get(axisNumber);
        CommandLog.Entry entry = entryAt(axisNumber, worst);
        if (entry == null || entry.kind() != CommandLog.Kind.MOVE) {
            return new Explanation(entry == null ? axis.commandedBy() == Axis.Commander.MOTION_BLOCKS ? "No order of the program was in force." : "The axis was commanded by " + axis.commandedBy().words() + ": no motion block gave an order."
                    : "This happened during " + words(entry) + ", ordered in " + place(entry) + ".", null);
        }
        if (quantity == Quantity.PHASE) {
            return new Explanation("This happened during " + words(entry) + ", ordered in " + place(entry) + ".", null);
        }
        if (quantity == Quantity.SPEED) {
            String ordered = say("L%s ordered %s %s/s", place(entry).substring(1), plain(entry.velocity()), axis.unit().symbol());
            double faster = Math.abs(run.value(run.signal(AxisSignal.SPEED.of(axis.name())), sample(worst))) - entry.velocity();
            if (entry.velocity() > limit) {
                return new Explanation(ordered + ".", mend(entry.call().file(), entry.line(), "Velocity", limit, say("Lower the velocity to the %s %s/s that are allowed.", plain(limit), axis.unit().symbol())));
            } else if (faster < 1e-3 * entry.velocity()) {
                return new Explanation(ordered + ".", null);
            }
            Explanation behind = torqueShort(axis, axisNumber, entry, entry.time() * 1e-9);
            return new Explanation(say("%s; the axis was %s %s/s faster, to make up for what it had fallen behind. ", ordered, plain(faster), axis.unit().symbol()) + behind.words(), behind.mend());
        }
        return torqueShort(axis, axisNumber, entry, from);
    }

    /** M = J·a/r + M_c + b·ω at the motor; lacking torque shows as following error. */
    private Explanation torqueShort(Axis axis, int axisNumber, CommandLog.Entry entry, double from) {
        Axis real = run.standing().get(axisNumber);
        MotorSide side = real.motorSide();
        String unit = axis.unit().symbol();
        int commandedSpeed = run.signal(AxisSignal.COMMANDED_SPEED.of(axis.name()));
        int limitedSignal = run.signal(AxisSignal.TORQUE_LIMITED.of(axis.name()));
        long sample = Math.max(1, Math.min(run.samples() - 1, Math.round(from / run.interval()) - 1));
        double speedNow = run.value(commandedSpeed, sample);
        double speedBefore = run.value(commandedSpeed, Math.max(0, sample - 5));
        boolean braking = Math.abs(speedNow) < Math.abs(speedBefore);
        double ordered = braking ? entry.deceleration() : entry.acceleration();
        /* in the direction of the motion, braking turned over: friction and, going up, the weight help */
        double held = (side.friction(entry.velocity()) + side.gravity() * Math.signum(speedNow)) * (braking ? -1 : 1);
        double needed = side.inertia() * ordered / side.unitsPerRadian() + held;
        double peak = Math.min(axis.torqueLimit(), real.motor().peakTorque());
        long saturated = 0;
        for (long k = 0; k < run.samples(); k++) {
            double t = run.time(k);
            boolean inMove = t >= entry.time() * 1e-9 && t <= entry.time() * 1e-9 + entry.duration() + 0.2;
            saturated += inMove && run.value(limitedSignal, k) != 0 ? 1 : 0;
        }
        double saturatedMs = saturated * run.interval() * 1e3;
        String which = braking ? "Deceleration" : "Acceleration";
        String carried = axis.train().feed().linear() ? say("With %s kg on board the", plain(real.load().mass())) : "The";
        String words = say("At %.3f s %s (%s) ordered %s of %s %s/s². %s motor needs %.2f N·m for it, friction included; it can give %.2f N·m. ",
                entry.time() * 1e-9, place(entry), entry.block(), which.toLowerCase(Locale.ROOT), plain(ordered), unit,
                carried, needed, peak);
        if (!real.load().equals(axis.load()) || !real.motor().equals(axis.motor())) {
            words += say("As the document says it would need %.2f of %.2f N·m. ", axis.motorSide().inertia() * ordered / side.unitsPerRadian() + (axis.motorSide().friction(entry.velocity()) + axis.motorSide().gravity() * Math.signum(speedNow)) * (braking ? -1 : 1), axis.torqueLimit());
        }
        if (needed <= peak) {
            return new Explanation(words + "The torque suffices, so look at the gains and the feed-forward.", null);
        }
        double possible = (0.95 * peak - held) / side.inertia() * side.unitsPerRadian();
        double step = Math.pow(10, Math.max(0, Math.floor(Math.log10(possible)) - 1));
        double advised = Math.floor(possible / step) * step;
        Verdict.Replacement mend = mend(entry.call().file(), entry.line(), which, advised, say("Lower the %s to %s %s/s²: this leaves 5 %% of the torque in reserve.", which.toLowerCase(Locale.ROOT), plain(advised), unit));
        return new Explanation(words + say("So the torque stood at its limit for %.0f ms and the axis fell behind.", saturatedMs), mend);
    }

    /** Another number for a parameter of a call, where a number stands there. @param words what it would do */
    private Verdict.Replacement mend(String file, int line, String parameter, double value, String words) {
        String[] lines = machine.plc().files().stream().filter(f -> f.name().equals(file)).findFirst().map(Plc.SourceFile::source).orElse("").split("\n", -1);
        Pattern given = Pattern.compile("\\b" + parameter + "\\s*:=\\s*[0-9][0-9_.]*(?:[eE][+-]?[0-9]+)?", Pattern.CASE_INSENSITIVE);
        for (int i = line - 1; i >= 0 && i < lines.length; i++) {
            Matcher match = given.matcher(lines[i]);
            if (match.find()) {
                String replacement = parameter + " := " + say("%.1f", value);
                return new Verdict.Replacement(file, i + 1, match.group(), replacement, words);
            }
            if (lines[i].contains(";")) {
                return null;
            }
        }
        return null;
    }
}
