package rueda.drive;

import static rueda.drive.DriveObject.MAX_PROFILE_VELOCITY;
import static rueda.drive.DriveObject.PROFILE_ACCELERATION;
import static rueda.drive.DriveObject.PROFILE_DECELERATION;
import static rueda.drive.DriveObject.PROFILE_JERK;
import static rueda.drive.DriveObject.PROFILE_VELOCITY;
import static rueda.drive.DriveObject.QUICK_STOP_DECELERATION;
import static rueda.drive.DriveObject.SOFT_LIMIT_MAX;
import static rueda.drive.DriveObject.SOFT_LIMIT_MIN;

/** What the objects say of a motion that the drive plans itself (IEC 61800-7-201), in counts of the drive. No allocation; not thread-safe. */
final class ProfileObjects {

    private final ObjectDictionary dictionary;
    private final DriveUnits units;
    private final Reference reference;

    ProfileObjects(ObjectDictionary dictionary, DriveUnits units, Reference reference) {
        this.dictionary = dictionary;
        this.units = units;
        this.reference = reference;
    }

    /** 6081h, at most 607Fh, counts/s. */
    double velocity() {
        return counts(Math.min(dictionary.get(PROFILE_VELOCITY), dictionary.get(MAX_PROFILE_VELOCITY)));
    }

    /** 6083h, counts/s²; at least the smallest step. */
    double acceleration() {
        return counts(Math.max(1, dictionary.get(PROFILE_ACCELERATION)));
    }

    /** 6084h, counts/s²; at least the smallest step. */
    double deceleration() {
        return counts(Math.max(1, dictionary.get(PROFILE_DECELERATION)));
    }

    /** 60A4h:01, counts/s³; 0 for none. */
    double jerk() {
        return counts(dictionary.get(PROFILE_JERK));
    }

    /** 6085h, counts/s²; at least the smallest step. */
    double quickStop() {
        return counts(Math.max(1, dictionary.get(QUICK_STOP_DECELERATION)));
    }

    /** A wanted speed kept within 607Fh, counts/s. @param wire wire units/s with its sign */
    double limited(long wire) {
        long most = dictionary.get(MAX_PROFILE_VELOCITY);
        return counts(Math.max(-most, Math.min(most, wire)));
    }

    private double counts(long wire) {
        return wire * units.countsPerWireUnit;
    }

    /** The axis has ends and knows where it is: its soft limits hold. */
    boolean bounded() {
        return reference.known() && !reference.endless();
    }

    /** A target kept within 607Dh, wire units. An axis that stands outside may come in, and goes no farther out. @param here wire units */
    long inside(long target, long here) {
        return Math.max(Math.min(dictionary.get(SOFT_LIMIT_MIN), here), Math.min(Math.max(dictionary.get(SOFT_LIMIT_MAX), here), target));
    }

    /** The soft limit in a direction, wire units. */
    long softLimit(double direction) {
        return dictionary.get(direction < 0 ? SOFT_LIMIT_MIN : SOFT_LIMIT_MAX);
    }
}
