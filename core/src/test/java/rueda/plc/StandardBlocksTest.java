package rueda.plc;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

/** Timing diagrams of IEC 61131-3 for TOF and TP. */
class StandardBlocksTest {

    private static String pattern(String block, int onFrom, int onTo, int end) {
        CompiledProgram program = StructuredTextCompiler.compile("PROGRAM P VAR n : INT; b : BOOL; Clock : " + block + "; END_VAR\n"
                + "b := n >= " + onFrom + " AND n < " + onTo + "; Clock(IN := b, PT := T#3ms); n := n + 1; END_PROGRAM", Environment.PLAIN);
        Resource task = Resource.alone(program, 100);
        Variable q = program.variable("Clock.Q").orElseThrow();
        StringBuilder seen = new StringBuilder();
        for (int ms = 0; ms < end; ms++) {
            task.cycle(ms * 1_000_000L);
            seen.append(q.number(task.memory()) == 1 ? '1' : '0');
        }
        return seen.toString();
    }

    @Test
    void offDelay() {
        assertThat(pattern("TOF", 2, 5, 11)).isEqualTo("00111111000");
    }

    @Test
    void pulseIsAsLongAsItIsHoweverLongTheInput() {
        assertThat(pattern("TP", 2, 3, 9)).isEqualTo("001110000");
        assertThat(pattern("TP", 2, 8, 10)).isEqualTo("0011100000");
    }

    @Test
    void onDelayStartsAgainWhenTheInputFalls() {
        assertThat(pattern("TON", 2, 4, 8)).isEqualTo("00000000");
        assertThat(pattern("TON", 2, 7, 10)).isEqualTo("0000011000");
    }

    /** A pulse that has run out is over, whenever the block is called next: an edge that this call brings starts the next pulse. */
    @Test
    void aPulseLosesNoEdgeBetweenItsEndAndTheNextCall() {
        CompiledProgram program = StructuredTextCompiler.compile("PROGRAM P VAR b : BOOL; Clock : TP; n : INT; END_VAR\n"
                + "b := n = 0 OR n = 2; Clock(IN := b, PT := T#3ms); n := n + 1; END_PROGRAM", Environment.PLAIN);
        Resource task = Resource.alone(program, 100);
        Variable q = program.variable("Clock.Q").orElseThrow();
        Variable et = program.variable("Clock.ET").orElseThrow();
        task.cycle(0);
        task.cycle(1_000_000);
        task.cycle(5_000_000);
        assertThat(q.number(task.memory())).isEqualTo(1);
        assertThat(et.text(task.memory())).isEqualTo("T#0ms");
        task.cycle(7_000_000);
        assertThat(q.number(task.memory())).isEqualTo(1);
        task.cycle(8_000_000);
        assertThat(q.number(task.memory())).isEqualTo(0);
    }
}
