package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.function.BiConsumer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;
import rueda.bus.BusFamily;
import rueda.machine.Axis;
import rueda.machine.Bus;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;
import rueda.machine.Mistake;

/** Cycles of an axis that stands are not worked out, and nobody can tell: every recorded bit is that of a bench that works all of them out. */
class RestTest {

    private static final int CYCLES = 40_000;

    /** Runs both with the same touches, and compares every sample; a touch is made to both before a cycle. */
    private static Bench same(Machine machine, int cycles, BiConsumer<Bench, Integer> touch) {
        Bench all = new Bench(machine, cycles);
        Bench resting = new Bench(machine, cycles);
        resting.restWhileStill();
        for (int k = 0; k < cycles; k++) {
            touch.accept(all, k);
            touch.accept(resting, k);
            all.cycle();
            resting.cycle();
            for (int i = 0; i < machine.axes().size(); i++) {
                if (!Arrays.equals(all.outputBytes(i), resting.outputBytes(i))) {
                    assertThat(resting.outputBytes(i)).as("to %s in cycle %d", machine.axes().get(i).name(), k).isEqualTo(all.outputBytes(i));
                }
            }
        }
        for (int s = 0; s < all.recording().signals().size(); s++) {
            for (long k = 0; k < cycles; k++) {
                if (Double.doubleToRawLongBits(all.recording().value(s, k)) != Double.doubleToRawLongBits(resting.recording().value(s, k))) {
                    assertThat(resting.recording().value(s, k)).as(all.recording().signals().get(s).name() + " in cycle " + k).isEqualTo(all.recording().value(s, k));
                }
            }
        }
        return resting;
    }

    @Test
    void theDemoIsTheSameBitForBit() {
        Bench resting = same(DemoMachine.create(), CYCLES, (bench, k) -> { });
        assertThat(resting.rested(4)).as("the doser stands most of the time").isGreaterThan(CYCLES / 2);
        assertThat(resting.rested(1)).isGreaterThan(CYCLES / 4);
    }

    @Test
    void theOtherDemosAreTheSame() {
        same(DemoMachine.byWords(), 20_000, (bench, k) -> { });
        same(DemoMachine.byEncoder(), 5000, (bench, k) -> { });
    }

    /** A guard has a clock of its own, which goes on while its axis rests; whoever asks wakes it. */
    @ParameterizedTest
    @ValueSource(doubles = {0.25, 0.375, 2, 3.125})
    void guardsAreTheSame(double cycle) {
        Machine demo = DemoMachine.create();
        Machine machine = demo.withAxes(demo.axes().stream().map(axis -> axis.withGuard(axis.guard().withCycle(cycle))).toList());
        Bench resting = same(machine, 24_000, (bench, k) -> {
            switch (k) {
                case 4000, 14_321 -> bench.ask(0, false, false);
                case 6000, 15_000 -> bench.ask(0, true, true);
                case 7001, 15_999 -> bench.acknowledge(true);
                case 7200, 16_100 -> bench.acknowledge(false);
                case 18_000 -> bench.ask(1, true, false);
                case 18_500 -> bench.push(1, -400);
                default -> {
                }
            }
        });
        assertThat(resting.rested(4)).isGreaterThan(1000);
    }

    /** Whoever touches a resting axis wakes it. */
    @Test
    void touchesAreFelt() {
        same(DemoMachine.create(), 24_000, (bench, k) -> {
            switch (k) {
                case 6000 -> bench.push(4, 0.4);
                case 6300 -> bench.push(4, 0);
                case 7000 -> bench.push(1, -300);
                case 7400 -> bench.load(1, 150);
                case 8000 -> bench.turnByHand(4, 0.01);
                case 9000 -> bench.forceInput(1, "I4", false);
                case 9500 -> bench.forceInput(1, "I4", null);
                case 10_000 -> bench.breakSomething(1, Mistake.NEGATIVE_LIMIT_BROKEN, true);
                case 10_500 -> bench.breakSomething(1, Mistake.NEGATIVE_LIMIT_BROKEN, false);
                case 11_000 -> bench.forceBit(4, true, 0, false);
                case 11_200 -> bench.releaseForces(4);
                case 12_000 -> bench.restartDevice(4);
                case 16_000 -> bench.switchOff(1);
                case 17_000 -> bench.restartDevice(1);
                case 20_000 -> bench.drive(3).digitalInputs().force("I4", false);
                case 21_000 -> bench.breakSomething(3, Mistake.OWN_CLOCK, true);
                case 22_000 -> bench.breakSomething(3, Mistake.OWN_CLOCK, false);
                case 23_000 -> bench.stopAllAxes();
                default -> { }
            }
        });
    }

