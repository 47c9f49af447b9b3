package rueda.bench;

import rueda.drive.Drive;
import rueda.drive.DriveObject;
import rueda.machine.Axis;

/** What is recorded of every axis: each signal with its name, its unit and where it is read, once. Reading allocates nothing. */
public enum AxisSignal {
    COMMANDED_POSITION("commandedPosition", Unit.POSITION) {
        @Override
        double read(Drive drive) {
            return drive.demandPosition();
        }
    },
    POSITION("position", Unit.POSITION) {
        @Override
        double read(Drive drive) {
            return drive.position();
        }
    },
    COMMANDED_SPEED("commandedSpeed", Unit.SPEED) {
        @Override
        double read(Drive drive) {
            return drive.demandSpeed();
        }
    },
    SPEED("speed", Unit.SPEED) {
        @Override
        double read(Drive drive) {
            return drive.plant().speed();
        }
    },
    TORQUE("torque", Unit.TORQUE) {
        @Override
        double read(Drive drive) {
            return drive.torque();
        }
    },
    FOLLOWING_ERROR("followingError", Unit.POSITION) {
        @Override
        double read(Drive drive) {
            return drive.followingError();
        }
    },
    NEGATIVE_LIMIT("negativeLimit", Unit.NONE) {
        @Override
        double read(Drive drive) {
            return drive.plant().negativeLimitReached() ? 1 : 0;
        }
    },
    POSITIVE_LIMIT("positiveLimit", Unit.NONE) {
        @Override
        double read(Drive drive) {
            return drive.plant().positiveLimitReached() ? 1 : 0;
        }
    },
    REFERENCE_CAM("referenceCam", Unit.NONE) {
        @Override
        double read(Drive drive) {
            return drive.plant().onReferenceCam() ? 1 : 0;
        }
    },
    ERROR_CODE("errorCode", Unit.NONE) {
        @Override
        double read(Drive drive) {
            return drive.dictionary().get(DriveObject.ERROR_CODE);
        }
    },
    IN_POSITION("inPosition", Unit.NONE) {
        @Override
        double read(Drive drive) {
            return drive.inPosition() ? 1 : 0;
        }
    },
    STANDSTILL("standstill", Unit.NONE) {
        @Override
        double read(Drive drive) {
            return drive.standsStill() ? 1 : 0;
        }
    },
    ALLOWED_FOLLOWING_ERROR("allowedFollowingError", Unit.POSITION) {
        @Override
        double read(Drive drive) {
            return drive.allowedFollowingError();
        }
    },
    TORQUE_LIMITED("torqueLimited", Unit.NONE) {
        @Override
        double read(Drive drive) {
            return drive.torqueLimited() ? 1 : 0;
        }
    },
    BRAKE_OPEN("brakeOpen", Unit.NONE) {
        @Override
        double read(Drive drive) {
            return drive.brakeLifted() ? 1 : 0;
        }
    };

    private enum Unit { POSITION, SPEED, TORQUE, NONE }

    private static final AxisSignal[] ALL = values();
    static final int COUNT = ALL.length;

    private final String key;
    private final Unit unit;

    AxisSignal(String key, Unit unit) {
        this.key = key;
        this.unit = unit;
    }

    abstract double read(Drive drive);

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
            into[place + signal.ordinal()] = signal.read(drive);
        }
    }
}
