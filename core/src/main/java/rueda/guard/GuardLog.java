package rueda.guard;

import java.util.ArrayList;
import java.util.List;
import rueda.machine.SafetyFunction;

/** What the guard of an axis did: its last {@value #KEPT} changes. Adding allocates nothing. Not thread-safe. */
public final class GuardLog {

    public static final int KEPT = 100;

    private final long[] time = new long[KEPT];
    private final GuardPhase[] phase = new GuardPhase[KEPT];
    private final SafetyFunction[] function = new SafetyFunction[KEPT];
    private final Breach[] breach = new Breach[KEPT];
    /** position, speed and limit of each */
    private final double[] values = new double[3 * KEPT];
    private final int number;
    private long added;

    /** @param number of the axis */
    public GuardLog(int number) {
        this.number = number;
    }

    /**
     * @param time     ns on the clock of whoever runs the guard
     * @param axis     number of the axis
     * @param phase    entered then
     * @param function that leads, null for none
     * @param breach   limit that was broken, {@link Breach#NONE} for none
     * @param position user units of the guard's own encoder, from where it began
     * @param speed    units/s
     * @param limit    that was broken, units/s, or units for the window; 0 for none
     */
    public record Entry(long time, int axis, GuardPhase phase, SafetyFunction function, Breach breach, double position, double speed, double limit) {
    }

    /** Takes what a watch has come to. @param speed units/s */
    public void add(long now, AxisWatch watch, double position, double speed) {
        int place = (int) (added % KEPT);
        time[place] = now;
        phase[place] = watch.phase();
        function[place] = watch.leading();
        breach[place] = watch.breach();
        boolean broken = watch.breach() != Breach.NONE;
        values[3 * place] = position;
        values[3 * place + 1] = broken ? watch.breachSpeed() : speed;
        values[3 * place + 2] = broken ? watch.breachLimit() : 0;
        added++;
    }

    /** Changes ever. */
    public long added() {
        return added;
    }

    /** The kept ones, oldest first. */
    public List<Entry> entries() {
        List<Entry> all = new ArrayList<>();
        for (long i = Math.max(0, added - KEPT); i < added; i++) {
            int at = (int) (i % KEPT);
            all.add(new Entry(time[at], number, phase[at], function[at], breach[at], values[3 * at], values[3 * at + 1], values[3 * at + 2]));
        }
        return all;
    }
}
