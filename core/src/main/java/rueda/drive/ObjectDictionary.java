package rueda.drive;

/**
 * The values of one drive, one {@code long} an object. No allocation; not thread-safe.
 */
public final class ObjectDictionary {

    private final long[] values = new long[DriveObject.values().length];

    public long get(DriveObject object) {
        return values[object.ordinal()];
    }

    /** Stores a value cut to the object's width, as the device does. */
    public void set(DriveObject object, long value) {
        int unused = 64 - object.bits();
        values[object.ordinal()] = object.signed() ? value << unused >> unused : value << unused >>> unused;
    }
}
