package rueda.bench;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.function.ToDoubleFunction;
import java.util.stream.Collectors;
import rueda.drive.DriveObject;
import rueda.guard.GuardPhase;
import rueda.machine.Axis;
import rueda.plcopen.AxisState;

/** What is recorded of every axis: each signal with its name, its unit and where it is read, once. Reading allocates nothing. */
public enum AxisSignal {
    COMMANDED_POSITION("commandedPosition", Unit.POSITION, l -> l.drive.demandPosition()),
    POSITION("position", Unit.POSITION, l -> l.drive.position()),
    COMMANDED_SPEED("commandedSpeed", Unit.SPEED, l -> l.drive.demandSpeed()),
    SPEED("speed", Unit.SPEED, l -> l.drive.plant().speed()),
    TORQUE("torque", Unit.TORQUE, l -> l.drive.torque()),
    FOLLOWING_ERROR("followingError", Unit.POSITION, l -> l.drive.followingError()),
    NEGATIVE_LIMIT("negativeLimit", Unit.BIT, l -> level(l.drive.plant().negativeLimitReached())),
    POSITIVE_LIMIT("positiveLimit", Unit.BIT, l -> level(l.drive.plant().positiveLimitReached())),
    REFERENCE_CAM("referenceCam", Unit.BIT, l -> level(l.drive.plant().onReferenceCam())),
    ERROR_CODE("errorCode", Unit.NONE, l -> l.drive.dictionary().get(DriveObject.ERROR_CODE)),
    IN_POSITION("inPosition", Unit.BIT, l -> level(l.drive.inPosition())),
    STANDSTILL("standstill", Unit.BIT, l -> level(l.drive.standsStill())),
    ALLOWED_FOLLOWING_ERROR("allowedFollowingError", Unit.POSITION, l -> l.drive.allowedFollowingError()),
    TORQUE_LIMITED("torqueLimited", Unit.BIT, l -> level(l.drive.torqueLimited())),
    BRAKE_OPEN("brakeOpen", Unit.BIT, l -> level(l.drive.brakeLifted())),
    /** deviation of a follower from the place that its master gives it, once it has been locked; 0 before, and of what does not follow */
    PHASE("phase", Unit.POSITION, l -> l.phase),
    /** number of the entry of the move list that runs or ran last, −1 for none */
    LIST_ENTRY("listEntry", Unit.NONE, l -> l.drive.moveList().entry()),
    REFERENCED("referenced", Unit.BIT, l -> level(l.drive.referenced())),
    /** state of the axis as the PLC sees it, PLCopen Motion Control part 1 */
    STATE("state", Unit.STATE, l -> l.motion.state().ordinal()),
    /** where the load really is, from the negative hard stop: also when no device looks at it */
    PLACE("place", Unit.POSITION, l -> l.drive.plant().place()),
    /** phase of the guard, {@link GuardPhase}; of an axis without one it is free */
    GUARD("guard", Unit.GUARD, l -> l.guard == null ? 0 : l.guard.watch().phase().ordinal());

    private enum Unit { POSITION, SPEED, TORQUE, NONE, BIT, STATE, GUARD }

    private static final Map<String, Long> STATES = Arrays.stream(AxisState.values()).collect(Collectors.toUnmodifiableMap(Enum::name, state -> (long) state.ordinal()));

    private static final Map<String, Long> GUARDS = Arrays.stream(GuardPhase.values()).collect(Collectors.toUnmodifiableMap(Enum::name, phase -> (long) phase.ordinal()));

    private static final AxisSignal[] ALL = values();
    /** what does not come from the drive and the plant alone */
    private static final AxisSignal[] BESIDE_THE_DRIVE = {PHASE, STATE};
    static final int COUNT = ALL.length;

    private final String key;
    private final Unit unit;
    private final ToDoubleFunction<AxisLine> reader;

    AxisSignal(String key, Unit unit, ToDoubleFunction<AxisLine> reader) {
        this.key = key;
        this.unit = unit;
        this.reader = reader;
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
            into[place + signal.ordinal()] = signal.reader.applyAsDouble(line);
        }
    }

    /** Reads all of an axis. @param into takes them from the place on */
    static void read(AxisLine line, double[] into, int place) {
        for (AxisSignal signal : ALL) {
            into[place + signal.ordinal()] = signal.reader.applyAsDouble(line);
        }
    }
}
