package rueda.plc;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import rueda.plc.StructuredTextCompiler.Text;
import rueda.plc.run.StatementPlace;
import rueda.plc.run.Tracer;
import rueda.plc.run.Tracer.Step;
import rueda.plc.type.Type;

/** Breakpoints, steps, calls that have not returned, expressions that are watched, values that are written and forced. */
class HeldProgramTest {

    private static final String SOURCE = """
            FUNCTION Twice : INT
            VAR_INPUT x : INT; END_VAR
              Twice := x;
              Twice := Twice + x;
            END_FUNCTION
            FUNCTION_BLOCK Counter
            VAR_INPUT more : INT; END_VAR
            VAR_OUTPUT n : INT; END_VAR
            VAR inner : INT; END_VAR
              inner := Twice(more);
              n := n + inner;
            END_FUNCTION_BLOCK
            PROGRAM Main
            VAR a, b : Counter; i, sum : INT; go : BOOL; name : STRING := 'x'; f : LREAL; t : TIME; END_VAR
            VAR CONSTANT k : INT := 5; END_VAR
              a(more := 1);
              b(more := 2);
              FOR i := 1 TO 3 DO
                sum := sum + i;
              END_FOR
              IF go THEN
                sum := 0;
              END_IF
            END_PROGRAM
            """;

    private Resource resource;

    private Tracer traced() {
        Environment plain = Environment.PLAIN;
        List<Environment.Tag> tags = List.of(new Environment.Tag("Axis.Word", Type.WORD, false, true, 0), new Environment.Tag("Axis.Input", Type.BOOL, false, false, 0), new Environment.Tag("Free", Type.INT, true));
        CompiledProgram program = StructuredTextCompiler.compile(List.of(new Text("Main.st", SOURCE)), new Environment(plain.axes(), tags, plain.blocks(), plain.constants()), true);
        assertThat(program.diagnostics()).isEmpty();
        resource = Resource.alone(program, 10_000);
        return resource.tracer();
    }

    @AfterEach
    void letGo() {
        if (resource != null) {
            resource.close();
        }
    }

    private String value(String name) {
        return resource.text(resource.program().variable(name).orElseThrow());
    }

    private int line() {
        return resource.tracer().stack().get(0).place().line();
    }

    private List<String> stack() {
        return resource.tracer().stack().stream().map(l -> resource.program().unitName(l.place().unit()) + " " + l.place().line()).toList();
    }

    /** Held before the line runs; going on ends the cycle, and it is held in the next one again. */
    @Test
    void breakpoint() {
        Tracer tracer = traced();
        assertThat(tracer.breakpoint("Main.st", 17, null)).isEqualTo(new StatementPlace("MAIN", "Main.st", 17));
        for (int round = 1; round < 4; round++) {
            assertThat(resource.cycle(round * 1000L)).isFalse();
            assertThat(resource.held()).isTrue();
            assertThat(stack()).containsExactly("Main 17");
            assertThat(value("a.n")).isEqualTo(String.valueOf(2 * round));
            assertThat(value("b.n")).isEqualTo(String.valueOf(4 * (round - 1)));
            assertThat(resource.cycle()).isTrue();
            assertThat(value("b.n")).isEqualTo(String.valueOf(4 * round));
        }
    }

    /** In a line without a statement it stands in the next one; behind the last it stands nowhere. */
    @Test
    void whereABreakpointStands() {
        Tracer tracer = traced();
        assertThat(tracer.breakpoint("Main.st", 13, null).line()).isEqualTo(16);
        assertThat(tracer.breakpoint("Main.st", 25, null)).isNull();
        assertThat(tracer.breakpoint("Other.st", 1, null)).isNull();
    }

    /** In a unit with several instances it holds in each; a condition picks one, in the names of the unit. */
    @Test
    void conditions() {
        Tracer tracer = traced();
        tracer.breakpoint("Main.st", 11, null);
        resource.cycle(0);
        assertThat(stack()).containsExactly("Counter 11", "Main 16");
        assertThat(watched("inner", "Counter")).isEqualTo("2");
        resource.cycle();
        assertThat(stack()).containsExactly("Counter 11", "Main 17");
        assertThat(watched("inner", "Counter")).isEqualTo("4");
        tracer.clear();
        resource.cycle();
        Inspector.Watched condition = resource.inspector().watch("more = 2 AND n >= 8", "Counter");
        assertThat(condition.fault()).isNull();
        tracer.breakpoint("Main.st", 11, resource.inspector().holds(condition));
        assertThat(resource.cycle(1000)).isTrue();
        assertThat(resource.cycle(2000)).isFalse();
        assertThat(stack()).containsExactly("Counter 11", "Main 17");
        assertThat(watched("n", "Counter")).isEqualTo("8");
    }

