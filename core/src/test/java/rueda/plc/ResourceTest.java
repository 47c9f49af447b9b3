package rueda.plc;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import rueda.machine.Plc;
import rueda.plc.StructuredTextCompiler.Text;
import rueda.plc.type.Type;

/**
 * Tasks as IEC 61131-3, 6.8.2 has them (from memory): INTERVAL, SINGLE on a rising edge, PRIORITY with 0 first. How an overrun is treated is
 * common practice, no source: a start that falls into a cycle that has not ended is missed, and the next one is on the grid again.
 */
class ResourceTest {

    private static final long MILLI = 1_000_000;

    private static Resource resource(String source, int statementNanos, List<Environment.Tag> tags, Plc.Task... tasks) {
        Environment plain = Environment.PLAIN;
        CompiledProgram program = StructuredTextCompiler.compile(List.of(new Text("Main.st", source)), new Environment(plain.axes(), tags, plain.blocks(), plain.constants()), true);
        assertThat(program.diagnostics()).isEmpty();
        return new Resource(program, List.of(tasks), 1_000_000, statementNanos, MILLI);
    }

    private static Plc.Task every(String name, int millis, int priority, String... programs) {
        return new Plc.Task(name, millis * 1000, "", priority, 0, List.of(programs));
    }

    private static String value(Resource resource, String name) {
        return resource.text(resource.program().variable(name).orElseThrow());
    }

    private static void run(Resource resource, long fromMillis, long toMillis) {
        for (long t = fromMillis; t < toMillis; t++) {
            resource.cycle(t * MILLI);
        }
    }

    private static final String TWO = "VAR_GLOBAL order : DINT; END_VAR\n"
            + "PROGRAM Fast VAR n, saw : DINT; END_VAR\nn := n + 1; saw := order; order := 10 * n + 1; END_PROGRAM\n"
            + "PROGRAM Slow VAR n, saw : DINT; END_VAR\nn := n + 1; saw := order; order := 10 * n + 2; END_PROGRAM";

    /** Each has its own interval; what is due together goes by priority, whatever the order of the list. */
    @Test
    void intervalsAndPriorities() {
        Resource slowFirst = resource(TWO, 0, List.of(), every("Main", 10, 1, "Slow"), every("Fast", 2, 5, "Fast"));
        run(slowFirst, 0, 20);
        assertThat(value(slowFirst, "Fast.n")).isEqualTo("10");
        assertThat(value(slowFirst, "Slow.n")).isEqualTo("2");
        assertThat(value(slowFirst, "Slow.saw")).as("it came before Fast in the cycle of 10 ms, and saw what Fast had left at 8 ms").isEqualTo("51");
        Resource fastFirst = resource(TWO, 0, List.of(), every("Main", 10, 7, "Slow"), every("Fast", 2, 5, "Fast"));
        run(fastFirst, 0, 20);
        assertThat(value(fastFirst, "Slow.saw")).isEqualTo("61");
    }

    /** The first task runs what no task names; a name that no program has is passed over. */
    @Test
    void whatNoTaskNames() {
        Resource resource = resource(TWO, 0, List.of(), every("Main", 1, 0), every("Other", 5, 3, "slow", "Nobody"));
        assertThat(resource.tasks().get(0).programs()).containsExactly("Fast");
        assertThat(resource.tasks().get(1).programs()).containsExactly("slow");
        run(resource, 0, 10);
        assertThat(value(resource, "Fast.n")).isEqualTo("10");
        assertThat(value(resource, "Slow.n")).isEqualTo("2");
    }

