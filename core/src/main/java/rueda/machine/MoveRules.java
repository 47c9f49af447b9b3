package rueda.machine;

import java.math.BigDecimal;
import java.util.List;
import rueda.machine.MoveEntry.End;
import rueda.machine.MoveEntry.Kind;
import rueda.machine.MoveList.By;
import rueda.machine.MoveList.Does;
import rueda.machine.MoveList.MoveException;
import rueda.machine.MoveList.Starter;
import rueda.machine.MoveList.Zone;

/** Which move lists can be stored; part of {@link MachineRules}. What can be stored can be run, or is refused by the drive at the entry that cannot. */
final class MoveRules {

    private static final double MOST = 1e9;
    private static final double LONGEST_REST = 86_400;
    private static final int MOST_TIMES = 1_000_000;
    private static final int MOST_MILLIS = 60_000;
    /** Digits that a position or distance may have. */
    private static final int MOST_DIGITS = 15;

    private final List<EntryFault> faults;
    private final MoveList moves;
    private final String unit;
    private final Dynamics max;

    MoveRules(List<EntryFault> faults, Axis axis) {
        this.faults = faults;
        moves = axis.moves();
        unit = axis.unit().symbol();
        max = axis.limits().max();
    }

    void check(String at) {
        if (many(at + "/entries", "Move list", moves.entries().size(), MoveList.MOST_ENTRIES, "entries") | many(at + "/starters", "Starters", moves.starters().size(), MoveList.MOST_RULES, "starters")
                | many(at + "/exceptions", "List, exceptions", moves.exceptions().size(), MoveList.MOST_RULES, "exceptions") | many(at + "/zones", "Zones", moves.zones().size(), MoveList.MOST_ZONES, "zones")) {
            return;
        }
        if (moves.firstEntry() != MoveList.AS_ASKED) {
            number(at + "/firstEntry", "Entry of the first start", moves.firstEntry());
        }
        if (moves.onFirstEnable() && moves.entries().isEmpty()) {
            refuse(at + "/onFirstEnable", "Start on the first enable", "yes", "no, while the list is empty", "add an entry first");
        }
        for (int i = 0; i < moves.entries().size(); i++) {
            entry(at + "/entries/" + i, "Entry " + i, i, moves.entries().get(i));
        }
        for (int i = 0; i < moves.starters().size(); i++) {
            starter(at + "/starters/" + i, "Starter " + (i + 1), moves.starters().get(i));
        }
        for (int i = 0; i < moves.exceptions().size(); i++) {
            exception(at + "/exceptions/" + i, "List, exception " + (i + 1), moves.exceptions().get(i));
        }
        for (int i = 0; i < moves.zones().size(); i++) {
            zone(at + "/zones/" + i, "Zone " + (i + 1), moves.zones().get(i));
        }
    }

    private void entry(String at, String who, int number, MoveEntry e) {
        if (missing(at + "/kind", who + ", what it does", e.kind()) | missing(at + "/end", who + ", end", e.end()) | missing(at + "/way", who + ", way", e.way())
                | missing(at + "/name", who + ", name", e.name()) | cue(at + "/cue", who, e.cue()) | cue(at + "/awaits", who, e.awaits())
                | exact(at + "/position", who + ", position", e.position()) | exact(at + "/distance", who + ", distance", e.distance())) {
            return;
        }
        if (e.name().length() > 80) {
            refuse(at + "/name", who + ", name", e.name().substring(0, 60) + "…", "up to 80 characters", "shorten it");
        }
        boolean signed = e.kind() == Kind.RUN || e.kind() == Kind.CHANGE_SPEED;
        between(at + "/speed", who + ", speed", e.speed(), signed ? -max.speed() : 0, max.speed(), unit + "/s");
        between(at + "/acceleration", who + ", acceleration", e.acceleration(), 0, max.acceleration(), unit + "/s²");
        between(at + "/deceleration", who + ", deceleration", e.deceleration(), 0, max.deceleration(), unit + "/s²");
        between(at + "/jerk", who + ", jerk", e.jerk(), 0, max.jerk() > 0 ? max.jerk() : MOST * 1e6, unit + "/s³");
        between(at + "/windowFrom", who + ", window from", e.windowFrom(), -MOST, MOST, unit);
        between(at + "/windowTo", who + ", window to", e.windowTo(), -MOST, MOST, unit);
        between(at + "/rest", who + ", rest", e.rest(), 0, LONGEST_REST, "s");
        whole(at + "/times", who + ", times", e.times(), 1, MOST_TIMES);
        whole(at + "/output", who + ", output", e.output(), 1, MoveEntry.OUTPUTS);
        switch (e.kind()) {
            case RUN -> {
                if (e.speed() == 0) {
                    refuse(at + "/speed", who + ", speed", "0 " + unit + "/s", "a speed with the sign of the direction", "enter how fast it runs");
                }
            }
            case TO_MARK -> {
                if (e.windowTo() == 0 || Math.signum(e.windowFrom()) * Math.signum(e.windowTo()) < 0 || Math.abs(e.windowFrom()) >= Math.abs(e.windowTo())) {
                    refuse(at + "/windowTo", who + ", window to", e.windowTo() + " " + unit, "farther than where the window begins, in the same direction", "enter how far the axis goes to look for the mark");
                }
                if (e.distance().signum() * Math.signum(e.windowTo()) < 0) {
                    refuse(at + "/distance", who + ", way after the mark", e.distance().toPlainString() + " " + unit, "in the direction of the window", "change its sign");
                }
                if (e.entry() != MoveList.AS_ASKED) {
                    number(at + "/entry", who + ", entry without a mark", e.entry());
                }
            }
            case REPEAT -> {
                if (number(at + "/entry", who + ", repeats from", e.entry()) && e.entry() >= number) {
                    refuse(at + "/entry", who + ", repeats from", Integer.toString(e.entry()), "an entry before it", "choose where the stretch begins");
                }
            }
            default -> { }
        }
        if (e.end() == End.GO_ON) {
            number(at + "/next", who + ", goes on to", e.next());
        }
    }

