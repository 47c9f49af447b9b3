package rueda.plcopen;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.ToDoubleFunction;
import rueda.plc.Environment;
import rueda.plc.run.Frame;
import rueda.plc.run.FunctionBlock;
import rueda.plc.run.FunctionBlock.Kind;
import rueda.plc.run.FunctionBlock.Pin;
import rueda.plc.run.ProgramFault;
import rueda.plc.type.Type;

/**
 * MC_Power, MC_Reset, MC_Home, MC_SetPosition, MC_MoveAbsolute, MC_MoveRelative, MC_MoveAdditive, MC_MoveSuperimposed, MC_HaltSuperimposed, MC_MoveVelocity, MC_Halt, MC_Stop, MC_SetOverride,
 * MC_TorqueControl, MC_TouchProbe, MC_AbortTrigger, MC_ReadActualPosition, MC_ReadActualVelocity, MC_ReadActualTorque, MC_ReadStatus and MC_ReadAxisError of PLCopen Motion
 * Control part 1; {@link FollowingBlocks} and {@link CamBlocks} are those of a follower, {@link TableBlocks} moves along a table over time, {@link ReadingBlocks},
 * {@link WritingBlocks} and {@link CamSwitchBlock} what moves nothing.
 *
 * <p>Blocks with Execute follow the specification's general rules: a rising edge gives the order; Busy from then
 * until Done, CommandAborted or Error; these three stay while Execute is true, and for one call when it has
 * fallen before. An instance used again before it is done takes its own order over. With ContinuousUpdate true at that edge, inputs that change
 * while the block is busy are taken at once. BufferMode says when a move begins while another one runs; one order can wait.
 *
 * <p>The specification leaves MC_TRIGGER_REF to the maker: here it is a number, 1 or 2 for the rising edge of that touch probe, −1 or −2 for its
 * falling edge.
 */
public final class MotionBlocks {

    private final MotionAxis[] axes;

    private MotionBlocks(MotionAxis[] axes) {
        this.axes = axes;
    }

    /** The kinds of block for these axes. The array is filled by the bench before the first call. */
    public static List<Kind> kinds(MotionAxis[] axes) {
        MotionBlocks blocks = new MotionBlocks(axes);
        List<Kind> kinds = new ArrayList<>(List.of(blocks.power(), blocks.reset(), blocks.home(), blocks.setPosition(), blocks.touchProbe(), blocks.abortTrigger(), blocks.move("MC_MoveAbsolute", "Position", false),
                blocks.move("MC_MoveRelative", "Distance", true), blocks.additive(), blocks.superimposed(), blocks.haltSuperimposed(), blocks.velocity(), blocks.halt(), blocks.stop(), blocks.override(), blocks.torque(),
                blocks.read("MC_ReadActualPosition", "Position", MotionAxis::actualPosition), blocks.read("MC_ReadActualVelocity", "Velocity", MotionAxis::actualVelocity), blocks.read("MC_ReadActualTorque", "Torque", MotionAxis::actualTorque),
                blocks.readStatus(), blocks.readError()));
        kinds.addAll(new ContinuousBlocks(blocks).kinds());
        kinds.addAll(new TableBlocks(blocks).kinds());
        kinds.addAll(new ReadingBlocks(blocks).kinds());
        kinds.addAll(new WritingBlocks(blocks).kinds());
        kinds.addAll(new CamSwitchBlock(blocks).kinds());
        kinds.addAll(new FollowingBlocks(blocks).kinds());
        kinds.addAll(new CamBlocks(blocks).kinds());
        return List.copyOf(kinds);
    }

    MotionAxis axis(Frame frame, int base) {
        return axes[number(frame, base)];
    }

    /** @throws ProgramFault when the variable that was given holds no axis */
    static int number(Frame frame, int pin) {
        long number = frame.memory[pin];
        if (number < 0) {
            throw new ProgramFault("The variable of type AXIS_REF holds no axis: assign one of the machine's axes first.");
        }
        return (int) number;
    }

