package rueda.plcopen;

import java.util.ArrayList;
import java.util.List;
import rueda.plc.run.Frame;
import rueda.plc.run.FunctionBlock.Kind;
import rueda.plc.run.FunctionBlock.Pin;
import rueda.plc.type.Type;
import rueda.profile.FollowerLock;
import rueda.quantity.Ratio;

/**
 * MC_GearIn, MC_GearInPos, MC_GearOut, MC_PhasingAbsolute, MC_PhasingRelative and MC_CombineAxes of PLCopen Motion Control part 1.
 *
 * <p>A ratio is that of the units of both axes. MC_GearIn ties by speed: what is lost while the follower comes up stays lost, as the
 * specification says. Accelerations left out are those of the axis while it follows. What the specification leaves to the maker: Master comes
 * before Slave, in BufferMode an order never blends, MasterStartDistance 0 begins at once.
 */
final class FollowingBlocks {

    /** MC_SOURCE: which value of the master counts (numbers from memory). */
    enum Source {
        SETPOINT("mcSetValue"), ACTUAL("mcActualValue");

        private final String constant;

        Source(String constant) {
            this.constant = constant;
        }

        String constant() {
            return constant;
        }

        int value() {
            return ordinal() + 1;
        }

        /** Whether the actual value counts; 0, the pin left out, is the setpoint; null for any other value. */
        static Boolean actual(long value) {
            return value == 0 || value == 1 ? Boolean.FALSE : value == 2 ? Boolean.TRUE : null;
        }
    }

    private final MotionBlocks blocks;

    FollowingBlocks(MotionBlocks blocks) {
        this.blocks = blocks;
    }

    List<Kind> kinds() {
        return List.of(gearIn(), gearInPos(), letGo("MC_GearOut"), combine(), phasing("MC_PhasingAbsolute", false), phasing("MC_PhasingRelative", true));
    }

    static List<Pin> pins(String done, Pin... inputs) {
        List<Pin> pins = new ArrayList<>(List.of(Pin.axis("Master"), Pin.axis("Slave"), Pin.in("Execute", Type.BOOL)));
        pins.addAll(List.of(inputs));
        pins.addAll(List.of(Pin.out(done, Type.BOOL), Pin.out("Busy", Type.BOOL), Pin.out("Active", Type.BOOL), Pin.out("CommandAborted", Type.BOOL), Pin.out("Error", Type.BOOL), Pin.out("ErrorID", Type.WORD)));
        return pins;
    }

    private static Pin real(String name) {
        return Pin.in(name, Type.LREAL);
    }

    private static Ratio ratio(long numerator, long denominator) {
        return denominator == 0 ? null : Ratio.of(numerator, denominator);
    }

    private Kind gearIn() {
        List<Pin> pins = pins("InGear", Pin.in("RatioNumerator", Type.DINT), Pin.in("RatioDenominator", Type.UDINT), Pin.in("MasterValueSource", Type.INT), real("Acceleration"), real("Deceleration"), Pin.in("BufferMode", Type.INT), Pin.in("ContinuousUpdate", Type.BOOL));
        return new Kind("MC_GearIn", List.copyOf(pins), name -> blocks.new FollowerBlock(name, 7, 8) {
            @Override
            void order(MotionAxis axis, Frame frame, int base) {
                long[] m = frame.memory;
                axis.following().gearIn(command, FollowerLock.Kind.SPEED, master(frame, base), Source.actual(m[base + 4]), ratio(m[base + 2], m[base + 3]), value(frame, base + 5), value(frame, base + 6), BufferMode.of(m[base + 7]),
                        instance, frame.call, frame.now);
            }

            @Override
            void reached(MotionAxis axis, long[] m, int done) {
                m[done] = axis.following().inGear() ? 1 : 0;
            }
        });
    }

    /** StartSync stands while the follower is on its way to the meeting point. */
    private Kind gearInPos() {
        List<Pin> pins = pins("InSync", Pin.in("RatioNumerator", Type.DINT), Pin.in("RatioDenominator", Type.UDINT), Pin.in("MasterValueSource", Type.INT), real("MasterSyncPosition"), real("SlaveSyncPosition"), real("MasterStartDistance"),
                real("Velocity"), real("Acceleration"), real("Deceleration"), Pin.in("BufferMode", Type.INT));
        pins.add(Pin.out("StartSync", Type.BOOL));
        return new Kind("MC_GearInPos", List.copyOf(pins), name -> blocks.new FollowerBlock(name, 10, 0) {
            @Override
            void order(MotionAxis axis, Frame frame, int base) {
                long[] m = frame.memory;
                axis.following().gearInPos(command, master(frame, base), Source.actual(m[base + 4]), ratio(m[base + 2], m[base + 3]), value(frame, base + 5), value(frame, base + 6), value(frame, base + 7), value(frame, base + 8), value(frame, base + 9), value(frame, base + 10),
                        BufferMode.of(m[base + 11]), instance, frame.call, frame.now);
            }

            @Override
            void reached(MotionAxis axis, long[] m, int done) {
                m[done] = axis.following().inGear() ? 1 : 0;
                m[done + 6] = axis.following().meetingStarted() && !axis.following().inGear() ? 1 : 0;
            }

            @Override
            void ended(long[] m, int done) {
                m[done + 6] = 0;
            }
        });
    }

