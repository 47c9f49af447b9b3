package rueda.bus;

import java.util.List;

/**
 * What one cycle costs on the wire.
 *
 * @param messages      every frame of a cycle in the order in which it goes
 * @param wireNanos     sum of their times
 * @param shortestNanos shortest cycle the bus could keep, rounded up to what the family allows
 * @param formula       how the time comes about
 */
public record CycleTimes(List<Message> messages, long wireNanos, long shortestNanos, String formula) {

    /**
     * One frame.
     *
     * @param name       such as "TPDO 1 of Shuttle"
     * @param size       bytes on the wire with preamble and gap; CAN: bits
     * @param nanos      time on the wire
     * @param worstNanos longest time from being due to being received; equal to {@code nanos} where nothing competes
     */
    public record Message(String name, int size, long nanos, long worstNanos) {
    }

    /** Share of a cycle, 1 is all of it. */
    public double load(int cycleMicros) {
        return wireNanos / (cycleMicros * 1000.0);
    }
}
