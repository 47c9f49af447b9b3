package rueda.app;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import rueda.app.machine.MachineJson;
import rueda.machine.EntryFault;
import rueda.machine.Machine;
import rueda.machine.MachineRules;
import rueda.plc.CompiledProgram;
import rueda.bench.Bench;
import rueda.plc.StructuredTextCompiler;
import rueda.proof.ProofRun;
import rueda.proof.Prover;
import rueda.proof.Verdict;

/** The command line. Exit codes of {@code prove}: 0 all hold, 1 one does not, 2 it could not run. */
@Command(name = "rueda", mixinStandardHelpOptions = true, version = "rueda 0.1.0",
        description = "Servo axes on a fieldbus: configured, run and proven on a bench of simulated drives.",
        subcommands = {Commands.Serve.class, Commands.Prove.class})
final class Commands implements Callable<Integer> {

    static final int KEEPS_RUNNING = -1;

    @Mixin
    Server server;

    @Override
    public Integer call() {
        return server.start();
    }

    /** Where to serve and where to keep the database. */
    static final class Server {
        @Option(names = "--port", description = "port on 127.0.0.1, default ${DEFAULT-VALUE}; 0 picks a free one", defaultValue = "8420")
        int port;

        @Option(names = "--data", description = "folder of the database, default ${DEFAULT-VALUE}", defaultValue = "data")
        Path data;

        int start() {
            ConfigurableApplicationContext context = new SpringApplication(RuedaApplication.class)
                    .run("--server.port=" + port, "--rueda.data=" + data.toAbsolutePath());
            int real = ((ServletWebServerApplicationContext) context).getWebServer().getPort();
            System.out.println("Rueda is ready at http://127.0.0.1:" + real + "/");
            return KEEPS_RUNNING;
        }
    }

    /** Serves the page. */
    @Command(name = "serve", mixinStandardHelpOptions = true, description = "Serves the page on 127.0.0.1 (the default).")
    static final class Serve implements Callable<Integer> {
        @Mixin
        Server server;

        @Override
        public Integer call() {
            return server.start();
        }
    }

    /** Runs the proof of a machine file. */
    @Command(name = "prove", mixinStandardHelpOptions = true,
            description = "Runs the proof of a machine file without a server; verdicts as JSON to standard output. Exit code 0: all hold, 1: one does not, 2: could not run.")
    static final class Prove implements Callable<Integer> {
        @Parameters(paramLabel = "FILE", description = "machine file, JSON")
        Path file;

        @Override
        public Integer call() {
            Machine machine;
            try {
                machine = MachineJson.read(Files.readString(file));
            } catch (IOException | IllegalArgumentException unreadable) {
                return refuse("Cannot read " + file + ": " + unreadable.getMessage());
            }
            List<EntryFault> faults = MachineRules.check(machine);
            if (!faults.isEmpty()) {
                faults.forEach(f -> System.err.println(f.field() + " " + f.label() + ": " + f.value() + "; allowed: " + f.allowed() + "; " + f.mend()));
                return 2;
            }
            CompiledProgram program = StructuredTextCompiler.compile(machine.plc().program(), Bench.environment(machine));
            if (!program.runs()) {
                program.diagnostics().forEach(d -> System.err.println(d));
                return 2;
            }
            ProofRun run = Prover.run(machine);
            Map<String, Object> report = new HashMap<>();
            report.put("machine", machine.name());
            report.put("proof", machine.proof().name());
            report.put("duration", run.duration());
            report.put("holds", run.holds());
            report.put("stopped", run.stopped());
            report.put("figures", run.figures());
            report.put("verdicts", run.verdicts());
            System.out.println(MachineJson.pretty(report));
            run.verdicts().stream().filter(v -> !v.holds()).map(Verdict::sentence).forEach(s -> System.err.println("does not hold: " + s));
            return run.holds() ? 0 : 1;
        }

        private static int refuse(String message) {
            System.err.println(message);
            return CommandLine.ExitCode.USAGE;
        }
    }
}