    /** SINGLE: once for each rising edge; a level that is there from the start is an edge too. */
    @Test
    void onTheRisingEdgeOfATag() {
        List<Environment.Tag> tags = List.of(new Environment.Tag("Door.Open", Type.BOOL, true));
        Resource resource = resource("PROGRAM Main END_PROGRAM PROGRAM Opened VAR n : INT; END_VAR n := n + 1; END_PROGRAM", 0, tags, every("Main", 2, 0, "Main"), new Plc.Task("On door", 0, "door.open", 1, 0, List.of("Opened")));
        int door = resource.program().tagSlot(0);
        for (int t = 0; t < 30; t++) {
            resource.memory()[door] = t % 10 >= 3 && t % 10 < 8 ? 1 : 0;
            assertThat(resource.takesInputs(t * MILLI)).as("its tag may rise in any bus cycle").isTrue();
            resource.cycle(t * MILLI);
        }
        assertThat(value(resource, "Opened.n")).isEqualTo("3");
        resource.memory()[door] = 0;
        resource.cycle(40 * MILLI);
        assertThat(resource.inspector().force("Door.Open", "TRUE")).isNull();
        resource.memory()[door] = 0;
        resource.cycle(41 * MILLI);
        assertThat(value(resource, "Opened.n")).as("a forced tag starts it").isEqualTo("4");
        Resource nobody = resource("PROGRAM Main END_PROGRAM", 0, tags, every("Main", 1, 0), new Plc.Task("Never", 0, "Door.Shut", 1, 0, List.of()));
        run(nobody, 0, 5);
        assertThat(nobody.tasks().get(1).cycles()).as("there is no such tag").isZero();
    }

    /** 1 + n statements of 1 µs in a bus cycle of 1 ms: the task takes 2.5 ms, misses starts, and does not hinder who goes first. */
    @Test
    void overrun() {
        String source = "PROGRAM Quick VAR n : DINT; END_VAR\nn := n + 1; END_PROGRAM\n"
                + "PROGRAM Long VAR i, n : DINT; END_VAR\nn := n + 1;\nFOR i := 1 TO 1249 DO\n  ;\nEND_FOR\nFOR i := 1 TO 1249 DO ; END_FOR\nEND_PROGRAM";
        Resource resource = resource(source, 1000, List.of(), every("Quick", 1, 0, "Quick"), every("Long", 2, 1, "Long"));
        run(resource, 0, 12);
        Task quick = resource.tasks().get(0);
        Task slow = resource.tasks().get(1);
        assertThat(slow.statements()).isEqualTo(2501);
        assertThat(slow.took()).isEqualTo(2_501_000);
        assertThat(slow.longestIn().line()).isIn(5, 8);
        assertThat(slow.longestIn().unit()).isEqualToIgnoringCase("Long");
        assertThat(quick.cycles()).isEqualTo(12);
        assertThat(quick.missed()).isZero();
        assertThat(quick.latest()).isZero();
        assertThat(slow.latest()).as("Quick takes its 1 µs first").isEqualTo(1000);
        assertThat(slow.cycles()).as("begins at 0, 4, 8 ms: those at 2, 6 and 10 ms fall into a cycle that has not ended").isEqualTo(3);
        assertThat(slow.missed()).isEqualTo(3);
    }

    /** What a task has written to a tag of an output leaves the controller when its time is over; what others write does not wait for it. */
    @Test
    void outputsOfATaskThatTakesLongerThanABusCycle() {
        List<Environment.Tag> tags = List.of(new Environment.Tag("A.Out", Type.INT, true), new Environment.Tag("B.Out", Type.INT, true));
        String source = "FUNCTION_BLOCK Writer VAR_EXTERNAL END_VAR\nB.Out := B.Out + 1; END_FUNCTION_BLOCK\n"
                + "PROGRAM Quick A.Out := A.Out + 1; END_PROGRAM\nPROGRAM Long VAR w : Writer; i : INT; END_VAR\nw(); FOR i := 1 TO 1500 DO ; END_FOR END_PROGRAM";
        Resource resource = resource(source.replace(" VAR_EXTERNAL END_VAR", ""), 1000, tags, every("Quick", 1, 0, "Quick"), every("Long", 10, 1, "Long"));
        int a = resource.program().tagSlot(0);
        int b = resource.program().tagSlot(1);
        resource.cycle(0);
        assertThat(resource.worked()).isTrue();
        assertThat(resource.behind()).isTrue();
        assertThat(resource.holds(b)).isTrue();
        assertThat(resource.holds(a)).isFalse();
        resource.cycle(MILLI);
        assertThat(resource.behind()).isFalse();
        assertThat(resource.holds(b)).isFalse();
    }

