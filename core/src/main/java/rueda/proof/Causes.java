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
    Axis axis(int number) {
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

    long sample(double time) {
        return Math.max(0, Math.min(run.samples() - 1, Math.round(time / run.interval()) - 1));
    }

    /** The last order that was refused at or before a time, or null. @param axis −1 for any */
    CommandLog.Entry lastError(int axis, double time) {
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
                return new Explanation(ordered + ".", mend(entry, "Velocity", limit, say("Lower the velocity to the %s %s/s that are allowed.", plain(limit), axis.unit().symbol())));
            } else if (faster < 1e-3 * entry.velocity()) {
                return new Explanation(ordered + ".", null);
            }
            Explanation behind = torqueShort(axis, axisNumber, entry, entry.time() * 1e-9);
            return new Explanation(say("%s; the axis was %s %s/s faster, to make up for what it had fallen behind. ", ordered, plain(faster), axis.unit().symbol()) + behind.words(), behind.mend());
        }
        return torqueShort(axis, axisNumber, entry, from);
    }

    /** The move in force on an axis at a time, or null. */
    CommandLog.Entry moveAt(int axis, double time) {
        CommandLog.Entry entry = entryAt(axis, time);
        return entry == null || entry.kind() != CommandLog.Kind.MOVE ? null : entry;
    }

    /** Whether the axis slows down at a time. */
    boolean braking(int axisNumber, double time) {
        int commandedSpeed = run.signal(AxisSignal.COMMANDED_SPEED.of(machine.axes().get(axisNumber).name()));
        long sample = Math.max(1, sample(time));
        return Math.abs(run.value(commandedSpeed, sample)) < Math.abs(run.value(commandedSpeed, Math.max(0, sample - 5)));
    }

    /** What the motor holds beside accelerating, in the direction of the motion; braking turned over: friction and, going up, the weight help. N·m */
    private double held(MotorSide side, double speed, double direction, boolean braking) {
        return (side.friction(speed) + side.gravity() * direction) * (braking ? -1 : 1);
    }

    /** Acceleration, or deceleration where the axis slows down at that time, that a torque is enough for, units/s²: a = (M − M_c)·r/J. */
    double acceleration(int axisNumber, CommandLog.Entry entry, double time, double torque) {
        MotorSide side = run.standing().get(axisNumber).motorSide();
        double direction = Math.signum(run.value(run.signal(AxisSignal.COMMANDED_SPEED.of(machine.axes().get(axisNumber).name())), Math.max(1, sample(time))));
        return (torque - held(side, entry.velocity(), direction, braking(axisNumber, time))) / side.inertia() * side.unitsPerRadian();
    }

    /** Acceleration that a move reaches with 5 % of the torque left, whichever way it goes, units/s². */
    double reachable(int axisNumber, CommandLog.Entry entry) {
        Axis real = run.standing().get(axisNumber);
        MotorSide side = real.motorSide();
        return (0.95 * peak(axisNumber) - side.friction(entry.velocity()) - Math.abs(side.gravity())) / side.inertia() * side.unitsPerRadian();
    }

    private double peak(int axisNumber) {
        return Math.min(machine.axes().get(axisNumber).torqueLimit(), run.standing().get(axisNumber).motor().peakTorque());
    }

    /** M = J·a/r + M_c + b·ω at the motor; lacking torque shows as following error. */
    private Explanation torqueShort(Axis axis, int axisNumber, CommandLog.Entry entry, double from) {
        Axis real = run.standing().get(axisNumber);
        MotorSide side = real.motorSide();
        String unit = axis.unit().symbol();
        int limitedSignal = run.signal(AxisSignal.TORQUE_LIMITED.of(axis.name()));
        boolean braking = braking(axisNumber, from);
        double direction = Math.signum(run.value(run.signal(AxisSignal.COMMANDED_SPEED.of(axis.name())), Math.max(1, sample(from))));
        double ordered = braking ? entry.deceleration() : entry.acceleration();
        double needed = side.inertia() * ordered / side.unitsPerRadian() + held(side, entry.velocity(), direction, braking);
        double peak = peak(axisNumber);
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
            words += say("As the document says it would need %.2f of %.2f N·m. ", axis.motorSide().inertia() * ordered / side.unitsPerRadian() + held(axis.motorSide(), entry.velocity(), direction, braking), axis.torqueLimit());
        }
        if (needed <= peak) {
            return new Explanation(words + "The torque suffices, so look at the gains and the feed-forward.", null);
        }
        double possible = acceleration(axisNumber, entry, from, 0.95 * peak);
        double step = Math.pow(10, Math.max(0, Math.floor(Math.log10(possible)) - 1));
        double advised = Math.floor(possible / step) * step;
        Verdict.Replacement mend = possible > 0 ? mend(entry, which, advised, say("Lower the %s to %s %s/s²: this leaves 5 %% of the torque in reserve.", which.toLowerCase(Locale.ROOT), plain(advised), unit)) : null;
        return new Explanation(words + say("So the torque stood at its limit for %.0f ms and the axis fell behind.", saturatedMs), mend);
    }

    /** The text in which an order stands, line by line; empty where it is not known. */
    private String[] lines(CommandLog.Entry entry) {
        return machine.plc().files().stream().filter(f -> f.name().equals(entry.call().file())).findFirst().map(Plc.SourceFile::source).orElse("").split("\n", -1);
    }

    /** Whether the call that gave an order gives this parameter. */
    boolean given(CommandLog.Entry entry, String parameter) {
        return inCall(entry, Pattern.compile("\\b" + parameter + "\\s*:=", Pattern.CASE_INSENSITIVE)) != null;
    }

    private record Found(int line, Matcher match) {
    }

    private Found inCall(CommandLog.Entry entry, Pattern pattern) {
        String[] lines = lines(entry);
        for (int i = entry.line() - 1; i >= 0 && i < lines.length; i++) {
            Matcher match = pattern.matcher(lines[i]);
            if (match.find()) {
                return new Found(i + 1, match);
            }
            if (lines[i].contains(";")) {
                return null;
            }
        }
        return null;
    }

    /**
     * Another number for a parameter of a call, where a number stands there, or where the variable that stands there is declared with a number and never
     * given another one. A deceleration that is left out is the acceleration. @param words what it would do
     */
    Verdict.Replacement mend(CommandLog.Entry entry, String parameter, double value, String words) {
        String file = entry.call().file();
        if (parameter.equals("Deceleration") && !given(entry, parameter)) {
            return mend(entry, "Acceleration", value, words);
        }
        Found number = inCall(entry, Pattern.compile("\\b" + parameter + "\\s*:=\\s*[0-9][0-9_.]*(?:[eE][+-]?[0-9]+)?(?![\\w.])", Pattern.CASE_INSENSITIVE));
        if (number != null) {
            return new Verdict.Replacement(file, number.line(), number.match().group(), parameter + " := " + say("%.1f", value), words);
        }
        Found named = inCall(entry, Pattern.compile("\\b" + parameter + "\\s*:=\\s*([A-Za-z_]\\w*)\\s*[,)]", Pattern.CASE_INSENSITIVE));
        return named == null ? null : declared(entry, named.match().group(1), value, words);
    }

    private Verdict.Replacement declared(CommandLog.Entry entry, String variable, double value, String words) {
        Pattern declaration = Pattern.compile("\\b(" + variable + "\\s*:\\s*L?REAL\\s*:=\\s*)[0-9][0-9_.]*(?:[eE][+-]?[0-9]+)?(?=\\s*;)", Pattern.CASE_INSENSITIVE);
        Pattern assigned = Pattern.compile("\\b" + variable + "\\s*:=", Pattern.CASE_INSENSITIVE);
        String[] lines = lines(entry);
        Verdict.Replacement found = null;
        for (int i = 0; i < lines.length; i++) {
            Matcher match = declaration.matcher(lines[i]);
            if (assigned.matcher(lines[i]).find() || found != null && match.find()) {
                return null;
            }
            if (match.reset().find()) {
                found = new Verdict.Replacement(entry.call().file(), i + 1, match.group(), match.group(1) + say("%.1f", value), words + " " + variable + " holds wherever it is used.");
            }
        }
        return found;
    }
}
