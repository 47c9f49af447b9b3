package rueda.proof;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import rueda.bench.AxisSignal;
import rueda.bench.Bench;
import rueda.bench.ReadyProgram;
import rueda.bench.Stand;
import rueda.guard.Breach;
import rueda.guard.GuardPhase;
import rueda.guard.SafeDistance;
import rueda.guard.Safeguard;
import rueda.guard.StopLink;
import rueda.machine.Axis;
import rueda.machine.Circumstance;
import rueda.machine.Condition;
import rueda.machine.Load;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.machine.SafetyFunction;

/**
 * How long and how far an axis goes on when a request comes at the worst moment of a program: the program of a proof runs once as it is, and then again with the request at each of the moments at which the axis
 * is fastest in its part of the run. The load is the heaviest of those that the proofs are repeated with.
 */
public final class StoppingSearch {

    /** Parts of a run, each of which gives one moment. */
    private static final int PARTS = 24;
    /** A part in which the axis is slower than this share of its fastest gives none. */
    private static final double SLOW = 0.1;

    private StoppingSearch() {
    }

    /**
     * The worst that was found. Times in s since the request, speeds and ways in user units.
     *
     * @param runs        runs with the request
     * @param moment      of the request in the program, s; null when the axis never moves
     * @param load        that was moved, kg or kg·m²
     * @param loadUnit    its unit
     * @param stoppingTime until it stood for good; null when it did not within 4 s
     * @param distance    gone on until then
     * @param longestAt   moment at which it took longest, s
     * @param longest     that time; null when it never stood
     * @param speed       at the request
     * @param chain       how long each link of the chain took
     * @param reaction    until the program ordered it to slow down, or its setpoint began to for good, or the torque went; null when none of that came
     * @param away        how far away what one comes past must stand by the longest time, mm (ISO 13855); null where nothing is come past, or it never stood
     * @param awayWords   the formula with its numbers, and the clause; empty without
     * @param breach      limit that the guard found broken
     * @param breachWords the same in words, with time, speed and limit; empty when none was
     * @param sag         how far the load fell after it had stood
     * @param state       of the axis afterwards, as the program sees it
     * @param referenced  it still knows where it is
     * @param lost        what it had or did before the request and has or does no more, in words
     * @param movedAgain  way that it went by itself within 1.5 s once the request had gone and was acknowledged, units; 0 within the window of standstill
     * @param time        of the traces
     * @param speeds      actual, without sign
     * @param limitTime   of the limit that the guard watched
     * @param limit       units/s
     * @param standTime   of the window: since it stood
     * @param stand       way from where it stood
     * @param phases      when the guard entered which
     */
    public record Stopped(int runs, Double moment, double load, String loadUnit, Double stoppingTime, double distance, double longestAt, Double longest, double speed, List<Passed> chain, Double reaction, Double away, String awayWords, Breach breach, String breachWords, double sag, String state, boolean referenced, List<String> lost, double movedAgain,
                          List<Double> time, List<Double> speeds, List<Double> limitTime, List<Double> limit, List<Double> standTime, List<Double> stand, List<Entered> phases) {
    }

    /** @param of link  @param millis that it took */
    public record Passed(StopLink of, double millis) {
    }

    /** @param time s since the request  @param phase of the guard  @param words the same in words */
    public record Entered(double time, GuardPhase phase, String words) {
    }

