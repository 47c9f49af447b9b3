package rueda.proof;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import rueda.bench.AxisSignal;
import rueda.bench.Bench;
import rueda.bench.Recording;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.machine.Proof.Expectation;
import rueda.plc.ProgramFault;
import rueda.plcopen.CommandLog;

/** Runs a machine's program for the duration of its proof and judges every expectation. */
public final class Prover {

    private final Machine machine;
    private final Bench bench;
    private final Recording recording;
    private final Causes causes;

    /** Told about a hundred times in a run how far it is. It may throw, to end the run. */
    @FunctionalInterface
    public interface Progress {
        /** @param time machine time that has passed, s  @param of duration of the run, s */
        void reached(double time, double of);
    }

    private static final int TOLD = 100;

    private Prover(Machine machine, Progress progress) {
        this.machine = machine;
        int samples = Math.max(1, (int) Math.round(machine.proof().duration() * 1e6 / machine.bus().cycleMicros()));
        bench = new Bench(machine, samples);
        int step = (samples + TOLD - 1) / TOLD;
        for (int k = 0; k < samples; k++) {
            if (k % step == 0) {
                progress.reached(bench.now() * 1e-9, machine.proof().duration());
            }
            bench.cycle();
        }
        recording = bench.recording();
        causes = new Causes(machine, bench);
    }

    /** @throws IllegalArgumentException when the program has faults */
    public static ProofRun run(Machine machine) {
        return run(machine, (time, of) -> { });
    }

    /** The same, telling how far it is. @throws IllegalArgumentException when the program has faults */
    public static ProofRun run(Machine machine, Progress progress) {
        Prover prover = new Prover(machine, progress);
        List<Verdict> verdicts = new ArrayList<>();
        for (Expectation expectation : machine.proof().expectations()) {
            verdicts.add(prover.judge(expectation));
        }
        ProgramFault fault = prover.bench.task().fault();
        return new ProofRun(verdicts, machine.proof().duration(), fault == null ? null : fault.getMessage(),
                fault == null ? 0 : fault.line(), prover.figures(), prover.bench);
    }

    private Verdict judge(Expectation expectation) {
        return switch (expectation.kind()) {
            case ARRIVES -> arrives(expectation);
            case BOUND -> bound(expectation);
            case NO_ERROR -> noError(expectation);
        };
    }

    /** The sentence of an expectation, as the page and the command line show it. */
    public static String sentence(Expectation e, Axis axis) {
        String unit = axis.unit().symbol();
        return switch (e.kind()) {
            case ARRIVES -> String.format(Locale.ROOT, "%s arrives at %s ± %s %s within %s s after %s and stays %s s", e.axis(), plain(e.position()),
                    plain(e.tolerance()), unit, plain(e.within()), e.after(), plain(e.stays()));
            case BOUND -> String.format(Locale.ROOT, "%s of %s never above %s %s", quantity(e.quantity()), e.axis(), plain(e.limit()), unit(e.quantity(), unit));
            case NO_ERROR -> "No error of " + e.axis() + " or of a function block";
        };
    }

    static String plain(double value) {
        return new java.math.BigDecimal(String.format(Locale.ROOT, "%.4f", value)).stripTrailingZeros().toPlainString();
    }

    private static String quantity(Proof.Quantity quantity) {
        return switch (quantity) {
            case SPEED -> "Speed";
            case TORQUE -> "Torque";
            case FOLLOWING_ERROR -> "Following error";
        };
    }

    private static String unit(Proof.Quantity quantity, String unit) {
        return switch (quantity) {
            case SPEED -> unit + "/s";
            case TORQUE -> "N·m";
            case FOLLOWING_ERROR -> unit;
        };
    }

    private Verdict arrives(Expectation e) {
        int number = axisNumber(e.axis());
        Axis axis = machine.axes().get(number);
        String sentence = sentence(e, axis);
        String signal = AxisSignal.POSITION.of(axis.name());
        int event = recording.indexOf(e.after());
        long start = event < 0 ? -1 : risingEdge(event);
        double end = recording.time(recording.count() - 1);
        if (start < 0) {
            String cause = event < 0 ? "The program has no variable " + e.after() + "." : causes.neverHappened(e.after());
            return new Verdict(sentence, false, e.within(), null, "s", null, end, end, end, signal, cause, causes.orderAt(number, end), null);
        }
        int position = recording.indexOf(signal);
        long stay = Math.round(e.stays() * 1e9 / recording.cycleNanos());
        long arrived = -1;
        long insideSince = -1;
        double closest = Double.MAX_VALUE;
        for (long k = start; k < recording.count() && arrived < 0; k++) {
            double off = Math.abs(recording.value(position, k) - e.position());
            closest = Math.min(closest, off);
            insideSince = off <= e.tolerance() ? insideSince < 0 ? k : insideSince : -1;
            if (insideSince >= 0 && k - insideSince >= stay) {
                arrived = insideSince;
            }
        }
        double begin = recording.time(start);
        if (arrived < 0) {
            String cause = causes.neverArrived(number, begin, closest, axis.unit().symbol());
            return new Verdict(sentence, false, e.within(), null, "s", null, end, begin, end, signal, cause, causes.orderAt(number, begin), null);
        }
        double measured = (arrived - start) * (recording.cycleNanos() * 1e-9);
        boolean holds = measured <= e.within();
        double time = recording.time(arrived);
        return new Verdict(sentence, holds, e.within(), measured, "s", (e.within() - measured) / e.within(), time,
                holds ? begin : begin + e.within(), time, signal, holds ? null : causes.late(number, begin, measured, e.within()),
                causes.orderAt(number, time), null);
    }

