package rueda.drive;

import static rueda.drive.DriveObject.PROBE_FUNCTION;
import static rueda.drive.DriveObject.PROBE_STATUS;
import static rueda.drive.ProbeBits.AT_START;
import static rueda.drive.ProbeBits.EVERY_EDGE;
import static rueda.drive.ProbeBits.FALLING;
import static rueda.drive.ProbeBits.HOLDS_FALLING;
import static rueda.drive.ProbeBits.HOLDS_RISING;
import static rueda.drive.ProbeBits.IS_ON;
import static rueda.drive.ProbeBits.ON;
import static rueda.drive.ProbeBits.RISING;
import static rueda.drive.ProbeBits.SECOND;
import static rueda.drive.ProbeBits.SOURCE;

import rueda.machine.Terminal.Function;

/**
 * The two touch probes by IEC 61800-7-201 (objects 60B8h to 60BDh): each keeps the positions at which its input came on and went off.
 *
 * <p>60B8h, eight bits for each probe: on (bit 0), every edge instead of the first one (bit 1), what it listens to (bits 2 and 3; 0, the input, is
 * the only one there is), the rising edge (bit 4), the falling one (bit 5). 60B9h, likewise: it is on (bit 0), a position of the rising edge is
 * held (bit 1), one of the falling edge (bit 2). Switching a probe off, or an edge, lets go of what is held; the next edge after switching on is
 * the first. A probe without a terminal is never on.
 *
 * <p>The device begins with every rising edge of both kept, which the standard leaves to the maker: who never writes 60B8h finds the last one. The
 * position is late by the response time of the terminal. No allocation; not thread-safe.
 */
final class TouchProbes {

    private final ObjectDictionary dictionary;
    private final Probe first;
    private final Probe second;

    TouchProbes(DigitalInputs inputs, ObjectDictionary dictionary) {
        this.dictionary = dictionary;
        first = new Probe(inputs, Function.PROBE_1, DriveObject.PROBE_1_POSITION, DriveObject.PROBE_1_FALLING);
        second = new Probe(inputs, Function.PROBE_2, DriveObject.PROBE_2_POSITION, DriveObject.PROBE_2_FALLING);
        dictionary.set(PROBE_FUNCTION, AT_START);
        observe(0);
    }

    boolean wired() {
        return first.wired || second.wired;
    }

    /** Looks once a sub-step. @param wirePosition where the axis is now, wire units */
    void observe(long wirePosition) {
        int function = (int) dictionary.get(PROBE_FUNCTION);
        first.observe(function, wirePosition);
        second.observe(function >> SECOND, wirePosition);
        dictionary.set(PROBE_STATUS, first.status | second.status << SECOND);
    }

    private final class Probe {
        private final DigitalInputs inputs;
        private final Function terminal;
        private final DriveObject risingPosition;
        private final DriveObject fallingPosition;
        private final boolean wired;
        private boolean before;
        private int status;

        Probe(DigitalInputs inputs, Function terminal, DriveObject risingPosition, DriveObject fallingPosition) {
            this.inputs = inputs;
            this.terminal = terminal;
            this.risingPosition = risingPosition;
            this.fallingPosition = fallingPosition;
            wired = inputs.wired(terminal);
            before = inputs.active(terminal);
        }

        void observe(int function, long wirePosition) {
            boolean now = inputs.active(terminal);
            boolean on = wired && (function & (ON | SOURCE)) == ON;
            status = on ? status | IS_ON : 0;
            keep(function, on && now && !before, RISING, HOLDS_RISING, risingPosition, wirePosition);
            keep(function, on && !now && before, FALLING, HOLDS_FALLING, fallingPosition, wirePosition);
            before = now;
        }

        private void keep(int function, boolean edge, int wanted, int holds, DriveObject place, long wirePosition) {
            if ((function & wanted) == 0) {
                status &= ~holds;
            } else if (edge && ((function & EVERY_EDGE) != 0 || (status & holds) == 0)) {
                dictionary.set(place, wirePosition);
                status |= holds;
            }
        }
    }
}
