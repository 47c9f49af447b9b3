package rueda.plcopen;

import java.util.Arrays;
import java.util.List;
import rueda.plc.run.Frame;
import rueda.plc.run.FunctionBlock;
import rueda.plc.run.FunctionBlock.Kind;
import rueda.plc.run.FunctionBlock.Pin;
import rueda.plc.type.Type;

/**
 * MC_DigitalCamSwitch of PLCopen Motion Control part 1 (from memory): tracks that are on while an axis is between two places, or for a time from
 * a place on. Switches lie as motion-types.st says.
 *
 * <p>A compensation acts on the place: what is switched 20 ms earlier is switched where the axis will be in 20 ms at the speed that it has,
 * {@code p − v·T}. After a switch has changed it does not change again before the axis has gone by its hysteresis.
 */
final class CamSwitchBlock {

    private static final int MOST_SWITCHES = 64;
    private static final int TRACKS = 32;
    /** cells of a switch and of a track in the program's memory */
    private static final int SWITCH_CELLS = 6;
    private static final int TRACK_CELLS = 3;

    private final MotionBlocks blocks;

    CamSwitchBlock(MotionBlocks blocks) {
        this.blocks = blocks;
    }

    List<Kind> kinds() {
        Pin mask = new Pin("EnableMask", Type.DWORD, null, false, false, 0xFFFF_FFFFL);
        return List.of(new Kind("MC_DigitalCamSwitch", List.of(Pin.axis(), Pin.lent("Switches", "MC_CAMSWITCH_REF"), Pin.lent("Outputs", "MC_OUTPUT_REF"), Pin.lent("TrackOptions", "MC_TRACK_REF"), Pin.in("Enable", Type.BOOL), mask,
                Pin.in("ValueSource", Type.INT), Pin.out("InOperation", Type.BOOL), Pin.out("Busy", Type.BOOL), Pin.out("Error", Type.BOOL), Pin.out("ErrorID", Type.WORD)), name -> new Switching()));
    }

    private final class Switching implements FunctionBlock {

        private final boolean[] on = new boolean[MOST_SWITCHES];
        /** the place for switching on, and that for switching off, lay inside in the call before */
        private final boolean[] insideOn = new boolean[MOST_SWITCHES];
        private final boolean[] insideOff = new boolean[MOST_SWITCHES];
        /** where it has changed last, NaN for not yet */
        private final double[] changedAt = new double[MOST_SWITCHES];
        /** of one that is on for a time, ns */
        private final long[] until = new long[MOST_SWITCHES];
        private final boolean[] tracks = new boolean[TRACKS];
        private boolean operates;
        private double placeBefore;
        private long timeBefore;
        private double speed;
        private int direction;

        @Override
        public void call(Frame frame, int base) {
            long[] m = frame.memory;
            MotionAxis axis = blocks.axis(frame, base);
            Boolean actual = FollowingBlocks.Source.actual(m[base + 6]);
            boolean enable = m[base + 4] != 0;
            int switches = (int) m[base + 1];
            MotionError error = !enable ? MotionError.NONE : actual == null ? MotionError.BAD_VALUE : sound(m, switches) ? MotionError.NONE : MotionError.BAD_TABLE;
            boolean runs = enable && error == MotionError.NONE;
            Arrays.fill(tracks, false);
            if (runs) {
                double place = actual ? axis.actualPosition() : axis.commandedPosition();
                observe(axis, place, frame.now);
                for (int i = 0; i < m[switches]; i++) {
                    int track = (int) m[switches + 1 + i * SWITCH_CELLS] - 1;
                    decide(axis, m, i, switches + 1 + i * SWITCH_CELLS, (int) m[base + 3] + track * TRACK_CELLS, place, frame.now);
                    tracks[track] |= on[i];
                }
            } else {
                Arrays.fill(on, false);
            }
            operates = runs;
            int outputs = (int) m[base + 2];
            for (int track = 0; track < TRACKS; track++) {
                m[outputs + track] = tracks[track] && (m[base + 5] >> track & 1) != 0 ? 1 : 0;
            }
            m[base + 7] = runs ? 1 : 0;
            m[base + 8] = runs ? 1 : 0;
            m[base + 9] = error != MotionError.NONE ? 1 : 0;
            m[base + 10] = error.id();
        }

        private boolean sound(long[] m, int at) {
            boolean sound = m[at] >= 0 && m[at] <= MOST_SWITCHES;
            for (int i = 0; sound && i < m[at]; i++) {
                int cell = at + 1 + i * SWITCH_CELLS;
                sound = m[cell] >= 1 && m[cell] <= TRACKS && m[cell + 3] >= 0 && m[cell + 3] <= 2 && (m[cell + 4] == 0 || m[cell + 4] == 1)
                        && Double.isFinite(Double.longBitsToDouble(m[cell + 1])) && Double.isFinite(Double.longBitsToDouble(m[cell + 2]));
            }
            return sound;
        }

        /** How fast the axis is, and which way it went last. */
        private void observe(MotionAxis axis, double place, long now) {
            if (!operates) {
                Arrays.fill(changedAt, Double.NaN);
                Arrays.fill(insideOff, false);
                Arrays.fill(until, 0);
                speed = 0;
                direction = 0;
            } else if (now > timeBefore) {
                double way = axis.way(placeBefore, place);
                speed = way / ((now - timeBefore) * 1e-9);
                direction = way > 0 ? 1 : way < 0 ? -1 : direction;
            }
            placeBefore = place;
            timeBefore = now;
        }

        /** @param cell of the switch  @param options of its track */
        private void decide(MotionAxis axis, long[] m, int i, int cell, int options, double place, long now) {
            double first = Double.longBitsToDouble(m[cell + 1]);
            double last = Double.longBitsToDouble(m[cell + 2]);
            boolean rightWay = m[cell + 3] == 0 || direction == (m[cell + 3] == 1 ? 1 : -1);
            double placeOn = place - speed * m[options] * 1e-9;
            double placeOff = place - speed * m[options + 1] * 1e-9;
            boolean in = axis.lies(placeOn, first, last) && rightWay;
            boolean still = axis.lies(placeOff, first, last) && rightWay;
            double hysteresis = Double.longBitsToDouble(m[options + 2]);
            boolean left = Double.isNaN(changedAt[i]) || Math.abs(axis.way(changedAt[i], place)) > hysteresis || hysteresis == 0;
            boolean entered = in && (!insideOn[i] || !operates);
            boolean leaves = !still && (insideOff[i] || !in);
            if (m[cell + 4] == 1) {
                if (entered && left) {
                    until[i] = now + m[cell + 5];
                    changedAt[i] = place;
                }
                on[i] = now < until[i];
            } else if (left && !on[i] && entered || left && on[i] && leaves) {
                on[i] = !on[i];
                changedAt[i] = place;
            }
            /* a change that the hysteresis holds back is made up when it is left */
            if (left) {
                insideOn[i] = in;
                insideOff[i] = still;
            }
        }
    }
}
