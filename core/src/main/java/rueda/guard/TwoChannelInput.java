package rueda.guard;

import java.util.Arrays;

/**
 * A request that comes over two channels, both closed at rest: one that is open is enough to ask. Channels that differ for longer than they may are a
 * fault, which goes on asking until both have been seen open, and then closed, together.
 *
 * <p>A sensor shows each change later by its time, also one that is shorter than that; the filter behind it lets through what has stood. No allocation; not thread-safe.
 */
public final class TwoChannelInput {

    private final Channel first;
    private final Channel second;
    private final int discrepancyCycles;
    private int differFor;
    private boolean fault;
    private boolean seenOpen;

    /** What a channel shows once a change has stood. */
    private static final class Channel {
        private final Sensor sensor;
        private final int filterCycles;
        private boolean closed;
        private int changedFor;

        private Channel(int sensorCycles, int filterCycles) {
            sensor = new Sensor(sensorCycles);
            this.filterCycles = filterCycles;
        }

        private boolean take(boolean seen) {
            boolean level = sensor.take(seen);
            changedFor = level == closed ? 0 : changedFor + 1;
            if (changedFor > filterCycles) {
                closed = level;
                changedFor = 0;
            }
            return closed;
        }
    }

    /** Shows what it sees, later by its cycles. */
    private static final class Sensor {
        private static final int WORD = 6;
        private final int cycles;
        /** what it has seen in each of its last cycles, a bit for each, a ring */
        private final long[] seen;
        private int place;
        private boolean last;
        /** cycles for which it has seen the same, up to all that it has: then nothing of it changes any more */
        private int same;
        private boolean shows;

        private Sensor(int cycles) {
            this.cycles = cycles;
            seen = new long[(cycles >> WORD) + 1];
            same = cycles;
        }

        private void begin(boolean level) {
            Arrays.fill(seen, level ? -1 : 0);
            last = level;
            shows = level;
            same = cycles;
        }

        private boolean take(boolean level) {
            if (level != last) {
                same = 0;
            }
            last = level;
            if (same == cycles) {
                shows = level;
                return shows;
            }
            same++;
            long bit = 1L << place;
            shows = (seen[place >> WORD] & bit) != 0;
            seen[place >> WORD] = level ? seen[place >> WORD] | bit : seen[place >> WORD] & ~bit;
            place = place + 1 == cycles ? 0 : place + 1;
            return shows;
        }
    }

    /**
     * @param sensorCycles      cycles after which a sensor shows what it sees, 0 or more
     * @param filterCycles      cycles that a change must stand before it counts, 0 or more
     * @param discrepancyCycles cycles that the channels may differ, 0 or more
     */
    public TwoChannelInput(int sensorCycles, int filterCycles, int discrepancyCycles) {
        first = new Channel(sensorCycles, filterCycles);
        second = new Channel(sensorCycles, filterCycles);
        this.discrepancyCycles = discrepancyCycles;
    }

    /** The guard has been switched on a while ago: its sensors and filters show what the channels are. */
    public void begin(boolean firstClosed, boolean secondClosed) {
        first.sensor.begin(firstClosed);
        first.closed = firstClosed;
        second.sensor.begin(secondClosed);
        second.closed = secondClosed;
    }

    /** One cycle of the guard. @return whether it asks */
    public boolean cycle(boolean firstClosed, boolean secondClosed) {
        boolean a = first.take(firstClosed);
        boolean b = second.take(secondClosed);
        differFor = a == b ? 0 : Math.min(discrepancyCycles, differFor) + 1;
        if (differFor > discrepancyCycles) {
            fault = true;
            seenOpen = false;
        }
        seenOpen |= !a && !b;
        if (fault && a && b && seenOpen) {
            fault = false;
        }
        return !a || !b || fault;
    }

    /** A sensor shows a channel that is open, in front of its filter. */
    public boolean sensed() {
        return !first.sensor.shows || !second.sensor.shows;
    }

    /** The channels differed for longer than they may. */
    public boolean fault() {
        return fault;
    }
}
