package rueda.plc.code;

import java.util.ArrayList;
import java.util.List;
import rueda.plc.run.CallPlace;

/** Places in the texts that code names by a number: stretches of statements that run one after the other, whose lines a single mark tells, and calls. */
public final class Stretches {

    /** @param file name of the text  @param lines from 1, in the order of running */
    public record Stretch(String file, int[] lines) {
    }

    private final List<Stretch> all = new ArrayList<>();
    private final List<CallPlace> calls = new ArrayList<>();

    int add(String file, int[] lines) {
        all.add(new Stretch(file, lines));
        return all.size() - 1;
    }

    int call(String file, int line) {
        calls.add(new CallPlace(file, line));
        return calls.size() - 1;
    }

    public List<CallPlace> calls() {
        return calls;
    }

    public List<Stretch> all() {
        return all;
    }
}
