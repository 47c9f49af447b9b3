package rueda.advice;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import rueda.advice.Finding.Severity;
import rueda.machine.Axis;
import rueda.machine.AxisGuard;
import rueda.machine.AxisGuard.Ask;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.SafetyFunction;
import rueda.machine.StopRules;
import rueda.machine.StopRules.Restart;
import rueda.machine.StopRules.Watch;

/** What stops come to, reckoned by hand, and each finding with the mend that ends it. */
class GuardAdviceTest {

    private static final int SHUTTLE = 0;
    private static final int LIFT = 1;
    private static final int BRUSH = 3;

    private static Machine demo(int axis, UnaryOperator<AxisGuard> change) {
        Machine demo = DemoMachine.create();
        Axis changed = demo.axes().get(axis);
        return demo.withAxis(axis, changed.withGuard(change.apply(changed.guard())));
    }

    private static Machine stop2(UnaryOperator<StopRules> change) {
        return demo(SHUTTLE, g -> g.withStop2(change.apply(g.stop2())));
    }

    private static List<Finding> findings(Machine machine, int axis) {
        return GuardAdvice.of(machine, axis).findings();
    }

    private static Finding finding(Machine machine, int axis, String title) {
        return findings(machine, axis).stream().filter(f -> f.title().contains(title)).findFirst().orElseThrow(() -> new AssertionError(title + " is not among " + findings(machine, axis)));
    }

    private static GuardPlan plan(Machine machine, int axis, SafetyFunction function) {
        return GuardPlan.of(machine, machine.axes().get(axis), function, machine.safetyRequests().get(0));
    }

    /** Door: 10 ms sensor, 4 ms filter, 2 ms guard, 1 ms bus, 0.125 ms sub-step; 950 mm/s on 5000 mm/s². Reckoned by hand. */
    @Test
    void distanceIsThatOfReactionAndRamp() {
        GuardPlan plan = plan(DemoMachine.create(), SHUTTLE, SafetyFunction.SAFE_STOP_2);
        assertThat(plan.chain().stream().map(GuardPlan.Link::millis)).containsExactly(10.0, 4.0, 2.0, 1.125, 190.0);
        assertThat(plan.reaction()).isCloseTo(17.125, within(1e-9));
        assertThat(plan.stands()).isCloseTo(17.125 + 190, within(1e-6));
        assertThat(plan.distance()).isCloseTo(950 * 0.017125 + 950 * 950 / 10_000.0, within(1e-6));
        assertThat(plan.watched()).as("the delay of 20 ms begins where the guard knows").isCloseTo(36, within(1e-9));
        double begins = 950 - 5000 * 18.875e-3;
        assertThat(plan.begins()).as("v − a·(36 − 17.125 ms), from where the guard's limit falls").isCloseTo(begins, within(1e-6));
        assertThat(plan.limit()).first().isEqualTo(new GuardPlan.Point(36, plan.begins()));
        assertThat(plan.room()).as("36 + (begins − 6.4)/4000 − 207.125 ms").isCloseTo(36 + (begins - 6.4) / 4 - 207.125, within(1e-6));
        assertThat(plan.beyond()).isZero();
        /* J of 160 kg on 13.187 mm a turn and of the rotor, at 950 mm/s */
        assertThat(plan.energy()).isCloseTo(0.5 * (160 + 1.1e-4 / Math.pow(13.187e-3 / (2 * Math.PI), 2)) * 0.95 * 0.95, within(0.1));
        assertThat(plan.torque()).as("category 2: it stays").isNull();
    }

    /** Sensor and filter are whole cycles of the guard each: 1 ms and 0.5 ms take one of 2 ms, as on the bench. */
    @Test
    void whatSensorAndFilterTakeIsWholeCycles() {
        Machine demo = DemoMachine.create();
        Machine odd = demo.withSafetyRequests(List.of(demo.safetyRequests().get(0).withReaction(1).withFilter(0.5), demo.safetyRequests().get(1)));
        assertThat(plan(odd, SHUTTLE, SafetyFunction.SAFE_STOP_2).chain().stream().map(GuardPlan.Link::millis)).startsWith(2.0, 2.0, 2.0);
    }

