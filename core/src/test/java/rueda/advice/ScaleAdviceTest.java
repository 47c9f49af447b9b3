package rueda.advice;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.math.BigDecimal;
import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.Brake;
import rueda.machine.DemoMachine;
import rueda.machine.Dynamics;
import rueda.machine.Encoder;
import rueda.machine.Feed;
import rueda.machine.Limits;
import rueda.machine.Load;
import rueda.machine.Motor;
import rueda.machine.MotorSide;
import rueda.machine.Reducer;
import rueda.machine.Train;
import rueda.machine.Unit;
import rueda.quantity.Ratio;

class ScaleAdviceTest {

    private static List<String> titles(Axis axis) {
        return ScaleAdvice.of(axis, new Bus(1000), "/axes/0").findings().stream().filter(f -> f.severity() != Finding.Severity.GOOD).map(Finding::title).toList();
    }

    private static String figure(Axis axis, String label) {
        return ScaleAdvice.of(axis, new Bus(1000), "/axes/0").figures().stream().filter(f -> f.label().equals(label)).map(f -> f.value().replace("\u202f", "")).findFirst().orElseThrow();
    }

    private static Train train(int motorTurns, int outputTurns, Feed.Kind kind, String amount, String unit) {
        return new Train(List.of(new Reducer(motorTurns, outputTurns)), new Feed(kind, 1, new BigDecimal(amount), unit));
    }

    /** Common practice, no source: 5 mm screw behind 5:1, unit 1 µm: one motor turn is 1000 units, 65 536 : 125 counts a unit. */
    @Test
    void screwInMicrometres() {
        Axis axis = DemoMachine.lift().withUnit(new Unit("µm", 0)).withEncoder(Encoder.absolute(19, 0)).withTrain(train(5, 1, Feed.Kind.SCREW, "5", "mm"));
        assertThat(figure(axis, "Counts per µm")).isEqualTo("65536 : 125");
        assertThat(figure(axis, "One motor turn moves")).isEqualTo("1000");
    }

    /** A quarter-inch screw in millimetres: 6.35 mm a turn by definition of the inch, exact. */
    @Test
    void aScrewInInches() {
        Axis axis = DemoMachine.lift().withUnit(new Unit("mm", 3)).withTrain(train(1, 1, Feed.Kind.SCREW, "0.25", "in"));
        assertThat(axis.scale().feed()).isEqualTo(Ratio.of(127, 20));
        assertThat(figure(axis, "6092h feed constant")).isEqualTo("6350 : 1");
    }

    /** Reducers in a row multiply exactly: 91:10 × 3:7 = 39:10. */
    @Test
    void reducersMultiply() {
        Axis axis = DemoMachine.shuttle().withTrain(new Train(List.of(new Reducer(91, 10), new Reducer(3, 7)), DemoMachine.shuttle().train().feed()));
        assertThat(figure(axis, "6091h gear ratio")).isEqualTo("39 : 10");
    }

    /** Common practice, no source: 14 bits on the motor behind 100:1 are 1 638 400 counts a load turn; 20 rpm at the load are 20 × ratio. */
    @Test
    void ratioOfTheTable() {
        Axis axis = DemoMachine.table().withEncoder(Encoder.absolute(14, 0));
        assertThat(figure(axis, "Counts per modulo")).isEqualTo("1638400");
        assertThat(axis.scale().motorTurnsPerMinute(20 * 360 / 60.0)).isCloseTo(2000, within(1e-9));
    }

    @Test
    void aNarrowGearDriftsByWhatTheFractionMisses() {
        Axis t = DemoMachine.table();
        Axis narrow = new Axis(t.name(), t.kind(), t.modulo(), t.unit(), t.motor(), t.encoder(), t.loadEncoder(), new Train(List.of(new Reducer(103, 7)), t.train().feed()), t.load(), t.brake(), t.travel(), t.limits(),
                t.supervision(), 8, t.duty(), t.homing(), t.control(), t.station(), t.wiring());
        Ratio exact = narrow.scale().countsPerWireUnit();
        Ratio held = narrow.electronicGear();
        assertThat(held.numerator()).isLessThan(256);
        assertThat(held.denominator()).isLessThan(256);
        assertThat(titles(narrow)).contains("The electronic gear does not fit into 8 bits.");
        double drift = (held.toDouble() / exact.toDouble() - 1) * 60 * 86_400;
        assertThat(Double.parseDouble(figure(narrow, "Drift per day").replace('\u2212', '-'))).isCloseTo(drift, within(Math.abs(drift) * 0.01));
    }

