package rueda.plcopen;

import java.util.List;
import rueda.plc.run.Frame;
import rueda.plc.run.FunctionBlock;
import rueda.plc.run.FunctionBlock.Kind;
import rueda.plc.run.FunctionBlock.Pin;
import rueda.plc.type.Type;

/**
 * MC_WriteParameter, MC_WriteBoolParameter and MC_WriteDigitalOutput of PLCopen Motion Control part 1 (numbers of parameters from memory). What
 * is written acts from the next order on.
 */
final class WritingBlocks {

    private final MotionBlocks blocks;

    WritingBlocks(MotionBlocks blocks) {
        this.blocks = blocks;
    }

    List<Kind> kinds() {
        return List.of(parameter("MC_WriteParameter", Type.LREAL), parameter("MC_WriteBoolParameter", Type.BOOL), digitalOutput());
    }

    private static List<Pin> pins(String number, Type value) {
        return List.of(Pin.axis(), Pin.in("Execute", Type.BOOL), Pin.in(number, Type.INT), Pin.in("Value", value), Pin.out("Done", Type.BOOL), Pin.out("Busy", Type.BOOL), Pin.out("Error", Type.BOOL), Pin.out("ErrorID", Type.WORD));
    }

    private Kind parameter(String block, Type value) {
        return new Kind(block, pins("ParameterNumber", value), name -> blocks.new AtOnceBlock(4, 7) {
            @Override
            MotionError carryOut(MotionAxis axis, long[] m, int base) {
                return value == Type.BOOL ? axis.watch(m[base + 2], m[base + 3] != 0) : axis.write(m[base + 2], Double.longBitsToDouble(m[base + 3]));
            }
        });
    }

    private Kind digitalOutput() {
        return new Kind("MC_WriteDigitalOutput", pins("OutputNumber", Type.BOOL), name -> new OutputBlock());
    }

    /** Done when the drive has it. */
    private final class OutputBlock implements FunctionBlock {
        private boolean before;
        private boolean busy;
        private MotionAxis asked;
        private long number;
        private boolean level;

        @Override
        public void call(Frame frame, int base) {
            long[] m = frame.memory;
            MotionAxis axis = blocks.axis(frame, base);
            if (busy && axis != asked) {
                /* its device has begun anew, and knows nothing of the order */
                ask(axis);
            }
            boolean execute = m[base + 1] != 0;
            if (!execute && !busy) {
                show(m, base, false, MotionError.NONE);
            }
            if (execute && !before) {
                busy = axis.setsOutput(m[base + 2]);
                show(m, base, false, busy ? MotionError.NONE : MotionError.NO_OUTPUT);
                if (busy) {
                    number = m[base + 2];
                    level = m[base + 3] != 0;
                    ask(axis);
                }
            } else if (busy && axis.written()) {
                busy = false;
                show(m, base, true, MotionError.NONE);
            }
            before = execute;
        }

        private void ask(MotionAxis axis) {
            asked = axis;
            axis.setOutput(number, level);
        }

        private void show(long[] m, int base, boolean done, MotionError error) {
            m[base + 4] = done ? 1 : 0;
            m[base + 5] = busy ? 1 : 0;
            m[base + 6] = error != MotionError.NONE ? 1 : 0;
            m[base + 7] = error.id();
        }
    }
}