    private void starter(String at, String who, Starter starter) {
        if (missing(at + "/by", who, starter.by()) | cue(at + "/cue", who, starter.cue())) {
            return;
        }
        if (starter.by() != By.SELECTOR) {
            number(at + "/entry", who + ", entry", starter.entry());
        }
        if (starter.by() == By.LEVEL) {
            number(at + "/otherEntry", who + ", other entry", starter.otherEntry());
        }
    }

    private void exception(String at, String who, MoveException exception) {
        if (missing(at + "/does", who, exception.does()) | cue(at + "/cue", who, exception.cue())) {
            return;
        }
        if (exception.does() == Does.START) {
            number(at + "/entry", who + ", entry", exception.entry());
        }
        between(at + "/speed", who + ", speed", exception.speed(), -max.speed(), max.speed(), unit + "/s");
        whole(at + "/from", who + ", from entry", exception.from(), 0, MoveList.MOST_ENTRIES - 1);
        whole(at + "/to", who + ", to entry", exception.to(), Math.max(0, exception.from()), MoveList.MOST_ENTRIES - 1);
    }

    private void zone(String at, String who, Zone zone) {
        if (missing(at + "/passing", who, zone.passing())) {
            return;
        }
        between(at + "/from", who + ", from", zone.from(), -MOST, MOST, unit);
        between(at + "/to", who + ", to", zone.to(), -MOST, MOST, unit);
        between(at + "/hysteresis", who + ", hysteresis", zone.hysteresis(), 0, MOST, unit);
    }

    /** @return it is wrong */
    private boolean cue(String at, String who, Cue cue) {
        if (missing(at, who + ", cue", cue) || missing(at + "/input", who + ", input", cue.input()) | missing(at + "/edge", who + ", edge", cue.edge()) | missing(at + "/taken", who + ", taken", cue.taken())) {
            return true;
        }
        boolean wrong = cue.comes() && !cue.input().cue();
        if (wrong) {
            refuse(at + "/input", who + ", input", cue.input().words(), "cue 1 to 4, probe 1 or 2, or the reference cam", "choose one of them");
        }
        return wrong | !whole(at + "/millis", who + ", time of the input", cue.millis(), 0, MOST_MILLIS);
    }

    private boolean exact(String at, String label, BigDecimal value) {
        boolean wrong = value == null || value.precision() > MOST_DIGITS || Math.abs(value.scale()) > MOST_DIGITS || value.abs().compareTo(BigDecimal.valueOf(MOST)) > 0;
        if (wrong) {
            refuse(at, label, value == null ? "missing" : value + " " + unit, "−1e9 to 1e9, at most " + MOST_DIGITS + " digits", "enter a number in " + unit);
        }
        return wrong;
    }

    private boolean number(String at, String label, int number) {
        if (number >= 0 && number < moves.entries().size()) {
            return true;
        }
        refuse(at, label, Integer.toString(number), moves.entries().isEmpty() ? "an entry; the list has none" : "0 to " + (moves.entries().size() - 1), "choose an entry of the list");
        return false;
    }

    private boolean many(String at, String label, int count, int most, String what) {
        if (count > most) {
            refuse(at, label, count + " " + what, "up to " + most, "remove some");
        }
        return count > most;
    }

    private boolean missing(String field, String label, Object value) {
        if (value == null) {
            refuse(field, label, "missing", "a value", "enter it");
        }
        return value == null;
    }

    private void between(String field, String label, double value, double low, double high, String valueUnit) {
        if (!(value >= low && value <= high)) {
            refuse(field, label, value + " " + valueUnit, low + " to " + high + " " + valueUnit, "enter a number in this range");
        }
    }

    private boolean whole(String field, String label, long value, long low, long high) {
        if (value < low || value > high) {
            refuse(field, label, Long.toString(value), low + " to " + high, "enter a whole number in this range");
        }
        return value >= low && value <= high;
    }

    private void refuse(String field, String label, String value, String allowed, String mend) {
        faults.add(new EntryFault(field, label, value, allowed, mend));
    }
}