    private String watched(String expression, String unit) {
        Tracer.Level level = resource.tracer().stack().isEmpty() ? new Tracer.Level(null, 0) : resource.tracer().stack().get(0);
        return resource.inspector().text(resource.inspector().watch(expression, unit), level.base());
    }

    @Test
    void steps() {
        Tracer tracer = traced();
        List<String> into = new ArrayList<>();
        tracer.step(Step.INTO);
        resource.cycle(0);
        for (int i = 0; i < 14; i++) {
            into.add(stack().get(0));
            tracer.step(Step.INTO);
            resource.cycle();
        }
        assertThat(into).containsExactly("Main 16", "Counter 10", "Twice 3", "Twice 4", "Counter 11", "Main 17", "Counter 10", "Twice 3", "Twice 4", "Counter 11", "Main 18", "Main 19", "Main 18", "Main 19");
        tracer.goOn();
        resource.cycle();
        List<Integer> over = new ArrayList<>();
        tracer.step(Step.OVER);
        resource.cycle(1000);
        for (int i = 0; i < 4; i++) {
            over.add(line());
            tracer.step(Step.OVER);
            resource.cycle();
        }
        assertThat(over).containsExactly(16, 17, 18, 19);
    }

    /** Out of a function in a function block; out of a program it is the next cycle that begins. */
    @Test
    void stepOutAndToACursor() {
        Tracer tracer = traced();
        assertThat(tracer.toLine("Main.st", 4)).isTrue();
        resource.cycle(0);
        assertThat(stack()).containsExactly("Twice 4", "Counter 10", "Main 16");
        tracer.step(Step.OUT);
        resource.cycle();
        assertThat(stack()).as("the call is in the middle of its line").containsExactly("Counter 11", "Main 16");
        tracer.step(Step.OUT);
        resource.cycle();
        assertThat(stack()).containsExactly("Main 17");
        tracer.step(Step.OUT);
        int lines = 0;
        while (!resource.cycle()) {
            lines++;
            tracer.step(Step.OUT);
        }
        assertThat(lines).as("line by line, because nothing called it").isPositive();
        assertThat(resource.cycle(1000)).isFalse();
        assertThat(line()).isEqualTo(16);
    }

    /** The same values and the same statements whether it was held or not. */
    @Test
    void holdingChangesNothing() {
        traced();
        Resource plain = resource;
        for (int i = 0; i < 5; i++) {
            plain.cycle(i);
        }
        Tracer tracer = traced();
        tracer.breakpoint("Main.st", 4, null);
        for (int i = 0; i < 5; i++) {
            resource.cycle(i);
            while (resource.held()) {
                resource.inspector().text(resource.inspector().watch("sum * 2 + LIMIT(0, i, 5)", "Main"), 0);
                tracer.step(i % 2 == 0 ? Step.INTO : Step.OVER);
                resource.cycle();
            }
        }
        assertThat(java.util.Arrays.copyOf(resource.memory(), 60)).isEqualTo(java.util.Arrays.copyOf(plain.memory(), 60));
        assertThat(resource.statements()).isEqualTo(plain.statements());
    }

    /** A fault in a program that was held is told as any other. */
    @Test
    void faultWhileStepping() {
        CompiledProgram program = StructuredTextCompiler.compile(List.of(new Text("F.st", "PROGRAM P VAR z, x : INT; END_VAR\nz := 0;\nx := 1 / z;\nEND_PROGRAM")), Environment.PLAIN, true);
        resource = Resource.alone(program, 100);
        resource.tracer().breakpoint("F.st", 3, null);
        assertThat(resource.cycle(0)).isFalse();
        assertThat(resource.cycle()).isTrue();
        assertThat(resource.fault().line()).isEqualTo(3);
        assertThat(resource.held()).isFalse();
    }

