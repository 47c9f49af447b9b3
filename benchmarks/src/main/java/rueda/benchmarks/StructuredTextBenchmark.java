package rueda.benchmarks;

import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import rueda.plc.Environment;
import rueda.plc.StructuredTextCompiler;
import rueda.plc.Task;

/** A loop of 1000 rounds in Structured Text against the same loop in Java. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Warmup(iterations = 4, time = 1)
@Measurement(iterations = SteppingBenchmark.ITERATIONS, time = 1)
@Fork(1)
public class StructuredTextBenchmark {

    private final Task task = new Task(StructuredTextCompiler.compile("""
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
    private double mean;

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
}
