package rueda.advice;

import static rueda.advice.Numbers.fixed;
import static rueda.advice.Numbers.significant;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import rueda.advice.Finding.Change;
import rueda.advice.Finding.Mend;
import rueda.advice.Finding.Severity;
import rueda.drive.DriveObject;
import rueda.machine.Axis;
import rueda.machine.Axis.Commander;
import rueda.machine.Cue;
import rueda.machine.Dynamics;
import rueda.machine.Following;
import rueda.machine.Homing;
import rueda.machine.Machine;
import rueda.machine.MoveEntry;
import rueda.machine.MoveEntry.End;
import rueda.machine.MoveEntry.Kind;
import rueda.machine.MoveList;
import rueda.machine.MoveList.By;
import rueda.machine.MoveList.Does;
import rueda.machine.MoveList.Starter;
import rueda.machine.Terminal;
import rueda.machine.Terminal.Function;
import rueda.plc.ProgramTexts;
import rueda.profile.StoppingWay;

/** Consequences of a move list: what starts it, how long a round takes, where it cannot go on, what drifts. */
public final class MoveAdvice extends AxisAdvice {

    private static final double SUB_STEP_MICROS = 125;
    private static final double SECONDS_A_DAY = 86_400;

    private final MoveList list;
    private final Machine machine;
    private final String at;

    private MoveAdvice(Machine machine, Axis axis, String pointer) {
        super("move", axis, pointer);
        this.machine = machine;
        list = axis.moves();
        at = pointer + "/moves";
    }

    /** @param pointer JSON pointer of the axis in the document */
    public static Advice of(Machine machine, Axis axis, String pointer) {
        MoveAdvice advice = new MoveAdvice(machine, axis, pointer);
        advice.commander();
        if (!advice.list.entries().isEmpty()) {
            advice.round();
            advice.inputs();
            advice.reach();
            advice.starters();
            advice.marks();
            advice.speeds();
            if (advice.nothingFound()) {
                advice.finding(Severity.GOOD, "The list runs from each entry that is started.", "It stays inside the soft limits and within what the motor gives.", null);
            }
        }
        return advice.advice();
    }

    /** Entries with which something begins, in ascending order; the first one when nothing starts it yet. */
    static List<Integer> starts(MoveList list, Axis axis) {
        Set<Integer> all = new HashSet<>();
        if (list.firstEntry() >= 0 || list.onFirstEnable()) {
            all.add(Math.max(0, list.firstEntry()));
        }
        for (Starter starter : list.starters()) {
            if (starter.by() == By.SELECTOR) {
                IntStream.range(0, Math.min(list.entries().size(), 1 << selectorBits(axis))).forEach(all::add);
            } else {
                all.add(starter.entry());
                if (starter.by() == By.LEVEL) {
                    all.add(starter.otherEntry());
                }
            }
        }
        if (all.isEmpty()) {
            all.add(0);
        }
        return all.stream().sorted().toList();
    }

    /** Selector inputs that are wired, from the lowest without a gap. */
    static int selectorBits(Axis axis) {
        int bits = 0;
        for (Function function : List.of(Function.SELECTOR_1, Function.SELECTOR_2, Function.SELECTOR_4, Function.SELECTOR_8, Function.SELECTOR_16, Function.SELECTOR_32)) {
            if (axis.wiring().terminal(function).isEmpty()) {
                return bits;
            }
            bits++;
        }
        return bits;
    }

    private void commander() {
        if (axis.commandedBy() == Commander.DRIVE && axis.wiring().terminal(Function.ENABLE).isEmpty()) {
            finding(Severity.FAULT, "No input enables the axis.", "The drive commands itself, and its enable input alone switches it on.", wire(Function.ENABLE).orElse(null));
        }
        if (axis.commandedBy() == Commander.DRIVE && list.entries().isEmpty() && axis.following().source() != Following.Source.ENCODER) {
            finding(Severity.WARNING, "The drive commands itself, and its list is empty.", "Nothing can move this axis but a hand.", null);
        }
        if (axis.commandedBy() != Commander.MOTION_BLOCKS) {
            List<String> lines = ProgramTexts.usesAlone(machine.plc(), axis.name());
            if (!lines.isEmpty()) {
                finding(Severity.FAULT, "Two command the axis.", "It is commanded by " + axis.commandedBy().words() + ", and motion blocks name it in line " + lines.get(0) + ": they end with an error.",
                        Mend.set("Let motion blocks command it", pointer + "/commandedBy", Commander.MOTION_BLOCKS.name()));
            }
        }
        if (axis.commandedBy() == Commander.MOTION_BLOCKS && !list.starters().isEmpty()) {
            finding(Severity.GOOD, "Its starters act when the drive commands itself.", "Now motion blocks command the axis; the list can be run by hand, and by a program that chooses the mode move list.",
                    Mend.set("Let the drive command itself", pointer + "/commandedBy", Commander.DRIVE.name()));
        }
    }

