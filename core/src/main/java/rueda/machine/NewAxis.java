package rueda.machine;

import java.math.BigDecimal;
import java.util.List;
import rueda.machine.Terminal.Function;

/** An axis as it begins: a screw on a level line with two limit switches, its load still to be entered. */
public final class NewAxis {

    private NewAxis() {
    }

    /** @param name an identifier of the PLC language */
    public static Axis named(String name) {
        Dynamics normal = new Dynamics(100, 500, 500, 5000, 200);
        Dynamics max = new Dynamics(200, 2000, 2000, 20_000, 300);
        return new Axis(name, Axis.Kind.LINEAR, BigDecimal.ZERO, new Unit("mm", 4),
                new Motor(1e-4, 1.3, 3.9, 3000, 4500, 2.5), Encoder.absolute(17, 0), LoadEncoder.NONE,
                new Train(List.of(), new Feed(Feed.Kind.SCREW, 1, new BigDecimal("10"), "mm")),
                Load.along(0, 0, 0), Brake.NONE, new Travel(600, 23, 580, 0, 0, 200),
                new Limits(0, 540, normal, max, 3000), Supervision.of(0.05, 2), 32, new Duty(300, 2),
                Homing.search(1, 50, 5, 400, 0), new Control(30, 0.02, 30, 1, 1),
                Station.usual(name, 1), Wiring.of(List.of(Function.NEGATIVE_LIMIT, Function.POSITIVE_LIMIT), List.of(Function.READY, Function.FAULT)));
    }
}
