package rueda.bench;

import java.util.function.ToDoubleFunction;
import rueda.drive.Drive;
import rueda.drive.DriveObject;
import rueda.machine.Axis;

/** What is recorded of every axis: each signal with its name, its unit and where it is read, once. Reading allocates nothing. */
public enum AxisSignal {
    COMMANDED_POSITION("commandedPosition", Unit.POSITION, Drive::demandPosition),
    POSITION("position", Unit.POSITION, Drive::position),
    COMMANDED_SPEED("commandedSpeed", Unit.SPEED, Drive::demandSpeed),
    SPEED("speed", Unit.SPEED, d -> d.plant().speed()),
    TORQUE("torque", Unit.TORQUE, Drive::torque),
    FOLLOWING_ERROR("followingError", Unit.POSITION, Drive::followingError),
    NEGATIVE_LIMIT("negativeLimit", Unit.NONE, d -> level(d.plant().negativeLimitReached())),
    POSITIVE_LIMIT("positiveLimit", Unit.NONE, d -> level(d.plant().positiveLimitReached())),
    REFERENCE_CAM("referenceCam", Unit.NONE, d -> level(d.plant().onReferenceCam())),
    ERROR_CODE("errorCode", Unit.NONE, d -> d.dictionary().get(DriveObject.ERROR_CODE)),
    IN_POSITION("inPosition", Unit.NONE, d -> level(d.inPosition())),
    STANDSTILL("standstill", Unit.NONE, d -> level(d.standsStill())),
    ALLOWED_FOLLOWING_ERROR("allowedFollowingError", Unit.POSITION, Drive::allowedFollowingError),
    TORQUE_LIMITED("torqueLimited", Unit.NONE, d -> level(d.torqueLimited())),
    BRAKE_OPEN("brakeOpen", Unit.NONE, d -> level(d.brakeLifted()));

    private enum Unit { POSITION, SPEED, TORQUE, NONE }

    private static final AxisSignal[] ALL = values();
    static final int COUNT = ALL.length;

    private final String key;
    private final Unit unit;
    private final ToDoubleFunction<Drive> reader;

    AxisSignal(String key, Unit unit, ToDoubleFunction<Drive> reader) {
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

    Signal of(Axis axis) {
        return new Signal(of(axis.name()), switch (unit) {
            case POSITION -> axis.unit().symbol();
            case SPEED -> axis.unit().symbol() + "/s";
            case TORQUE -> "N·m";
            case NONE -> "";
        });
    }

    /** Reads all of an axis. @param into takes them from the place on */
    static void read(Drive drive, double[] into, int place) {
        for (AxisSignal signal : ALL) {
            into[place + signal.ordinal()] = signal.reader.applyAsDouble(drive);
        }
    }
}