    /** What the figures say is told with the numbers that they are made of. */
    @Test
    void withoutTorqueNoRampIsTold() {
        Machine demo = demo(LIFT, g -> g.withAsks(List.of(new Ask("Door", SafetyFunction.SAFE_TORQUE_OFF))));
        Figure time = GuardAdvice.of(demo, LIFT).figures().get(0);
        assertThat(time.formula()).contains("torque off after 16 ms", "until the brake holds 40 ms later");
    }

    @Test
    void theProgramSlowsDownLater() {
        GuardPlan plan = plan(demo(SHUTTLE, g -> g.withSlowing(AxisGuard.Slowing.PROGRAM)), SHUTTLE, SafetyFunction.SAFE_STOP_2);
        assertThat(plan.chain().stream().map(GuardPlan.Link::millis)).as("bus, task of 2 ms, bus").startsWith(10.0, 4.0, 2.0, 1.0, 2.0, 1.0, 0.125);
        assertThat(plan.deceleration()).as("the default deceleration").isEqualTo(2500);
        /* 25 000 mm/s³: v/a + a/j = 380 + 100 ms, and half of that at full speed */
        assertThat(plan.stands()).isCloseTo(plan.ramp() + 480, within(1e-6));
        assertThat(plan.distance()).isCloseTo(950 * plan.ramp() * 1e-3 + 950 * 0.24, within(1e-6));
        assertThat(plan.path().get(plan.path().size() - 1).value()).isZero();
        Machine machine = demo(SHUTTLE, g -> g.withSlowing(AxisGuard.Slowing.PROGRAM));
        Figure distance = GuardAdvice.of(machine, SHUTTLE).figures().stream().filter(f -> f.label().contains("safe stop 2: stopping distance")).findFirst().orElseThrow();
        assertThat(distance.formula()).as("what the number is made of").contains("v·t + v·T/2", "T = 480 ms", "000 mm/s³");
    }

    /** Safe torque off of the Lift: it falls through 40 ms, then 5 N·m of brake and friction slow it down against its weight. */
    @Test
    void withoutTorqueTheBrakeStopsIt() {
        GuardPlan plan = plan(DemoMachine.create(), LIFT, SafetyFunction.SAFE_TORQUE_OFF);
        assertThat(plan.torque()).isEqualTo(16);
        assertThat(plan.brake()).isEqualTo(56);
        assertThat(plan.stands()).isGreaterThan(56);
        Machine endless = DemoMachine.create();
        Axis free = endless.axes().get(LIFT).withBrake(rueda.machine.Brake.NONE);
        assertThat(GuardPlan.of(endless, free, SafetyFunction.SAFE_TORQUE_OFF, endless.safetyRequests().get(0)).stands()).as("its weight is more than friction").isNull();
    }

    /** 20 ms of torque after standstill, 42 ms until the brake holds: it falls for 22 ms, ½·a·t² with a less than g, as rotor and friction hold back. */
    @Test
    void theDemosLiftSagsAndIsMended() {
        Machine demo = DemoMachine.create();
        GuardPlan plan = plan(demo, LIFT, SafetyFunction.SAFE_STOP_1);
        assertThat(plan.sag()).isPositive().isLessThan(0.5 * 9810 * 0.022 * 0.022);
        Finding sags = finding(demo, LIFT, "torque goes before the brake holds");
        assertThat(sags.severity()).isEqualTo(Severity.FAULT);
        assertThat(sags.mend().label()).isEqualTo("Keep the torque for 44 ms");
        Machine mended = demo(LIFT, g -> g.withBrake(true).withStop1(g.stop1().withTorqueDelay(44)));
        assertThat(findings(mended, LIFT)).noneMatch(f -> f.severity() == Severity.FAULT);
        assertThat(plan(mended, LIFT, SafetyFunction.SAFE_STOP_1).sag()).isZero();
        assertThat(finding(demo(LIFT, g -> g.withBrake(false).withStop1(g.stop1().withTorqueDelay(500))), LIFT, "torque goes before").consequence()).as("whoever closes the brake when the torque has gone").contains("for 40 ms nothing holds");
    }