    private long risingEdge(int signal) {
        boolean before = false;
        for (long k = 0; k < recording.count(); k++) {
            boolean now = recording.value(signal, k) != 0;
            if (now && !before) {
                return k;
            }
            before = now;
        }
        return -1;
    }

    private Verdict bound(Expectation e) {
        int number = axisNumber(e.axis());
        Axis axis = machine.axes().get(number);
        AxisSignal judged = switch (e.quantity()) {
            case SPEED -> AxisSignal.SPEED;
            case TORQUE -> AxisSignal.TORQUE;
            case FOLLOWING_ERROR -> AxisSignal.FOLLOWING_ERROR;
        };
        String name = judged.of(axis.name());
        int signal = recording.indexOf(name);
        long worst = 0;
        for (long k = 0; k < recording.count(); k++) {
            if (Math.abs(recording.value(signal, k)) > Math.abs(recording.value(signal, worst))) {
                worst = k;
            }
        }
        double measured = Math.abs(recording.value(signal, worst));
        boolean holds = measured <= e.limit();
        long from = worst;
        long to = worst;
        while (!holds && from > 0 && Math.abs(recording.value(signal, from - 1)) > e.limit()) {
            from--;
        }
        while (!holds && to + 1 < recording.count() && Math.abs(recording.value(signal, to + 1)) > e.limit()) {
            to++;
        }
        double time = recording.time(worst);
        Causes.Explanation why = holds ? Causes.Explanation.NONE : causes.exceeded(number, e.quantity(), recording.time(from), time);
        return new Verdict(sentence(e, axis), holds, e.limit(), measured, unit(e.quantity(), axis.unit().symbol()),
                (e.limit() - measured) / e.limit(), time, recording.time(from), recording.time(to), name, why.words(),
                causes.orderAt(number, time), why.mend());
    }

    private Verdict noError(Expectation e) {
        int number = axisNumber(e.axis());
        Axis axis = machine.axes().get(number);
        String sentence = sentence(e, axis);
        String signal = AxisSignal.ERROR_CODE.of(axis.name());
        int code = recording.indexOf(signal);
        double end = recording.time(recording.count() - 1);
        int errors = 0;
        double first = end;
        String cause = null;
        Verdict.Order order = null;
        for (int i = bench.log().size() - 1; i >= 0; i--) {
            CommandLog.Entry entry = bench.log().entry(i);
            if (entry.kind() == CommandLog.Kind.ERROR && entry.axis() == number) {
                errors++;
                first = entry.time() * 1e-9;
                cause = causes.refused(entry);
                order = new Verdict.Order(entry.line(), entry.block(), causes.words(entry));
            }
        }
        for (long k = 0; k < recording.count(); k++) {
            if (recording.value(code, k) != 0) {
                errors++;
                if (recording.time(k) <= first) {
                    first = recording.time(k);
                    cause = causes.driveFault((int) recording.value(code, k));
                    order = causes.orderAt(number, first);
                }
                break;
            }
        }
        ProgramFault fault = bench.task().fault();
        if (fault != null) {
            errors++;
            cause = cause == null ? "The program stopped in line " + fault.line() + ": " + fault.getMessage() : cause;
        }
        return new Verdict(sentence, errors == 0, 0.0, (double) errors, "errors", errors == 0 ? 1.0 : -1.0, first, first, first,
                signal, cause, order, null);
    }

    private int axisNumber(String name) {
        for (int i = 0; i < machine.axes().size(); i++) {
            if (machine.axes().get(i).name().equalsIgnoreCase(name)) {
                return i;
            }
        }
        throw new IllegalArgumentException("There is no axis " + name);
    }

    private ProofRun.Figures figures() {
        int moves = bench.log().moves();
        double theory = bench.log().plannedTime();
        double peak = 0;
        double rms = 0;
        long standing = recording.count();
        for (Axis axis : machine.axes()) {
            int torque = recording.indexOf(AxisSignal.TORQUE.of(axis.name()));
            int speed = recording.indexOf(AxisSignal.COMMANDED_SPEED.of(axis.name()));
            double highest = 0;
            double squares = 0;
            long still = 0;
            for (long k = 0; k < recording.count(); k++) {
                double value = recording.value(torque, k);
                highest = Math.max(highest, Math.abs(value));
                squares += value * value;
                still += recording.value(speed, k) == 0 ? 1 : 0;
            }
            peak = Math.max(peak, highest / axis.motor().peakTorque());
            rms = Math.max(rms, Math.sqrt(squares / recording.count()) / axis.motor().ratedTorque());
            standing = Math.min(standing, still);
        }
        return new ProofRun.Figures(moves, theory, standing * recording.cycleNanos() * 1e-9, peak, rms);
    }
}