    static double real(Frame frame, int slot) {
        return Double.longBitsToDouble(frame.memory[slot]);
    }

    private static long bit(boolean value) {
        return value ? 1 : 0;
    }

    private Kind power() {
        List<Pin> pins = List.of(Pin.axis(), Pin.in("Enable", Type.BOOL), Pin.out("Status", Type.BOOL),
                Pin.out("Valid", Type.BOOL), Pin.out("Error", Type.BOOL), Pin.out("ErrorID", Type.WORD));
        return new Kind("MC_Power", pins, name -> (frame, base) -> {
            MotionAxis axis = axis(frame, base);
            long[] m = frame.memory;
            axis.power(m[base + 1] != 0);
            boolean closed = axis.closed() == MotionError.NOT_COMMANDED;
            boolean failed = closed || axis.state() == AxisState.ERROR_STOP;
            m[base + 2] = bit(axis.enabled() && !closed);
            m[base + 3] = bit(m[base + 1] != 0 && !failed);
            m[base + 4] = bit(failed);
            m[base + 5] = closed ? MotionError.NOT_COMMANDED.id() : failed ? axis.error().id() : 0;
        });
    }

    private Kind reset() {
        List<Pin> pins = List.of(Pin.axis(), Pin.in("Execute", Type.BOOL), Pin.out("Done", Type.BOOL),
                Pin.out("Busy", Type.BOOL), Pin.out("Error", Type.BOOL), Pin.out("ErrorID", Type.WORD));
        return new Kind("MC_Reset", pins, name -> new FunctionBlock() {
            private boolean before;
            private boolean busy;

            @Override
            public void call(Frame frame, int base) {
                MotionAxis axis = axis(frame, base);
                long[] m = frame.memory;
                boolean execute = m[base + 1] != 0;
                if (!execute && !busy) {
                    m[base + 2] = 0;
                }
                if (execute && !before) {
                    axis.reset();
                    busy = true;
                    m[base + 2] = 0;
                } else if (busy && !axis.resetPending()) {
                    busy = false;
                    m[base + 2] = 1;
                }
                m[base + 3] = bit(busy);
                before = execute;
            }
        });
    }

    private Kind home() {
        return new Kind("MC_Home", executePins(Pin.optional("Position")), name -> new ExecuteBlock(name, 1) {
            @Override
            void order(MotionAxis axis, Frame frame, int base) {
                axis.home(command, real(frame, base + 2), instance, frame.call, frame.now);
            }
        });
    }

    /** Position is where the axis is from now on, or with Relative by how much that grows. */
    private Kind setPosition() {
        List<Pin> pins = List.of(Pin.axis(), Pin.in("Execute", Type.BOOL), Pin.in("Position", Type.LREAL), Pin.in("Relative", Type.BOOL), Pin.out("Done", Type.BOOL), Pin.out("Busy", Type.BOOL), Pin.out("Error", Type.BOOL), Pin.out("ErrorID", Type.WORD));
        return new Kind("MC_SetPosition", pins, name -> new AtOnceBlock(4, 7) {
            @Override
            MotionError carryOut(MotionAxis axis, long[] m, int base) {
                return axis.setPosition(Double.longBitsToDouble(m[base + 2]), m[base + 3] != 0);
            }
        });
    }

    private Kind abortTrigger() {
        List<Pin> pins = List.of(Pin.axis(), Pin.in("TriggerInput", Type.INT), Pin.in("Execute", Type.BOOL), Pin.out("Done", Type.BOOL), Pin.out("Busy", Type.BOOL), Pin.out("Error", Type.BOOL), Pin.out("ErrorID", Type.WORD));
        return new Kind("MC_AbortTrigger", pins, name -> new AtOnceBlock(3, 6) {
            @Override
            int execute() {
                return 2;
            }

            @Override
            MotionError carryOut(MotionAxis axis, long[] m, int base) {
                return axis.probes().disarm(m[base + 1]) ? MotionError.NONE : MotionError.BAD_VALUE;
            }
        });
    }

