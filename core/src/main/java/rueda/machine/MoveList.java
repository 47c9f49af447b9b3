package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;

/**
 * Moves and small steps that live in the drive of an axis. The program of the PLC need not be there: a starter begins an entry, and each
 * entry says what comes after it.
 *
 * @param entries       in order, numbered from 0, up to {@value #MOST_ENTRIES}
 * @param firstEntry    entry that is run at the first start after power-up, whatever was asked for; {@value #AS_ASKED} for what was asked for
 * @param onFirstEnable the list starts by itself when the axis is enabled for the first time after power-up, at {@code firstEntry} or else entry 0
 * @param starters      what starts an entry from the terminals, up to {@value #MOST_RULES}
 * @param exceptions    what holds while the list runs, up to {@value #MOST_RULES}
 * @param zones         ranges of travel in which an output is on, the first is zone 1, up to {@value #MOST_ZONES}
 */
@RecordBuilder
public record MoveList(List<MoveEntry> entries, int firstEntry, boolean onFirstEnable, List<Starter> starters, List<MoveException> exceptions, List<Zone> zones) implements MoveListBuilder.With {

    public static final int MOST_ENTRIES = 256;
    public static final int MOST_RULES = 16;
    public static final int MOST_ZONES = 8;
    /** No entry is run first. */
    public static final int AS_ASKED = -1;

    /** Nothing in it. */
    public static final MoveList EMPTY = new MoveList(List.of(), AS_ASKED, false, List.of(), List.of(), List.of());

    public MoveList {
        entries = entries == null ? List.of() : List.copyOf(entries);
        starters = starters == null ? List.of() : List.copyOf(starters);
        exceptions = exceptions == null ? List.of() : List.copyOf(exceptions);
        zones = zones == null ? List.of() : List.copyOf(zones);
    }

    /** Started by nothing yet. */
    public static MoveList of(MoveEntry... entries) {
        return EMPTY.withEntries(List.of(entries));
    }

    /**
     * The moving entry into which one that ends with PASS can pass on at speed: the next one, over outputs that are switched on the way.
     *
     * @return its number, −1 where the axis stands in between
     */
    public int passedInto(int entry) {
        int next = entry + 1;
        while (next < entries.size() && entries.get(next).switchedOnTheWay(next)) {
            next++;
        }
        return next < entries.size() && entries.get(next).kind().moves() ? next : -1;
    }

    /** What starts an entry. */
    public enum By {
        EDGE("an edge"),
        LEVEL("the level"),
        SELECTOR("the selector inputs");

        private final String words;

        By(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * A rule by which an entry is started.
     * <ul>
     * <li>EDGE: on {@code cue}, start {@code entry}.
     * <li>LEVEL: {@code entry} when the input comes on, {@code otherEntry} when it goes off; each edge starts its own once.
     * <li>SELECTOR: on {@code cue}, start the entry whose number the selector inputs say in binary. Selecting alone starts nothing.
     * </ul>
     *
     * @param by         kind of the rule
     * @param cue        which input, and how it is taken; the edge counts for EDGE and SELECTOR
     * @param entry      number of an entry
     * @param otherEntry number of an entry
     */
    @RecordBuilder
    public record Starter(By by, Cue cue, int entry, int otherEntry) implements MoveListStarterBuilder.With {
    }

    /** What an exception does. */
    public enum Does {
        START("start entry"),
        CHANGE_SPEED("change the speed by"),
        TURN_ROUND("turn round"),
        STOP("stop and stay"),
        GO_ON("go on where it was broken off");

        private final String words;

        Does(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * A rule that holds while the list runs: on this cue, do that.
     *
     * @param cue   the cue
     * @param does  what happens then
     * @param entry number of the entry that START starts
     * @param speed by which CHANGE_SPEED changes the speed, units/s, negative for slower
     * @param from  first entry in which the rule holds
     * @param to    last entry in which it holds
     */
    @RecordBuilder
    public record MoveException(Cue cue, Does does, int entry, double speed, int from, int to) implements MoveListMoveExceptionBuilder.With {
    }

    /** In which direction of motion something counts. */
    public enum Passing {
        BOTH("either way"),
        FORWARD("only forward"),
        BACK("only back");

        private final String words;

        Passing(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * A range of travel in which an output is on. On an endless axis with a modulo it may reach across the zero: from 350 to 10.
     *
     * @param from           lower end, units
     * @param to             upper end, units
     * @param hysteresis     how far beyond an end the axis must be for the output to go off, units
     * @param passing        directions in which the axis must enter it
     * @param onlyReferenced off while the axis does not know where it is
     */
    @RecordBuilder
    public record Zone(double from, double to, double hysteresis, Passing passing, boolean onlyReferenced) implements MoveListZoneBuilder.With {
    }
}
