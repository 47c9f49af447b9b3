package rueda.plcopen;

import static rueda.drive.ProbeBits.AT_START;
import static rueda.drive.ProbeBits.EVERY_EDGE;
import static rueda.drive.ProbeBits.FALLING;
import static rueda.drive.ProbeBits.HOLDS_FALLING;
import static rueda.drive.ProbeBits.HOLDS_RISING;
import static rueda.drive.ProbeBits.IS_ON;
import static rueda.drive.ProbeBits.ON;
import static rueda.drive.ProbeBits.RISING;
import static rueda.drive.ProbeBits.SECOND;

import rueda.drive.DriveObject;

/**
 * The touch probes of an axis as MC_TouchProbe uses them: arms one through 60B8h, waits until 60B9h says that it holds a position, and takes
 * that. The position is that of the edge, whenever the answer comes: by mailbox some milliseconds later. 60B8h goes with the process data where
 * it travels there and no tag is bound to it, else by mailbox. With a window every edge is kept and the first position inside is taken: of edges
 * that follow faster than the mailbox answers only the last is seen. No allocation; not thread-safe.
 */
final class ProbeWatch {

    /** Who gives the drive 60B8h. */
    enum Way { MAILBOX, PROCESS_DATA, PROGRAM }

    /** Looks at 60B9h after which what was asked for counts as not done: process data need some cycles. */
    private static final int MOST_LOOKS = 10;

    private final Mailbox mailbox;
    private final ProgramPlaces places;
    private final Probe[] probes = {new Probe(0, DriveObject.PROBE_1_POSITION, DriveObject.PROBE_1_FALLING), new Probe(1, DriveObject.PROBE_2_POSITION, DriveObject.PROBE_2_FALLING)};
    private Way way = Way.MAILBOX;
    /** 60B8h as this side has asked for it */
    private int function = AT_START;

    ProbeWatch(Mailbox mailbox, ProgramPlaces places) {
        this.mailbox = mailbox;
        this.places = places;
    }

    void functionGoes(Way by) {
        way = by;
    }

    int function() {
        return function;
    }

    /**
     * Arms a probe; what was ordered of it before is aborted.
     *
     * @param trigger 1 or 2 for the rising edge of the probe, −1 or −2 for the falling one
     * @param windowed only positions from {@code first} to {@code last}, user units, count
     */
    void arm(MotionCommand command, long trigger, boolean windowed, double first, double last) {
        for (Probe before : probes) {
            before.leave(command);
        }
        Probe probe = probe(trigger);
        boolean bad = probe == null || windowed && (Double.isNaN(first) || Double.isNaN(last));
        if (bad || way == Way.PROGRAM) {
            command.fail(bad ? MotionError.BAD_VALUE : MotionError.PROBE_NOT_OURS);
            return;
        }
        probe.abort();
        probe.arm(command, trigger < 0, windowed, first, last);
    }

    /** Lets a probe go, and aborts what waits for it. @return there is such a probe */
    boolean disarm(long trigger) {
        Probe probe = probe(trigger);
        if (probe != null && probe.step != Step.NONE) {
            probe.abort();
            probe.off();
        }
        return probe != null;
    }

    private Probe probe(long trigger) {
        return Math.abs(trigger) == 1 || Math.abs(trigger) == 2 ? probes[(int) Math.abs(trigger) - 1] : null;
    }

    /** Nothing is wanted of either, nor on its way. */
    boolean idle() {
        return probes[0].step == Step.NONE && probes[1].step == Step.NONE;
    }

    /** One bus cycle. */
    void step() {
        probes[0].step();
        probes[1].step();
    }

    private void ask(int asked) {
        function = asked;
        if (way == Way.MAILBOX) {
            mailbox.write(DriveObject.PROBE_FUNCTION, asked);
        }
    }

    private enum Step { NONE, GOES_OFF, GOES_ON, WAITS, READS }

    private final class Probe {
        private final int shift;
        private final DriveObject rising;
        private final DriveObject falling;
        private Step step = Step.NONE;
        private MotionCommand command;
        private boolean onFalling;
        private boolean windowed;
        private double first;
        private double last;
        private boolean asked;
        private int looks;

        Probe(int number, DriveObject rising, DriveObject falling) {
            this.shift = number * SECOND;
            this.rising = rising;
            this.falling = falling;
        }

        void arm(MotionCommand by, boolean fallingEdge, boolean inWindow, double from, double to) {
            command = by;
            by.begin(MotionCommand.Status.ACTIVE);
            onFalling = fallingEdge;
            windowed = inWindow;
            first = from;
            last = to;
            off();
            go(Step.GOES_OFF);
        }

        void off() {
            ask(function & ~(0xFF << shift));
            step = Step.NONE;
        }

        /** The block has another order for its probe, or for another one: this one is not its any more. */
        void leave(MotionCommand by) {
            if (command == by) {
                command = null;
                off();
            }
        }

        void abort() {
            if (command != null) {
                command.status = MotionCommand.Status.ABORTED;
                command = null;
            }
        }

        private void go(Step next) {
            step = next;
            looks = 0;
            asked = false;
        }

        void step() {
            if (step == Step.NONE || !mailbox.written()) {
                return;
            }
            DriveObject wanted = step == Step.READS ? onFalling ? falling : rising : DriveObject.PROBE_STATUS;
            if (!asked) {
                mailbox.read(wanted);
                asked = true;
                return;
            }
            if (!mailbox.answered(wanted)) {
                return;
            }
            long answer = mailbox.read(wanted);
            int status = (int) answer >> shift;
            switch (step) {
                case GOES_OFF -> {
                    if ((status & IS_ON) == 0) {
                        ask(function | (ON | (windowed ? EVERY_EDGE : 0) | (onFalling ? FALLING : RISING)) << shift);
                        go(Step.GOES_ON);
                    } else {
                        failAfter(MotionError.PROBE_NOT_OURS);
                    }
                }
                case GOES_ON -> {
                    if ((status & IS_ON) != 0) {
                        go(holds(status) ? Step.READS : Step.WAITS);
                    } else {
                        failAfter(MotionError.NO_PROBE);
                    }
                }
                case WAITS -> {
                    if (holds(status)) {
                        go(Step.READS);
                    }
                }
                case READS -> {
                    double position = places.units(answer);
                    if (!windowed || places.lies(position, first, last)) {
                        command.recorded = position;
                        command.status = MotionCommand.Status.DONE;
                        command = null;
                        /* what is held stays to be seen until the probe is armed anew */
                        step = Step.NONE;
                    } else {
                        go(Step.WAITS);
                    }
                }
                default -> throw new IllegalStateException(step.name());
            }
        }

        private boolean holds(int status) {
            return (status & (onFalling ? HOLDS_FALLING : HOLDS_RISING)) != 0;
        }

        private void failAfter(MotionError reason) {
            if (++looks >= MOST_LOOKS) {
                command.fail(reason);
                command = null;
                off();
            }
        }
    }
}