    /** Where the axis stands as an entry is started, for what can be said without knowing: the place of the axis at power-up, or the middle of its travel. */
    public static double standsAt(Axis axis) {
        return axis.endless() ? 0 : (axis.limits().softMin() + axis.limits().softMax()) / 2;
    }

    private void round() {
        int first = starts(list, axis).get(0);
        ListPlan plan = ListPlan.of(axis, first, standsAt(axis), machine.bus().cycleMicros());
        String settle = significant(ListPlan.settling(axis, machine.bus().cycleMicros()) * 1000, 3) + " ms";
        if (plan.roundTime() > 0) {
            figure("Round from entry " + first, significant(plan.roundTime(), 5), "s", "Σ moves + rests + " + settle + " a stop for the position window" + (plan.waits() ? "; cues come at once" : ""));
            figure("Rounds a minute", significant(60 / plan.roundTime(), 4), "1/min", "60 s ÷ " + significant(plan.roundTime(), 5) + " s");
            figure("Way of a round", significant(plan.distance(), 6), unit, "Σ |way|");
        } else if (plan.duration() > 0) {
            figure("From entry " + first + " until it ends", significant(plan.duration(), 5), "s", "Σ moves + rests + " + settle + " a stop for the position window" + (plan.waits() ? "; cues come at once" : ""));
        }
        if (plan.load().entryAtPeak() >= 0) {
            figure("Highest torque, entry " + plan.load().entryAtPeak(), significant(plan.load().peak(), 3), "N·m", "J·α + M_c + b·ω + M_g; the motor has " + significant(plan.load().available(), 3) + " N·m at that speed");
            figure("Torque, root mean square", significant(plan.load().rms(), 3), "N·m", "√(Σ M²·t ÷ Σ t) of moves and rests; rated " + significant(axis.motor().ratedTorque(), 3) + " N·m");
            if (plan.load().peak() > plan.load().available()) {
                finding(Severity.FAULT, "Entry " + plan.load().entryAtPeak() + " asks for more torque than the motor has.", significant(plan.load().peak(), 3) + " of " + significant(plan.load().available(), 3) + " N·m: the axis falls behind and faults.",
                        slower(plan.load().entryAtPeak(), plan.load().available() / plan.load().peak()));
            }
            if (plan.load().rms() > axis.motor().ratedTorque()) {
                finding(Severity.WARNING, "A round heats the motor beyond its rating.", significant(plan.load().rms(), 3) + " of " + significant(axis.motor().ratedTorque(), 3) + " N·m: let it rest longer, or move more slowly.", null);
            }
        }
        drift(plan.roundTime());
        for (ListPlan.PlanStretch stretch : plan.stretches()) {
            if (stretch.cut() && list.entries().get(stretch.entry()).speed() != 0 && stretch.peak() < 0.999 * stretch.wanted()) {
                figure("Entry " + stretch.entry() + " reaches", significant(stretch.peak(), 4), unit + "/s", "the way is too short for " + significant(stretch.wanted(), 4) + " " + unit + "/s");
            }
            if (stretch.what() == ListPlan.What.REPEAT || stretch.to() > 3600) {
                break;
            }
        }
    }

    private Mend slower(int number, double share) {
        Dynamics normal = axis.limits().normal();
        MoveEntry e = list.entries().get(number);
        double factor = Math.floor(share * 90) / 100;
        if (!(factor > 0.05)) {
            return null;
        }
        return new Mend("Accelerate at " + significant(100 * factor, 2) + " %", List.of(new Change("replace", at + "/entries/" + number + "/acceleration", rounded(e.accelerationOr(normal) * factor)),
                new Change("replace", at + "/entries/" + number + "/deceleration", rounded(e.decelerationOr(normal) * factor))));
    }

    private static double rounded(double value) {
        return new BigDecimal(value).round(new java.math.MathContext(3, RoundingMode.DOWN)).doubleValue();
    }

