package rueda.drive;

import java.util.List;
import rueda.bench.Bench;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Encoder;
import rueda.machine.Homing;
import rueda.machine.Machine;
import rueda.machine.MoveList;
import rueda.machine.Supervision;
import rueda.machine.Terminal.Function;
import rueda.machine.Wiring;

/** One axis that nobody on the bus commands: its enable input and its move list alone. Terminals: I1 enable, I2 to I6 as asked, I7 and I8 fast. */
final class ListBench {

    static final double SUB_STEP = 125e-6;

    final Axis axis;
    final Bench bench;
    final Drive drive;
    final MoveListSource list;

    ListBench(Axis axis) {
        this.axis = axis;
        Machine demo = DemoMachine.create();
        bench = new Bench(new Machine("m", demo.bus(), demo.plc(), List.of(axis), List.of()), "PROGRAM P END_PROGRAM", 16);
        drive = bench.drive(0);
        list = drive.moveList();
    }

    /** The Shuttle, which knows where it is at power-up: it stands at {@code at} mm. Without a jerk limit, so that its times are those of trapezoids. */
    static Axis shuttle(double at, MoveList list, Function... inputs) {
        Axis axis = DemoMachine.shuttle();
        return trapezoidal(axis.withEncoder(Encoder.absolute(19, 12)).withHoming(axis.homing().withAtPowerUp(Homing.AtPowerUp.MOTOR_ENCODER, at - axis.travel().parkedAt())))
                .withSupervision(Supervision.of(0.05, 20)).withWiring(wired(inputs)).withMoves(list).withCommandedBy(Axis.Commander.DRIVE);
    }

    /** The Table with a reference where it stands, commanded by its list alone. */
    static Axis table(MoveList list, Function... inputs) {
        Axis axis = DemoMachine.table();
        return trapezoidal(axis.withEncoder(Encoder.absolute(20, 12)).withHoming(axis.homing().withAtPowerUp(Homing.AtPowerUp.MOTOR_ENCODER, -axis.travel().parkedAt())))
                .withWiring(wired(inputs)).withMoves(list).withCommandedBy(Axis.Commander.DRIVE);
    }

    static Axis doser(MoveList list, Function... inputs) {
        return trapezoidal(DemoMachine.saltDoser()).withWiring(wired(inputs)).withMoves(list).withCommandedBy(Axis.Commander.DRIVE);
    }

    private static Wiring wired(Function... inputs) {
        List<Function> all = new java.util.ArrayList<>(List.of(Function.ENABLE));
        all.addAll(List.of(inputs));
        return Wiring.of(all, List.of(Function.ZONE_1, Function.LIST_1, Function.LIST_2, Function.ZONE_2));
    }

    private static Axis trapezoidal(Axis axis) {
        return axis.withLimits(axis.limits().withNormal(axis.limits().normal().withJerk(0)).withMax(axis.limits().max().withJerk(0)));
    }

    /** Comes into operation by its enable input, which is closed at power-up. */
    ListBench enabled() {
        bench.run(0.05);
        if (drive.state() != PowerState.OPERATION_ENABLED) {
            throw new IllegalStateException(drive.state().words());
        }
        return this;
    }

    void input(String terminal, boolean level) {
        drive.digitalInputs().force(terminal, level);
    }

    /** The input comes on and goes off again. */
    void pulse(String terminal) {
        input(terminal, true);
        bench.run(0.005);
        input(terminal, false);
        bench.run(0.005);
    }

    /** Runs until something is so. @return how long that took, s */
    double until(java.util.function.BooleanSupplier so, double longest) {
        long from = bench.now();
        while (!so.getAsBoolean()) {
            bench.cycle();
            if (bench.now() - from > longest * 1e9) {
                throw new AssertionError("not within " + longest + " s: " + list.phase() + ", entry " + list.entry() + ", " + list.error().words() + ", at " + drive.position());
            }
        }
        return (bench.now() - from) * 1e-9;
    }

    double untilStands(double longest) {
        return until(() -> list.phase() == MoveListSource.Phase.IDLE || list.phase() == MoveListSource.Phase.FAILED, longest);
    }

    /** Commanded position, the nearest wire unit, user units. */
    double place() {
        double wire = axis.scale().wireUnitsPerUnit();
        long range = axis.modulo().signum() > 0 ? axis.wireModulo() : Long.MAX_VALUE;
        return Math.round(drive.demandPosition() * wire) % range / wire;
    }

    long word(DriveObject object) {
        return drive.dictionary().get(object);
    }
}