    /** Whatever a program orders of an axis that stands, and whenever: what goes to the drive and what the blocks tell is the same. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6})
    void ordersToAxesThatStandAreFelt(long seed) {
        Machine demo = DemoMachine.create();
        Random chance = new Random(seed);
        StringBuilder blocks = new StringBuilder();
        StringBuilder calls = new StringBuilder();
        int number = 0;
        for (String axis : List.of("Shuttle", "Lift", "Table", "Brush", "Doser")) {
            for (String call : List.of("MC_Power|Enable|", "MC_Reset|Execute|", "MC_Home|Execute|", "MC_Home|Execute|, Position := 10.0", "MC_SetPosition|Execute|, Position := 12.5", "MC_SetPosition|Execute|, Position := 3.0, Relative := TRUE", "MC_SetPosition|Execute|, Position := -3.0, Relative := TRUE",
                    "MC_MoveRelative|Execute|, Distance := 2.0", "MC_MoveSuperimposed|Execute|, Distance := 1.0", "MC_Halt|Execute|", "MC_Stop|Execute|", "MC_TorqueControl|Execute|, Torque := 0.05", "MC_SetOverride|Enable|, VelFactor := 0.5", "MC_TouchProbe|Execute|, TriggerInput := 1",
                    "MC_AbortTrigger|Execute|, TriggerInput := 1", "MC_WriteDigitalOutput|Execute|, OutputNumber := 0, Value := TRUE", "MC_WriteParameter|Execute|, ParameterNumber := 9, Value := 50.0")) {
                boolean power = call.startsWith("MC_Power");
                if (!power && chance.nextInt(3) > 0) {
                    continue;
                }
                String[] parts = call.split("\\|", -1);
                int period = power ? 1500 + chance.nextInt(3000) : 300 + chance.nextInt(2500);
                blocks.append(String.format(" B%d : %s;", number, parts[0]));
                calls.append(String.format("B%d(Axis := %s, %s := N MOD %d > %d%s);\n", number++, axis, parts[1], period, power ? 20 : chance.nextInt(period), parts[2]));
            }
        }
        Machine machine = demo.withProgram("PROGRAM P\nVAR N : DINT;" + blocks + " END_VAR\nN := N + 1;\n" + calls + "END_PROGRAM\n").withProofs(List.of());
        Bench resting = same(machine, 8000, (bench, k) -> { });
        assertThat(resting.rested(4)).isPositive();
    }

    @Test
    void byHandAndParametersAreFelt() {
        Machine demo = DemoMachine.create();
        Axis changed = demo.axes().get(4).withWiring(demo.axes().get(4).wiring());
        same(demo, 9000, (bench, k) -> {
            if (k == 5000) {
                bench.takeByHand();
            } else if (k == 5500) {
                bench.writeDevice(4, changed);
            }
        });
    }

    @ParameterizedTest
    @EnumSource(Bus.Family.class)
    void everyBusFamily(Bus.Family family) {
        same(BusFamily.moved(DemoMachine.create(), family), 4000, (bench, k) -> { });
    }

    /** Of 64 axes that only stand, next to nothing is worked out. */
    @Test
    void manyThatStand() {
        Axis doser = DemoMachine.create().axes().get(4);
        List<Axis> many = java.util.stream.IntStream.range(0, 64).mapToObj(i -> doser.withName("D" + i).withStation(rueda.machine.Station.usual("D" + i, i + 1))).toList();
        Machine machine = DemoMachine.create().withAxes(many).withProgram("PROGRAM P END_PROGRAM").withProofs(List.of());
        Bench bench = same(machine, 1000, (b, k) -> { });
        assertThat(bench.rested(63)).isGreaterThan(900);
    }
}