    @Test
    void aModuloBetweenCountsIsFound() {
        Axis table = DemoMachine.table().withTrain(new Train(List.of(new Reducer(100, 3)), DemoMachine.table().train().feed()));
        assertThat(titles(table)).contains("The modulo is not a whole number of counts.");
    }

    /** M = m·g·lead/(2π·i) = 120 kg × 9.80665 × 10 mm / (2π × 2) = 0.9365 N·m, by hand. */
    @Test
    void weightFrictionAndInertiaAtTheMotor() {
        MotorSide side = DemoMachine.lift().motorSide();
        double lever = 0.010 / (2 * Math.PI * 2);
        assertThat(side.gravity()).isCloseTo(120 * 9.80665 * lever, within(1e-12)).isCloseTo(0.9365, within(1e-4));
        assertThat(side.coulomb()).isCloseTo(180 * lever, within(1e-12));
        assertThat(side.loadInertia()).isCloseTo(120 * lever * lever + 1.2e-3 / 4, within(1e-12));
        assertThat(side.acceleration(side.torque(100, 1500), 100)).isCloseTo(1500, within(1e-9));
    }

    @Test
    void aHangingLoadNeedsABrakeThatHolds() {
        Axis lift = DemoMachine.lift();
        assertThat(titles(withBrake(lift, Brake.NONE))).containsExactly("Without power the load falls.");
        assertThat(titles(withBrake(lift, new Brake(0.5, 50, 50)))).containsExactly("The holding brake is too weak.");
        assertThat(titles(lift.withLoad(new Load(600, 1e-3, 180, 400, 90, 0, 0, 0)))).contains("The motor cannot hold the load for long.");
    }

    private static Axis withBrake(Axis a, Brake brake) {
        return new Axis(a.name(), a.kind(), a.modulo(), a.unit(), a.motor(), a.encoder(), a.loadEncoder(), a.train(), a.load(), brake, a.travel(), a.limits(), a.supervision(), a.gearBits(), a.duty(), a.homing(), a.control(), a.station(), a.wiring());
    }

    /**
     * Trapezoid there and back, worked by hand: J = 1e-3 kg·m², no friction, 1 rad/s a unit/s. Three equal parts of 0.1 s
     * with ±1 N·m, 0, then 0.2 s of rest: RMS = √(2·0.1·1² / 0.5) = 0.632.
     */
    @Test
    void rmsTorqueOfADuty() {
        Axis t = DemoMachine.table();
        Dynamics d = new Dynamics(300, 1000, 1000, 0, 1000);
        double speed = 100;
        double unitsPerRadian = 1;
        Axis axis = new Axis("A", Axis.Kind.ENDLESS, BigDecimal.ZERO, new Unit("rad", 4), new Motor(1e-3, 10, 20, 3000, 3000, 20), Encoder.absolute(20, 0), t.loadEncoder(),
                new Train(List.of(), new Feed(Feed.Kind.DIRECT, 1, BigDecimal.ONE, "turn")), new Load(0, 0, 0, 0, 0, 0, 0, 0), Brake.NONE, t.travel(),
                new Limits(0, 0, new Dynamics(speed, 1000, 1000, 0, 100), d, 1000), t.supervision(), 32, new rueda.machine.Duty(20, 0.2), t.homing(), t.control(), t.station(), t.wiring());
        DutyLoad load = DutyLoad.of(axis);
        assertThat(axis.motorSide().unitsPerRadian()).isCloseTo(unitsPerRadian, within(1e-6));
        assertThat(load.moveTime()).isCloseTo(0.3, within(1e-9));
        assertThat(load.peak()).isCloseTo(1, within(1e-6));
        assertThat(load.rms()).isCloseTo(Math.sqrt(0.2 / 0.5), within(1e-3));
    }

    /** Peak torque falls in a straight line from rated to highest speed. */
    @Test
    void torqueSpeedCurve() {
        Motor motor = new Motor(1e-4, 1, 3, 3000, 5000, 1);
        assertThat(motor.peakTorqueAt(2999)).isEqualTo(3);
        assertThat(motor.peakTorqueAt(-4000)).isEqualTo(2);
        assertThat(motor.peakTorqueAt(5000)).isEqualTo(1);
        assertThat(motor.peakTorqueAt(9000)).isZero();
    }

