package rueda.plcopen;

import java.util.ArrayList;
import java.util.List;
import rueda.plc.run.Frame;
import rueda.plc.run.FunctionBlock.Kind;
import rueda.plc.run.FunctionBlock.Pin;
import rueda.plc.type.Type;
import rueda.profile.CamTable;

/**
 * MC_CamTableSelect, MC_CamIn and MC_CamOut of PLCopen Motion Control part 1 (from memory). A selected table is a copy: what the program
 * writes into its points later acts when it is selected again, and at the next MC_CamIn.
 *
 * <p>What the specification leaves to the maker: the points are those of motion-types.st, scalings left out are 1, and a follower that is not
 * at its place when it is coupled makes that up with its own accelerations and its catch-up limit, as when it follows at a ratio.
 */
final class CamBlocks {

    /** Points that MC_CAM_REF has room for, and cells of each. */
    private static final int MOST_POINTS = 256;
    private static final int POINT_CELLS = 3;

    private final MotionBlocks blocks;
    /** by their number, from 1; each instance of MC_CamTableSelect has one */
    private final List<CamSelection> selected = new ArrayList<>();

    CamBlocks(MotionBlocks blocks) {
        this.blocks = blocks;
    }

    List<Kind> kinds() {
        return List.of(select(), in(), new FollowingBlocks(blocks).letGo("MC_CamOut"));
    }

    private Kind select() {
        List<Pin> pins = List.of(Pin.axis("Master"), Pin.axis("Slave"), Pin.lent("CamTable", "MC_CAM_REF"), Pin.in("Execute", Type.BOOL), Pin.in("Periodic", Type.BOOL), Pin.in("MasterAbsolute", Type.BOOL), Pin.in("SlaveAbsolute", Type.BOOL),
                Pin.out("Done", Type.BOOL), Pin.out("Busy", Type.BOOL), Pin.out("Error", Type.BOOL), Pin.out("ErrorID", Type.WORD), Pin.out("CamTableID", Type.DINT));
        return new Kind("MC_CamTableSelect", pins, name -> {
            selected.add(null);
            int number = selected.size();
            return blocks.new AtOnceBlock(7, 10) {
                @Override
                int execute() {
                    return 3;
                }

                @Override
                MotionError carryOut(MotionAxis master, long[] m, int base) {
                    CamTable table = table(m, (int) m[base + 2], m[base + 4] != 0);
                    if (table == null) {
                        return MotionError.BAD_TABLE;
                    }
                    selected.set(number - 1, new CamSelection(table, m[base + 5] != 0, m[base + 6] != 0));
                    m[base + 11] = number;
                    return MotionError.NONE;
                }
            };
        });
    }

    private static CamTable table(long[] m, int at, boolean periodic) {
        long count = m[at];
        if (count < 2 || count > MOST_POINTS) {
            return null;
        }
        double[] x = new double[(int) count];
        double[] y = new double[(int) count];
        CamTable.Law[] laws = new CamTable.Law[(int) count];
        for (int i = 0; i < count; i++) {
            int cell = at + 1 + i * POINT_CELLS;
            x[i] = Double.longBitsToDouble(m[cell]);
            y[i] = Double.longBitsToDouble(m[cell + 1]);
            if (m[cell + 2] < 0 || m[cell + 2] >= CamTable.Law.values().length) {
                return null;
            }
            laws[i] = CamTable.Law.values()[(int) m[cell + 2]];
        }
        return CamTable.sound(x, y) ? new CamTable(x, y, laws, periodic) : null;
    }

    private CamSelection selection(long number) {
        return number >= 1 && number <= selected.size() ? selected.get((int) number - 1) : null;
    }

    /** EndOfProfile stands for one call when a round of a periodic table is done, and as long as the master is past the end of another one. */
    private Kind in() {
        List<Pin> pins = FollowingBlocks.pins("InSync", Pin.in("MasterOffset", Type.LREAL), Pin.in("SlaveOffset", Type.LREAL), Pin.in("MasterScaling", Type.LREAL), Pin.in("SlaveScaling", Type.LREAL), Pin.in("MasterValueSource", Type.INT),
                Pin.in("CamTableID", Type.DINT), Pin.in("BufferMode", Type.INT));
        pins.add(Pin.out("EndOfProfile", Type.BOOL));
        return new Kind("MC_CamIn", List.copyOf(pins), name -> blocks.new FollowerBlock(name, 7, 0) {
            private long roundBefore;
            /** its rounds count from when it begins, which is later where it waits */
            private boolean begins;

            @Override
            void order(MotionAxis axis, Frame frame, int base) {
                long[] m = frame.memory;
                axis.following().camIn(command, master(frame, base), FollowingBlocks.Source.actual(m[base + 6]), selection(m[base + 7]), value(frame, base + 2), value(frame, base + 3), value(frame, base + 4), value(frame, base + 5),
                        BufferMode.of(m[base + 8]), instance, frame.call, frame.now);
                begins = true;
            }

            @Override
            void reached(MotionAxis axis, long[] m, int done) {
                long round = axis.following().camRound();
                m[done] = axis.following().inGear() ? 1 : 0;
                m[done + 6] = round != roundBefore && !begins || axis.following().camEnded() ? 1 : 0;
                roundBefore = round;
                begins = false;
            }

            @Override
            void ended(long[] m, int done) {
                m[done + 6] = 0;
            }
        });
    }
}
