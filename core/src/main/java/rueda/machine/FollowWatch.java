package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Arrays;
import java.util.stream.Collectors;

/**
 * What is watched while an axis follows, and what it does when that comes about.
 *
 * @param line       a counting line of the master encoder breaks
 * @param index      the index pulse of the master encoder does not come
 * @param lostCounts counts that may be missing against the index pulse, 0 to 1 000 000
 * @param lost       more of them are missing
 * @param phaseLimit deviation, once it has been locked, up to which nothing is said, units of the follower, 0 for any
 * @param phase      the deviation is larger
 * @param tooFast    the master runs faster than the follower may
 */
@RecordBuilder
public record FollowWatch(Reaction line, Reaction index, long lostCounts, Reaction lost, double phaseLimit, Reaction phase, Reaction tooFast) implements FollowWatchBuilder.With {

    public static final FollowWatch USUAL = new FollowWatch(Reaction.QUICK_STOP, Reaction.WARN, 4, Reaction.WARN, 0, Reaction.WARN, Reaction.WARN);

    /** What a follower does then. */
    public enum Reaction {
        WARN("warns"),
        RAMP("lets go and ramps down"),
        HOLD_SPEED("lets go and keeps its speed"),
        QUICK_STOP("stops quickly with a fault");

        private final String words;

        Reaction(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** What can come about. */
    public enum Event {
        LINE_BROKEN("a line of the master encoder is broken"),
        INDEX_MISSING("the index pulse of the master encoder does not come"),
        COUNTS_LOST("counts of the master encoder are lost"),
        PHASE_LEFT("the phase is outside its limit"),
        TOO_FAST("the master is too fast");

        private final String words;

        Event(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    private static final Event[] EVENTS = Event.values();

    /** @param events a bit for each, by its place  @return empty for none */
    public static String words(int events) {
        return events == 0 ? "" : Arrays.stream(EVENTS).filter(event -> (events >> event.ordinal() & 1) != 0).map(Event::words).collect(Collectors.joining("; "));
    }

    /** What the follower does when it comes about. */
    public Reaction reaction(Event event) {
        return switch (event) {
            case LINE_BROKEN -> line;
            case INDEX_MISSING -> index;
            case COUNTS_LOST -> lost;
            case PHASE_LEFT -> phase;
            case TOO_FAST -> tooFast;
        };
    }
}
