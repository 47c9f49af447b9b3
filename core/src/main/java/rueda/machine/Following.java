package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.math.BigDecimal;
import rueda.quantity.InvalidEntry;
import rueda.quantity.Ratio;

/**
 * How an axis follows a master: what the master is, the ratio, how the two are locked, and what the follower may do meanwhile.
 *
 * @param source         what the master is
 * @param master         name of the axis that is followed; empty where the master is none
 * @param encoder        the encoder at the second input, for {@link Source#ENCODER}
 * @param ratio          how far the follower goes for the master
 * @param lock           how it is tied
 * @param meeting        where both meet, for {@link Lock#MEETING}
 * @param release        what it does when it is let go
 * @param catchUp        the most it may be faster or slower than its master while it makes up lost way, units/s, 0 for no making up
 * @param speed          its highest speed while it follows, units/s, 0 for that of the axis
 * @param acceleration   its highest acceleration while it follows, units/s², 0 for that of the axis
 * @param deceleration   its highest deceleration while it follows, units/s², 0 for that of the axis
 * @param gain           of the position lock, 1/s, 1 to 1000
 * @param feedForward    share of the master's speed that is fed forward, %, 0 to 100
 * @param filter         time of the filter on the master's speed, ms, 0 for none, to 1000
 * @param prediction     by how much the place of the master is foreseen, ms, 0 to 100
 * @param trimSpeed      speed of the phase while it is trimmed, units/s of the follower
 * @param phaseWindow    deviation within which it counts as locked, units of the follower
 * @param accelerationForward share of its own acceleration that a drive which follows its encoder feeds forward, %, 0 to 100
 * @param trimAcceleration acceleration of the phase while it is trimmed, units/s², 0 for that of the axis
 * @param trimDistance   by how much an edge of a trim input moves the phase, units of the follower, 0 to trim as long as the input is on
 * @param trimKept       the trim is kept when the follower is let go, and comes back when it is tied again
 * @param watch          what is watched meanwhile
 */