    /** A distance that is no whole number of wire units is rounded each time, always to the same side. */
    private void drift(double round) {
        BigDecimal step = BigDecimal.ONE.movePointLeft(axis.unit().decimals());
        for (int i = 0; i < list.entries().size(); i++) {
            MoveEntry e = list.entries().get(i);
            if (e.kind() != Kind.GO_BY) {
                continue;
            }
            BigDecimal held = e.distance().movePointRight(axis.unit().decimals()).setScale(0, RoundingMode.HALF_UP).movePointLeft(axis.unit().decimals());
            BigDecimal off = held.subtract(e.distance());
            if (off.signum() == 0) {
                continue;
            }
            String a = plain(off) + " " + unit;
            String day = round > 0 ? ", " + significant(off.doubleValue() * SECONDS_A_DAY / round, 4) + " " + unit + " a day at " + significant(round, 4) + " s a round" : "";
            finding(Severity.WARNING, "Entry " + i + " drifts by " + a + " each time.", "A step on the wire is " + step.toPlainString() + " " + unit + "; the drive goes by " + plain(held) + " " + unit + day + ".",
                    e.distance().stripTrailingZeros().scale() <= 6 ? Mend.set("Use " + e.distance().stripTrailingZeros().scale() + " decimals on the wire", pointer + "/unit/decimals", e.distance().stripTrailingZeros().scale())
                            : Mend.set("Go by " + plain(held) + " " + unit, at + "/entries/" + i + "/distance", held));
        }
    }

    private static String plain(BigDecimal value) {
        return value.stripTrailingZeros().toPlainString().replace('-', '−');
    }

    /* ---- cues ---- */

    private void inputs() {
        for (int i = 0; i < list.starters().size(); i++) {
            Starter starter = list.starters().get(i);
            Cue cue = starter.cue();
            axis.wiring().terminal(cue.input()).ifPresent(terminal -> {
                double micros = terminal.responseMicros() + (cue.taken() == Cue.Taken.AT_ONCE ? 0 : cue.millis() * 1000.0) + SUB_STEP_MICROS;
                figure("From " + terminal.name() + " to motion", significant(micros / 1000, 4), "ms", "response " + terminal.responseMicros() + " µs" + (cue.taken() == Cue.Taken.AT_ONCE ? "" : " + " + cue.taken().words() + " " + cue.millis() + " ms") + " + sub-step 125 µs");
            });
        }
        Set<Function> asked = new HashSet<>();
        for (Starter starter : list.starters()) {
            asked.add(starter.cue().input());
        }
        list.exceptions().forEach(e -> asked.add(e.cue().input()));
        for (MoveEntry e : list.entries()) {
            if (e.kind() == Kind.AWAIT || e.kind() == Kind.TO_MARK || e.kind().runs()) {
                asked.add(e.cue().input());
            }
            if (e.end() == End.AWAIT_CUE) {
                asked.add(e.awaits().input());
            }
        }
        boolean overBus = axis.commandedBy() == Commander.PROGRAM && axis.station().outputs().stream().anyMatch(entry -> entry.object() == DriveObject.LIST_CUES.index() && entry.subIndex() == DriveObject.LIST_CUES.subIndex());
        for (Function function : Function.values()) {
            boolean byBus = overBus && Cue.NUMBERED.contains(function);
            if (asked.contains(function) && function != Function.NONE && axis.wiring().terminal(function).isEmpty() && !byBus) {
                finding(Severity.FAULT, capital(function.words()) + " is wired to nothing.", "What waits for it waits for ever.", wire(function).orElse(null));
            }
        }
    }

    private static String capital(String words) {
        return Character.toUpperCase(words.charAt(0)) + words.substring(1);
    }

    /** Gives the function to the first input that is free; a probe to a fast one. */
    private Optional<Mend> wire(Function function) {
        List<Terminal> terminals = axis.wiring().terminals();
        boolean fast = function == Function.PROBE_1 || function == Function.PROBE_2;
        Optional<Terminal> free = terminals.stream().filter(t -> t.function() == Function.NONE && function.fits(t.kind()) && (!fast || t.kind() == Terminal.Kind.FAST_INPUT)).findFirst()
                .or(() -> terminals.stream().filter(t -> t.function() == Function.NONE && function.fits(t.kind())).findFirst());
        return free.map(t -> {
            String terminal = pointer + "/wiring/terminals/" + axis.wiring().indexOf(t);
            List<Change> changes = new ArrayList<>(List.of(new Change("replace", terminal + "/function", function.name())));
            if (function == Function.ENABLE) {
                /* a broken wire must not switch an axis on */
                changes.add(new Change("replace", terminal + "/normallyClosed", true));
            }
            return new Mend("Give " + t.name() + " the function " + function.words(), changes);
        });
    }

