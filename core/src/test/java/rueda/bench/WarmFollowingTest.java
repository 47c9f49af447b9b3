package rueda.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.management.ManagementFactory;
import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.machine.Axis;
import rueda.machine.DemoMachine;
import rueda.machine.Homing;
import rueda.machine.Machine;
import rueda.machine.VirtualMaster;

/** Following allocates nothing once it is warm, however it is done. */
class WarmFollowingTest {

    /** Bytes that so many cycles allocate; a bench that allocated in each of them would need at least 16 each. */
    private static void allocatesNothing(Bench bench) {
        bench.run(40);
        com.sun.management.ThreadMXBean threads = (com.sun.management.ThreadMXBean) ManagementFactory.getThreadMXBean();
        long thread = Thread.currentThread().getId();
        threads.getThreadAllocatedBytes(thread);
        long before = threads.getThreadAllocatedBytes(thread);
        bench.run(10);
        assertThat(threads.getThreadAllocatedBytes(thread) - before).as("bytes in 10 000 cycles").isLessThan(20_000);
    }

    private static Machine pair() {
        Machine demo = DemoMachine.create();
        Axis table = demo.axis("Table").orElseThrow().withHoming(Homing.search(37, 20, 2, 60, 0));
        Axis brush = demo.axis("Brush").orElseThrow().withHoming(Homing.search(37, 20, 2, 60, 0));
        return demo.withAxes(List.of(table, brush)).withProofs(List.of()).withPlc(demo.plc().withVirtualMasters(List.of(VirtualMaster.named("Line"))));
    }

    @Test
    void inThePlc() {
        Bench bench = new Bench(pair(), "PROGRAM P VAR P1, P2, P3 : MC_Power; H1, H2 : MC_Home; G1, G2 : MC_GearIn; Run : MC_MoveVelocity; Add : MC_MoveSuperimposed; Ready, A : BOOL; END_VAR\n"
                + "P1(Axis := Table, Enable := TRUE); P2(Axis := Brush, Enable := TRUE); P3(Axis := Line, Enable := TRUE); H1(Axis := Table, Execute := P1.Status); H2(Axis := Brush, Execute := P2.Status); Ready := Ready OR H1.Done AND H2.Done;\n"
                + "G1(Master := Line, Slave := Table, Execute := Ready, RatioNumerator := 1, RatioDenominator := 3); G2(Master := Table, Slave := Brush, Execute := Ready, RatioNumerator := 7, RatioDenominator := 2);\n"
                + "A := A OR G1.InGear AND G2.InGear; Run(Axis := Line, Execute := A, Velocity := 60.0); Add(Axis := Brush, Execute := A, Distance := 4000.0, VelocityDiff := 20.0);\nEND_PROGRAM", 1000);
        allocatesNothing(bench);
        assertThat(bench.axis(1).followState().follows()).isTrue();
    }

    @Test
    void inTheDrive() {
        Bench bench = new Bench(DemoMachine.byEncoder(), 1000);
        bench.drive(0).digitalInputs().force("I5", true);
        bench.run(1);
        bench.drive(0).digitalInputs().force("I6", true);
        allocatesNothing(bench);
        assertThat(bench.drive(0).following().locked()).isTrue();
    }
}
