package rueda.plcopen;

import rueda.drive.DriveObject;

/**
 * What a PLC asks of a drive besides its process data: reading and writing of objects one after the other, each answered after a while.
 * No allocation; not thread-safe.
 */
public interface Mailbox {

    /** Asks to write an object; a write of the same object that still waits takes this value instead. */
    void write(DriveObject object, long value);

    /** The answer to the last reading that was asked for, 0 before the first; asks again once that has been answered. */
    long read(DriveObject object);

    /** The reading of this object that was asked for last has been answered: nothing of it is on its way. */
    boolean answered(DriveObject object);

    /** Nothing that was asked to be written is still on its way. */
    boolean written();
}