    private Kind touchProbe() {
        List<Pin> pins = new ArrayList<>(executePins(Pin.in("TriggerInput", Type.INT), Pin.in("WindowOnly", Type.BOOL), Pin.in("FirstPosition", Type.LREAL), Pin.in("LastPosition", Type.LREAL)));
        pins.add(Pin.out("RecordedPosition", Type.LREAL));
        return new Kind("MC_TouchProbe", List.copyOf(pins), name -> new ExecuteBlock(name, 4) {
            @Override
            void order(MotionAxis axis, Frame frame, int base) {
                axis.probes().arm(command, frame.memory[base + 2], frame.memory[base + 3] != 0, real(frame, base + 4), real(frame, base + 5));
            }

            @Override
            public void call(Frame frame, int base) {
                super.call(frame, base);
                if (command.status == MotionCommand.Status.DONE) {
                    frame.memory[base + 12] = Double.doubleToRawLongBits(command.recorded);
                }
            }
        });
    }

    private Kind move(String name, String target, boolean relative) {
        List<Pin> inputs = new ArrayList<>(List.of(Pin.in(target, Type.LREAL), Pin.in("Velocity", Type.LREAL),
                Pin.in("Acceleration", Type.LREAL), Pin.in("Deceleration", Type.LREAL), Pin.in("Jerk", Type.LREAL)));
        if (!relative) {
            inputs.add(Pin.in("Direction", Type.INT));
        }
        int mode = inputs.size() + 2;
        inputs.addAll(BUFFER_PINS);
        return new Kind(name, executePins(inputs.toArray(Pin[]::new)), instanceName -> new ExecuteBlock(instanceName, inputs.size(), mode + 1) {
            @Override
            void order(MotionAxis axis, Frame frame, int base) {
                axis.moves().move(command, real(frame, base + 2), relative, relative ? Direction.SHORTEST : Direction.of(frame.memory[base + 7]), BufferMode.of(frame.memory[base + mode]),
                        real(frame, base + 3), real(frame, base + 4), real(frame, base + 5), real(frame, base + 6), instance, frame.call, frame.now);
            }

            @Override
            void orderAgain(MotionAxis axis, Frame frame, int base) {
                if (relative) {
                    distanceAgain(axis, frame, base, mode);
                } else {
                    order(axis, frame, base);
                }
            }
        });
    }

    private Kind additive() {
        List<Pin> pins = executePins(Pin.in("Distance", Type.LREAL), Pin.in("Velocity", Type.LREAL), Pin.in("Acceleration", Type.LREAL), Pin.in("Deceleration", Type.LREAL), Pin.in("Jerk", Type.LREAL), BUFFER_PINS.get(0), BUFFER_PINS.get(1));
        return new Kind("MC_MoveAdditive", pins, name -> new ExecuteBlock(name, 7, 8) {
            @Override
            void orderAgain(MotionAxis axis, Frame frame, int base) {
                distanceAgain(axis, frame, base, 7);
            }

            @Override
            void order(MotionAxis axis, Frame frame, int base) {
                axis.moves().moveAdditive(command, real(frame, base + 2), BufferMode.of(frame.memory[base + 7]), real(frame, base + 3), real(frame, base + 4), real(frame, base + 5), real(frame, base + 6), instance, frame.call, frame.now);
            }
        });
    }

    /** CoveredDistance is what has been added so far; it stays when the order has ended. */
    private Kind superimposed() {
        List<Pin> pins = new ArrayList<>(executePins(Pin.in("Distance", Type.LREAL), Pin.in("VelocityDiff", Type.LREAL), Pin.in("Acceleration", Type.LREAL), Pin.in("Deceleration", Type.LREAL), Pin.in("Jerk", Type.LREAL), BUFFER_PINS.get(1)));
        pins.add(Pin.out("CoveredDistance", Type.LREAL));
        return new Kind("MC_MoveSuperimposed", List.copyOf(pins), name -> new ExecuteBlock(name, 6, 7) {
            private boolean busyBefore;

            @Override
            void order(MotionAxis axis, Frame frame, int base) {
                axis.superimposed().move(command, real(frame, base + 2), real(frame, base + 3), real(frame, base + 4), real(frame, base + 5), real(frame, base + 6), instance, frame.call, frame.now);
            }

            @Override
            public void call(Frame frame, int base) {
                super.call(frame, base);
                boolean busy = command.busy();
                if (busy || busyBefore) {
                    frame.memory[base + 14] = Double.doubleToRawLongBits(axis(frame, base).superimposed().covered(command));
                }
                busyBefore = busy;
            }
        });
    }