    /** CombineMode (numbers from memory): 0 adds the second master, 1 subtracts it. InSync stands while the axis has the place of both. */
    private Kind combine() {
        List<Pin> pins = new ArrayList<>(List.of(Pin.axis("Master1"), Pin.axis("Master2"), Pin.axis("Slave"), Pin.in("Execute", Type.BOOL), Pin.in("CombineMode", Type.INT), Pin.in("GearRatioNumeratorM1", Type.DINT), Pin.in("GearRatioDenominatorM1", Type.UDINT),
                Pin.in("GearRatioNumeratorM2", Type.DINT), Pin.in("GearRatioDenominatorM2", Type.UDINT), Pin.in("MasterValueSourceM1", Type.INT), Pin.in("MasterValueSourceM2", Type.INT), Pin.in("BufferMode", Type.INT), Pin.in("ContinuousUpdate", Type.BOOL)));
        pins.addAll(List.of(Pin.out("InSync", Type.BOOL), Pin.out("Busy", Type.BOOL), Pin.out("Active", Type.BOOL), Pin.out("CommandAborted", Type.BOOL), Pin.out("Error", Type.BOOL), Pin.out("ErrorID", Type.WORD)));
        return new Kind("MC_CombineAxes", List.copyOf(pins), name -> blocks.new FollowerBlock(name, 2, 9, 10) {
            @Override
            void order(MotionAxis axis, Frame frame, int base) {
                long[] m = frame.memory;
                Ratio second = m[base + 2] == 0 || m[base + 2] == 1 ? ratio(m[base + 2] == 0 ? m[base + 5] : -m[base + 5], m[base + 6]) : null;
                axis.following().combine(command, master(frame, base), Source.actual(m[base + 7]), ratio(m[base + 3], m[base + 4]), secondMaster(frame, base), Source.actual(m[base + 8]), second, BufferMode.of(m[base + 9]), instance, frame.call, frame.now);
            }

            @Override
            void reached(MotionAxis axis, long[] m, int done) {
                m[done] = axis.following().inGear() ? 1 : 0;
            }
        });
    }

    /** Lets go of the master, however the axis follows it. */
    Kind letGo(String block) {
        List<Pin> pins = List.of(Pin.axis("Slave"), Pin.in("Execute", Type.BOOL), Pin.out("Done", Type.BOOL), Pin.out("Busy", Type.BOOL), Pin.out("Active", Type.BOOL), Pin.out("CommandAborted", Type.BOOL), Pin.out("Error", Type.BOOL), Pin.out("ErrorID", Type.WORD));
        return new Kind(block, pins, name -> blocks.new ExecuteBlock(name, 0) {
            @Override
            void order(MotionAxis axis, Frame frame, int base) {
                axis.following().gearOut(command, instance, frame.call, frame.now);
            }
        });
    }

    private Kind phasing(String name, boolean relative) {
        List<Pin> pins = pins("Done", real("PhaseShift"), real("Velocity"), real("Acceleration"), real("Deceleration"), real("Jerk"));
        pins.add(Pin.out(relative ? "CoveredPhaseShift" : "AbsolutePhaseShift", Type.LREAL));
        return new Kind(name, List.copyOf(pins), instanceName -> blocks.new FollowerBlock(instanceName, 5, 0) {
            @Override
            void order(MotionAxis axis, Frame frame, int base) {
                axis.following().phase(command, master(frame, base), value(frame, base + 2), relative, value(frame, base + 3), value(frame, base + 4), value(frame, base + 5), value(frame, base + 6), instance, frame.call, frame.now);
            }

            @Override
            void reached(MotionAxis axis, long[] m, int done) {
                m[done + 6] = Double.doubleToRawLongBits(relative ? axis.following().coveredShift() : axis.following().phaseShift());
            }
        });
    }
}