    /**
     * @param proof    whose script runs
     * @param axis     number of an axis that has a guard
     * @param request  number of the request
     * @param function that it asks for on the axis
     * @throws IllegalArgumentException when the program has faults
     * @throws rueda.quantity.InvalidEntry when a sentence of the script cannot be read
     */
    public static Stopped run(Machine machine, Proof proof, int axis, int request, SafetyFunction function) {
        Stand stand = heaviest(machine, axis);
        ReadyProgram ready = ReadyProgram.of(machine);
        List<Integer> moments = moments(StoppedRun.undisturbed(machine, ready, proof, stand, axis), axis, machine.axes().get(axis).guard().of(function).standstillSpeed());
        Load load = stand.axes().get(axis).load();
        boolean linear = stand.axes().get(axis).train().feed().linear();
        if (moments.isEmpty()) {
            return new Stopped(0, null, linear ? load.mass() : load.inertia(), linear ? "kg" : "kg·m²", null, 0, 0, null, 0, List.of(), null, null, "", Breach.NONE, "", 0, "", false, List.of(), 0, List.of(), List.of(), List.of(), List.of(), List.of(), List.of(), List.of());
        }
        /* one that breaks a limit, or never stands, is worse than any distance */
        Comparator<StoppedRun> farther = Comparator.comparing((StoppedRun o) -> o.breach() != Breach.NONE).thenComparing(o -> !o.comesToRest()).thenComparingDouble(StoppedRun::distance);
        Comparator<StoppedRun> longer = Comparator.comparing((StoppedRun o) -> !o.comesToRest()).thenComparingDouble(StoppedRun::stands);
        StoppedRun worst = null;
        StoppedRun longest = null;
        for (int moment : moments) {
            StoppedRun outcome = StoppedRun.of(machine, ready, proof, stand, axis, moment, request, function);
            worst = worst == null || farther.compare(outcome, worst) > 0 ? outcome : worst;
            longest = longest == null || longer.compare(outcome, longest) > 0 ? outcome : longest;
        }
        Safeguard safeguard = Safeguard.of(machine.safetyRequests().get(request).protection());
        SafeDistance distance = safeguard == null || !(longest.stands() > 0) ? null : safeguard.distance(longest.stands());
        return worst.told(moments.size(), longest, distance, linear ? load.mass() : load.inertia(), linear ? "kg" : "kg·m²");
    }

    /** As the document says, but for the load of the axis: the heaviest of all proofs' conditions. */
    private static Stand heaviest(Machine machine, int number) {
        Axis axis = machine.axes().get(number);
        boolean linear = axis.train().feed().linear();
        Circumstance of = linear ? Circumstance.MASS : Circumstance.INERTIA;
        double most = machine.proofs().stream().flatMap(p -> p.conditions().stream()).filter(c -> c.of() == of && axis.name().equalsIgnoreCase(c.axis())).flatMap(StoppingSearch::values).mapToDouble(v -> v).max().orElse(0);
        Load load = axis.load();
        if (most <= (linear ? load.mass() : load.inertia())) {
            return Stand.of(machine);
        }
        Load heavier = new Load(linear ? most : load.mass(), linear ? load.inertia() : most, load.coulomb(), load.viscous(), load.slope(), load.stiffness(), load.damping(), load.backlash());
        Stand sound = Stand.of(machine);
        return new Stand(machine.withAxis(number, axis.withLoad(heavier)).axes(), sound.disturbed(), sound.seed());
    }

    private static Stream<Double> values(Condition condition) {
        return IntStream.range(0, condition.size()).mapToObj(condition::value);
    }

    /** @param still speed up to which it counts as standing, units/s */
    private static List<Integer> moments(Bench bench, int axis, double still) {
        int count = (int) bench.recording().count();
        int signal = bench.recording().indexOf(AxisSignal.SPEED.of(bench.machine().axes().get(axis).name()));
        double fastest = 0;
        for (int k = 0; k < count; k++) {
            fastest = Math.max(fastest, Math.abs(bench.recording().value(signal, k)));
        }
        List<Integer> all = new ArrayList<>();
        for (int part = 0; part < PARTS; part++) {
            int from = (int) ((long) count * part / PARTS);
            int to = (int) ((long) count * (part + 1) / PARTS);
            int best = from;
            for (int k = from; k < to; k++) {
                best = Math.abs(bench.recording().value(signal, k)) > Math.abs(bench.recording().value(signal, best)) ? k : best;
            }
            if (fastest > still && Math.abs(bench.recording().value(signal, best)) >= SLOW * fastest) {
                all.add(best + 1);
            }
        }
        return all;
    }
}
