package rueda.proof;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import rueda.bench.AxisSignal;
import rueda.bench.Bench;
import rueda.bench.Heard;
import rueda.bench.ReadyProgram;
import rueda.bench.Stand;
import rueda.guard.Breach;
import rueda.guard.GuardLog;
import rueda.guard.GuardPhase;
import rueda.guard.SafeDistance;
import rueda.guard.StopLink;
import rueda.machine.Axis;
import rueda.machine.AxisGuard;
import rueda.machine.Following;
import rueda.machine.Machine;
import rueda.machine.Proof;
import rueda.machine.SafetyFunction;
import rueda.machine.StopRules;
import rueda.plcopen.AxisState;
import rueda.plcopen.CommandLog;
import rueda.proof.StoppingSearch.Entered;
import rueda.proof.StoppingSearch.Passed;
import rueda.proof.StoppingSearch.Stopped;

/** One run of a program in which a request comes at a moment, and what was measured of the axis that it stops. Not thread-safe. */
final class StoppedRun {

    /** s after the request that are looked at */
    private static final double AFTER = 4;
    /** s after that the request has gone and the guards are acknowledged, and s until the end */
    private static final double GONE = 0.3;
    private static final double AGAIN = 1.5;
    private static final int POINTS = 600;

    private final Bench bench;
    private final int axis;
    private final int moment;
    private final int request;
    /** bus cycle, from the request on, in which the brake of the axis was found to hold; −1 for none */
    private final int held;
    private final SafetyFunction function;
    private final Axis of;
    private final double interval;
    /** s since the request, −1 for never */
    private final double stands;
    private final double distance;
    private final int stood;
    private final Map<AxisSignal, Integer> columns = new EnumMap<>(AxisSignal.class);
    /** sample up to which it was asked to stand */
    private final int end;

    private StoppedRun(Bench bench, int held, int axis, int moment, int request, SafetyFunction function) {
        this.bench = bench;
        this.held = held;
        this.axis = axis;
        this.moment = moment;
        this.request = request;
        this.function = function;
        of = bench.machine().axes().get(axis);
        interval = bench.recording().cycleNanos() * 1e-9;
        for (AxisSignal signal : AxisSignal.values()) {
            columns.put(signal, bench.recording().indexOf(signal.of(of.name())));
        }
        StopRules stop = of.guard().of(function);
        end = moment + samples(bench.machine(), AFTER);
        /* what hangs may fall after it stood: it stands where it is slow for the first time and is told so, or is slow until the end */
        int still = end;
        while (still > moment && Math.abs(value(AxisSignal.SPEED, still - 1)) <= Math.max(stop.standstillSpeed(), 1e-9)) {
            still--;
        }
        int watched = phases().filter(e -> e.phase() == GuardPhase.CLOSING || e.phase() == GuardPhase.STANDING).mapToInt(e -> (int) Math.ceil(e.time() * 1e-9 / interval)).filter(k -> k > moment).findFirst().orElse(end);
        stood = Math.min(still, Math.min(watched, end - 1));
        stands = still >= end && watched >= end ? -1 : (stood - moment) * interval;
        distance = Math.abs(value(AxisSignal.PLACE, Math.min(stood, end - 1)) - value(AxisSignal.PLACE, moment));
    }

    /** The run without a request. */
    static Bench undisturbed(Machine machine, ReadyProgram ready, Proof proof, Stand stand, int axis) {
        Bench bench = new Bench(machine, ready, samples(machine, proof.duration()), stand, Prover.named(proof, machine.axes().get(axis)));
        bench.restWhileStill();
        ScriptRun script = new ScriptRun(bench, proof.script());
        for (int k = 0; k < samples(machine, proof.duration()); k++) {
            script.cycle();
            bench.cycle();
        }
        return bench;
    }

    /** @param moment bus cycle before which the request comes */
    static StoppedRun of(Machine machine, ReadyProgram ready, Proof proof, Stand stand, int axis, int moment, int request, SafetyFunction function) {
        int samples = moment + samples(machine, AFTER + GONE + AGAIN);
        int after = samples(machine, AFTER);
        int gone = samples(machine, GONE);
        Bench bench = new Bench(machine, ready, samples, stand, Prover.named(proof, machine.axes().get(axis)));
        bench.restWhileStill();
        ScriptRun script = new ScriptRun(bench, proof.script());
        int held = -1;
        for (int k = 0; k < samples; k++) {
            script.cycle();
            /* behind the script, which may ask by the same contacts */
            if (k >= moment) {
                bench.ask(request, k - moment >= after, k - moment >= after);
                bench.acknowledge(k - moment >= after + gone);
            }
            bench.cycle();
            if (k >= moment && held < 0 && bench.brakeHolds(axis)) {
                held = k;
            }
        }
        return new StoppedRun(bench, held, axis, moment, request, function);
    }

    private static int samples(Machine machine, double seconds) {
        return (int) Math.round(seconds * 1e6 / machine.bus().cycleMicros());
    }

    private double value(AxisSignal signal, long sample) {
        return bench.recording().value(columns.get(signal), sample);
    }

    /** It stood within the time that is looked at. */
    boolean comesToRest() {
        return stands >= 0;
    }

    /** s since the request, −1 for never. */
    double stands() {
        return stands;
    }

    /** Way from the request until it stood, units. */
    double distance() {
        return distance;
    }

