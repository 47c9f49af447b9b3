package rueda.plcopen;

import java.util.ArrayList;
import java.util.List;
import rueda.plc.run.Frame;
import rueda.plc.run.FunctionBlock.Kind;
import rueda.plc.run.FunctionBlock.Pin;
import rueda.plc.type.Type;

/**
 * MC_MoveContinuousAbsolute and MC_MoveContinuousRelative of PLCopen Motion Control part 1 (from memory): a move that does not end at its
 * target but goes on there at a speed, until something else is ordered. Up to the target the axis is in discrete motion, behind it in
 * continuous motion.
 */
final class ContinuousBlocks {

    private final MotionBlocks blocks;

    ContinuousBlocks(MotionBlocks blocks) {
        this.blocks = blocks;
    }

    List<Kind> kinds() {
        return List.of(kind("MC_MoveContinuousAbsolute", "Position", false), kind("MC_MoveContinuousRelative", "Distance", true));
    }

    private Kind kind(String name, String target, boolean relative) {
        List<Pin> inputs = new ArrayList<>(List.of(Pin.in(target, Type.LREAL), Pin.in("EndVelocity", Type.LREAL), Pin.in("EndVelocityDirection", Type.INT), Pin.in("Velocity", Type.LREAL), Pin.in("Acceleration", Type.LREAL),
                Pin.in("Deceleration", Type.LREAL), Pin.in("Jerk", Type.LREAL), Pin.in("BufferMode", Type.INT)));
        if (!relative) {
            inputs.add(Pin.in("Direction", Type.INT));
        }
        List<Pin> pins = new ArrayList<>(MotionBlocks.executePins(inputs.toArray(Pin[]::new)));
        int done = 2 + inputs.size();
        pins.set(done, Pin.out("InEndVelocity", Type.BOOL));
        return new Kind(name, List.copyOf(pins), instance -> blocks.new ExecuteBlock(instance, inputs.size()) {
            @Override
            void order(MotionAxis axis, Frame frame, int base) {
                long[] m = frame.memory;
                Direction behind = m[base + 4] == 0 ? Direction.CURRENT : Direction.of(m[base + 4]);
                axis.moves().moveAndRunOn(command, MotionBlocks.real(frame, base + 2), relative, relative ? Direction.SHORTEST : Direction.of(m[base + 10]), MotionBlocks.real(frame, base + 3), behind, BufferMode.of(m[base + 9]),
                        MotionBlocks.real(frame, base + 5), MotionBlocks.real(frame, base + 6), MotionBlocks.real(frame, base + 7), MotionBlocks.real(frame, base + 8), this.instance, frame.call, frame.now);
            }

            @Override
            public void call(Frame frame, int base) {
                super.call(frame, base);
                frame.memory[base + done] = command.status == MotionCommand.Status.ACTIVE && blocks.axis(frame, base).inVelocity() ? 1 : 0;
            }
        });
    }
}