    /** The watchdog looks at the time from start to end, also of what others take of it. */
    @Test
    void watchdog() {
        String source = "PROGRAM Main VAR i, n : DINT; END_VAR\nn := n + 1;\nFOR i := 1 TO n * 100 DO\n  ;\nEND_FOR END_PROGRAM";
        Plc.Task watched = new Plc.Task("Main", 5000, "", 0, 3000, List.of());
        Resource resource = resource(source, 1000, List.of(), watched);
        run(resource, 0, 400);
        assertThat(resource.fault()).isNotNull();
        assertThat(resource.fault().getMessage()).contains("Main", "3 ms", "3002 statements", "3.002 ms");
        assertThat(resource.fault().line()).isEqualTo(3);
        assertThat(resource.fault().file()).isEqualTo("Main.st");
        assertThat(value(resource, "n")).isEqualTo("30");
        long[] before = resource.memory().clone();
        run(resource, 400, 420);
        assertThat(resource.memory()).as("stopped for good").isEqualTo(before);
    }

    /** RETAIN over a restart (IEC 61131-3, 6.5.6; from memory): in programs, in global variables, inside of blocks; the rest begins anew. */
    @Test
    void whatIsRetained() {
        String source = "VAR_GLOBAL RETAIN total : DINT := 100; END_VAR VAR_GLOBAL lost : DINT; END_VAR\n"
                + "FUNCTION_BLOCK Counter VAR RETAIN n : DINT; END_VAR VAR m : DINT; END_VAR n := n + 1; m := m + 1; END_FUNCTION_BLOCK\n"
                + "PROGRAM Main VAR RETAIN name : STRING := 'a'; list : ARRAY [1..2] OF INT; t : TON; END_VAR VAR c : Counter; x : DINT; END_VAR\n"
                + "c(); total := total + 1; lost := lost + 1; x := x + 1; name := CONCAT(name, 'b'); list[2] := list[2] + INT#3; t(IN := TRUE, PT := T#1ms); END_PROGRAM";
        Resource before = resource(source, 0, List.of(), every("Main", 1, 0));
        run(before, 0, 5);
        Resource after = resource(source, 0, List.of(), every("Main", 1, 0));
        after.restore(before.retained());
        assertThat(before.retained()).extracting(Resource.Retained::name).containsExactly("total", "name", "list[1]", "list[2]", "c.n");
        assertThat(List.of(value(after, "total"), value(after, "name"), value(after, "list[2]"), value(after, "c.n"))).containsExactly("105", "'abbbbb'", "15", "5");
        assertThat(List.of(value(after, "lost"), value(after, "x"), value(after, "c.m"), value(after, "t.Q"))).containsExactly("0", "0", "0", "FALSE");
        run(after, 0, 1);
        assertThat(value(after, "total")).isEqualTo("106");
        Resource changed = resource(source.replace("total : DINT", "total : LREAL").replace("total + 1", "total + 1.0"), 0, List.of(), every("Main", 1, 0));
        changed.restore(before.retained());
        assertThat(value(changed, "total")).as("it is of another type now").isEqualTo("100.0");
        assertThat(value(changed, "c.n")).isEqualTo("5");
    }

    /** A fault in one task stops all of them. */
    @Test
    void aFaultStopsEverything() {
        Resource resource = resource("PROGRAM A VAR n : INT; END_VAR n := n + 1; END_PROGRAM\nPROGRAM B VAR z, x : INT; END_VAR\nx := 1 / z; END_PROGRAM", 0, List.of(), every("A", 1, 0, "A"), every("B", 4, 1, "B"));
        run(resource, 0, 10);
        assertThat(resource.fault().line()).isEqualTo(3);
        assertThat(value(resource, "A.n")).isEqualTo("1");
    }
}