    private Kind haltSuperimposed() {
        List<Pin> pins = executePins(Pin.in("Deceleration", Type.LREAL), Pin.in("Jerk", Type.LREAL));
        return new Kind("MC_HaltSuperimposed", pins, name -> new ExecuteBlock(name, 2) {
            @Override
            void order(MotionAxis axis, Frame frame, int base) {
                axis.superimposed().halt(command, real(frame, base + 2), real(frame, base + 3), instance, frame.call, frame.now);
            }
        });
    }

    /** InVelocity stands where other blocks have Done: the order runs on. */
    private Kind velocity() {
        List<Pin> pins = new ArrayList<>(executePins(Pin.in("Velocity", Type.LREAL), Pin.in("Acceleration", Type.LREAL), Pin.in("Deceleration", Type.LREAL), Pin.in("Jerk", Type.LREAL), Pin.in("Direction", Type.INT), BUFFER_PINS.get(0), BUFFER_PINS.get(1)));
        pins.set(9, Pin.out("InVelocity", Type.BOOL));
        return new Kind("MC_MoveVelocity", List.copyOf(pins), name -> new ExecuteBlock(name, 7, 8) {
            @Override
            void order(MotionAxis axis, Frame frame, int base) {
                long direction = frame.memory[base + 6];
                axis.moves().moveVelocity(command, real(frame, base + 2), real(frame, base + 3), real(frame, base + 4), real(frame, base + 5), direction == 0 ? Direction.POSITIVE : Direction.of(direction),
                        BufferMode.of(frame.memory[base + 7]), instance, frame.call, frame.now);
            }

            @Override
            public void call(Frame frame, int base) {
                super.call(frame, base);
                frame.memory[base + 9] = bit(command.status == MotionCommand.Status.ACTIVE && axis(frame, base).inVelocity());
            }
        });
    }

    private Kind stop() {
        List<Pin> pins = executePins(Pin.in("Deceleration", Type.LREAL), Pin.in("Jerk", Type.LREAL));
        return new Kind("MC_Stop", pins, name -> new ExecuteBlock(name, 2) {
            @Override
            void order(MotionAxis axis, Frame frame, int base) {
                axis.stop(command, real(frame, base + 2), real(frame, base + 3), instance, frame.call, frame.now);
            }

            @Override
            public void call(Frame frame, int base) {
                super.call(frame, base);
                if (frame.memory[base + 1] == 0) {
                    axis(frame, base).releaseStop(command);
                }
            }
        });
    }

    /** VelFactor from 0 to 1; the last one given stays when Enable goes. */
    private Kind override() {
        List<Pin> pins = List.of(Pin.axis(), Pin.in("Enable", Type.BOOL), Pin.in("VelFactor", Type.REAL), Pin.out("Enabled", Type.BOOL), Pin.out("Busy", Type.BOOL), Pin.out("Error", Type.BOOL), Pin.out("ErrorID", Type.WORD));
        return new Kind("MC_SetOverride", pins, name -> (frame, base) -> {
            long[] m = frame.memory;
            boolean enable = m[base + 1] != 0;
            double factor = Double.longBitsToDouble(m[base + 2]);
            boolean bad = enable && !(factor >= 0 && factor <= 1);
            if (enable && !bad) {
                axis(frame, base).override(factor);
            }
            m[base + 3] = bit(enable && !bad);
            m[base + 4] = bit(enable && !bad);
            m[base + 5] = bit(bad);
            m[base + 6] = bad ? MotionError.BAD_VALUE.id() : 0;
        });
    }

