package rueda.advice;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import rueda.drive.HomingSentence;
import rueda.machine.Axis;
import rueda.machine.Feed;
import rueda.machine.Machine;

/**
 * A machine at a glance.
 *
 * @param bus   family and cycle, such as “EtherCAT, 1 ms”
 * @param axes  in the order of the rail
 * @param toDo  what is not entered yet, in the order of the work
 */
public record MachineOverview(String bus, List<AxisRow> axes, List<ToDo> toDo) {

    /**
     * @param name      of the axis
     * @param mechanism what moves the load, with its reducers
     * @param unit      symbol of the user unit
     * @param travel    between the soft limits or around, with unit
     * @param speed     highest, with unit
     * @param homing    what the axis takes as its reference
     */
    public record AxisRow(String name, String mechanism, String unit, String travel, String speed, String homing) {
    }

    /**
     * @param stage where it is done
     * @param axis  name of the axis, empty for the machine
     * @param words what to do
     */
    public record ToDo(String stage, String axis, String words) {
    }

    /** @param machine one that can be stored */
    public static MachineOverview of(Machine machine) {
        String cycle = BigDecimal.valueOf(machine.bus().cycleMicros(), 3).stripTrailingZeros().toPlainString();
        return new MachineOverview(machine.bus().family().words() + ", " + cycle + " ms", machine.axes().stream().map(MachineOverview::row).toList(), toDo(machine));
    }

    private static AxisRow row(Axis axis) {
        String unit = axis.unit().symbol();
        String travel = !axis.endless() ? plain(axis.limits().softMin()) + " to " + plain(axis.limits().softMax()) + " " + unit
                : axis.modulo().signum() > 0 ? "endless, 0 to " + axis.modulo().stripTrailingZeros().toPlainString() + " " + unit : "endless";
        return new AxisRow(axis.name(), mechanism(axis), unit, travel, plain(axis.limits().max().speed()) + " " + unit + "/s", homing(axis));
    }

    private static String mechanism(Axis axis) {
        Feed feed = axis.train().feed();
        String what = switch (feed.kind()) {
            case SCREW -> "screw";
            case RACK -> "rack and pinion";
            case BELT -> "belt";
            case DIRECT -> "turning load";
            case FEEDER -> "screw feeder";
        };
        String reducers = axis.train().reducers().stream().map(r -> r.motorTurns() + " : " + r.outputTurns()).collect(Collectors.joining(", "));
        return reducers.isEmpty() ? what : what + ", " + reducers;
    }

    private static String homing(Axis axis) {
        return switch (axis.homing().atPowerUp()) {
            case MOTOR_ENCODER -> "absolute motor encoder";
            case LOAD_ENCODER -> "absolute encoder on the load";
            case NOTHING -> axis.homing().method() == 35 || axis.homing().method() == 37 ? "set where it stands"
                    : HomingSentence.of(axis).stream().filter(s -> s.method() == axis.homing().method()).findFirst().map(s -> s.search().replaceFirst("^the ", "")).orElse("method " + axis.homing().method());
        };
    }

    private static List<ToDo> toDo(Machine machine) {
        List<ToDo> all = new ArrayList<>();
        if (machine.axes().isEmpty()) {
            all.add(new ToDo("connect", "", "Add the first axis"));
        }
        for (Axis axis : machine.axes()) {
            boolean loaded = axis.train().feed().linear() ? axis.load().mass() > 0 : axis.load().inertia() > 0;
            if (!loaded) {
                all.add(new ToDo("scale", axis.name(), axis.train().feed().linear() ? "Enter the mass of the load" : "Enter the inertia of the load"));
            }
        }
        if (machine.plc().files().stream().noneMatch(f -> f.source().contains(";"))) {
            all.add(new ToDo("program", "", "Write the program"));
        }
        if (machine.proofs().stream().allMatch(p -> p.expectations().isEmpty())) {
            all.add(new ToDo("prove", "", "Say what must be true when the program runs"));
        }
        return List.copyOf(all);
    }

    private static String plain(double value) {
        return new BigDecimal(value).round(new MathContext(6)).stripTrailingZeros().toPlainString().replace('-', '−');
    }
}
