package rueda.plc.run;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntPredicate;

/**
 * Hears of every statement that traced code runs: marks its line, counts it, keeps the stack of calls, and holds the program where it is told to.
 *
 * <p>A statement costs a call and three stores. Allocates nothing while a program runs. What is asked or ordered from outside is for the time
 * between two cycles, or while the program is held. Not thread-safe.
 */
public final class Tracer {

    /** How far a held program goes. */
    public enum Step {
        /** to the next line, also of a unit that is called */
        INTO,
        /** to the next line of this unit, or of the one that called it */
        OVER,
        /** to the unit that called this one */
        OUT
    }

    /** A call that has not returned. @param place where it stands  @param base first cell of the instance that runs */
    public record Level(StatementPlace place, int base) {
    }

    /** Where a program is held. @param condition of the instance whose first cell it gets; null: always */
    private record Breakpoint(IntPredicate condition) {
    }

    private final List<StatementPlace> places;
    /** the cycle in which a line ran last */
    private final int[] ran;
    /** how often it has run, ever; wraps */
    private final int[] counts;
    private final int[] countsBefore;
    private int cycle;
    private int[] placeAt = new int[16];
    private int[] baseAt = new int[16];
    private int depth;
    private final Breakpoint[] breakpoints;
    private boolean anyBreakpoint;
    private Step step;
    private int stepDepth;
    private int stepFrom;
    private int cursor = -1;
    private int last = -1;
    private Runnable hold = () -> { };

    /** @param places by the numbers that the code gives */
    public Tracer(List<StatementPlace> places) {
        this.places = places;
        ran = new int[places.size()];
        counts = new int[places.size()];
        countsBefore = new int[places.size()];
        breakpoints = new Breakpoint[places.size()];
    }

    // ---- what the code calls

    /** A statement is about to run. @param place number of its line  @param base first cell of the instance */
    public void at(int place, int base) {
        ran[place] = cycle;
        counts[place]++;
        placeAt[depth] = place;
        baseAt[depth] = base;
        if (step != null || anyBreakpoint || cursor >= 0) {
            watch(place, base);
        }
    }

    /** A unit is called. */
    public void enter() {
        depth++;
        if (depth == placeAt.length) {
            placeAt = Arrays.copyOf(placeAt, 2 * depth);
            baseAt = Arrays.copyOf(baseAt, 2 * depth);
        }
        placeAt[depth] = -1;
    }

    /** The unit has returned. */
    public void leave() {
        depth--;
    }

    private void watch(int place, int base) {
        boolean again = place == last;
        last = place;
        boolean stops = place == cursor && !again;
        if (step != null) {
            boolean elsewhere = place != stepFrom || depth < stepDepth;
            stops |= switch (step) {
                case INTO -> elsewhere;
                case OVER -> elsewhere && depth <= stepDepth;
                case OUT -> depth < stepDepth;
            };
        }
        Breakpoint breakpoint = breakpoints[place];
        if (breakpoint != null) {
            stops |= breakpoint.condition() == null ? !again : breakpoint.condition().test(base);
        }
        if (stops) {
            goOn();
            hold.run();
        }
    }

    // ---- what the task calls

    /** A cycle of a task begins. */
    public void cycle() {
        cycle++;
        System.arraycopy(counts, 0, countsBefore, 0, counts.length);
    }

    /** A program of the task begins: a step may end in its first line, whichever it is. */
    public void program() {
        depth = 0;
        last = -1;
        stepFrom = -1;
        if (step == Step.OUT) {
            step = Step.INTO;
        }
        stepDepth = Integer.MAX_VALUE;
    }

    /** What holds the thread in which the program runs until it is to go on. */
    public void onHold(Runnable action) {
        hold = action;
    }

    /** It may be held before this cycle ends. */
    public boolean armed() {
        return step != null || anyBreakpoint || cursor >= 0;
    }

    // ---- what a person asks and orders

    /** The program goes on to the next breakpoint. */
    public void goOn() {
        step = null;
        cursor = -1;
    }

    /** The program goes on by a step. */
    public void step(Step wanted) {
        step = wanted;
        stepDepth = depth;
        stepFrom = placeAt[depth];
        if (wanted == Step.OUT && depth == 0) {
            step = Step.OVER;
        }
    }

    /** The program goes on until this line. @return false when no statement stands there or behind it */
    public boolean toLine(String file, int line) {
        cursor = place(file, line);
        return cursor >= 0;
    }

    /** Takes all breakpoints away. */
    public void clear() {
        Arrays.fill(breakpoints, null);
        anyBreakpoint = false;
    }

    /**
     * Holds the program in a line.
     *
     * @param condition of the instance whose first cell it gets; null: always
     * @return where it is: the first line from there on that has a statement; null when there is none
     */
    public StatementPlace breakpoint(String file, int line, IntPredicate condition) {
        int place = place(file, line);
        if (place < 0) {
            return null;
        }
        for (int i = 0; i < breakpoints.length; i++) {
            if (same(places.get(i), places.get(place))) {
                breakpoints[i] = new Breakpoint(condition);
            }
        }
        anyBreakpoint = true;
        return places.get(place);
    }

    private static boolean same(StatementPlace a, StatementPlace b) {
        return a.line() == b.line() && a.file().equals(b.file());
    }

    /** The first line from there on that has a statement, or null. */
    public StatementPlace nearest(String file, int line) {
        int place = place(file, line);
        return place < 0 ? null : places.get(place);
    }

    private int place(String file, int line) {
        int best = -1;
        for (int i = 0; i < places.size(); i++) {
            StatementPlace place = places.get(i);
            if (place.file().equals(file) && place.line() >= line && (best < 0 || place.line() < places.get(best).line())) {
                best = i;
            }
        }
        return best;
    }

    /** The calls that have not returned, the innermost first; for a program that is held. */
    public List<Level> stack() {
        List<Level> levels = new ArrayList<>();
        for (int i = depth; i >= 0; i--) {
            if (placeAt[i] >= 0) {
                levels.add(new Level(places.get(placeAt[i]), baseAt[i]));
            }
        }
        return levels;
    }

    /** Lines in which a statement ran in the last cycle. */
    public List<StatementPlace> ran() {
        List<StatementPlace> lines = new ArrayList<>();
        for (int i = 0; i < ran.length && cycle > 0; i++) {
            if (ran[i] == cycle) {
                lines.add(places.get(i));
            }
        }
        return lines;
    }

    /** The line of the cycle in which the most statements ran, or null. */
    public StatementPlace busiest() {
        int best = -1;
        for (int i = 0; i < counts.length; i++) {
            if (ran[i] == cycle && (best < 0 || counts[i] - countsBefore[i] > counts[best] - countsBefore[best])) {
                best = i;
            }
        }
        return best < 0 ? null : places.get(best);
    }
}
