package rueda.plc.code;

import java.util.ArrayList;
import java.util.List;

/** Stretches of statements that run one after the other: numbered, so that a single mark tells that all their lines ran. */
public final class Stretches {

    /** @param file name of the text  @param lines from 1, in the order of running */
    public record Stretch(String file, int[] lines) {
    }

    private final List<Stretch> all = new ArrayList<>();

    int add(String file, int[] lines) {
        all.add(new Stretch(file, lines));
        return all.size() - 1;
    }

    public List<Stretch> all() {
        return all;
    }
}
