package rueda.edit;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.function.IntUnaryOperator;
import rueda.machine.Axis;
import rueda.machine.Cue;
import rueda.machine.MoveEntry;
import rueda.machine.MoveList;
import rueda.machine.MoveList.By;
import rueda.machine.MoveList.Does;
import rueda.machine.MoveList.MoveException;
import rueda.machine.MoveList.Passing;
import rueda.machine.MoveList.Starter;
import rueda.machine.MoveList.Zone;
import rueda.machine.Terminal.Function;
import rueda.quantity.InvalidEntry;

/**
 * Changes of a move list with everything that follows from them: entries are known by their numbers, and whatever names an entry goes on
 * naming the same one. What named an entry that is removed names the one that comes into its place.
 */
public final class MoveListEdit {

    private static final double FARTHEST = 1e9;

    private MoveListEdit() {
    }

    /** The end of an entry can be moved as it is drawn: it is a place, or a distance. */
    public static boolean hasEnd(MoveEntry entry) {
        return entry.kind() == MoveEntry.Kind.GO_TO || entry.kind() == MoveEntry.Kind.GO_BY;
    }

    /**
     * An entry whose end has been moved: another position, or another distance.
     *
     * @param number number of the entry; it has an end
     * @param by     by how much, units
     * @param step   how finely it is meant, units, greater than 0: the result has no more decimals than that needs, and never more than the wire
     */
    public static MoveEntry withEndMoved(Axis axis, int number, double by, double step) {
        require("entry", number, 0, axis.moves().entries().size() - 1);
        MoveEntry entry = axis.moves().entries().get(number);
        if (!hasEnd(entry)) {
            throw new InvalidEntry("entry", Integer.toString(number), "an entry that goes to a position or by a distance", "choose one");
        }
        if (!(Math.abs(by) <= FARTHEST) || !(step > 0 && step <= FARTHEST)) {
            throw new InvalidEntry("by", by + ", in steps of " + step, "numbers up to 1e9, steps above 0", "move it less far");
        }
        int decimals = Math.min(axis.unit().decimals(), (int) Math.max(0, -Math.floor(Math.log10(step))));
        boolean placed = entry.kind() == MoveEntry.Kind.GO_TO;
        BigDecimal moved = (placed ? entry.position() : entry.distance()).add(BigDecimal.valueOf(by)).setScale(decimals, RoundingMode.HALF_EVEN);
        if (!placed) {
            return entry.withDistance(plain(moved));
        }
        BigDecimal turn = axis.endless() ? axis.modulo() : BigDecimal.ZERO;
        BigDecimal shown = turn.signum() == 0 ? moved : moved.remainder(turn);
        return entry.withPosition(plain(shown.signum() < 0 && turn.signum() > 0 ? shown.add(turn) : shown));
    }

    /** The list with another entry of a number. */
    public static MoveList replaced(MoveList list, int number, MoveEntry entry) {
        require("entry", number, 0, list.entries().size() - 1);
        List<MoveEntry> entries = new ArrayList<>(list.entries());
        entries.set(number, entry);
        return list.withEntries(entries);
    }

    private static BigDecimal plain(BigDecimal value) {
        BigDecimal stripped = value.stripTrailingZeros();
        return stripped.scale() < 0 ? stripped.setScale(0) : stripped;
    }

    /** A new entry. @param at number that it gets, 0 to the number of entries  @param kind what it does */
    public static MoveList added(MoveList list, int at, MoveEntry.Kind kind) {
        requireRoom(list);
        require("at", at, 0, list.entries().size());
        MoveEntry made = MoveEntry.of(kind);
        MoveEntry begun = switch (kind) {
            case RUN -> made.withSpeed(1);
            case REPEAT -> made.withEntry(Math.max(0, at - 1)).withTimes(2).withEnd(MoveEntry.End.PASS);
            case OUTPUT, CHANGE_SPEED, TURN_ROUND -> made.withEnd(MoveEntry.End.PASS);
            case TO_MARK -> made.withCue(Cue.of(Function.PROBE_1, Cue.Edge.RISING)).withWindowFrom(0).withWindowTo(1);
            case WAIT -> made.withRest(1).withEnd(MoveEntry.End.PASS);
            case AWAIT -> made.withCue(Cue.of(Function.CUE, Cue.Edge.RISING)).withEnd(MoveEntry.End.PASS);
            case IN_POSITION, FIND_ZERO -> made.withEnd(MoveEntry.End.PASS);
            case GO_TO, GO_BY -> made;
        };
        return inserted(list, at, begun);
    }

    /** An entry like another, behind it. */
    public static MoveList copied(MoveList list, int number) {
        requireRoom(list);
        MoveEntry of = entry(list, number);
        return inserted(list, number + 1, of.withName(""));
    }

    private static MoveList inserted(MoveList list, int at, MoveEntry entry) {
        MoveList moved = numbered(list, n -> n >= at ? n + 1 : n);
        List<MoveEntry> entries = new ArrayList<>(moved.entries());
        entries.add(at, entry);
        /* the new entry names what it names after the others have moved on */
        return moved.withEntries(entries);
    }

