package rueda.proof;

import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import rueda.bench.Bench;
import rueda.bench.BenchCondition;
import rueda.bench.Stand;
import rueda.machine.Machine;
import rueda.machine.Plc;
import rueda.machine.Proof;
import rueda.plc.StructuredTextCompiler.Text;
import rueda.plc.run.StatementPlace;

/**
 * Which line of the program gave a variable the value that decided something: the run is made again up to there, with its lines traced. Of the lines that
 * ran in that cycle those count that assign the variable, first of all those that had not run in the cycle before.
 */
final class LineOfChange {

    private LineOfChange() {
    }

    /** @param variable of the program  @param sample at which it had its value first */
    static Optional<StatementPlace> find(Machine machine, Proof proof, Stand stand, String variable, long sample) {
        Bench bench = new Bench(machine, Text.of(machine.plc()), Math.toIntExact(sample + 1), BenchCondition.SOUND, true, stand);
        ScriptRun script = new ScriptRun(bench, proof.script());
        List<StatementPlace> before = List.of();
        List<StatementPlace> last = List.of();
        for (long k = 0; k <= sample; k++) {
            script.cycle();
            bench.cycle();
            if (k >= sample - MOST_BACK) {
                List<StatementPlace> ran = bench.resource().tracer().ran();
                before = ran.equals(last) ? before : last;
                last = ran;
            }
        }
        Set<StatementPlace> known = new HashSet<>(before);
        Pattern assigned = Pattern.compile("\\b" + Pattern.quote(variable.toUpperCase(Locale.ROOT)) + "\\s*:=");
        List<StatementPlace> assigning = last.stream().filter(place -> assigned.matcher(text(machine, place).toUpperCase(Locale.ROOT)).find()).toList();
        return assigning.stream().filter(place -> !known.contains(place)).findFirst().or(() -> assigning.stream().findFirst());
    }

    /** bus cycles before it in which lines are compared: a task that is slower than the bus has run once in them */
    private static final long MOST_BACK = 200;

    private static String text(Machine machine, StatementPlace place) {
        return machine.plc().files().stream().filter(file -> file.name().equals(place.file())).findFirst().map(Plc.SourceFile::source)
                .flatMap(source -> source.lines().skip(place.line() - 1L).findFirst()).orElse("");
    }
}
