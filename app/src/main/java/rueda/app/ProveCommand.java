package rueda.app;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import rueda.app.machine.MachineFolder;
import rueda.app.machine.MachineJson;
import rueda.bench.Bench;
import rueda.bench.Stand;
import rueda.format.UnreadableFile;
import rueda.machine.Machine;
import rueda.machine.Plan;
import rueda.machine.Proof;
import rueda.plc.CompiledProgram;
import rueda.plc.StructuredTextCompiler;
import rueda.proof.ProofRun;
import rueda.proof.Prover;
import rueda.proof.Verdict;
import rueda.proof.repeat.ConditionMap;
import rueda.proof.repeat.Repetition;
import rueda.quantity.InvalidEntry;
import rueda.recording.Brought;

/** Runs the proofs of a machine file or folder, for a build server or a person. Progress goes to standard error, verdicts to standard output. */
@Command(name = "prove", mixinStandardHelpOptions = true,
        description = "Runs the proofs of a machine without a server; verdicts as JSON to standard output. Exit code 0: all hold, 1: one does not, 2: could not run.")
final class ProveCommand implements Callable<Integer> {

    private static final int COULD_NOT_RUN = 2;
    private static final int TOLD_IN_PERCENT = 10;

    @Parameters(paramLabel = "FILE", description = "machine file, JSON, or a folder with machine.json and the .st files of its program")
    Path file;

    @Option(names = "--proof", paramLabel = "NAME", description = "run this proof only, also when it is off")
    String only;

    @Option(names = "--group", paramLabel = "NAME", description = "run the proofs of this group only")
    String group;

    @Option(names = "--conditions", description = "repeat each proof that has conditions by its plan, too")
    boolean conditions;

    @Option(names = "--seed", paramLabel = "N", description = "seed of random draws and of searches, in place of those of the plans")
    Long seed;

    @Option(names = "--junit", paramLabel = "FILE", description = "write the verdicts as JUnit XML")
    Path junit;

    @Option(names = "--json", paramLabel = "FILE", description = "write the verdicts as JSON into a file instead of to standard output")
    Path json;

    @Override
    public Integer call() {
        try {
            return prove();
        } catch (OutOfMemoryError large) {
            return refuse("The proof needs more memory than there is: make it shorter, or give Java more with -Xmx.");
        } catch (Exception | Error unexpected) {
            return refuse("The proof could not run: " + Commands.cause(unexpected));
        }
    }

    private static int refuse(String message) {
        return Commands.refuse(message, COULD_NOT_RUN);
    }

    private int prove() throws IOException {
        Machine machine;
        Brought.Shelf shelf;
        try {
            machine = MachineArgument.read(file);
            shelf = MachineFolder.recordings(file, machine);
        } catch (UnreadableFile unfit) {
            return refuse("A recording of " + file + " cannot be read: " + unfit.getMessage());
        } catch (MachineArgument.Unusable why) {
            return refuse(why.getMessage());
        }
        CompiledProgram program = StructuredTextCompiler.compile(StructuredTextCompiler.Text.of(machine.plc()), Bench.environment(machine));
        if (!program.runs()) {
            program.diagnostics().forEach(d -> System.err.println(d));
            return COULD_NOT_RUN;
        }
        List<Proof> wanted = wanted(machine);
        if (wanted.isEmpty()) {
            return refuse(nothing(machine));
        }
        List<ProofReport> reports = new ArrayList<>();
        for (Proof proof : wanted) {
            try {
                reports.add(proven(machine, proof, shelf));
            } catch (InvalidEntry refused) {
                return refuse("The proof “" + proof.name() + "” cannot run: " + refused.getMessage());
            }
        }
        boolean holds = reports.stream().allMatch(ProofReport::holds);
        write(new Report(machine.name(), holds, reports));
        return holds ? 0 : 1;
    }

    private List<Proof> wanted(Machine machine) {
        if (only != null) {
            return machine.proof(only).stream().toList();
        }
        return machine.proofs().stream().filter(proof -> proof.on() && (group == null || proof.group().equalsIgnoreCase(group))).toList();
    }

    private String nothing(Machine machine) {
        if (machine.proofs().isEmpty()) {
            return "The machine has no proof to run.";
        } else if (only != null) {
            return "The machine has no proof called " + only + ". It has: " + machine.proofs().stream().map(Proof::name).collect(Collectors.joining(", ")) + ".";
        } else if (group != null) {
            return "No proof of the group " + group + " is on. Groups: " + machine.proofs().stream().map(Proof::group).filter(g -> !g.isEmpty()).distinct().collect(Collectors.joining(", ")) + ".";
        }
        return "All proofs of the machine are off. Name one with --proof.";
    }

    private ProofReport proven(Machine machine, Proof proof, Brought.Shelf shelf) {
        long begun = System.nanoTime();
        System.err.println(proof.name() + " …");
        ProofRun run = Prover.run(machine, proof, Stand.of(machine), shelf, (time, of) -> { });
        run.verdicts().stream().filter(v -> !v.holds()).map(Verdict::sentence).forEach(s -> System.err.println("does not hold: " + s));
        ConditionMap map = null;
        if (conditions && (!proof.conditions().isEmpty() || proof.plan().kind() == Plan.Kind.STOP)) {
            Proof seeded = seed == null ? proof : proof.withPlan(new Plan(proof.plan().kind(), proof.plan().runs(), seed, proof.plan().every()));
            map = ConditionMap.of(machine, seeded, Repetition.run(machine, seeded, Runtime.getRuntime().availableProcessors(), shelf, new Told()));
            System.err.println(map.runs() + " runs under its conditions, " + (map.failed() == 0 ? "everything held" : map.failed() + " did not hold everything"));
        }
        return new ProofReport(proof.name(), proof.group(), run.duration(), run.holds() && (map == null || map.failed() == 0), run.stopped(), run.figures(), run.verdicts(), map, (System.nanoTime() - begun) * 1e-9);
    }

    /** Every tenth of the runs a line. */
    private static final class Told implements Repetition.Progress {
        private int told;

        @Override
        public void ran(int done, int of) {
            int percent = (int) (100L * done / of);
            if (percent >= told + TOLD_IN_PERCENT) {
                told = percent - percent % TOLD_IN_PERCENT;
                System.err.println(done + " of " + of + " runs");
            }
        }
    }

    private void write(Report report) throws IOException {
        if (json == null) {
            System.out.println(MachineJson.pretty(report));
        } else {
            Files.writeString(json, MachineJson.pretty(report) + "\n", StandardCharsets.UTF_8);
            report.proofs().forEach(proof -> System.out.println((proof.holds() ? "holds          " : "does not hold  ") + proof.proof()));
        }
        if (junit != null) {
            JunitReport.write(junit, report.machine(), report.proofs());
        }
    }

    /** What is printed. @param holds every proof holds */
    record Report(String machine, boolean holds, List<ProofReport> proofs) {
    }

    /**
     * @param duration   machine time, s
     * @param stopped    why the program stopped before its end, or null
     * @param conditions what its repetition says; null when it was not repeated
     * @param seconds    computing time, s
     */
    record ProofReport(String proof, String group, double duration, boolean holds, String stopped, ProofRun.Figures figures, List<Verdict> verdicts, ConditionMap conditions, double seconds) {
    }
}