    /** A value that is read as long as Enable stands. */
    private Kind read(String name, String pin, ToDoubleFunction<MotionAxis> value) {
        List<Pin> pins = List.of(Pin.axis(), Pin.in("Enable", Type.BOOL), Pin.out("Valid", Type.BOOL), Pin.out("Busy", Type.BOOL), Pin.out("Error", Type.BOOL), Pin.out("ErrorID", Type.WORD), Pin.out(pin, Type.LREAL));
        return new Kind(name, pins, instance -> (frame, base) -> {
            long[] m = frame.memory;
            boolean enable = m[base + 1] != 0;
            m[base + 2] = bit(enable);
            m[base + 3] = bit(enable);
            if (enable) {
                m[base + 6] = Double.doubleToRawLongBits(value.applyAsDouble(axis(frame, base)));
            }
        });
    }

    private Kind readError() {
        List<Pin> pins = List.of(Pin.axis(), Pin.in("Enable", Type.BOOL), Pin.out("Valid", Type.BOOL), Pin.out("Busy", Type.BOOL), Pin.out("Error", Type.BOOL), Pin.out("ErrorID", Type.WORD), Pin.out("AxisErrorID", Type.WORD));
        return new Kind("MC_ReadAxisError", pins, name -> (frame, base) -> {
            long[] m = frame.memory;
            boolean enable = m[base + 1] != 0;
            m[base + 2] = bit(enable);
            m[base + 3] = bit(enable);
            m[base + 6] = enable && axis(frame, base).state() == AxisState.ERROR_STOP ? axis(frame, base).error().id() : 0;
        });
    }

    private Kind halt() {
        List<Pin> pins = executePins(Pin.in("Deceleration", Type.LREAL), Pin.in("Jerk", Type.LREAL));
        return new Kind("MC_Halt", pins, name -> new ExecuteBlock(name, 2) {
            @Override
            void order(MotionAxis axis, Frame frame, int base) {
                axis.halt(command, real(frame, base + 2), real(frame, base + 3), instance, frame.call, frame.now);
            }
        });
    }

    /** InTorque stands where other blocks have Done: the order runs on. */
    private Kind torque() {
        List<Pin> pins = new ArrayList<>(executePins(Pin.in("Torque", Type.LREAL), Pin.in("TorqueRamp", Type.LREAL), Pin.in("Velocity", Type.LREAL), BUFFER_PINS.get(1)));
        pins.set(6, Pin.out("InTorque", Type.BOOL));
        return new Kind("MC_TorqueControl", List.copyOf(pins), name -> new ExecuteBlock(name, 4, 5) {
            @Override
            void order(MotionAxis axis, Frame frame, int base) {
                axis.torque(command, real(frame, base + 2), real(frame, base + 3), real(frame, base + 4), instance, frame.call, frame.now);
            }

            @Override
            public void call(Frame frame, int base) {
                super.call(frame, base);
                frame.memory[base + 6] = bit(command.status == MotionCommand.Status.ACTIVE && axis(frame, base).inTorque());
            }
        });
    }

    private static final List<Pin> BUFFER_PINS = List.of(Pin.in("BufferMode", Type.INT), Pin.in("ContinuousUpdate", Type.BOOL));

    static List<Pin> executePins(Pin... inputs) {
        List<Pin> pins = new ArrayList<>(List.of(Pin.axis(), Pin.in("Execute", Type.BOOL)));
        pins.addAll(List.of(inputs));
        pins.addAll(List.of(Pin.out("Done", Type.BOOL), Pin.out("Busy", Type.BOOL), Pin.out("Active", Type.BOOL),
                Pin.out("CommandAborted", Type.BOOL), Pin.out("Error", Type.BOOL), Pin.out("ErrorID", Type.WORD)));
        return List.copyOf(pins);
    }