    /** What the guard of the axis did from the request on, as long as it was asked. */
    private Stream<GuardLog.Entry> phases() {
        return bench.guardLog(axis).stream().filter(e -> since(e.time()) >= 0 && since(e.time()) <= AFTER);
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
        return Math.abs(value(AxisSignal.COMMANDED_SPEED, sample));
    }

    /** What passed one after the other, as far as it can be told apart. */
    private List<Passed> chain() {
        List<Passed> passed = new ArrayList<>();
        Heard heard = bench.heard(axis, request);
        Double slows = reaction();
        if (!heard(heard)) {
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

    /** The request came when it was to come, and the guard heard it; it may have asked before. */
    private boolean heard(Heard heard) {
        return since(heard.opened()) >= 0 && heard.known() >= heard.opened();
    }

    /** When the program ordered it to slow down, or its setpoint began to for good, or the torque went, s since the request; null for none of these. */
    private Double reaction() {
        Double slows = slows();
        Heard heard = bench.heard(axis, request);
        if (slows == null || of.guard().slowing() == AxisGuard.Slowing.DRIVE || function == SafetyFunction.SAFE_TORQUE_OFF || !heard(heard)) {
            return slows;
        }
        /* a program that slows it down without an order, by its override, shows only in the setpoint; one limited in jerk falls a while after its order */
        return IntStream.range(0, bench.log().size()).mapToObj(bench.log()::entry)
                .filter(e -> e.axis() == axis && e.kind() != CommandLog.Kind.ERROR && e.time() >= arrives(heard.known()) && since(e.time()) <= slows + 1e-9).findFirst().map(e -> since(e.time())).orElse(slows);
    }

    private static void add(List<Passed> passed, StopLink link, double seconds) {
        passed.add(new Passed(link, 1e3 * Math.max(0, seconds)));
    }

    /** What it had or did before the request and has or does no more once it was to stand. */
    private List<String> lost() {
        List<String> lost = new ArrayList<>();
        int before = Math.max(0, moment - 1);
        AxisState ran = state(before);
        if (ran != state(end - 1)) {
            switch (ran) {
                case DISCRETE_MOTION, CONTINUOUS_MOTION -> lost.add("the running move");
                case SYNCHRONIZED_MOTION -> lost.add("the lock to its master");
                case HOMING -> lost.add("the search for its reference");
                default -> { }
            }
        }
        if (of.commandedBy() == Axis.Commander.DRIVE && of.following().source() == Following.Source.NONE && value(AxisSignal.LIST_ENTRY, before) >= 0 && value(AxisSignal.COMMANDED_SPEED, before) != 0) {
            lost.add(Words.say("entry %.0f of the move list", value(AxisSignal.LIST_ENTRY, before)));
        }
        if (value(AxisSignal.REFERENCED, before) != 0 && value(AxisSignal.REFERENCED, end - 1) == 0) {
            lost.add("the reference");
        }
        return lost;
    }

    private AxisState state(int sample) {
        return AxisState.values()[(int) value(AxisSignal.STATE, sample)];
    }

    private GuardLog.Entry tripped() {
        return phases().filter(e -> e.phase() == GuardPhase.TRIPPED).findFirst().orElse(null);
    }

    Breach breach() {
        return tripped() == null ? Breach.NONE : tripped().breach();
    }

    /** Actual position of the axis after the bus cycle in which something was, units. */
    private double placeAt(long nanos) {
        return value(AxisSignal.POSITION, Math.max(0, (nanos - 1) / bench.recording().cycleNanos()));
    }

    private double since(long nanos) {
        return nanos * 1e-9 - moment * interval;
    }

    /**
     * @param runs         that there were  @param longest the one that took longest
     * @param safeDistance by the longest time, or null
     */
    Stopped told(int runs, StoppedRun longest, SafeDistance safeDistance, double load, String loadUnit) {
        int step = Math.max(1, (end - moment) / POINTS);
        List<Double> time = new ArrayList<>();
        List<Double> speeds = new ArrayList<>();
        List<Double> standTime = new ArrayList<>();
        List<Double> stand = new ArrayList<>();
        double place = value(AxisSignal.PLACE, stood);
        double farthest = 0;
        int shown = Math.min(end, stood + (int) Math.round(1 / interval));
        for (int k = Math.max(0, moment - step); k < shown; k++) {
            if ((k - moment) % Math.max(1, (shown - moment) / POINTS) == 0) {
                time.add((k + 1 - moment) * interval);
                speeds.add(Math.abs(value(AxisSignal.SPEED, k)));
            }
        }
        for (int k = stood; k < end; k++) {
            double away = value(AxisSignal.PLACE, k) - place;
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
            again = Math.max(again, Math.abs(value(AxisSignal.PLACE, k) - value(AxisSignal.PLACE, allowed)));
        }
        String state = state(end - 1).words();
        boolean referenced = value(AxisSignal.REFERENCED, end - 1) != 0;
        return new Stopped(runs, moment * interval, load, loadUnit, stands < 0 ? null : (Double) stands, distance, longest.moment * interval, longest.stands < 0 ? null : (Double) longest.stands, Math.abs(value(AxisSignal.SPEED, Math.max(0, moment - 1))), chain(), reaction(), safeDistance == null ? null : (Double) safeDistance.distance(), safeDistance == null ? "" : safeDistance.words() + " (ISO 13855, " + safeDistance.clause() + ")", breach(), words,
                farthest, state, referenced, lost(), again > of.guard().stop2().window() ? again : 0, time, speeds, limitTime, limit, standTime, stand, phases);
    }
}
