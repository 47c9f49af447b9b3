package rueda.plcopen;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import rueda.bench.Bench;
import rueda.machine.DemoMachine;

/** Changes of an axis' state are those of the diagram of PLCopen Motion Control part 1 (from memory), and each says what ordered it. */
class StateDiagramTest {

    private final List<String> changes = new ArrayList<>();
    private AxisState before;

    private void run(Bench bench, int axis, double seconds) {
        for (long end = bench.now() + (long) (seconds * 1e9); bench.now() < end; ) {
            bench.cycle();
            MotionAxis motion = bench.axis(axis);
            if (motion.state() != before) {
                StateChange change = motion.lastChange();
                assertThat(change.from()).isEqualTo(before);
                assertThat(before.next()).as("%s to %s", before, motion.state()).contains(motion.state());
                changes.add(before + "-" + motion.state() + (change.block().isEmpty() ? "" : " by " + change.block() + " in line " + change.call().line()));
                before = motion.state();
            }
        }
    }

    /** The demo's shuttle: it is homed, goes out, and comes back. */
    @Test
    void theDemo() {
        Bench bench = new Bench(DemoMachine.create(), 20_000);
        before = AxisState.DISABLED;
        run(bench, 0, 18);
        assertThat(changes).containsExactly("DISABLED-STANDSTILL", "STANDSTILL-HOMING by Reference in line 45", "HOMING-STANDSTILL", "STANDSTILL-DISCRETE_MOTION by ToSlot in line 51", "DISCRETE_MOTION-STANDSTILL",
                "STANDSTILL-DISCRETE_MOTION by ToTable in line 65", "DISCRETE_MOTION-STANDSTILL");
        assertThat(bench.axis(0).lastChange().at()).isBetween(11_000_000_000L, 13_000_000_000L);
    }

    /** From one kind of motion to another, a stop that is held, an error and the way out of it. */
    @Test
    void everyKindOfMotion() {
        String program = """
                PROGRAM Main
                VAR t : DINT; Power : MC_Power; Home : MC_Home; Run, Again : MC_MoveVelocity; Go : MC_MoveAbsolute; Halt : MC_Halt; Stop : MC_Stop; Reset : MC_Reset; END_VAR
                t := t + 1;
                Power(Axis := Shuttle, Enable := t < 3000);
                Home(Axis := Shuttle, Execute := Power.Status);
                Run(Axis := Shuttle, Execute := t > 400, Velocity := 100.0);
                Go(Axis := Shuttle, Execute := t > 600, Position := 300.0);
                Again(Axis := Shuttle, Execute := t > 800, Velocity := 50.0);
                Halt(Axis := Shuttle, Execute := t > 1000);
                Stop(Axis := Shuttle, Execute := t > 1100 AND t < 1300);
                END_PROGRAM
                """;
        Bench bench = new Bench(ProgramBench.alone("Shuttle", 100), program, 20_000);
        before = AxisState.DISABLED;
        run(bench, 0, 7);
        assertThat(changes).containsExactly("DISABLED-STANDSTILL", "STANDSTILL-HOMING by Home in line 5", "HOMING-STANDSTILL", "STANDSTILL-CONTINUOUS_MOTION by Run in line 6", "CONTINUOUS_MOTION-DISCRETE_MOTION by Go in line 7",
                "DISCRETE_MOTION-CONTINUOUS_MOTION by Again in line 8", "CONTINUOUS_MOTION-DISCRETE_MOTION by Halt in line 9", "DISCRETE_MOTION-STANDSTILL", "STANDSTILL-STOPPING by Stop in line 10", "STOPPING-STANDSTILL", "STANDSTILL-DISABLED");
    }

    /** Every state but the first is reached from another one, and an error from all. */
    @Test
    void theDiagram() {
        Set<AxisState> reached = EnumSet.noneOf(AxisState.class);
        for (AxisState state : AxisState.values()) {
            reached.addAll(state.next());
            assertThat(state.next()).doesNotContain(state).doesNotHaveDuplicates();
            assertThat(state == AxisState.ERROR_STOP || state.next().contains(AxisState.ERROR_STOP)).isTrue();
        }
        assertThat(reached).containsExactlyInAnyOrder(AxisState.values());
    }
}
