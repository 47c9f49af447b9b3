package rueda.format.recording;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import rueda.bench.AxisSignal;
import rueda.bench.Signal;
import rueda.format.recording.RecordingLayout.ColumnUse;
import rueda.machine.Axis;
import rueda.machine.Machine;
import rueda.quantity.TypedEntry;

/** Which signals of a machine the columns of a recording are, as far as their headings tell. */
public final class Assignments {

    private enum Meaning {
        COMMANDED_POSITION(AxisSignal.COMMANDED_POSITION), POSITION(AxisSignal.POSITION), COMMANDED_SPEED(AxisSignal.COMMANDED_SPEED), SPEED(AxisSignal.SPEED), TORQUE(AxisSignal.TORQUE), FOLLOWING_ERROR(AxisSignal.FOLLOWING_ERROR);

        private final AxisSignal signal;

        Meaning(AxisSignal signal) {
            this.signal = signal;
        }
    }

    private static final List<String> COMMANDED = List.of("commanded", "command", "cmd", "set", "setpoint", "target", "demand", "reference", "ref", "soll", "sollwert", "consigne", "consigna");
    private static final List<String> ERROR = List.of("error", "err", "lag", "deviation", "fehler", "schleppfehler", "abstand", "schleppabstand");
    private static final List<String> POSITION = List.of("position", "pos", "place", "lage", "weg", "istposition", "sollposition", "posicion");
    private static final List<String> SPEED = List.of("speed", "velocity", "vel", "geschwindigkeit", "drehzahl", "v", "vitesse", "velocidad");
    private static final List<String> TORQUE = List.of("torque", "trq", "moment", "drehmoment", "couple", "par");

    private Assignments() {
    }

    /**
     * The layout with a signal, its unit and the factor to it for each column whose heading names one.
     *
     * @param signals those that the machine's recordings have
     */
    public static RecordingLayout suggested(RecordingLayout layout, Machine machine, List<Signal> signals) {
        Set<String> given = new HashSet<>();
        List<ColumnUse> columns = new ArrayList<>();
        for (ColumnUse use : layout.columns()) {
            columns.add(signal(use.signal(), machine, signals).filter(signal -> given.add(signal.name())).map(signal -> as(use, signal, machine)).orElse(use));
        }
        return layout.withColumns(columns);
    }

    /** A column as a signal; its numbers are converted where their unit is known. */
    public static ColumnUse as(ColumnUse use, Signal signal, Machine machine) {
        OptionalDouble factor = TypedEntry.factor(use.unit(), signal.unit());
        if (factor.isEmpty() && use.unit().equals("%") && signal.unit().equals("N·m")) {
            factor = axis(signal.name(), machine).map(axis -> OptionalDouble.of(axis.motor().ratedTorque() / 100)).orElse(factor);
        }
        return new ColumnUse(use.column(), signal.name(), signal.unit(), factor.orElse(1), 0);
    }

    private static Optional<Axis> axis(String signal, Machine machine) {
        return machine.axes().stream().filter(axis -> signal.toLowerCase(Locale.ROOT).startsWith(axis.name().toLowerCase(Locale.ROOT) + ".")).findFirst();
    }

    private static Optional<Signal> signal(String heading, Machine machine, List<Signal> signals) {
        String plain = letters(heading);
        Optional<Signal> same = signals.stream().filter(signal -> letters(signal.name()).equals(plain)).findFirst();
        if (same.isPresent()) {
            return same;
        }
        List<String> words = Arrays.stream(heading.replaceAll("(\\p{Ll})(\\p{Lu})", "$1 $2").toLowerCase(Locale.ROOT).split("[^\\p{L}\\p{N}]+")).filter(word -> !word.isEmpty()).toList();
        List<Axis> named = machine.axes().stream().filter(axis -> plain.contains(letters(axis.name()))).toList();
        Axis axis = named.size() == 1 ? named.get(0) : machine.axes().size() == 1 ? machine.axes().get(0) : null;
        Meaning meaning = meaning(words);
        if (axis == null || meaning == null) {
            return Optional.empty();
        }
        return signals.stream().filter(signal -> signal.name().equalsIgnoreCase(meaning.signal.of(axis.name()))).findFirst();
    }

    private static Meaning meaning(List<String> words) {
        boolean commanded = words.stream().anyMatch(word -> COMMANDED.contains(word) || word.startsWith("soll"));
        if (words.stream().anyMatch(ERROR::contains)) {
            return Meaning.FOLLOWING_ERROR;
        } else if (words.stream().anyMatch(POSITION::contains)) {
            return commanded ? Meaning.COMMANDED_POSITION : Meaning.POSITION;
        } else if (words.stream().anyMatch(SPEED::contains)) {
            return commanded ? Meaning.COMMANDED_SPEED : Meaning.SPEED;
        }
        return words.stream().anyMatch(TORQUE::contains) && !commanded ? Meaning.TORQUE : null;
    }

    private static String letters(String name) {
        return name.toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}\\p{N}]", "");
    }
}