    @Test
    void expressions() {
        traced();
        resource.cycle(0);
        Inspector inspector = resource.inspector();
        assertThat(watched("sum", "Main")).isEqualTo("6");
        assertThat(watched("a.inner", "")).as("what a block holds inside, by the name of its value").isEqualTo("2");
        assertThat(watched("a.n + b.n > 5", "Main")).isEqualTo("TRUE");
        assertThat(watched("CONCAT(name, 'y')", "Main")).isEqualTo("'xy'");
        assertThat(watched("T#1s + T#500ms", "Main")).isEqualTo("T#1500ms");
        assertThat(watched("k", "Main")).isEqualTo("5");
        assertThat(watched("Free + 1", "")).isEqualTo("1");
        assertThat(inspector.watch("sum +", "Main").fault()).isNotBlank();
        assertThat(inspector.watch("", "Main").fault()).contains("missing");
        assertThat(inspector.watch("nobody", "Main").fault()).contains("nobody");
        assertThat(inspector.watch("nobody", "Main").fault()).as("also the second time").contains("nobody");
        assertThat(inspector.watch("a", "Main").fault()).contains("function block");
        assertThat(inspector.watch("Twice(2)", "Main").fault()).contains("cannot be called");
        assertThat(inspector.watch("sum sum", "Main").fault()).contains("behind");
        assertThat(inspector.watch("(".repeat(10_000), "Main").fault()).isNotBlank();
        assertThat(watched("sum / Free", "Main")).as("told, and nothing stops").contains("Division by zero");
        assertThat(resource.fault()).isNull();
        for (int i = 0; i < 2000; i++) {
            assertThat(inspector.watch("SEL(sum > 2, LIMIT(0, sum, " + i + "), 7)", "Main").fault()).isNull();
        }
    }

    @Test
    void writing() {
        traced();
        resource.cycle(0);
        Inspector inspector = resource.inspector();
        assertThat(inspector.write("sum", "40 + 2")).isNull();
        assertThat(inspector.write("a.inner", "9")).isNull();
        assertThat(inspector.write("name", "'written'")).isNull();
        assertThat(inspector.write("F", "2.5")).isNull();
        assertThat(inspector.write("t", "T#3s")).isNull();
        assertThat(value("sum")).isEqualTo("42");
        assertThat(value("a.inner")).isEqualTo("9");
        assertThat(value("name")).isEqualTo("'written'");
        assertThat(value("f")).isEqualTo("2.5");
        assertThat(value("t")).isEqualTo("T#3000ms");
        assertThat(inspector.write("sum", "70000")).contains("70000");
        assertThat(inspector.write("sum", "TRUE")).isNotBlank();
        assertThat(inspector.write("sum", "")).contains("missing");
        assertThat(inspector.write("nobody", "1")).contains("nobody");
        assertThat(inspector.write("k", "1")).contains("CONSTANT");
        assertThat(inspector.write("Axis.Word", "1")).contains("Motion control");
        assertThat(value("sum")).as("what was refused has changed nothing").isEqualTo("42");
    }

    /** At the beginning of a cycle and at its end, until released. */
    @Test
    void forcing() {
        traced();
        Inspector inspector = resource.inspector();
        assertThat(inspector.force("go", "TRUE")).isNull();
        assertThat(inspector.force("Axis.Input", "TRUE")).isNull();
        assertThat(inspector.forced()).containsExactly(new Inspector.Forced("go", "TRUE"), new Inspector.Forced("Axis.Input", "TRUE"));
        resource.memory()[resource.program().tagSlot(1)] = 0;
        resource.cycle(0);
        assertThat(value("sum")).as("go was TRUE").isEqualTo("0");
        assertThat(value("Axis.Input")).isEqualTo("TRUE");
        assertThat(inspector.force("SUM", "7")).isNull();
        resource.cycle(1000);
        assertThat(value("sum")).as("the program made it 0 in between").isEqualTo("7");
        inspector.release("sum");
        resource.cycle(2000);
        assertThat(value("sum")).isEqualTo("0");
        inspector.releaseAll();
        assertThat(inspector.forced()).isEmpty();
        assertThat(inspector.force("go", "5")).isNotBlank();
        assertThat(inspector.forced()).isEmpty();
    }

    /** Whoever gives up a program in its middle leaves no thread behind. */
    @Test
    void givenUp() throws InterruptedException {
        Tracer tracer = traced();
        tracer.breakpoint("Main.st", 16, null);
        resource.cycle(0);
        List<Thread> held = Thread.getAllStackTraces().keySet().stream().filter(t -> t.getName().equals("held program")).toList();
        assertThat(held).isNotEmpty();
        resource.close();
        for (Thread thread : held) {
            thread.join(20_000);
        }
        assertThat(held).noneMatch(Thread::isAlive);
    }
}