    @Test
    void aRampFlatterThanTheWatchAllows() {
        Finding flat = finding(stop2(s -> s.withFlattest(5000)), SHUTTLE, "flatter than safe stop 2 allows");
        assertThat(flat.mend().changes()).containsExactly(new Finding.Change("replace", "/axes/0/guard/stop2/flattest", 4000.0));
        assertThat(findings(stop2(s -> s.withFlattest(4000)), SHUTTLE)).allMatch(f -> f.severity() == Severity.GOOD);
        Finding steep = finding(stop2(s -> s.withFlattest(1000).withSteepest(3000)), SHUTTLE, "steeper than");
        assertThat(steep.mend().changes().get(0).value()).isEqualTo(6000.0);
    }

    /** Watched at once, the ramp 1.125 ms later: ½·4000·t² and (4000·t)²/2000 beyond, t = 1.125 ms. */
    @Test
    void aWatchThatBeginsBeforeTheRamp() {
        double t = 1.125e-3;
        double beyond = 0.5 * 4000 * t * t + 4000 * t * 4000 * t / 2000;
        assertThat(plan(stop2(s -> s.withDelay(0)), SHUTTLE, SafetyFunction.SAFE_STOP_2).beyond()).isCloseTo(beyond, within(1e-9));
        assertThat(findings(stop2(s -> s.withDelay(0).withFilterDistance(beyond * 1.01)), SHUTTLE)).allMatch(f -> f.severity() == Severity.GOOD);
        Finding early = finding(stop2(s -> s.withDelay(0).withFilterDistance(beyond * 0.99)), SHUTTLE, "begins before the ramp");
        assertThat(early.mend().changes()).containsExactly(new Finding.Change("replace", "/axes/0/guard/stop2/delay", 1.2));
    }

    @Test
    void aWatchThatBeginsWhenItShouldBeOver() {
        assertThat(finding(stop2(s -> s.withDelay(191)), SHUTTLE, "begins when it should be over").mend()).isNotNull();
        assertThat(findings(stop2(s -> s.withDelay(189)), SHUTTLE)).allMatch(f -> f.severity() == Severity.GOOD);
        Finding time = finding(stop2(s -> s.withWatch(Watch.TIME).withTime(100)), SHUTTLE, "still moves when");
        assertThat(time.mend().changes().get(0).value()).isEqualTo(190.0);
        /* the watch begins at 36 ms, and it stands at 207.125 ms */
        assertThat(GuardAdvice.of(stop2(s -> s.withWatch(Watch.TIME).withTime(190)), SHUTTLE).figures()).filteredOn(f -> f.label().contains("safe stop 2") && f.label().contains("time that is left")).singleElement().extracting(Figure::value, Figure::unit).containsExactly("18.9", "ms");
        assertThat(findings(stop2(s -> s.withWatch(Watch.TIME).withTime(190)), SHUTTLE)).allMatch(f -> f.severity() == Severity.GOOD);
    }

    @Test
    void windowsThatCannotBeKept() {
        assertThat(finding(stop2(s -> s.withWindow(0.09).withFilterDistance(0.01)), SHUTTLE, "standstill window").consequence()).contains("position window");
        assertThat(finding(demo(SHUTTLE, g -> g.withCountsPerTurn(16).withStop2(g.stop2().withWindow(0.8))), SHUTTLE, "standstill window").consequence()).contains("encoder of the guard");
        assertThat(finding(stop2(s -> s.withStandstillSpeed(1)), SHUTTLE, "standstill speed").mend().changes().get(0).value()).as("twice 1.61 mm/s, up").isEqualTo(3.3);
        assertThat(finding(stop2(s -> s.withFilterDistance(s.window() + 0.1)), SHUTTLE, "hides").mend()).isNotNull();
    }