    private Kind readStatus() {
        List<Pin> pins = List.of(Pin.axis(), Pin.in("Enable", Type.BOOL), Pin.out("Valid", Type.BOOL), Pin.out("Busy", Type.BOOL),
                Pin.out("Error", Type.BOOL), Pin.out("ErrorID", Type.WORD), Pin.out("ErrorStop", Type.BOOL),
                Pin.out("Disabled", Type.BOOL), Pin.out("Stopping", Type.BOOL), Pin.out("Homing", Type.BOOL),
                Pin.out("Standstill", Type.BOOL), Pin.out("DiscreteMotion", Type.BOOL),
                Pin.out("ContinuousMotion", Type.BOOL), Pin.out("SynchronizedMotion", Type.BOOL));
        return new Kind("MC_ReadStatus", pins, name -> (frame, base) -> {
            long[] m = frame.memory;
            boolean enable = m[base + 1] != 0;
            AxisState state = axis(frame, base).state();
            m[base + 2] = bit(enable);
            m[base + 3] = bit(enable);
            m[base + 6] = bit(enable && state == AxisState.ERROR_STOP);
            m[base + 7] = bit(enable && state == AxisState.DISABLED);
            m[base + 8] = bit(enable && state == AxisState.STOPPING);
            m[base + 9] = bit(enable && state == AxisState.HOMING);
            m[base + 10] = bit(enable && state == AxisState.STANDSTILL);
            m[base + 11] = bit(enable && state == AxisState.DISCRETE_MOTION);
            m[base + 12] = bit(enable && state == AxisState.CONTINUOUS_MOTION);
            m[base + 13] = bit(enable && state == AxisState.SYNCHRONIZED_MOTION);
        });
    }

