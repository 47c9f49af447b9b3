package rueda.bench;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import rueda.drive.DriveObject;
import rueda.guard.GuardPhase;
import rueda.machine.Axis;
import rueda.plcopen.AxisState;

/** What is recorded of every axis: each signal with its name, its unit and where it is read, once. Reading allocates nothing. */
public enum AxisSignal {
    COMMANDED_POSITION("commandedPosition", Unit.POSITION),
    POSITION("position", Unit.POSITION),
    COMMANDED_SPEED("commandedSpeed", Unit.SPEED),
    SPEED("speed", Unit.SPEED),
    TORQUE("torque", Unit.TORQUE),
    FOLLOWING_ERROR("followingError", Unit.POSITION),
    NEGATIVE_LIMIT("negativeLimit", Unit.BIT),
    POSITIVE_LIMIT("positiveLimit", Unit.BIT),
    REFERENCE_CAM("referenceCam", Unit.BIT),
    ERROR_CODE("errorCode", Unit.NONE),
    IN_POSITION("inPosition", Unit.BIT),
    STANDSTILL("standstill", Unit.BIT),
    ALLOWED_FOLLOWING_ERROR("allowedFollowingError", Unit.POSITION),
    TORQUE_LIMITED("torqueLimited", Unit.BIT),
    BRAKE_OPEN("brakeOpen", Unit.BIT),
    /** deviation of a follower from the place that its master gives it, once it has been locked; 0 before, and of what does not follow */
    PHASE("phase", Unit.POSITION),
    /** number of the entry of the move list that runs or ran last, −1 for none */
    LIST_ENTRY("listEntry", Unit.NONE),
    REFERENCED("referenced", Unit.BIT),
    /** state of the axis as the PLC sees it, PLCopen Motion Control part 1 */
    STATE("state", Unit.STATE),
    /** where the load really is, from the negative hard stop: also when no device looks at it */
    PLACE("place", Unit.POSITION),
    /** phase of the guard, {@link GuardPhase}; of an axis without one it is free */
    GUARD("guard", Unit.GUARD);

    private enum Unit { POSITION, SPEED, TORQUE, NONE, BIT, STATE, GUARD }

    private static final Map<String, Long> STATES = Arrays.stream(AxisState.values()).collect(Collectors.toUnmodifiableMap(Enum::name, state -> (long) state.ordinal()));

    private static final Map<String, Long> GUARDS = Arrays.stream(GuardPhase.values()).collect(Collectors.toUnmodifiableMap(Enum::name, phase -> (long) phase.ordinal()));

    private static final AxisSignal[] ALL = values();
    /** what does not come from the drive and the plant alone */
    private static final AxisSignal[] BESIDE_THE_DRIVE = {PHASE, STATE};
    static final int COUNT = ALL.length;

    private final String key;
    private final Unit unit;

    AxisSignal(String key, Unit unit) {
        this.key = key;
        this.unit = unit;
    }

    /* one switch for all: a function for each of them would be called anew twenty times in every bus cycle */
    private double of(AxisLine l) {
        return switch (this) {
            case COMMANDED_POSITION -> l.drive.demandPosition();
            case POSITION -> l.drive.position();
            case COMMANDED_SPEED -> l.drive.demandSpeed();
            case SPEED -> l.drive.plant().speed();
            case TORQUE -> l.drive.torque();
            case FOLLOWING_ERROR -> l.drive.followingError();
            case NEGATIVE_LIMIT -> level(l.drive.plant().negativeLimitReached());
            case POSITIVE_LIMIT -> level(l.drive.plant().positiveLimitReached());
            case REFERENCE_CAM -> level(l.drive.plant().onReferenceCam());
            case ERROR_CODE -> l.drive.dictionary().get(DriveObject.ERROR_CODE);
            case IN_POSITION -> level(l.drive.inPosition());
            case STANDSTILL -> level(l.drive.standsStill());
            case ALLOWED_FOLLOWING_ERROR -> l.drive.allowedFollowingError();
            case TORQUE_LIMITED -> level(l.drive.torqueLimited());
            case BRAKE_OPEN -> level(l.drive.brakeLifted());
            case PHASE -> l.phase;
            case LIST_ENTRY -> l.drive.moveList().entry();
            case REFERENCED -> level(l.drive.referenced());
            case STATE -> l.motion.state().ordinal();
            case PLACE -> l.drive.plant().place();
            case GUARD -> l.guard == null ? 0 : l.guard.watch().phase().ordinal();
        };
    }

    private static double level(boolean high) {
        return high ? 1 : 0;
    }

    /** Name of the signal of an axis in a recording, such as {@code Shuttle.speed}. */
    public String of(String axis) {
        return axis + "." + key;
    }

    /** All signals of an axis. */
    public static List<Signal> all(Axis axis) {
        return Arrays.stream(ALL).map(signal -> signal.of(axis)).toList();
    }

    Signal of(Axis axis) {
        return new Signal(of(axis.name()), switch (unit) {
            case POSITION -> axis.unit().symbol();
            case SPEED -> axis.unit().symbol() + "/s";
            case TORQUE -> "N·m";
            case NONE, BIT, STATE, GUARD -> "";
        }, unit == Unit.BIT, unit == Unit.STATE ? STATES : unit == Unit.GUARD ? GUARDS : Map.of());
    }

    /** Reads what can have changed of an axis whose drive and plant have not. @param into has all of them, as they were, from the place on */
    static void readBesideTheDrive(AxisLine line, double[] into, int place) {
        for (AxisSignal signal : BESIDE_THE_DRIVE) {
            into[place + signal.ordinal()] = signal.of(line);
        }
    }

    /** Reads all of an axis. @param into takes them from the place on */
    static void read(AxisLine line, double[] into, int place) {
        for (AxisSignal signal : ALL) {
            into[place + signal.ordinal()] = signal.of(line);
        }
    }
}
