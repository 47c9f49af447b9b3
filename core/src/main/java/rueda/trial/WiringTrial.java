package rueda.trial;

import static rueda.advice.Numbers.significant;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import rueda.advice.Finding.Change;
import rueda.advice.Finding.Mend;
import rueda.bench.Bench;
import rueda.drive.DigitalInputs;
import rueda.drive.DriveFault;
import rueda.drive.Drive;
import rueda.drive.DriveError;
import rueda.drive.DriveObject;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.machine.Terminal;
import rueda.machine.Terminal.Function;
import rueda.plant.ServoPlant;
import rueda.machine.Mistake;

/**
 * The wiring proven before any motion that matters: on a bench of its own a hand trips each switch and it is seen which
 * function answers; then a slow jog in positive direction must count up and meet the positive limit.
 */
public final class WiringTrial {

    private static final double LONGEST_JOG = 600;
    /** A contact may bounce for some milliseconds; the hand holds the switch longer. */
    private static final double HELD = 0.15;

    private final Axis axis;
    private final Bench bench;
    private final String axisPointer;
    /** of the terminals */
    private final String pointer;
    private final List<Check> checks = new ArrayList<>();

    /**
     * One thing that was tried.
     *
     * @param what  what was done
     * @param holds what happened is right
     * @param seen  what happened
     * @param cause what is wrong, and what to do; empty when it holds
     * @param mend  a change of the configuration that takes the wiring as it is, or null
     */
    public record Check(String what, boolean holds, String seen, String cause, Mend mend) {
    }

    private WiringTrial(Machine machine, Axis axis, Set<Mistake> faults, String pointer) {
        this.axis = axis;
        axisPointer = pointer;
        this.pointer = pointer + "/wiring/terminals/";
        bench = AxisAlone.of(machine, axis, faults);
        bench.takeByHand();
        bench.run(0.2);
    }

    /** @param faults what is wrong on the bench  @param pointer JSON pointer of the axis in the document */
    public static List<Check> run(Machine machine, int axisNumber, Set<Mistake> faults, String pointer) {
        WiringTrial trial = new WiringTrial(machine, machine.axes().get(axisNumber), faults, pointer);
        trial.trip(Function.NEGATIVE_LIMIT, ServoPlant.NEGATIVE_LIMIT);
        trial.trip(Function.POSITIVE_LIMIT, ServoPlant.POSITIVE_LIMIT);
        trial.trip(Function.REFERENCE_CAM, ServoPlant.REFERENCE_CAM);
        trial.secondEncoder();
        trial.jog();
        return List.copyOf(trial.checks);
    }

    private void check(String what, boolean holds, String seen, String cause, Mend mend) {
        checks.add(new Check(what, holds, seen, cause, mend));
    }

    private boolean active(Function function) {
        Terminal terminal = axis.wiring().terminal(function).orElse(null);
        if (terminal == null) {
            return false;
        }
        return (inputs().activeTerminals() & 1 << place(terminal)) != 0;
    }

    private DigitalInputs inputs() {
        return bench.drive(0).digitalInputs();
    }

    /** Place of an input among the inputs. */
    private int place(Terminal terminal) {
        return axis.wiring().digitalInputs().indexOf(terminal);
    }

    private List<Function> answering() {
        return List.of(Function.NEGATIVE_LIMIT, Function.POSITIVE_LIMIT, Function.REFERENCE_CAM).stream().filter(this::active).toList();
    }

    private static String words(List<Function> functions) {
        return functions.isEmpty() ? "nothing" : String.join(" and ", functions.stream().map(Function::words).toList());
    }

    /** A hand trips a switch and lets it go again. */
    private void trip(Function function, int contact) {
        Terminal terminal = axis.wiring().terminal(function).orElse(null);
        if (terminal == null) {
            return;
        }
        String what = "Trip the " + function.words() + " by hand";
        List<Function> before = answering();
        bench.drive(0).plant().trip(contact);
        int edgesBefore = inputs().edges(place(terminal));
        bench.run(HELD);
        int edges = inputs().edges(place(terminal)) - edgesBefore;
        List<Function> after = answering();
        bench.drive(0).plant().trip(0);
        bench.run(HELD);
        judge(function, terminal, what, before, after, edges);
    }

    private void judge(Function function, Terminal terminal, String what, List<Function> before, List<Function> after, int edges) {
        String seen = words(after) + " answered";
        boolean answeredBefore = before.contains(function);
        boolean answers = after.contains(function);
        Mend otherContact = Mend.set("Take " + terminal.name() + " as normally " + (terminal.normallyClosed() ? "open" : "closed"),
                pointer + axis.wiring().indexOf(terminal) + "/normallyClosed", !terminal.normallyClosed());
        if (edges > 1) {
            check(what, false, function.words() + " answered " + edges + " times", "The contact bounces. A filter longer than the bouncing takes it out.",
                    Mend.set("Set the filter of " + terminal.name() + " to 5 ms", pointer + axis.wiring().indexOf(terminal) + "/filterMicros", 5000));
        } else if (answeredBefore && answers) {
            check(what, false, function.words() + " is active all the time", "The wire to " + terminal.name() + " is broken or not connected: mend it.", null);
        } else if (answeredBefore) {
            check(what, false, function.words() + " was active at rest and went away", "The contact is of the other kind than configured.", otherContact);
        } else if (!answers && after.isEmpty()) {
            check(what, false, seen, "The wire to " + terminal.name() + " is broken, or the switch is not connected: mend it.", null);
        } else if (!answers) {
            check(what, false, seen, "It is wired to the terminal of the " + words(after) + ": exchange the wires, or the functions.", exchange(function, after.get(0)));
        } else {
            check(what, after.equals(List.of(function)), seen, after.size() == 1 ? "" : "Two functions answer one switch.", null);
        }
    }

