package rueda.plcopen;

import java.util.ArrayList;
import java.util.List;
import rueda.plc.run.Frame;
import rueda.plc.run.FunctionBlock.Kind;
import rueda.plc.run.FunctionBlock.Pin;
import rueda.plc.type.Type;

/**
 * MC_PositionProfile, MC_VelocityProfile and MC_AccelerationProfile of PLCopen Motion Control part 1 (from memory): the axis is led along a
 * table over time. The first pair is where it is to be after the first delta_time; what it does when the order comes is the beginning.
 * Scales that are left out are 1.
 *
 * <p>What the specification leaves open: places are joined by a clamped cubic spline that ends at rest, speeds and accelerations by straight
 * lines; behind its table an axis goes on at the last speed.
 */
final class TableBlocks {

    /** Pairs that MC_TP_REF, MC_TV_REF and MC_TA_REF have room for: see motion-types.st. */
    private static final int MOST_PAIRS = 100;

    private final MotionBlocks blocks;

    TableBlocks(MotionBlocks blocks) {
        this.blocks = blocks;
    }

    List<Kind> kinds() {
        return List.of(kind("MC_PositionProfile", "TimePosition", "MC_TP_REF", "PositionScale", TableOrders.Kind.PLACES), kind("MC_VelocityProfile", "TimeVelocity", "MC_TV_REF", "VelocityScale", TableOrders.Kind.SPEEDS),
                kind("MC_AccelerationProfile", "TimeAcceleration", "MC_TA_REF", "AccelerationScale", TableOrders.Kind.ACCELERATIONS));
    }

    private Kind kind(String name, String table, String type, String scale, TableOrders.Kind what) {
        boolean places = what == TableOrders.Kind.PLACES;
        List<Pin> pins = new ArrayList<>(MotionBlocks.executePins(Pin.lent(table, type), Pin.in("TimeScale", Type.REAL), Pin.in(scale, Type.REAL), Pin.in("Offset", Type.LREAL), Pin.in("BufferMode", Type.INT)));
        int done = 7;
        if (!places) {
            pins.set(done, Pin.out("ProfileCompleted", Type.BOOL));
        }
        return new Kind(name, List.copyOf(pins), instance -> blocks.new ExecuteBlock(instance, 5) {
            @Override
            void order(MotionAxis axis, Frame frame, int base) {
                axis.tables().follow(command, table(frame, base), BufferMode.of(frame.memory[base + 6]), this.instance, frame.call, frame.now);
            }

            private TableOrders.Pairs table(Frame frame, int base) {
                long[] m = frame.memory;
                int at = (int) m[base + 2];
                long pairs = m[at];
                if (pairs < 1 || pairs > MOST_PAIRS) {
                    return null;
                }
                double time = orOne(MotionBlocks.real(frame, base + 3));
                double size = orOne(MotionBlocks.real(frame, base + 4));
                double offset = MotionBlocks.real(frame, base + 5);
                int first = at + (places ? 2 : 1);
                double[] seconds = new double[(int) pairs];
                double[] values = new double[(int) pairs];
                for (int i = 0; i < pairs; i++) {
                    seconds[i] = m[first + 2 * i] * 1e-9 * time;
                    values[i] = MotionBlocks.real(frame, first + 2 * i + 1) * size + offset;
                }
                return new TableOrders.Pairs(what, seconds, values, places && m[at + 1] != 0);
            }

            @Override
            public void call(Frame frame, int base) {
                super.call(frame, base);
                if (!places) {
                    frame.memory[base + done] = command.status == MotionCommand.Status.ACTIVE && blocks.axis(frame, base).curveEnded() ? 1 : 0;
                }
            }
        });
    }

    private static double orOne(double scale) {
        return scale == 0 ? 1 : scale;
    }
}