@RecordBuilder
public record Following(Source source, String master, MasterEncoder encoder, FollowRatio ratio, Lock lock, Meeting meeting, Release release, double catchUp, double speed, double acceleration, double deceleration,
                        double gain, double feedForward, double filter, double prediction, double trimSpeed, double phaseWindow, double accelerationForward, double trimAcceleration, double trimDistance, boolean trimKept,
                        FollowWatch watch) implements FollowingBuilder.With {

    /** It follows nothing. */
    public static final Following NONE = new Following(Source.NONE, "", MasterEncoder.USUAL, FollowRatio.of(1, 1), Lock.POSITION, new Meeting(0, 0, 0), Release.RAMP, 0, 0, 0, 0, 50, 100, 0, 0, 0, 0, 100, 0, 0, false, FollowWatch.USUAL);

    /** What the master is. */
    public enum Source {
        NONE("nothing"),
        SETPOINT("the setpoint of"),
        ACTUAL("the actual position of"),
        ENCODER("the encoder at its second input");

        private final String words;

        Source(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** How a follower is tied to its master. */
    public enum Lock {
        SPEED("by speed", "What it loses while it comes up stays lost. After a stop it follows when it is told to again, from the place that it has then"),
        POSITION("by position", "What it loses while it comes up is made up. After a stop it follows when it is told to again, from the place that it has then"),
        MEETING("at a meeting point", "Both are there together, and in step from then on. After a stop they meet there anew when it is told to"),
        LOOSE("loose", "It has the speed of the master and no place. After a stop it follows when it is told to again");

        private final String words;
        private final String meaning;

        Lock(String words, String meaning) {
            this.words = words;
            this.meaning = meaning;
        }

        public String words() {
            return words;
        }

        public String meaning() {
            return meaning;
        }
    }

    /** What a follower does when it is let go. */
    public enum Release {
        RAMP("ramps down"),
        HOLD_SPEED("keeps its speed");

        private final String words;

        Release(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * Where follower and master meet.
     *
     * @param master   place of the master there, units of the master
     * @param follower place of the follower there, units
     * @param way      way of the master on which the follower comes there, units of the master, 0 for all that is left
     */
    @RecordBuilder
    public record Meeting(double master, double follower, double way) implements FollowingMeetingBuilder.With {
    }

    /** How a ratio is given. */
    public enum Form {
        TURNS("turns of the last shafts"),
        PITCHES("the pitches"),
        DECIMAL("a decimal");

        private final String words;

        Form(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * How far the follower goes for the master. The pitches say what belongs together, a wheel or a slot, whatever the ratio is given by.
     *
     * @param form          which of the others counts
     * @param in            turns of the master's last shaft, 1 to 2³¹ − 1
     * @param out           turns of the follower's last shaft meanwhile, its sign the sense, not 0, −2³¹ to 2³¹ − 1
     * @param decimal       units of the follower for one unit of the master, exact decimal, its sign the sense
     * @param masterPitch   pitch of the master, its units, exact decimal above 0
     * @param followerPitch pitch of the follower, its units, exact decimal, its sign the sense
     */
    @RecordBuilder
    public record FollowRatio(Form form, long in, long out, BigDecimal decimal, BigDecimal masterPitch, BigDecimal followerPitch) implements FollowingFollowRatioBuilder.With {

        /** So many turns for so many. */
        public static FollowRatio of(long out, long in) {
            return new FollowRatio(Form.TURNS, in, out, BigDecimal.ONE, BigDecimal.ONE, BigDecimal.ONE);
        }

        /** What the pitches ask for: units of the follower for one of the master, exact. @throws InvalidEntry when there is no such number */
        public Ratio meant() {
            return Ratio.of(followerPitch).dividedBy(Ratio.of(masterPitch));
        }

        /**
         * Units of the follower for one unit of the master, exact.
         *
         * @param masterTurn   units of the master in one turn of its last shaft
         * @param followerTurn units of the follower in one turn of its last shaft
         * @throws InvalidEntry when 64 bits do not hold it
         */
        public Ratio exact(Ratio masterTurn, Ratio followerTurn) {
            return switch (form) {
                case TURNS -> Ratio.of(out, in).times(followerTurn).dividedBy(masterTurn);
                case PITCHES -> meant();
                case DECIMAL -> Ratio.of(decimal);
            };
        }
    }

    /** It follows something. */
    public boolean follows() {
        return source != Source.NONE;
    }

    /** It follows another axis, in the PLC. */
    public boolean followsAxis() {
        return source == Source.SETPOINT || source == Source.ACTUAL;
    }

    /**
     * Counts of the follower for one count of the encoder at its second input, exact.
     *
     * @throws InvalidEntry when 64 bits do not hold it
     */
    public Ratio countsPerCount(Axis follower) {
        return ratio.exact(encoder.unitsPerTurn(), perTurn(follower)).times(encoder.unitsPerCount()).times(follower.scale().countsPerUnit());
    }

    /**
     * Units of the follower for one unit of the master, exact.
     *
     * @throws InvalidEntry when 64 bits do not hold it
     */
    public Ratio unitsPerUnit(Axis follower, Axis masterAxis) {
        return ratio.exact(perTurn(masterAxis), perTurn(follower));
    }

    /**
     * Wire units of the follower for one wire unit of the master, exact.
     *
     * @throws InvalidEntry when 64 bits do not hold it
     */
    public Ratio wirePerWire(Axis follower, Axis masterAxis) {
        return unitsPerUnit(follower, masterAxis).times(Ratio.of(follower.scale().wireUnitsPerUnit(), masterAxis.scale().wireUnitsPerUnit()));
    }

    /** The ratio to the encoder at its second input as turns of the last shafts, exact; null where 64 bits do not hold it. */
    public Ratio turns(Axis follower) {
        try {
            return ratio.form() == Form.TURNS ? Ratio.of(ratio.out(), ratio.in()) : ratio.exact(encoder.unitsPerTurn(), perTurn(follower)).times(encoder.unitsPerTurn()).dividedBy(perTurn(follower));
        } catch (InvalidEntry tooLarge) {
            return null;
        }
    }

    private static Ratio perTurn(Axis axis) {
        return axis.train().feed().perTurn(axis.unit().user());
    }

    /** Acceleration of the phase while it is trimmed, units/s². */
    public double trimAccelerationOr(Limits limits) {
        return trimAcceleration > 0 ? trimAcceleration : limits.normal().acceleration();
    }

    /** Its highest speed while it follows, units/s. */
    public double speedOr(Limits limits) {
        return speed > 0 ? Math.min(speed, limits.max().speed()) : limits.max().speed();
    }

    /** Its highest acceleration while it follows, units/s². */
    public double accelerationOr(Limits limits) {
        return acceleration > 0 ? Math.min(acceleration, limits.max().acceleration()) : limits.max().acceleration();
    }

    /** Its highest deceleration while it follows, units/s². */
    public double decelerationOr(Limits limits) {
        return deceleration > 0 ? Math.min(deceleration, limits.max().deceleration()) : limits.max().deceleration();
    }
}
