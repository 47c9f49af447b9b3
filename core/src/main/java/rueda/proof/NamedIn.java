package rueda.proof;

import java.util.Locale;
import java.util.Objects;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import rueda.bench.Recorded;
import rueda.machine.Axis;
import rueda.machine.Proof;

/** The axes and values that a proof names, in its slots or in its sentences; perhaps some more. */
final class NamedIn implements Recorded {

    private final String texts;

    NamedIn(Proof proof) {
        Stream<String> expected = proof.expectations().stream().flatMap(e -> Stream.of(e.axis(), e.other(), e.after(), e.then(), e.when(), e.signal(), e.text()));
        Stream<String> script = proof.script().stream().flatMap(s -> Stream.of(s.axis(), s.when(), s.until()));
        texts = Stream.concat(expected, script).filter(Objects::nonNull).map(text -> text.replace(" ", "").toUpperCase(Locale.ROOT)).collect(Collectors.joining("\n", "\n", "\n"));
    }

    @Override
    public boolean axis(Axis axis) {
        return texts.contains(axis.name().toUpperCase(Locale.ROOT));
    }

    @Override
    public boolean value(String name) {
        return texts.contains(name.toUpperCase(Locale.ROOT));
    }
}
