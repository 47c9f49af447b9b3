package rueda.drive;

import static rueda.drive.DriveObject.PROBE_1_POSITION;
import static rueda.drive.DriveObject.PROBE_2_POSITION;
import static rueda.drive.DriveObject.PROBE_STATUS;

import rueda.machine.Terminal.Function;

/**
 * The two touch probes: each keeps the position at which its input came on (60BAh, 60BCh) and says in 60B9h that it is
 * switched on (bit 0, 8) and that it holds a position (bit 1, 9). A probe is on when a terminal has its function. The
 * position is late by the response time of the terminal. No allocation; not thread-safe.
 */
final class TouchProbes {

    private final DigitalInputs inputs;
    private final ObjectDictionary dictionary;
    private final boolean wired;
    private boolean before1;
    private boolean before2;

    TouchProbes(DigitalInputs inputs, ObjectDictionary dictionary) {
        this.inputs = inputs;
        this.dictionary = dictionary;
        wired = inputs.wired(Function.PROBE_1) || inputs.wired(Function.PROBE_2);
        before1 = inputs.active(Function.PROBE_1);
        before2 = inputs.active(Function.PROBE_2);
        dictionary.set(PROBE_STATUS, (inputs.wired(Function.PROBE_1) ? 1 : 0) | (inputs.wired(Function.PROBE_2) ? 1 << 8 : 0));
    }

    boolean wired() {
        return wired;
    }

    /** Looks once a sub-step. @param wirePosition where the axis is now, wire units */
    void observe(long wirePosition) {
        boolean now1 = inputs.active(Function.PROBE_1);
        boolean now2 = inputs.active(Function.PROBE_2);
        if (now1 && !before1) {
            dictionary.set(PROBE_1_POSITION, wirePosition);
            dictionary.set(PROBE_STATUS, dictionary.get(PROBE_STATUS) | 1 << 1);
        }
        if (now2 && !before2) {
            dictionary.set(PROBE_2_POSITION, wirePosition);
            dictionary.set(PROBE_STATUS, dictionary.get(PROBE_STATUS) | 1 << 9);
        }
        before1 = now1;
        before2 = now2;
    }
}