    @Test
    void mistakesOfTheGuard() {
        double own = DemoMachine.create().axes().get(SHUTTLE).guard().unitsPerTurn();
        Finding scale = finding(demo(SHUTTLE, g -> g.withUnitsPerTurn(g.unitsPerTurn() * 1.01)), SHUTTLE, "another scale");
        assertThat((Double) scale.mend().changes().get(0).value()).isCloseTo(own, within(1e-9));
        assertThat(finding(demo(SHUTTLE, g -> g.withAsks(List.of())), SHUTTLE, "Nothing asks").mend()).isNull();
        assertThat(finding(demo(SHUTTLE, g -> g.withAsks(List.of(new Ask("Door", SafetyFunction.SAFELY_LIMITED_SPEED))).withSpeed(g.speed().withLimit(2000))), SHUTTLE, "limits nothing").severity()).isEqualTo(Severity.WARNING);
        assertThat(finding(demo(SHUTTLE, g -> g.withFitted(false)), SHUTTLE, "No request stops it").severity()).isEqualTo(Severity.WARNING);
        assertThat(finding(stop2(s -> s.withRestart(Restart.AUTOMATIC)), SHUTTLE, "without an acknowledge").mend().changes().get(0).value()).isEqualTo("ACKNOWLEDGED");
        Machine alone = DemoMachine.create();
        Machine nobody = alone.withAxes(alone.axes().stream().map(a -> a.withGuard(a.guard().withAsks(List.of()))).toList());
        assertThat(finding(nobody, SHUTTLE, "No axis answers Emergency stop").axis()).isEqualTo("Shuttle");
        assertThat(findings(alone.withSafetyRequests(List.of()).withAxes(alone.axes().stream().map(a -> a.withGuard(AxisGuard.NONE)).toList()), SHUTTLE)).as("nothing is planned yet").isEmpty();
    }

    @Test
    void aFollowerThatIsStoppedApartFromItsMaster() {
        assertThat(findings(DemoMachine.create(), BRUSH)).as("both by safe stop 1").noneMatch(f -> f.title().contains("apart"));
        Finding apart = finding(demo(BRUSH, g -> g.withAsks(List.of(new Ask("Door", SafetyFunction.SAFE_TORQUE_OFF), new Ask("Emergency stop", SafetyFunction.SAFE_STOP_1)))), BRUSH, "Door stops it apart from its master Table");
        assertThat(apart.consequence()).contains("safe torque off", "safe stop 1");
    }

    /** The door's stopping time is 0.207 s; one reaches 120 mm through it: S = 1600·T + 120 mm (ISO 13855:2010, 9; from memory). */
    @Test
    void theSafeDistanceOfTheDoor() {
        Figure figure = GuardAdvice.of(DemoMachine.create(), SHUTTLE).figures().stream().filter(f -> f.label().equals("Door: safe distance from Shuttle")).findFirst().orElseThrow();
        assertThat(figure.value()).isEqualTo(Numbers.fixed(1600 * 0.207125 + 120, 0));
        assertThat(figure.formula()).contains("ISO 13855, 9", "measure it on the machine");
    }

