package rueda.machine;

import java.math.BigDecimal;
import java.util.List;
import rueda.machine.Terminal.Function;

/** An axis as it begins: a plain mechanism of its kind with usual values, its load still to be entered. */
public final class NewAxis {

    private static final List<Function> OUTPUTS = List.of(Function.READY, Function.FAULT);
    private static final Motor MOTOR = new Motor(1e-4, 1.3, 3.9, 3000, 4500, 2.5);

    private NewAxis() {
    }

    /** A screw on a level line. @param name an identifier of the PLC language */
    public static Axis named(String name) {
        return named(name, Feed.Kind.SCREW);
    }

    /**
     * @param name an identifier of the PLC language
     * @param feed what moves the load: screw, rack and belt along a line between two limit switches; direct an endless table of 360°;
     *             feeder an endless screw that measures out grams
     */
    public static Axis named(String name, Feed.Kind feed) {
        return switch (feed) {
            case SCREW -> linear(name, new Train(List.of(), new Feed(feed, 1, new BigDecimal("10"), "mm")));
            case RACK -> linear(name, new Train(List.of(new Reducer(10, 1)), new Feed(feed, 20, new BigDecimal("5"), "mm")));
            case BELT -> linear(name, new Train(List.of(new Reducer(10, 1)), new Feed(feed, 20, new BigDecimal("5"), "mm")));
            case DIRECT -> endless(name, new BigDecimal("360"), new Unit("°", 4), new Train(List.of(new Reducer(10, 1)), new Feed(feed, 1, BigDecimal.ONE, "turn")), 360,
                    new Dynamics(180, 720, 720, 7200, 200), new Dynamics(360, 1440, 1440, 14_400, 300), 2000, Supervision.of(0.05, 2), new Duty(180, 2),
                    Homing.search(37, 30, 5, 180, 0));
            case FEEDER -> endless(name, BigDecimal.ZERO, new Unit("g", 4), new Train(List.of(), new Feed(feed, 1, BigDecimal.ONE, "g")), 1,
                    new Dynamics(5, 20, 20, 200, 200), new Dynamics(10, 40, 40, 400, 300), 80, Supervision.of(0.005, 0.2), new Duty(10, 2),
                    Homing.search(37, 1, 0.2, 10, 0));
        };
    }

    private static Axis linear(String name, Train train) {
        Dynamics normal = new Dynamics(100, 500, 500, 5000, 200);
        Dynamics max = new Dynamics(200, 2000, 2000, 20_000, 300);
        return new Axis(name, Axis.Kind.LINEAR, BigDecimal.ZERO, new Unit("mm", 4), MOTOR, Encoder.absolute(17, 0), LoadEncoder.NONE, train,
                Load.along(0, 0, 0), Brake.NONE, new Travel(600, 23, 580, 0, 0, 200),
                new Limits(0, 540, normal, max, 3000), Supervision.of(0.05, 2), 32, new Duty(300, 2),
                Homing.search(1, 50, 5, 400, 0), new Control(30, 0.02, 30, 1, 1),
                Station.usual(name, 1), Wiring.of(List.of(Function.NEGATIVE_LIMIT, Function.POSITIVE_LIMIT), OUTPUTS));
    }

    private static Axis endless(String name, BigDecimal modulo, Unit unit, Train train, double travel, Dynamics normal, Dynamics max, double quickStop, Supervision supervision, Duty duty, Homing homing) {
        return new Axis(name, Axis.Kind.ENDLESS, modulo, unit, MOTOR, Encoder.absolute(17, 0), LoadEncoder.NONE, train,
                new Load(0, 0, 0, 0, 0, 0, 0, 0), Brake.NONE, new Travel(travel, 0, 0, 0, 0, 0),
                new Limits(0, 0, normal, max, quickStop), supervision, 32, duty, homing, new Control(30, 0.02, 30, 1, 1),
                Station.usual(name, 1), Wiring.of(List.of(), OUTPUTS));
    }
}
