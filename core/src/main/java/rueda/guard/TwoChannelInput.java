package rueda.guard;

/**
 * A request that comes over two channels, both closed at rest: one that is open is enough to ask. Channels that differ for longer than they may are a
 * fault, which goes on asking until both have been seen open, and then closed, together. No allocation; not thread-safe.
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
        private final int filterCycles;
        private boolean closed;
        private int changedFor;

        private Channel(int filterCycles) {
            this.filterCycles = filterCycles;
        }

        private boolean take(boolean level) {
            changedFor = level == closed ? 0 : changedFor + 1;
            if (changedFor > filterCycles) {
                closed = level;
                changedFor = 0;
            }
            return closed;
        }
    }

    /**
     * @param filterCycles      cycles that a change must stand before it counts, 0 or more
     * @param discrepancyCycles cycles that the channels may differ, 0 or more
     */
    public TwoChannelInput(int filterCycles, int discrepancyCycles) {
        first = new Channel(filterCycles);
        second = new Channel(filterCycles);
        this.discrepancyCycles = discrepancyCycles;
    }

    /** The guard has been switched on a while ago: its filters show what the channels are. */
    public void begin(boolean firstClosed, boolean secondClosed) {
        first.closed = firstClosed;
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

    /** The channels differed for longer than they may. */
    public boolean fault() {
        return fault;
    }
}
