package rueda.drive;

import static rueda.drive.DriveObject.*;

import rueda.machine.Axis;
import rueda.machine.Homing;
import rueda.machine.Limits;
import rueda.machine.Supervision;
import rueda.quantity.Ratio;
import rueda.quantity.Scale;

/** What the master writes into the objects of a drive over the mailbox. */
final class ParameterWrites {

    private ParameterWrites() {
    }

    /** Position factors, before anything that is counted in wire units. */
    static void positionFactors(ObjectDictionary dictionary, Scale scale) {
        dictionary.set(ENCODER_INCREMENTS, scale.countsPerMotorTurn());
        dictionary.set(ENCODER_TURNS, 1);
        dictionary.set(GEAR_MOTOR_TURNS, scale.gear().numerator());
        dictionary.set(GEAR_SHAFT_TURNS, scale.gear().denominator());
        Ratio feed = scale.feedConstant();
        dictionary.set(FEED, feed.numerator());
        dictionary.set(FEED_TURNS, feed.denominator());
    }

    /** Counts per wire unit by the position factors: 608Fh × 6091h ÷ 6092h, as the drive's gear of so many bits holds it. */
    static Ratio gear(ObjectDictionary dictionary, int bits) {
        long most = (1L << bits) - 1;
        Ratio encoder = Ratio.of(unsigned(dictionary, ENCODER_INCREMENTS), unsigned(dictionary, ENCODER_TURNS));
        Ratio gear = Ratio.of(unsigned(dictionary, GEAR_MOTOR_TURNS), unsigned(dictionary, GEAR_SHAFT_TURNS));
        Ratio feed = Ratio.of(unsigned(dictionary, FEED), unsigned(dictionary, FEED_TURNS));
        return Ratio.nearestProduct(encoder, gear, feed.inverse(), most);
    }

    private static long unsigned(ObjectDictionary dictionary, DriveObject object) {
        return dictionary.get(object) & 0xFFFF_FFFFL;
    }

    /** A factor of 0 makes no position: a drive refuses it. */
    static boolean isPositionFactor(DriveObject object) {
        return switch (object) {
            case ENCODER_INCREMENTS, ENCODER_TURNS, GEAR_MOTOR_TURNS, GEAR_SHAFT_TURNS, FEED, FEED_TURNS -> true;
            default -> false;
        };
    }

    /** Values that act at once: limits, supervision, homing, then what was added by hand. */
    static void values(ObjectDictionary dictionary, Axis axis) {
        Scale scale = axis.scale();
        homing(dictionary, axis.homing(), scale);
        limits(dictionary, axis, scale);
        supervision(dictionary, axis.supervision(), scale);
        dictionary.set(ANALOGUE_TORQUE, Math.round(axis.wiring().analogueTorque() * 10));
        StartUp.byHand(dictionary, axis.station());
    }

    private static void homing(ObjectDictionary dictionary, Homing homing, Scale scale) {
        dictionary.set(HOMING_METHOD, homing.method());
        dictionary.set(HOMING_SEARCH_SPEED, scale.wireFromUnits(homing.searchSpeed()));
        dictionary.set(HOMING_CREEP_SPEED, scale.wireFromUnits(homing.creepSpeed()));
        dictionary.set(HOMING_ACCELERATION, scale.wireFromUnits(homing.acceleration()));
        dictionary.set(HOME_OFFSET, -scale.wireFromUnits(homing.zeroOffset()));
        dictionary.set(HARD_STOP_TORQUE, Math.round(homing.stopTorque() * 10));
        dictionary.set(HARD_STOP_TIME, homing.stopTime());
        dictionary.set(HOMING_TIME_LIMIT, Math.round(homing.timeLimit() * 1000));
    }

    private static void limits(ObjectDictionary dictionary, Axis axis, Scale scale) {
        Limits limits = axis.limits();
        dictionary.set(MAX_TORQUE, Math.round(axis.torqueLimit() / axis.motor().ratedTorque() * 1000));
        dictionary.set(MAX_MOTOR_SPEED, Math.round(Math.min(axis.motor().maxSpeed(), scale.motorTurnsPerMinute(limits.max().speed()))));
        dictionary.set(MAX_PROFILE_VELOCITY, scale.wireFromUnits(limits.max().speed()));
        dictionary.set(SOFT_LIMIT_MIN, scale.wireFromUnits(limits.softMin()));
        dictionary.set(SOFT_LIMIT_MAX, scale.wireFromUnits(limits.softMax()));
        dictionary.set(QUICK_STOP_DECELERATION, scale.wireFromUnits(limits.quickStop()));
        dictionary.set(PROFILE_VELOCITY, scale.wireFromUnits(limits.normal().speed()));
        dictionary.set(PROFILE_ACCELERATION, scale.wireFromUnits(limits.normal().acceleration()));
        dictionary.set(PROFILE_DECELERATION, scale.wireFromUnits(limits.normal().deceleration()));
        dictionary.set(PROFILE_JERK, scale.wireFromUnits(limits.normal().jerk()));
        /* our choice: at speed within a hundredth of the default, at rest below a thousandth of it */
        dictionary.set(VELOCITY_WINDOW, Math.min(0xFFFF, scale.wireFromUnits(limits.normal().speed() / 100)));
        dictionary.set(VELOCITY_THRESHOLD, Math.min(0xFFFF, scale.wireFromUnits(limits.normal().speed() / 1000)));
    }

    private static void supervision(ObjectDictionary dictionary, Supervision supervision, Scale scale) {
        dictionary.set(FOLLOWING_WINDOW, scale.wireFromUnits(supervision.followingError()));
        dictionary.set(FOLLOWING_AT_SPEED, scale.wireFromUnits(supervision.followingErrorAtSpeed()));
        dictionary.set(FOLLOWING_FROM_SPEED, scale.wireFromUnits(supervision.followingFrom()));
        dictionary.set(FOLLOWING_TIME, supervision.followingErrorTime());
        dictionary.set(POSITION_WINDOW, scale.wireFromUnits(supervision.positionWindow()));
        dictionary.set(POSITION_WINDOW_TIME, supervision.positionDwell());
        dictionary.set(POSITION_TOLERANCE, supervision.positionTolerance());
        dictionary.set(STANDSTILL_WINDOW, scale.wireFromUnits(supervision.standstillWindow()));
        dictionary.set(STANDSTILL_TIME, supervision.standstillDwell());
    }
}
