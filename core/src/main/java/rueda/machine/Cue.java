package rueda.machine;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.Arrays;
import java.util.List;
import rueda.machine.Terminal.Function;

/**
 * A signal edge that starts or changes motion.
 *
 * @param input  function of the input that carries it, one of {@link #INPUTS}; {@code NONE} for a cue that never comes
 * @param edge   which change of it
 * @param taken  when the change counts
 * @param millis time that {@code taken} speaks of, ms, 0 to 60 000
 */
@RecordBuilder
public record Cue(Function input, Edge edge, Taken taken, int millis) implements CueBuilder.With {

    /** Functions of inputs that can carry a cue. */
    public static final List<Function> INPUTS = Arrays.stream(Function.values()).filter(Function::cue).toList();

    /** Cues that have no other meaning, and that can come over the bus too: bits 0 to 3 of object 2040h:05. */
    public static final List<Function> NUMBERED = List.of(Function.CUE, Function.CUE_2, Function.CUE_3, Function.CUE_4);

    /** It never comes. */
    public static final Cue NEVER = new Cue(Function.NONE, Edge.RISING, Taken.AT_ONCE, 0);

    /** The function of the input comes, or goes. */
    public enum Edge {
        RISING("comes on"),
        FALLING("goes off");

        private final String words;

        Edge(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** When a change counts, after the response of the terminal. */
    public enum Taken {
        AT_ONCE("at once"),
        STOOD("when it has stood for"),
        DELAYED("with a delay of");

        private final String words;

        Taken(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** An edge, taken at once. */
    public static Cue of(Function input, Edge edge) {
        return new Cue(input, edge, Taken.AT_ONCE, 0);
    }

    /** It can come. */
    public boolean comes() {
        return input != Function.NONE;
    }
}
