package rueda.plcopen;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import rueda.bench.Bench;
import rueda.machine.DemoMachine;
import rueda.machine.Homing;
import rueda.machine.Machine;

/** One axis of the demo on a bench, with a program whose variables a test reads and sets. */
final class ProgramBench {

    private ProgramBench() {
    }

    /** The axis alone, its zero where it stands. @param zero position of that place, units */
    static Machine alone(String axis, double zero) {
        Machine demo = DemoMachine.create();
        return demo.withAxes(List.of(demo.axis(axis).orElseThrow().withHoming(Homing.search(37, 20, 2, 60, zero)))).withProofs(List.of());
    }

    static double value(Bench bench, String name) {
        return bench.resource().program().variable(name).orElseThrow().number(bench.resource().memory());
    }

    static void set(Bench bench, String name, long value) {
        bench.resource().memory()[bench.resource().program().variable(name).orElseThrow().slot()] = value;
    }

    /** Runs until the program has counted so many of its cycles of 2 ms in its variable t. */
    static void until(Bench bench, int cycles) {
        while (value(bench, "t") < cycles) {
            bench.cycle();
        }
    }

    static void untilTrue(Bench bench, String name) {
        for (int i = 0; i < 60_000 && value(bench, name) != 1; i++) {
            bench.cycle();
        }
        assertThat(value(bench, name)).as(name).isEqualTo(1);
    }
}
