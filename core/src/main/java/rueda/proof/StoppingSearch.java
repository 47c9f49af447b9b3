package rueda.proof;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import rueda.bench.AxisSignal;
import rueda.bench.Bench;
import rueda.bench.Heard;
import rueda.bench.Recorded;
import rueda.bench.ReadyProgram;
import rueda.bench.Stand;
import rueda.guard.Breach;
import rueda.guard.GuardLog;
import rueda.guard.GuardPhase;
import rueda.guard.SafeDistance;
import rueda.guard.Safeguard;
import rueda.guard.StopLink;
import rueda.machine.Axis;
import rueda.machine.AxisGuard;
import rueda.machine.Circumstance;
import rueda.machine.Condition;
import rueda.machine.Load;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.machine.SafetyFunction;
import rueda.machine.StopRules;
import rueda.plcopen.AxisState;
import rueda.plcopen.CommandLog;

/**
 * How long and how far an axis goes on when a request comes at the worst moment of a program: the program of a proof runs once as it is, and then again with the request at each of the moments at which the axis
 * is fastest in its part of the run. The load is the heaviest of those that the proofs are repeated with.
 */
public final class StoppingSearch {

    /** Parts of a run, each of which gives one moment. */
    private static final int PARTS = 24;
    /** A part in which the axis is slower than this share of its fastest gives none. */
    private static final double SLOW = 0.1;
    /** s after the request that are looked at */
    private static final double AFTER = 4;
    /** s after that the request has gone and the guards are acknowledged, and s until the end */
    private static final double GONE = 0.3;
    private static final double AGAIN = 1.5;
    private static final int POINTS = 600;

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
     * @param movedAgain  way that it went by itself within 1.5 s once the request had gone and was acknowledged, units; 0 within the window of standstill
     * @param time        of the traces
     * @param speeds      actual, without sign
     * @param limitTime   of the limit that the guard watched
     * @param limit       units/s
     * @param standTime   of the window: since it stood
     * @param stand       way from where it stood
     * @param phases      when the guard entered which
     */
    public record Stopped(int runs, Double moment, double load, String loadUnit, Double stoppingTime, double distance, double longestAt, Double longest, double speed, List<Passed> chain, Double reaction, Double away, String awayWords, Breach breach, String breachWords, double sag, String state, boolean referenced, double movedAgain,
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
     * @param request  number of the request
     * @param function that it asks for on the axis
     * @throws IllegalArgumentException when the program has faults
     * @throws rueda.quantity.InvalidEntry when a sentence of the script cannot be read
     */
    public static Stopped run(Machine machine, Proof proof, int axis, int request, SafetyFunction function) {
        Stand stand = heaviest(machine, axis);
        ReadyProgram ready = ReadyProgram.of(machine);
        Run nominal = run(machine, ready, proof, stand, axis, samples(machine, proof.duration()), -1, request);
        List<Integer> moments = moments(nominal.bench(), axis, machine.axes().get(axis).guard().of(function).standstillSpeed());
        Load load = stand.axes().get(axis).load();
        boolean linear = stand.axes().get(axis).train().feed().linear();
        if (moments.isEmpty()) {
            return new Stopped(0, null, linear ? load.mass() : load.inertia(), linear ? "kg" : "kg·m²", null, 0, 0, null, 0, List.of(), null, null, "", Breach.NONE, "", 0, "", false, 0, List.of(), List.of(), List.of(), List.of(), List.of(), List.of(), List.of());
        }
        int after = samples(machine, AFTER + GONE + AGAIN);
        /* one that breaks a limit, or never stands, is worse than any distance */
        Comparator<Outcome> farther = Comparator.comparing((Outcome o) -> o.breach() != Breach.NONE).thenComparing(o -> o.stands < 0).thenComparingDouble(o -> o.distance);
        Comparator<Outcome> longer = Comparator.comparing((Outcome o) -> o.stands < 0).thenComparingDouble(o -> o.stands);
        Outcome worst = null;
        Outcome longest = null;
        for (int moment : moments) {
            Outcome outcome = new Outcome(run(machine, ready, proof, stand, axis, moment + after, moment, request), axis, moment, request, function);
            worst = worst == null || farther.compare(outcome, worst) > 0 ? outcome : worst;
            longest = longest == null || longer.compare(outcome, longest) > 0 ? outcome : longest;
        }
        Safeguard safeguard = Safeguard.of(machine.safetyRequests().get(request).protection());
        SafeDistance distance = safeguard == null || !(longest.stands > 0) ? null : safeguard.distance(longest.stands);
        return worst.told(moments.size(), longest, distance, linear ? load.mass() : load.inertia(), linear ? "kg" : "kg·m²");
    }

    /** @param held bus cycle, from the request on, in which the brake of the axis was found to hold; −1 for none */
    private record Run(Bench bench, int held) {
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

    /** @param moment cycle before which the request comes, −1 for never */
    private static Run run(Machine machine, ReadyProgram ready, Proof proof, Stand stand, int axis, int samples, int moment, int request) {
        Recorded named = Prover.named(proof, machine.axes().get(axis));
        Bench bench = new Bench(machine, ready, samples, stand, named);
        int after = samples(machine, AFTER);
        int gone = samples(machine, GONE);
        bench.restWhileStill();
        ScriptRun script = new ScriptRun(bench, proof.script());
        int held = -1;
        for (int k = 0; k < samples; k++) {
            script.cycle();
            /* behind the script, which may ask by the same contacts */
            if (moment >= 0 && k >= moment) {
                bench.ask(request, k - moment >= after, k - moment >= after);
                bench.acknowledge(k - moment >= after + gone);
            }
            bench.cycle();
            if (moment >= 0 && k >= moment && held < 0 && bench.brakeHolds(axis)) {
                held = k;
            }
        }
        return new Run(bench, held);
    }

    private static int samples(Machine machine, double seconds) {
        return (int) Math.round(seconds * 1e6 / machine.bus().cycleMicros());
    }

    private static double value(Bench bench, AxisSignal signal, int axis, long sample) {
        return bench.recording().value(bench.recording().indexOf(signal.of(bench.machine().axes().get(axis).name())), sample);
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

    /** One run with the request. */
    private static final class Outcome {
        private final Bench bench;
        private final int axis;
        private final int moment;
        private final int request;
        private final int held;
        private final SafetyFunction function;
        private final Axis of;
        private final double interval;
        /** s since the request, −1 for never */
        private final double stands;
        private final double distance;
        private final int stood;
        /** sample up to which it was asked to stand */
        private final int end;

        Outcome(Run run, int axis, int moment, int request, SafetyFunction function) {
            bench = run.bench();
            held = run.held();
            this.axis = axis;
            this.moment = moment;
            this.request = request;
            this.function = function;
            of = bench.machine().axes().get(axis);
            interval = bench.recording().cycleNanos() * 1e-9;
            StopRules stop = of.guard().of(function);
            end = moment + samples(bench.machine(), AFTER);
            /* what hangs may fall after it stood: it stands where it is slow for the first time and is told so, or is slow until the end */
            int still = end;
            while (still > moment && Math.abs(value(bench, AxisSignal.SPEED, axis, still - 1)) <= Math.max(stop.standstillSpeed(), 1e-9)) {
                still--;
            }
            int watched = phases().filter(e -> e.phase() == GuardPhase.CLOSING || e.phase() == GuardPhase.STANDING).mapToInt(e -> (int) Math.ceil(e.time() * 1e-9 / interval)).filter(k -> k > moment).findFirst().orElse(end);
            stood = Math.min(still, Math.min(watched, end - 1));
            stands = still >= end && watched >= end ? -1 : (stood - moment) * interval;
            distance = Math.abs(value(bench, AxisSignal.PLACE, axis, Math.min(stood, end - 1)) - value(bench, AxisSignal.PLACE, axis, moment));
        }

        /** What the guard of the axis did from the request on, as long as it was asked. */
        private Stream<GuardLog.Entry> phases() {
            return bench.guardLog().entries().stream().filter(e -> e.axis() == axis && since(e.time()) >= 0 && since(e.time()) <= AFTER);
        }

        /** Begin of the bus cycle from which the setpoint falls to standstill without a break, s since the request. */
        private Double slows() {
            int k = moment;
            while (k < end && commanded(k) != 0) {
                k++;
            }
            if (k == end) {
                return null;
            }
            /* a setpoint at a steady speed changes by a count a cycle, now and then */
            double count = 1.5 * Math.abs(of.motorSide().unitsPerRadian()) * 2 * Math.PI / of.encoder().countsPerTurn() / interval;
            double fastest = 0;
            int from = k;
            while (from > moment && commanded(from - 1) >= fastest - count) {
                fastest = Math.max(fastest, commanded(--from));
            }
            while (k > from && commanded(k - 1) <= fastest - count) {
                k--;
            }
            return (k - moment) * interval;
        }

        /** Speed of the setpoint after a bus cycle, without sign. */
        private double commanded(int sample) {
            return Math.abs(value(bench, AxisSignal.COMMANDED_SPEED, axis, sample));
        }

        /** What passed one after the other, as far as it can be told apart. */
        private List<Passed> chain() {
            List<Passed> passed = new ArrayList<>();
            Heard heard = bench.heard(axis, request);
            Double slows = reaction();
            if (since(heard.opened()) < 0 || heard.known() < heard.opened()) {
                /* it asked already, or nobody heard it */
                return passed;
            }
            add(passed, StopLink.GUARD, since(heard.opened()));
            add(passed, StopLink.SENSOR, (heard.sensed() - heard.opened()) * 1e-9);
            add(passed, StopLink.FILTER, (heard.known() - heard.sensed()) * 1e-9);
            double known = since(heard.known());
            if (slows == null) {
                return passed;
            }
            if (function != SafetyFunction.SAFE_TORQUE_OFF) {
                slowed(passed, heard.known(), known, slows);
            }
            boolean off = function == SafetyFunction.SAFE_TORQUE_OFF;
            double holds = held < 0 ? -1 : (held + 1 - moment) * interval;
            if (off && holds >= 0) {
                add(passed, StopLink.BRAKE, holds - known);
            }
            if (stands >= 0) {
                add(passed, StopLink.RAMP, stands - (off ? Math.max(known, holds) : slows));
                if (function == SafetyFunction.SAFE_STOP_1 && holds >= 0) {
                    add(passed, StopLink.HOLDS, holds - stands);
                }
                phases().filter(e -> function == SafetyFunction.SAFE_STOP_1 && e.phase() == GuardPhase.OFF).findFirst().ifPresent(e -> add(passed, StopLink.TORQUE, since(e.time()) - stands));
            }
            return passed;
        }

        private void slowed(List<Passed> passed, long knownAt, double known, double slows) {
            if (of.guard().slowing() == AxisGuard.Slowing.DRIVE) {
                add(passed, StopLink.DRIVE, slows - known);
                return;
            }
            double arrives = since(arrives(knownAt));
            add(passed, StopLink.BUS_TO_PLC, arrives - known);
            /* on the bench what the program orders goes to the drive in the same bus cycle */
            add(passed, StopLink.TASK, slows - arrives);
        }

        /** Begin of the bus cycle with which the PLC takes what its guard said then, ns. */
        private long arrives(long known) {
            long cycle = bench.recording().cycleNanos();
            return (known + cycle - 1) / cycle * cycle;
        }

        /** The program's first order to the axis once it could know, s since the request; null for none. */
        private Double ordered() {
            long first = arrives(bench.heard(axis, request).known());
            return of.guard().slowing() == AxisGuard.Slowing.DRIVE || function == SafetyFunction.SAFE_TORQUE_OFF ? null
                    : IntStream.range(0, bench.log().size()).mapToObj(bench.log()::entry).filter(e -> e.axis() == axis && e.kind() != CommandLog.Kind.ERROR && e.time() >= first && since(e.time()) < AFTER).findFirst().map(e -> since(e.time())).orElse(null);
        }

        private Double reaction() {
            Double ordered = ordered();
            /* a program that slows it down without an order, by its override, shows only in the setpoint */
            return ordered != null ? ordered : slows();
        }

        private static void add(List<Passed> passed, StopLink link, double seconds) {
            passed.add(new Passed(link, 1e3 * Math.max(0, seconds)));
        }

        private GuardLog.Entry tripped() {
            return phases().filter(e -> e.phase() == GuardPhase.TRIPPED).findFirst().orElse(null);
        }

        Breach breach() {
            return tripped() == null ? Breach.NONE : tripped().breach();
        }

        /** Actual position of the axis after the bus cycle in which something was, units. */
        private double placeAt(long nanos) {
            return value(bench, AxisSignal.POSITION, axis, Math.max(0, (nanos - 1) / bench.recording().cycleNanos()));
        }

        private double since(long nanos) {
            return nanos * 1e-9 - moment * interval;
        }

        Stopped told(int runs, Outcome longest, SafeDistance safeDistance, double load, String loadUnit) {
            int step = Math.max(1, (end - moment) / POINTS);
            List<Double> time = new ArrayList<>();
            List<Double> speeds = new ArrayList<>();
            List<Double> standTime = new ArrayList<>();
            List<Double> stand = new ArrayList<>();
            double place = value(bench, AxisSignal.PLACE, axis, stood);
            double farthest = 0;
            int shown = Math.min(end, stood + (int) Math.round(1 / interval));
            for (int k = Math.max(0, moment - step); k < shown; k++) {
                if ((k - moment) % Math.max(1, (shown - moment) / POINTS) == 0) {
                    time.add((k + 1 - moment) * interval);
                    speeds.add(Math.abs(value(bench, AxisSignal.SPEED, axis, k)));
                }
            }
            for (int k = stood; k < end; k++) {
                double away = value(bench, AxisSignal.PLACE, axis, k) - place;
                farthest = Math.max(farthest, -Math.signum(of.motorSide().gravity()) * away);
                if ((k - stood) % step == 0) {
                    standTime.add((k - stood) * interval);
                    stand.add(away);
                }
            }
            List<Entered> phases = phases().map(e -> new Entered(since(e.time()), e.phase(), e.phase().words())).toList();
            List<Double> limitTime = new ArrayList<>();
            List<Double> limit = new ArrayList<>();
            StopRules stop = of.guard().of(function);
            phases().filter(e -> e.phase() == GuardPhase.RAMP).findFirst().filter(e -> stop.watch() == StopRules.Watch.RAMP).ifPresent(ramp -> {
                limitTime.addAll(List.of(since(ramp.time()), since(ramp.time()) + Math.max(0, ramp.speed() - stop.standstillSpeed()) / stop.flattest()));
                limit.addAll(List.of(ramp.speed(), Math.min(ramp.speed(), stop.standstillSpeed())));
            });
            GuardLog.Entry broken = tripped();
            String unit = of.unit().symbol();
            String words = broken == null ? "" : Words.say("%.0f ms after the request, at %s %s: %s, %s %s/s, allowed %s %s.", 1e3 * since(broken.time()), Words.plain(placeAt(broken.time())), unit, broken.breach().words(), Words.plain(broken.speed()), unit, Words.plain(broken.limit()), broken.breach() == Breach.LEFT_WINDOW ? unit : unit + "/s");
            double again = 0;
            int allowed = Math.min((int) bench.recording().count() - 1, end + samples(bench.machine(), GONE));
            for (int k = allowed; k < bench.recording().count(); k++) {
                again = Math.max(again, Math.abs(value(bench, AxisSignal.PLACE, axis, k) - value(bench, AxisSignal.PLACE, axis, allowed)));
            }
            String state = AxisState.values()[(int) value(bench, AxisSignal.STATE, axis, end - 1)].words();
            boolean referenced = value(bench, AxisSignal.REFERENCED, axis, end - 1) != 0;
            return new Stopped(runs, moment * interval, load, loadUnit, stands < 0 ? null : (Double) stands, distance, longest.moment * interval, longest.stands < 0 ? null : (Double) longest.stands, Math.abs(value(bench, AxisSignal.SPEED, axis, Math.max(0, moment - 1))), chain(), reaction(), safeDistance == null ? null : (Double) safeDistance.distance(), safeDistance == null ? "" : safeDistance.words() + " (ISO 13855, " + safeDistance.clause() + ")", breach(), words,
                    farthest, state, referenced, again > of.guard().stop2().window() ? again : 0, time, speeds, limitTime, limit, standTime, stand, phases);
        }
    }
}
