package rueda.proof.temporal;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import rueda.proof.temporal.Names.Named;

class SentenceReaderTest {

    private static final Map<String, Named> SIGNALS = Map.of("SHUTTLE.POSITION", new Named(0, "mm", false, Map.of()), "SHUTTLE.SPEED", new Named(1, "mm/s", false, Map.of()), "DONE", new Named(2, "", true, Map.of()),
            "STATE", new Named(3, "", false, Map.of("Idle", 0L, "Moving", 1L)), "STEPS[1].TARGET", new Named(4, "", false, Map.of()));

    private static final Names NAMES = new Names() {
        @Override
        public Optional<Named> find(String name) {
            return Optional.ofNullable(SIGNALS.get(name.toUpperCase(Locale.ROOT)));
        }

        @Override
        public List<String> all() {
            return List.of("Shuttle.position", "Shuttle.speed", "Done", "State", "Steps[1].Target");
        }
    };

    /** 10 samples of 0.5 s: a way of 10 mm a sample, done at the seventh. */
    private static final Trace TRACE = new Trace() {
        @Override
        public int samples() {
            return 10;
        }

        @Override
        public double interval() {
            return 0.5;
        }

        @Override
        public double value(int signal, int k) {
            return switch (signal) {
                case 0 -> Math.min(10 * k, 60);
                case 1 -> k < 6 ? 20 : 0;
                case 2 -> k >= 7 ? 1 : 0;
                case 3 -> k < 7 ? 1 : 0;
                default -> 55;
            };
        }
    };

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
        "ALWAYS(Shuttle.position <= 70) | 10 | mm", "ALWAYS(Shuttle.position < 55.5) | -4.5 | mm", "EVENTUALLY(Shuttle.position > 50, T#3s) | 10 | mm", "EVENTUALLY(Shuttle.position > 50, T#2s) | -10 | mm",
        "ALWAYS(ABS(Shuttle.speed) < 25) | 5 | mm/s", "HOLDS_UNTIL(Shuttle.speed > 10, Shuttle.position >= 50) | 10 | mm", "WHENEVER(Shuttle.position >= 30, Shuttle.position >= 50, T#1s500ms) | 10 | mm",
        "WHENEVER(Shuttle.position >= 30, Shuttle.position >= 60, T#1s) | -10 | mm", "ALWAYS(NOT Done OR Shuttle.speed = 0) | 0 | mm/s", "ALWAYS(Shuttle.position - Steps[1].Target < 10.0) | 5 | mm",
        "ALWAYS(MAX(Shuttle.position, 2 * Steps[1].Target) < 200) | 90 | mm", "ALWAYS(State = Moving OR Done) | 0 | ", "Shuttle.position = 0 | 0 | mm", "ALWAYS(Shuttle.position >= 10, T#500ms, T#2s) | 0 | mm",
        "eventually(falls(state = moving)) | Infinity | ", "ALWAYS((State = Idle) = Done) | 0 |"})
    void whatASentenceSays(String text, double room, String unit) {
        Sentence sentence = SentenceReader.read(text, NAMES);
        assertThat(sentence.faults()).isEmpty();
        double found = sentence.formula().judge(TRACE).room(0);
        assertThat(found == Double.MIN_VALUE ? 0 : found).isEqualTo(room);
        assertThat(sentence.formula().judge(TRACE).decision(0).unit()).isEqualTo(unit == null ? "" : unit);
    }

    /** A bit has room without bounds. */
    @Test
    void bits() {
        assertThat(SentenceReader.read("EVENTUALLY(Done)", NAMES).formula().judge(TRACE).room(0)).isEqualTo(Double.POSITIVE_INFINITY);
        assertThat(SentenceReader.read("ALWAYS(Done)", NAMES).formula().judge(TRACE).room(0)).isEqualTo(Double.NEGATIVE_INFINITY);
        assertThat(SentenceReader.read("ALWAYS(TRUE XOR FALSE)", NAMES).formula().judge(TRACE).room(0)).isEqualTo(Double.POSITIVE_INFINITY);
    }

    /** What decides is told as it was written, with its place. */
    @Test
    void theDecision() {
        assertThat(SentenceReader.read("ALWAYS(Shuttle.position < 55 AND Shuttle.speed < 100)", NAMES).formula().judge(TRACE).decision(0)).isEqualTo(new Decision(6, "Shuttle.position < 55", "mm"));
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
        "Shuttle.position | 1 | Shuttle.position is a number: compare it with something, such as Shuttle.position < 10.", "ALWAYS(Shuttle.positoin < 1) | 8 | No signal is called Shuttle.positoin. Did you mean Shuttle.position?",
        "ALWAYS(Shuttle.position < Shuttle.speed) | 25 | mm cannot be compared with mm/s.", "ALWAYS(Shuttle.position < Done) | 25 | Shuttle.position < Done compares a number with what is true or false.",
        "ALWAY(Done) | 1 | ALWAY is not for sentences. Did you mean ALWAYS? There are: ABS, ALWAYS, EVENTUALLY, FALLS, HOLDS_UNTIL, MAX, MIN, RISES, SQRT, WHENEVER.",
        "WHENEVER(Done) | 1 | WHENEVER takes what becomes true, what must hold then, and within what time, not one value.", "EVENTUALLY(Done, 5) | 18 | 5 is no time: write one such as T#500ms.",
        "ALWAYS(Done, T#2s, T#1s) | 20 | The second time is not before the first one: write them the other way round.", "ALWAYS(Done AND Shuttle.speed) | 17 | Shuttle.speed is a number: compare it with something, such as Shuttle.speed < 10.",
        "Shuttle.position MOD 2 = 1 | 1 | Shuttle.position is a number: compare it with something, such as Shuttle.position < 10.", "Done + 1 > 2 | 1 | Done is true or false, not a number.", "ALWAYS(State = Waiting) | 16 | No signal is called Waiting."})
    void faultsAreToldWithTheirPlace(String text, int column, String message) {
        Sentence sentence = SentenceReader.read(text, NAMES);
        assertThat(sentence.sound()).isFalse();
        assertThat(sentence.faults()).containsExactly(new Sentence.Fault(column, message));
    }

    /** Half-typed text is no sentence and no exception. */
    @Test
    void halfTyped() {
        String whole = "WHENEVER(Done AND Shuttle.position > 3.5, NOT (Shuttle.speed <= 2.0E1), T#1s500ms)";
        for (int i = 0; i < whole.length(); i++) {
            assertThat(SentenceReader.read(whole.substring(0, i), NAMES).faults()).as(whole.substring(0, i)).isNotEmpty();
        }
        assertThat(SentenceReader.read("(".repeat(3000), NAMES).faults()).hasSize(1);
        assertThat(SentenceReader.read("(".repeat(900), NAMES).faults()).hasSize(1);
    }
}