    /** Measured on the machine: 0.3 s, S = 1600·0.3 + 120 mm for every axis alike; 0.15 s is less than the 207 ms that are reckoned. */
    @Test
    void theSafeDistanceOfAMeasuredStop() {
        Machine demo = DemoMachine.create();
        Machine slow = demo.withSafetyRequests(List.of(demo.safetyRequests().get(0).withStopping(300), demo.safetyRequests().get(1)));
        for (int axis : new int[] {SHUTTLE, LIFT}) {
            Figure figure = GuardAdvice.of(slow, axis).figures().stream().filter(f -> f.label().equals("Door: safe distance")).findFirst().orElseThrow();
            assertThat(figure.value()).isEqualTo("600");
            assertThat(figure.formula()).contains("measured on the machine");
        }
        assertThat(findings(slow, SHUTTLE)).allMatch(f -> f.severity() == Severity.GOOD);
        Machine quick = demo.withSafetyRequests(List.of(demo.safetyRequests().get(0).withStopping(150), demo.safetyRequests().get(1)));
        Finding shorter = finding(quick, SHUTTLE, "is shorter than this axis needs");
        assertThat(shorter.consequence()).contains("207.1 ms", "150 ms");
        assertThat(shorter.mend().changes()).containsExactly(new Finding.Change("replace", "/safetyRequests/0/stopping", 0.0));
    }

    /** What a grip is let go at becomes the entry that puts the drawing there: to a cycle of the guard, which decides when it knows. */
    @Test
    void aGripIsWhereItsEntryPutsIt() {
        for (SafetyFunction function : List.of(SafetyFunction.SAFE_STOP_1, SafetyFunction.SAFE_STOP_2)) {
            for (Watch watch : Watch.values()) {
                UnaryOperator<StopRules> given = r -> r.withWatch(watch).withSteepest(9000).withTime(300);
                UnaryOperator<AxisGuard> rules = g -> g.withStop1(given.apply(g.stop1())).withStop2(given.apply(g.stop2()));
                for (StopGrip grip : plan(demo(LIFT, rules), LIFT, function).grips()) {
                    double by = grip.along() == StopGrip.Along.TIME || grip.along() == StopGrip.Along.SLOPE ? 40 : 1.5;
                    double value = switch (grip.along()) {
                        case SLOPE -> 1e3 * grip.drop() / (grip.time() + by - grip.from());
                        default -> grip.value() + by;
                    };
                    UnaryOperator<StopRules> dragged = r -> set(given.apply(r), grip.entry(), value);
                    StopGrip after = plan(demo(LIFT, g -> g.withStop1(dragged.apply(g.stop1())).withStop2(dragged.apply(g.stop2()))), LIFT, function).grips().stream().filter(g -> g.entry().equals(grip.entry())).findFirst().orElseThrow();
                    assertThat(after.value()).isCloseTo(value, within(1e-9));
                    if (grip.time() == null) {
                        assertThat(after.height()).as(grip.label()).isCloseTo(grip.height() + by, within(1e-9));
                    } else {
                        assertThat(after.time()).as(grip.label()).isCloseTo(grip.time() + by, within(grip.entry().equals("delay") ? 2.0 : 1e-6));
                    }
                }
            }
        }
        assertThat(plan(DemoMachine.create(), LIFT, SafetyFunction.SAFE_STOP_1).grips()).extracting(StopGrip::entry).containsExactly("delay", "flattest", "standstillSpeed", "torqueDelay", "brakeDelay");
        assertThat(plan(DemoMachine.create(), SHUTTLE, SafetyFunction.SAFE_TORQUE_OFF).grips()).isEmpty();
        assertThat(plan(demo(SHUTTLE, g -> g.withStop2(g.stop2().withStandstillSpeed(2000))), SHUTTLE, SafetyFunction.SAFE_STOP_2).grips()).as("never faster than that").extracting(StopGrip::entry).doesNotContain("flattest");
    }

    private static StopRules set(StopRules rules, String entry, double value) {
        return switch (entry) {
            case "delay" -> rules.withDelay(value);
            case "time" -> rules.withTime(value);
            case "flattest" -> rules.withFlattest(value);
            case "steepest" -> rules.withSteepest(value);
            case "standstillSpeed" -> rules.withStandstillSpeed(value);
            case "window" -> rules.withWindow(value);
            case "torqueDelay" -> rules.withTorqueDelay(value);
            case "brakeDelay" -> rules.withBrakeDelay(value);
            default -> throw new AssertionError(entry);
        };
    }