    private Mend exchange(Function one, Function other) {
        Terminal first = axis.wiring().terminal(one).orElseThrow();
        Terminal second = axis.wiring().terminal(other).orElseThrow();
        return new Mend("Exchange the functions of " + first.name() + " and " + second.name(), List.of(
                new Change("replace", pointer + axis.wiring().indexOf(first) + "/function", other),
                new Change("replace", pointer + axis.wiring().indexOf(second) + "/function", one)));
    }

    /** Enabled, the encoder on the load must answer. */
    private void secondEncoder() {
        Terminal terminal = axis.wiring().terminal(Function.LOAD_ENCODER).orElse(null);
        if (!axis.loadEncoderUsed() || terminal == null) {
            return;
        }
        boolean broken = error() == DriveFault.LOAD_ENCODER.code();
        check("Read the encoder on the load at " + terminal.name(), !broken, broken ? "the drive reports a broken line: fault 7306h" : "it reads " + bench.drive(0).dictionary().get(DriveObject.LOAD_POSITION) + " counts",
                broken ? "A line of the encoder on the load is broken or missing: mend its cable." : "", null);
    }

    private int error() {
        return (int) bench.drive(0).dictionary().get(DriveObject.ERROR_CODE);
    }

    /** What the encoder on the load counted must go the way of the motor. */
    private void secondEncoderFollows(double moved, long before) {
        if (!axis.loadEncoderUsed() || moved == 0) {
            return;
        }
        long counted = bench.drive(0).dictionary().get(DriveObject.LOAD_POSITION) - before;
        boolean same = counted * moved > 0;
        check("Compare both encoders on the way", same, "the encoder on the load counted " + counted, same ? "" : "The encoder on the load counts backward: turn its direction over.",
                same ? null : new Mend("Turn it over", List.of(new Change("replace", axisPointer + "/loadEncoder/encoder/reversed", !axis.loadEncoder().encoder().reversed()))));
    }

    /** A slow jog in positive direction: counts up, and ends at the positive limit. */
    private void jog() {
        Drive drive = bench.drive(0);
        String unit = axis.unit().symbol();
        double speed = axis.limits().normal().speed() / 10;
        String what = "Jog slowly in positive direction, " + significant(speed, 4) + " " + unit + "/s";
        bench.hand(0).enable(true);
        bench.run(0.5);
        double from = drive.plant().place();
        double countedFrom = drive.position();
        long loadFrom = drive.dictionary().get(DriveObject.LOAD_POSITION);
        if (bench.hand(0).jog(1, false, bench.now()) != null) {
            check(what, false, "the axis could not be enabled", "See the drive: " + DriveError.words(error()) + ".", null);
            return;
        }
        double until = bench.now() * 1e-9 + (axis.endless() ? 3 : LONGEST_JOG);
        while (bench.now() * 1e-9 < until && error() == 0 && !drive.plant().mechanics().atHardStop()) {
            bench.cycle();
        }
        bench.run(0.3);
        secondEncoderFollows(drive.plant().place() - from, loadFrom);
        double moved = drive.plant().place() - from;
        double counted = drive.position() - countedFrom;
        int error = error();
        if (error == DriveFault.FOLLOWING.code() && Math.signum(moved) != Math.signum(counted)) {
            check(what, false, "the load moved " + significant(moved, 3) + " " + unit + " and the encoder counted " + significant(counted, 3) + " " + unit + ": fault 8611h",
                    "The encoder counts backward: exchange its tracks, or turn its direction over.",
                    new Mend("Turn the encoder over", List.of(new Change("replace", axisPointer + "/encoder/reversed", !axis.encoder().reversed()))));
        } else if (axis.endless()) {
            check(what, error == 0, "the position rose by " + significant(counted, 4) + " " + unit, error == 0 ? "" : "The drive stopped: " + DriveError.words(error) + ".", null);
        } else if (error == DriveFault.LIMIT_SWITCH.code() && drive.plant().positiveLimitReached() && active(Function.POSITIVE_LIMIT)) {
            check(what, true, "the positive limit stopped it after " + significant(moved, 4) + " " + unit, "", null);
        } else if (error == DriveFault.LIMIT_SWITCH.code()) {
            check(what, false, "the drive reported a limit at once, after " + significant(moved, 3) + " " + unit, "The positive limit is active where the axis stands: see above.", null);
        } else {
            check(what, false, drive.plant().mechanics().atHardStop() ? "the axis ran past the switch into the hard stop" : "the axis stopped: " + DriveError.words(error),
                    "The positive limit did not answer in positive motion: limits swapped, or its wire broken.", null);
        }
    }
}
