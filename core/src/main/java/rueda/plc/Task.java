package rueda.plc;

import java.util.BitSet;
import java.util.List;
import rueda.machine.Plc;
import rueda.plc.run.CompiledUnit;
import rueda.plc.run.StatementPlace;

/**
 * Programs that run together, when their interval is over or on the rising edge of a tag, and what has been measured of them. Stepped by its
 * {@link Resource}; not thread-safe.
 */
public final class Task {

    private final Plc.Task settings;
    private final List<String> programs;
    private final CompiledUnit[] units;
    private final boolean onInterval;
    private final long interval;
    private final long watchdog;
    /** cell of the tag that starts it, −1 for a task with an interval */
    private final int tag;
    private long next;
    private boolean levelBefore;

    /** it is to run */
    private boolean due;
    private long dueAt;
    /** it has begun, and the controller has not had the time to end it */
    private boolean working;
    private long startedAt;
    private long left;

    private int statements;
    private long took;
    private int most = -1;
    private long longest;
    private StatementPlace longestIn;
    private long latest;
    private long cycles;
    private long missed;

    /** slots of tags that its programs write */
    private final BitSet writes;

    Task(Plc.Task settings, List<String> programs, CompiledUnit[] units, int tag, BitSet writes) {
        this.writes = writes;
        this.settings = settings;
        this.programs = List.copyOf(programs);
        this.units = units;
        this.tag = tag;
        onInterval = settings.onTag().isEmpty();
        interval = settings.intervalMicros() * 1000L;
        watchdog = settings.watchdogMicros() * 1000L;
    }

    /** Looks whether it is to run; with an interval of 0 always. @param now ns on the bench's clock */
    void look(long now, long[] memory) {
        boolean starts = false;
        if (onInterval) {
            starts = interval == 0 || now >= next;
            if (starts) {
                next = now + interval;
            }
        } else if (tag >= 0) {
            boolean level = memory[tag] != 0;
            starts = level && !levelBefore;
            levelBefore = level;
        }
        if (starts && (due || working)) {
            missed++;
        } else if (starts) {
            due = true;
            dueAt = now;
        }
    }

    /** When it starts next by its interval, ns on the bench's clock; never for a task on a tag. */
    long nextStart() {
        return onInterval ? next : Long.MAX_VALUE;
    }

    /** @param at ns on the bench's clock */
    void begin(long at) {
        due = false;
        working = true;
        startedAt = at;
        latest = Math.max(latest, at - dueAt);
    }

    /** Its programs have run. @param ran statements  @param nanos that the controller takes for them  @param busiest line in which most of them were, null where nobody looks */
    void ran(int ran, long nanos, StatementPlace busiest) {
        statements = ran;
        took = nanos;
        left = nanos;
        cycles++;
        if (isLongest(ran)) {
            most = ran;
            longest = nanos;
            longestIn = busiest;
        }
    }

    /** Something else took the controller meanwhile: what it writes comes so much later. @param nanos ns */
    void interrupted(long nanos) {
        left += nanos;
    }

    /** More statements than in any cycle before. */
    boolean isLongest(int ran) {
        return ran > most;
    }

    /** The controller works on it. @param available ns  @return what it uses of them */
    long work(long available) {
        long used = Math.min(left, available);
        left -= used;
        working = left > 0;
        return used;
    }

    /** @param at ns on the bench's clock */
    boolean overdue(long at) {
        return watchdog > 0 && at - startedAt > watchdog;
    }

    /** What its programs have written to the tag is not out yet. @param slot of the tag */
    boolean holds(int slot) {
        return working && writes.get(slot);
    }

    CompiledUnit[] units() {
        return units;
    }

    boolean due() {
        return due;
    }

    boolean working() {
        return working;
    }

    public String name() {
        return settings.name();
    }

    public Plc.Task settings() {
        return settings;
    }

    /** Names of its programs, in the order of running. */
    public List<String> programs() {
        return programs;
    }

    /** Statements of the last cycle. */
    public int statements() {
        return statements;
    }

    /** Estimated time of the last cycle, ns. */
    public long took() {
        return took;
    }

    /** Estimated time of the longest cycle, ns. */
    public long longest() {
        return longest;
    }

    /** The line of the longest cycle in which most statements ran; null where the code is not traced. */
    public StatementPlace longestIn() {
        return longestIn;
    }

    /** Longest time from when it was to run to its start, ns: tasks of higher priority went first. */
    public long latest() {
        return latest;
    }

    /** Cycles that have begun. */
    public long cycles() {
        return cycles;
    }

    /** Starts that fell into a cycle before, which had not ended. */
    public long missed() {
        return missed;
    }
}