    private void starters() {
        Map<String, Integer> seen = new HashMap<>();
        for (int i = 0; i < list.starters().size(); i++) {
            Starter starter = list.starters().get(i);
            List<Cue.Edge> edges = starter.by() == By.LEVEL ? List.of(Cue.Edge.values()) : List.of(starter.cue().edge());
            for (Cue.Edge edge : edges) {
                Integer other = seen.putIfAbsent(starter.cue().input() + " " + edge, i);
                if (other != null && starter.cue().comes()) {
                    finding(Severity.FAULT, "Two starters on one edge.", capital(starter.cue().input().words()) + " " + edge.words() + " starts what starter " + (other + 1) + " says and what starter " + (i + 1) + " says: the later one takes over at once.",
                            new Mend("Remove starter " + (i + 1), List.of(new Change("remove", at + "/starters/" + i, null))));
                    break;
                }
            }
            if (starter.by() == By.SELECTOR && list.entries().size() > 1 << selectorBits(axis)) {
                int bits = selectorBits(axis);
                finding(Severity.WARNING, "The selector inputs reach entry " + ((1 << bits) - 1) + " of " + (list.entries().size() - 1) + ".", bits + " inputs say 2^" + bits + " = " + (1 << bits) + " numbers.",
                        bits < 6 ? wire(Function.values()[Function.SELECTOR_1.ordinal() + bits]).orElse(null) : null);
            }
        }
    }

    /* ---- the way through the list ---- */

    private void reach() {
        boolean fromOutside = axis.commandedBy() == Commander.PROGRAM;
        Set<Integer> reached = new HashSet<>();
        for (int start : starts(list, axis)) {
            reach(start, reached);
            ListPlan plan = ListPlan.sketch(axis, start, standsAt(axis), machine.bus().cycleMicros());
            MoveEntry there = list.entries().get(Math.min(plan.endsAt(), list.entries().size() - 1));
            switch (plan.end()) {
                case OUTSIDE -> finding(Severity.FAULT, "Entry " + plan.endsAt() + " would end outside the soft limits.", "Started with entry " + start + " it goes beyond " + significant(axis.limits().softMin(), 6) + " to " + significant(axis.limits().softMax(), 6) + " " + unit
                        + (there.kind() == Kind.GO_BY ? ", from the middle of the travel" : "") + ": the list stops there.", within(plan.endsAt(), there));
                case NOTHING_TIMED -> finding(Severity.FAULT, "A round takes no time.", "Started with entry " + start + " the list goes round without moving, resting or waiting.", null);
                default -> { }
            }
        }
        list.exceptions().stream().filter(e -> e.does() == Does.START).forEach(e -> reach(e.entry(), reached));
        boolean started = !list.starters().isEmpty() || list.onFirstEnable();
        if (started && !fromOutside) {
            for (int i = 0; i < list.entries().size(); i++) {
                if (!reached.contains(i)) {
                    finding(Severity.WARNING, "Entry " + i + " is never reached.", "No starter begins it, and no entry goes on to it.", null);
                }
            }
        }
        reference(reached);
        endless();
    }

    private Mend within(int number, MoveEntry e) {
        if (e.kind() != Kind.GO_TO) {
            return null;
        }
        double inside = Math.max(axis.limits().softMin(), Math.min(axis.limits().softMax(), e.position().doubleValue()));
        return Mend.set("Go to " + significant(inside, 8) + " " + unit, at + "/entries/" + number + "/position", BigDecimal.valueOf(inside));
    }

    private void reach(int start, Set<Integer> reached) {
        List<Integer> open = new ArrayList<>(List.of(start));
        while (!open.isEmpty()) {
            int now = open.remove(open.size() - 1);
            if (now < 0 || now >= list.entries().size() || !reached.add(now)) {
                continue;
            }
            MoveEntry e = list.entries().get(now);
            if (e.kind() == Kind.REPEAT || e.kind() == Kind.TO_MARK && e.entry() >= 0) {
                open.add(e.entry());
            }
            open.addAll(after(now, e));
        }
    }