    /** Slowed down by the program, mends end the findings one after the other: a flatter limit, then a watch that waits for the jerk. */
    @Test
    void mendsKnowThatTheProgramsRampComesSlowly() {
        for (double speed : new double[] {950, 200, 60}) {
            Machine machine = demo(SHUTTLE, g -> g.withSlowing(AxisGuard.Slowing.PROGRAM).withAsks(List.of(new Ask("Door", SafetyFunction.SAFE_STOP_2))));
            Axis shuttle = machine.axes().get(SHUTTLE);
            machine = machine.withAxis(SHUTTLE, shuttle.withLimits(shuttle.limits().withMax(shuttle.limits().max().withSpeed(speed))));
            int mends = 0;
            for (; mends < 8; mends++) {
                Finding fault = findings(machine, SHUTTLE).stream().filter(f -> f.severity() == Severity.FAULT).findFirst().orElse(null);
                if (fault == null) {
                    break;
                }
                assertThat(fault.mend().changes().get(0).path()).isIn("/axes/0/guard/stop2/flattest", "/axes/0/guard/stop2/delay");
                double value = ((Number) fault.mend().changes().get(0).value()).doubleValue();
                Axis before = machine.axes().get(SHUTTLE);
                StopRules rules = before.guard().stop2();
                machine = machine.withAxis(SHUTTLE, before.withGuard(before.guard().withStop2(fault.mend().changes().get(0).path().endsWith("delay") ? rules.withDelay(value) : rules.withFlattest(value))));
            }
            assertThat(mends).as("at " + speed).isBetween(1, 7);
            assertThat(plan(machine, SHUTTLE, SafetyFunction.SAFE_STOP_2).beyond()).isLessThanOrEqualTo(machine.axes().get(SHUTTLE).guard().stop2().filterDistance());
        }
    }

    /** A ramp limited in jerk against sums over it: way, and the deceleration that a slow axis never comes to. */
    @Test
    void aRampLimitedInJerkIsTheSumOfItsParts() {
        for (double[] one : new double[][] {{950, 2500, 25_000}, {100, 2500, 25_000}, {950, 2500, 0}, {300, 1200, 12_000}}) {
            SlowingDown slowing = new SlowingDown(one[0], one[1], one[2]);
            double way = 0;
            double steepest = 0;
            for (double t = 0; t < slowing.seconds(); t += 1e-5) {
                way += slowing.at(t + 5e-6) * 1e-5;
                steepest = Math.max(steepest, (slowing.at(t) - slowing.at(t + 1e-5)) / 1e-5);
            }
            assertThat(way).isCloseTo(slowing.way(), within(1e-2));
            assertThat(steepest).isLessThanOrEqualTo(one[1] * 1.0001);
            assertThat(slowing.at(slowing.seconds())).isZero();
        }
        assertThat(new SlowingDown(100, 2500, 25_000).seconds()).as("2·√(v/j)").isCloseTo(2 * Math.sqrt(100 / 25_000.0), within(1e-9));
    }

    /** The same limit that a ramp at once keeps is broken by one that comes slowly. */
    @Test
    void aRampThatComesSlowlyIsBeyondTheLimitFirst() {
        double beyond = new SlowingDown(950, 2500, 25_000).beyond(0, 1500, 6);
        /* j·t = f at 60 ms, caught up where ½·j·t² = f·t, at 120 ms, if the deceleration were not there at 100 ms: then 2500·(t − 0.05) = 1500·t at 125 ms */
        assertThat(beyond).isBetween(3.0, 4.5);
        assertThat(new SlowingDown(950, 2500, 0).beyond(0, 1500, 6)).isZero();
        /* one that its weight hardly lets slow down: no sum without an end */
        assertThat(new SlowingDown(950, 1e-9, 25_000).beyond(0, 1500, 6)).isGreaterThan(1e6);
    }
}
