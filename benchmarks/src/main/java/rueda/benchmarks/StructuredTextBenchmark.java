package rueda.benchmarks;

import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import rueda.plc.CompiledProgram;
import rueda.plc.Environment;
import rueda.plc.StructuredTextCompiler;
import rueda.plc.Resource;

/**
 * Structured Text against the same computation in Java: a cycle of some 2 000 statements (64 channels, each a function block with a state machine,
 * a filter, a ramp, recipes in an array of structures), and a loop of 1000 rounds. And how long 20 000 lines take to be compiled.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Warmup(iterations = 8, time = 1)
@Measurement(iterations = SteppingBenchmark.ITERATIONS, time = 1)
@Fork(1)
public class StructuredTextBenchmark {

    private static final int CHANNELS = 64;

    private static final String CELL = """
            TYPE
              State : (Idle, Heating, Holding, Cooling, Faulted);
              Recipe : STRUCT Target, Rate : LREAL; Hold : DINT; Weight : ARRAY [0..3] OF LREAL; END_STRUCT;
            END_TYPE
            FUNCTION Mean : LREAL
            VAR_INPUT a, b, w : LREAL; END_VAR
              Mean := a + (b - a) * w;
            END_FUNCTION
            FUNCTION_BLOCK Channel
            VAR_INPUT Enable : BOOL; Measured : LREAL; Number : INT; END_VAR
            VAR_IN_OUT Recipes : ARRAY [0..7] OF Recipe; END_VAR
            VAR_OUTPUT Power : LREAL; Now : State; Done : DINT; END_VAR
            VAR filtered, setpoint, error, sum, weight : LREAL; held : DINT; i, r : INT; END_VAR
              r := Number MOD 8;
              filtered := Mean(filtered, Measured, 0.2);
              weight := 0.0;
              FOR i := 0 TO 3 DO
                weight := weight + Recipes[r].Weight[i];
              END_FOR
              CASE Now OF
                Idle:
                  setpoint := filtered;
                  IF Enable THEN
                    Now := Heating;
                  END_IF
                Heating:
                  setpoint := MIN(setpoint + Recipes[r].Rate, Recipes[r].Target);
                  IF setpoint >= Recipes[r].Target THEN
                    Now := Holding;
                    held := 0;
                  END_IF
                Holding:
                  held := held + 1;
                  IF held >= Recipes[r].Hold THEN
                    Now := Cooling;
                  END_IF
                Cooling:
                  setpoint := setpoint - Recipes[r].Rate;
                  IF setpoint < 1.0 THEN
                    Now := Idle;
                    Done := Done + 1;
                  END_IF
              ELSE
                Now := Idle;
              END_CASE
              error := setpoint - filtered;
              sum := LIMIT(-50.0, sum + error * 0.01, 50.0);
              Power := LIMIT(0.0, (error * 2.0 + sum) * weight, 100.0);
              IF Power > 99.0 AND error > 40.0 OR NOT Enable THEN
                sum := sum * 0.5;
              END_IF
            END_FUNCTION_BLOCK
            PROGRAM P
            VAR channels : ARRAY [1..64] OF Channel; recipes : ARRAY [0..7] OF Recipe := [8((Target := 60.0, Rate := 0.5, Hold := 100, Weight := [0.1, 0.2, 0.3, 0.4]))];
                measured : ARRAY [1..64] OF LREAL; n : INT; total : DINT; END_VAR
              total := 0;
              FOR n := 1 TO 64 DO
                channels[n](Enable := TRUE, Measured := measured[n], Number := n, Recipes := recipes);
                measured[n] := measured[n] + (channels[n].Power - measured[n]) * 0.02;
                total := total + channels[n].Done;
              END_FOR
            END_PROGRAM
            """;

    private final Resource task = Resource.alone(StructuredTextCompiler.compile("""
            PROGRAM P
            VAR i, sum : DINT; mean : LREAL; END_VAR
            sum := 0;
            FOR i := 1 TO 1000 DO
              IF i MOD 3 = 0 THEN
                sum := sum + i * 2;
              ELSE
                mean := mean * 0.99 + DINT_TO_LREAL(sum) * 0.01;
              END_IF
            END_FOR
            END_PROGRAM
            """, Environment.PLAIN), 1_000_000);
    private final Resource cell = Resource.alone(StructuredTextCompiler.compile(CELL, Environment.PLAIN), 1_000_000);
    private final int total = cell.program().variable("total").orElseThrow().slot();
    private final JavaCell javaCell = new JavaCell();
    private double mean;
    private String long20000;

    /** The same as the text, in Java. */
    private static final class JavaCell {

        private enum State { IDLE, HEATING, HOLDING, COOLING, FAULTED }

        private static final class Recipe {
            double target = 60;
            double rate = 0.5;
            int hold = 100;
            final double[] weight = {0.1, 0.2, 0.3, 0.4};
        }

        private static final class Channel {
            double power;
            State now = State.IDLE;
            int done;
            double filtered;
            double setpoint;
            double error;
            double sum;
            double weight;
            int held;

            void step(boolean enable, double measured, int number, Recipe[] recipes) {
                int r = number % 8;
                filtered = filtered + (measured - filtered) * 0.2;
                weight = 0;
                for (int i = 0; i <= 3; i++) {
                    weight = weight + recipes[r].weight[i];
                }
                switch (now) {
                    case IDLE -> {
                        setpoint = filtered;
                        if (enable) {
                            now = State.HEATING;
                        }
                    }
                    case HEATING -> {
                        setpoint = Math.min(setpoint + recipes[r].rate, recipes[r].target);
                        if (setpoint >= recipes[r].target) {
                            now = State.HOLDING;
                            held = 0;
                        }
                    }
                    case HOLDING -> {
                        held = held + 1;
                        if (held >= recipes[r].hold) {
                            now = State.COOLING;
                        }
                    }
                    case COOLING -> {
                        setpoint = setpoint - recipes[r].rate;
                        if (setpoint < 1) {
                            now = State.IDLE;
                            done = done + 1;
                        }
                    }
                    default -> now = State.IDLE;
                }
                error = setpoint - filtered;
                sum = Math.min(Math.max(-50.0, sum + error * 0.01), 50.0);
                power = Math.min(Math.max(0.0, (error * 2.0 + sum) * weight), 100.0);
                if (power > 99 && error > 40 || !enable) {
                    sum = sum * 0.5;
                }
            }
        }

        private final Channel[] channels = new Channel[CHANNELS];
        private final Recipe[] recipes = new Recipe[8];
        private final double[] measured = new double[CHANNELS];

        JavaCell() {
            java.util.Arrays.setAll(channels, i -> new Channel());
            java.util.Arrays.setAll(recipes, i -> new Recipe());
        }

        int cycle() {
            int total = 0;
            for (int n = 0; n < CHANNELS; n++) {
                channels[n].step(true, measured[n], n + 1, recipes);
                measured[n] = measured[n] + (channels[n].power - measured[n]) * 0.02;
                total = total + channels[n].done;
            }
            return total;
        }
    }

    @Setup
    public void prepare() {
        StringBuilder text = new StringBuilder("PROGRAM P VAR a, b : ARRAY [0..99] OF DINT; l : LREAL; i : DINT; END_VAR\n");
        for (int n = 0; n < 5_000; n++) {
            text.append("IF a[").append(n % 100).append("] > b[i] + ").append(n).append(" THEN\n  a[i] := a[i] * 2 - ").append(n).append(";\n  l := l + SQRT(DINT_TO_LREAL(b[").append(n % 100).append("]));\nEND_IF\n");
        }
        long20000 = text.append("END_PROGRAM\n").toString();
        CompiledProgram compiled = StructuredTextCompiler.compile(long20000, Environment.PLAIN);
        if (!compiled.runs()) {
            throw new IllegalStateException(compiled.diagnostics().toString());
        }
        for (int k = 0; k < 5000; k++) {
            cell.cycle(k);
            long expected = javaCell.cycle();
            if (cell.fault() != null || cell.memory()[total] != expected) {
                throw new IllegalStateException("Structured Text and Java do not agree: " + cell.memory()[total] + " and " + expected);
            }
        }
    }

    @Benchmark
    public long cellInStructuredText() {
        cell.cycle(0);
        return cell.memory()[total];
    }

    @Benchmark
    public long cellInJava() {
        return javaCell.cycle();
    }

    @Benchmark
    public long structuredText() {
        task.cycle(0);
        return task.memory()[1];
    }

    @Benchmark
    public long java() {
        int sum = 0;
        for (int i = 1; i <= 1000; i++) {
            if (i % 3 == 0) {
                sum = sum + i * 2;
            } else {
                mean = mean * 0.99 + sum * 0.01;
            }
        }
        return sum;
    }

    /** 20 000 lines. */
    @Benchmark
    public boolean compiling() {
        return StructuredTextCompiler.compile(long20000, Environment.PLAIN).runs();
    }
}