    private static List<Integer> after(int number, MoveEntry e) {
        return switch (e.end()) {
            case REST -> List.of();
            case GO_ON -> List.of(e.next());
            case PASS, AWAIT_CUE -> List.of(number + 1);
        };
    }

    private void reference(Set<Integer> reached) {
        boolean knows = axis.homing().atPowerUp() != Homing.AtPowerUp.NOTHING || axis.homing().onFirstEnable();
        /* a program that commands the axis homes it */
        if (axis.commandedBy() != Commander.DRIVE || knows || list.entries().stream().anyMatch(e -> e.kind() == Kind.FIND_ZERO)) {
            return;
        }
        reached.stream().sorted().filter(i -> list.entries().get(i).kind() == Kind.GO_TO).findFirst().ifPresent(i -> finding(Severity.FAULT, "Entry " + i + " goes to a position, and nothing finds the zero.", "After power-up the axis does not know where it is: the entry is refused.",
                Mend.set("Find the zero at the first enable", pointer + "/homing/onFirstEnable", true)));
    }

    /** A round without rest, wait or stop. */
    private void endless() {
        int first = starts(list, axis).get(0);
        Set<Integer> seen = new HashSet<>();
        int now = first;
        while (now < list.entries().size() && seen.add(now)) {
            MoveEntry e = list.entries().get(now);
            boolean stops = e.end() == End.REST || e.end() == End.AWAIT_CUE || e.rest() > 0 || e.kind().runs() || e.kind() == Kind.AWAIT;
            if (stops) {
                return;
            }
            now = after(now, e).get(0);
        }
        if (seen.contains(now) && list.entries().stream().anyMatch(e -> e.kind().moves())) {
            finding(Severity.WARNING, "The round from entry " + first + " never rests and never waits.", "Once started it goes on until something stops it.", null);
        }
    }

    private void marks() {
        Dynamics normal = axis.limits().normal();
        for (int i = 0; i < list.entries().size(); i++) {
            MoveEntry e = list.entries().get(i);
            Optional<Terminal> probe = e.kind() == Kind.TO_MARK ? axis.wiring().terminal(e.cue().input()) : Optional.empty();
            if (probe.isEmpty()) {
                continue;
            }
            double speed = e.speedOr(normal);
            double seconds = (probe.get().responseMicros() + SUB_STEP_MICROS) * 1e-6;
            figure("Doubt of the mark of entry " + i, significant(speed * probe.get().responseMicros() * 1e-6, 3), unit, significant(speed, 4) + " " + unit + "/s × " + probe.get().responseMicros() + " µs");
            double needed = StoppingWay.of(speed, e.decelerationOr(normal), e.jerkOr(normal)) + speed * seconds;
            figure("Shortest stop after the mark of entry " + i, significant(needed, 4), unit, "v²/2a + v·a/2j + v × " + significant(seconds * 1e6, 4) + " µs");
            double after = Math.abs(e.distance().doubleValue());
            if (after < needed) {
                BigDecimal enough = new BigDecimal(Math.signum(e.windowTo()) * needed * 1.02).round(new java.math.MathContext(3, RoundingMode.UP));
                finding(Severity.FAULT, "Entry " + i + " cannot stop so soon after its mark.", "It needs " + significant(needed, 4) + " " + unit + " and has " + significant(after, 4) + " " + unit + ": it goes past and comes back.",
                        Mend.set("Stop " + plain(enough) + " " + unit + " after it", at + "/entries/" + i + "/distance", enough));
            }
        }
    }

    private void speeds() {
        double motor = axis.scale().highestSpeed(axis.motor().maxSpeed());
        for (int i = 0; i < list.entries().size(); i++) {
            MoveEntry e = list.entries().get(i);
            if (e.kind().moves() && e.kind() != Kind.CHANGE_SPEED && Math.abs(e.speed()) > motor * (1 + 1e-9)) {
                finding(Severity.FAULT, "Entry " + i + " is faster than the motor turns.", significant(Math.abs(e.speed()), 5) + " " + unit + "/s are " + fixed(axis.scale().motorTurnsPerMinute(Math.abs(e.speed())), 0) + " of " + fixed(axis.motor().maxSpeed(), 0) + " 1/min.",
                        Mend.set("Take " + significant(rounded(motor), 4) + " " + unit + "/s", at + "/entries/" + i + "/speed", Math.signum(e.speed()) * rounded(motor)));
            }
        }
    }
}