    /** 0.001° behind 100:1 is 0.1° of the motor = 1.745e-3 rad; 9e-4 kg·m² × 1.745e-3 / (1 ms)² = 1.571 N·m = 121 % of 1.3 N·m, by hand. */
    @Test
    void aCoarseWireUnitKicksTheMotor() {
        Axis coarse = DemoMachine.table().withUnit(new Unit("°", 3));
        assertThat(figure(coarse, "One wire unit kicks with")).isEqualTo("121");
        assertThat(titles(coarse)).containsExactly("The wire unit is too coarse for torque feed-forward.");
        assertThat(titles(DemoMachine.table())).isEmpty();
    }

    @Test
    void defaultsAboveTheHighestAreFound() {
        Axis shuttle = DemoMachine.shuttle();
        Limits l = shuttle.limits();
        Axis bad = shuttle.withLimits(new Limits(l.softMin(), l.softMax(), new Dynamics(960, 2500, 2500, 0, 250), l.max(), l.quickStop()));
        assertThat(titles(bad)).contains("The default speed is above the highest.", "The default jerk is above the highest.");
    }

    /** A gear that cannot be held is refused at the decimals, in the direction that helps; taking that advice makes it hold. */
    @org.junit.jupiter.params.ParameterizedTest
    @org.junit.jupiter.params.provider.CsvSource({"31, 10, 0, 8, more", "8, 100, 6, 8, fewer", "31, 500, 0, 12, more", "4, 0.5, 6, 8, fewer"})
    void aGearThatCannotBeHeldIsRefusedWithTheRightAdvice(int encoderBits, String lead, int decimals, int gearBits, String direction) {
        rueda.machine.Axis lift = rueda.machine.DemoMachine.create().axes().get(1);
        java.util.function.IntFunction<java.util.List<rueda.machine.EntryFault>> check = d -> {
            rueda.machine.Axis axis = lift.withUnit(new rueda.machine.Unit("mm", d)).withEncoder(new rueda.machine.Encoder(rueda.machine.Encoder.Kind.ABSOLUTE, 0, encoderBits, 0, false))
                    .withTrain(new rueda.machine.Train(java.util.List.of(), new rueda.machine.Feed(rueda.machine.Feed.Kind.SCREW, 1, new java.math.BigDecimal(lead), "mm")));
            rueda.machine.Axis narrow = new rueda.machine.Axis(axis.name(), axis.kind(), axis.modulo(), axis.unit(), axis.motor(), axis.encoder(), axis.loadEncoder(), axis.train(), axis.load(), axis.brake(), axis.travel(),
                    axis.limits(), axis.supervision(), gearBits, axis.duty(), axis.homing(), axis.control(), axis.station(), axis.wiring());
            return rueda.machine.MachineRules.check(rueda.machine.DemoMachine.create().withAxis(1, narrow)).stream().filter(f -> f.field().startsWith("/axes/1")).toList();
        };
        assertThat(check.apply(decimals)).singleElement().satisfies(f -> {
            assertThat(f.field()).isEqualTo("/axes/1/unit/decimals");
            assertThat(f.mend()).contains(direction);
        });
        int step = direction.equals("more") ? 1 : -1;
        int d = decimals;
        while (d >= 0 && d <= 6 && !check.apply(d).isEmpty()) {
            d += step;
        }
        assertThat(d).as("the advice helps").isBetween(0, 6);
    }

    /** Module 2, to twelve digits: stored, and what two numbers of 32 bits cannot hold is said with what it makes. */
    @Test
    void aFeedConstantBeyond32BitsIsHeldAsNearAsItGoesAndSaid() {
        rueda.machine.Axis shuttle = rueda.machine.DemoMachine.create().axes().get(0);
        rueda.machine.Axis rack = shuttle.withTrain(new rueda.machine.Train(shuttle.train().reducers(), new rueda.machine.Feed(rueda.machine.Feed.Kind.RACK, 24, new java.math.BigDecimal("6.28318530718"), "mm")));
        assertThat(rueda.machine.MachineRules.check(rueda.machine.DemoMachine.create().withAxis(0, rack))).isEmpty();
        Advice advice = ScaleAdvice.of(rack, new rueda.machine.Bus(1000), "/axes/0");
        assertThat(advice.figures()).anySatisfy(f -> assertThat(f.formula()).contains("nearest fraction of two 32-bit numbers"));
        assertThat(advice.findings()).anySatisfy(f -> {
            assertThat(f.title()).contains("feed constant does not fit into 32 bits");
            assertThat(f.severity()).isEqualTo(Finding.Severity.GOOD);
        });
        assertThat(new rueda.bench.Bench(rueda.machine.DemoMachine.create().withAxis(0, rack), 100).drive(0).position()).isNotNaN();
    }
}