    /** Declarations of the types that the blocks take, in Structured Text. */
    public static String types() {
        try (InputStream source = MotionBlocks.class.getResourceAsStream("motion-types.st")) {
            return new String(source.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    /** Values that programs may name. */
    public static List<Environment.Constant> constants() {
        List<Environment.Constant> all = new ArrayList<>();
        Arrays.stream(Direction.values()).forEach(d -> all.add(new Environment.Constant(d.constant(), d.value())));
        Arrays.stream(FollowingBlocks.Source.values()).forEach(source -> all.add(new Environment.Constant(source.constant(), source.value())));
        Arrays.stream(BufferMode.values()).forEach(mode -> all.add(new Environment.Constant(mode.constant(), mode.ordinal())));
        return all;
    }

    /** A block with Execute for a follower: its first pin is the master, and what it has reached stands until something else is ordered. */
    abstract class FollowerBlock extends ExecuteBlock {
        private final int done;
        private final int masters;

        FollowerBlock(String instance, int inputs, int continuousPin) {
            this(instance, 1, inputs, continuousPin);
        }

        /** @param masters pins of masters before that of the follower */
        FollowerBlock(String instance, int masters, int inputs, int continuousPin) {
            super(instance, inputs, continuousPin);
            this.masters = masters;
            done = 2 + inputs;
        }

        /** @param base of the follower's pin */
        final MotionAxis master(Frame frame, int base) {
            return axis(frame, base - masters);
        }

        /** The last of several. */
        final MotionAxis secondMaster(Frame frame, int base) {
            return axis(frame, base - 1);
        }

        final double value(Frame frame, int slot) {
            return real(frame, slot);
        }

        /** While it is active. @param done place of its first output */
        abstract void reached(MotionAxis axis, long[] m, int done);

        /** It is not active. */
        void ended(long[] m, int done) {
        }

        @Override
        public void call(Frame frame, int base) {
            int follower = base + masters;
            super.call(frame, follower);
            if (command.status == MotionCommand.Status.ACTIVE) {
                reached(axis(frame, follower), frame.memory, follower + done);
            } else {
                ended(frame.memory, follower + done);
            }
        }
    }

    /** Edge, Busy, Active, Done, CommandAborted and Error, the same for every block with Execute. */
    abstract class ExecuteBlock implements FunctionBlock {
        final MotionCommand command = new MotionCommand();
        final String instance;
        private final int outputs;
        /** place of ContinuousUpdate, 0 for a block without */
        private final int continuousPin;
        /** the inputs as they were taken last */
        private final long[] taken;
        private boolean continuous;
        private boolean before;
        /** the last call has shown how the order ended */
        private boolean endShown;

        /** @param inputs inputs besides Axis and Execute */
        ExecuteBlock(String instance, int inputs) {
            this(instance, inputs, 0);
        }

        /** @param continuousPin place of ContinuousUpdate */
        ExecuteBlock(String instance, int inputs, int continuousPin) {
            this.instance = instance;
            this.continuousPin = continuousPin;
            outputs = 2 + inputs;
            taken = new long[inputs];
        }

        abstract void order(MotionAxis axis, Frame frame, int base);

        /** The same with other inputs, while it is busy. */
        void orderAgain(MotionAxis axis, Frame frame, int base) {
            order(axis, frame, base);
        }

        /** A distance that counts from where it counted at first. @param mode place of BufferMode */
        final void distanceAgain(MotionAxis axis, Frame frame, int base, int mode) {
            axis.moves().moveAgain(command, real(frame, base + 2), BufferMode.of(frame.memory[base + mode]), real(frame, base + 3), real(frame, base + 4), real(frame, base + 5), real(frame, base + 6), instance, frame.call, frame.now);
        }

        private boolean inputsChanged(long[] m, int base) {
            boolean changed = false;
            for (int i = 0; i < taken.length; i++) {
                changed |= taken[i] != m[base + 2 + i];
                taken[i] = m[base + 2 + i];
            }
            return changed;
        }

        @Override
        public void call(Frame frame, int base) {
            boolean execute = frame.memory[base + 1] != 0;
            boolean changed = continuousPin > 0 && inputsChanged(frame.memory, base);
            if (execute && !before) {
                continuous = continuousPin > 0 && frame.memory[base + continuousPin] != 0;
                order(axis(frame, base), frame, base);
            } else if (continuous && changed && command.busy()) {
                axis(frame, base).beginUpdate();
                orderAgain(axis(frame, base), frame, base);
                axis(frame, base).endUpdate();
            } else if (!execute && endShown && !command.busy() && command.status != MotionCommand.Status.IDLE) {
                command.status = MotionCommand.Status.IDLE;
                command.error = MotionError.NONE;
            }
            before = execute;
            show(frame.memory, base + outputs);
        }

        private void show(long[] m, int at) {
            boolean active = command.status == MotionCommand.Status.ACTIVE;
            endShown = !command.busy() && command.status != MotionCommand.Status.IDLE;
            m[at] = bit(command.status == MotionCommand.Status.DONE);
            m[at + 1] = bit(command.busy());
            m[at + 2] = bit(active);
            m[at + 3] = bit(command.status == MotionCommand.Status.ABORTED);
            m[at + 4] = bit(command.status == MotionCommand.Status.FAILED);
            m[at + 5] = command.error.id();
        }
    }

    /** What is done in the call that orders it: Done or Error stand while Execute does, and for one call when it has fallen before. */
    abstract class AtOnceBlock implements FunctionBlock {
        private final int done;
        private final int errorId;
        private boolean before;

        /** @param done place of Done, behind it Busy and Error  @param errorId place of ErrorID */
        AtOnceBlock(int done, int errorId) {
            this.done = done;
            this.errorId = errorId;
        }

        int execute() {
            return 1;
        }

        abstract MotionError carryOut(MotionAxis axis, long[] m, int base);

        @Override
        public void call(Frame frame, int base) {
            long[] m = frame.memory;
            boolean now = m[base + execute()] != 0;
            if (now && !before) {
                MotionError error = carryOut(axis(frame, base), m, base);
                m[base + done] = bit(error == MotionError.NONE);
                m[base + done + 2] = bit(error != MotionError.NONE);
                m[base + errorId] = error.id();
            } else if (!now) {
                m[base + done] = 0;
                m[base + done + 2] = 0;
                m[base + errorId] = 0;
            }
            before = now;
        }
    }
}
