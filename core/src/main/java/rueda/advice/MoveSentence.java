package rueda.advice;

import static rueda.advice.Numbers.significant;

import java.math.BigDecimal;
import rueda.machine.Axis;
import rueda.machine.Cue;
import rueda.machine.MoveEntry;
import rueda.machine.MoveEntry.Kind;
import rueda.machine.MoveList;

/** An entry of a move list as a sentence. */
public final class MoveSentence {

    private MoveSentence() {
    }

    /** What it does and how it ends. @param number of the entry */
    public static String of(Axis axis, int number) {
        MoveEntry e = axis.moves().entries().get(number);
        return Character.toUpperCase(action(axis, e).charAt(0)) + action(axis, e).substring(1) + ", " + end(e, number) + ".";
    }

    private static String action(Axis axis, MoveEntry e) {
        String unit = axis.unit().symbol();
        String speed = e.speed() == 0 ? "" : " at " + significant(Math.abs(e.speed()), 6) + " " + unit + "/s";
        return switch (e.kind()) {
            case GO_TO -> "go to " + plain(e.position()) + " " + unit + (axis.endless() ? " " + e.way().words() : "") + speed;
            case GO_BY -> "go by " + plain(e.distance()) + " " + unit + speed;
            case RUN -> "run at " + significant(e.speed(), 6) + " " + unit + "/s" + until(e.cue());
            case CHANGE_SPEED -> "run on, " + significant(Math.abs(e.speed()), 6) + " " + unit + "/s " + (e.speed() < 0 ? "slower" : "faster") + until(e.cue());
            case TURN_ROUND -> "turn round and run on" + until(e.cue());
            case TO_MARK -> "go on" + speed + " to a mark at " + e.cue().input().words() + " between " + significant(e.windowFrom(), 6) + " and " + significant(e.windowTo(), 6) + " " + unit + ", stop " + plain(e.distance()) + " " + unit + " after it; without one "
                    + (e.entry() == MoveList.AS_ASKED ? "stop the list" : "run entry " + e.entry());
            case FIND_ZERO -> "find the zero";
            case OUTPUT -> "switch list output " + e.output() + (e.on() ? " on" : " off");
            case WAIT -> "wait for " + significant(e.rest(), 6) + " s";
            case AWAIT -> "wait until " + cue(e.cue());
            case IN_POSITION -> "wait until in position";
            case REPEAT -> "repeat from entry " + e.entry() + " until done " + e.times() + (e.times() == 1 ? " time" : " times");
        };
    }

    private static String until(Cue cue) {
        return cue.comes() ? " until " + cue(cue) : " until something else is started";
    }

    private static String cue(Cue cue) {
        return !cue.comes() ? "a cue that is not chosen yet" : cue.input().words() + " " + cue.edge().words();
    }

    private static String end(MoveEntry e, int number) {
        String rest = e.rest() > 0 && e.kind() != Kind.WAIT ? "rest " + significant(e.rest(), 6) + " s" : "";
        return switch (e.end()) {
            case REST -> rest.isEmpty() ? "then rest" : rest + " and stay";
            case AWAIT_CUE -> (rest.isEmpty() ? "" : rest + ", ") + "await that " + cue(e.awaits()) + ", then entry " + (number + 1);
            case GO_ON -> (rest.isEmpty() ? "" : rest + ", ") + "go on to entry " + e.next();
            case PASS -> "pass on to entry " + (number + 1);
        };
    }

    private static String plain(BigDecimal value) {
        return value.stripTrailingZeros().toPlainString().replace('-', '−');
    }
}