    /** @param number of the entry that goes */
    public static MoveList removed(MoveList list, int number) {
        entry(list, number);
        int last = list.entries().size() - 2;
        List<MoveEntry> entries = new ArrayList<>(list.entries());
        entries.remove(number);
        MoveList left = list.withEntries(entries);
        if (last < 0) {
            return left.withFirstEntry(MoveList.AS_ASKED).withOnFirstEnable(false).withStarters(List.of()).withExceptions(List.of());
        }
        return numbered(left, n -> Math.min(last, n > number ? n - 1 : n));
    }

    /** @param number of the entry  @param to its number from now on */
    public static MoveList moved(MoveList list, int number, int to) {
        MoveEntry entry = entry(list, number);
        require("to", to, 0, list.entries().size() - 1);
        List<MoveEntry> entries = new ArrayList<>(list.entries());
        entries.remove(number);
        entries.add(to, entry);
        return numbered(list.withEntries(entries), n -> n == number ? to : n > number && n <= to ? n - 1 : n < number && n >= to ? n + 1 : n);
    }

    /** Everything that names an entry names it by its new number. */
    private static MoveList numbered(MoveList list, IntUnaryOperator number) {
        IntUnaryOperator known = n -> n < 0 ? n : number.applyAsInt(n);
        return list.withEntries(list.entries().stream().map(e -> e.withEntry(known.applyAsInt(e.entry())).withNext(known.applyAsInt(e.next()))).toList())
                .withFirstEntry(known.applyAsInt(list.firstEntry()))
                .withStarters(list.starters().stream().map(s -> s.withEntry(known.applyAsInt(s.entry())).withOtherEntry(known.applyAsInt(s.otherEntry()))).toList())
                .withExceptions(list.exceptions().stream().map(e -> renumbered(e, known)).toList());
    }

    private static MoveException renumbered(MoveException e, IntUnaryOperator number) {
        boolean whole = e.to() == MoveList.MOST_ENTRIES - 1;
        int from = e.from() == 0 ? 0 : number.applyAsInt(e.from());
        return e.withEntry(number.applyAsInt(e.entry())).withFrom(from).withTo(whole ? e.to() : Math.max(from, Math.min(MoveList.MOST_ENTRIES - 1, number.applyAsInt(e.to()))));
    }

    /** One more starter, on an input that is wired where there is one. */
    public static MoveList withStarter(Axis axis) {
        MoveList list = axis.moves();
        many("starters", list.starters().size(), MoveList.MOST_RULES);
        require("entries", list.entries().size(), 1, MoveList.MOST_ENTRIES);
        List<Starter> all = new ArrayList<>(list.starters());
        all.add(new Starter(By.EDGE, Cue.of(free(axis), Cue.Edge.RISING), 0, 0));
        return list.withStarters(all);
    }

    /** One more exception, on an input that is wired where there is one. */
    public static MoveList withException(Axis axis) {
        MoveList list = axis.moves();
        many("exceptions", list.exceptions().size(), MoveList.MOST_RULES);
        List<MoveException> all = new ArrayList<>(list.exceptions());
        all.add(new MoveException(Cue.of(free(axis), Cue.Edge.RISING), Does.STOP, 0, 0, 0, MoveList.MOST_ENTRIES - 1));
        return list.withExceptions(all);
    }

    /** The first cue that is wired and that nothing uses yet, else the first one that nothing uses. */
    private static Function free(Axis axis) {
        List<Function> used = new ArrayList<>();
        axis.moves().starters().forEach(s -> used.add(s.cue().input()));
        axis.moves().exceptions().forEach(e -> used.add(e.cue().input()));
        return Cue.NUMBERED.stream().filter(c -> !used.contains(c) && axis.wiring().terminal(c).isPresent()).findFirst()
                .or(() -> Cue.NUMBERED.stream().filter(c -> !used.contains(c)).findFirst()).orElse(Function.CUE);
    }

    /** One more zone, of a tenth of the travel. */
    public static MoveList withZone(Axis axis) {
        MoveList list = axis.moves();
        many("zones", list.zones().size(), MoveList.MOST_ZONES);
        double length = axis.endless() ? axis.travel().length() : axis.limits().softMax() - axis.limits().softMin();
        double from = axis.endless() ? 0 : axis.limits().softMin();
        List<Zone> all = new ArrayList<>(list.zones());
        all.add(new Zone(from, from + length / 10, 0, Passing.BOTH, true));
        return list.withZones(all);
    }

    private static void requireRoom(MoveList list) {
        many("entries", list.entries().size(), MoveList.MOST_ENTRIES);
    }

    private static void many(String what, int count, int most) {
        if (count >= most) {
            throw new InvalidEntry(what, Integer.toString(count + 1), "up to " + most, "remove one first");
        }
    }

    private static MoveEntry entry(MoveList list, int number) {
        require("entry", number, 0, list.entries().size() - 1);
        return list.entries().get(number);
    }

    private static void require(String field, int value, int low, int high) {
        if (value < low || value > high) {
            throw new InvalidEntry(field, Integer.toString(value), low + " to " + high, "choose one of these");
        }
    }
}
