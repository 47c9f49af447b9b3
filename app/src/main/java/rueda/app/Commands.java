package rueda.app;

import java.io.IOException;
import java.io.PrintWriter;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import rueda.app.program.ProgramFolder;

/** The command line. Exit codes of {@code serve}: see {@link DataFolder}; each other command says its own. */
@Command(name = "rueda", mixinStandardHelpOptions = true, version = "rueda 0.1.0",
        description = "Servo axes on a fieldbus: configured, run and proven on a bench of simulated drives.",
        subcommands = {Commands.Serve.class, ProveCommand.class, ConvertCommand.class})
final class Commands implements Callable<Integer> {

    static final int KEEPS_RUNNING = -1;

    @Mixin
    Server server;

    public static void main(String[] arguments) {
        if (Commands.class.getResource("RuedaApplication__ApplicationContextInitializer.class") != null) {
            System.setProperty("spring.aot.enabled", "true"); // the beans were worked out while packaging; run from the sources they are not
        }
        int code = new CommandLine(new Commands()).execute(arguments);
        if (code != KEEPS_RUNNING) {
            System.exit(code);
        }
    }

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

        @Option(names = "--restore-copy", description = "go back to the last sound copy of the database first; what is there is kept aside")
        boolean restoreCopy;

        @Option(names = "--try-out", description = "start, open the page and the list of machines once, and end; code 0 when that went well")
        boolean tryOut;

        @Option(names = "--programs", paramLabel = "DIR", description = "folder of .st files from which a machine takes its program, also when they change")
        Path programs;

        @Option(names = "--machine", paramLabel = "NAME", description = "the machine that does so; may be left out when there is one")
        String machine;

        int start() {
            ConfigurableApplicationContext context;
            Path folder = data.toAbsolutePath().normalize();
            try {
                if (restoreCopy) {
                    System.out.println(DataFolder.restoreCopy(folder));
                }
                DataFolder.check(folder, port);
                SpringApplication application = new SpringApplication(RuedaApplication.class);
                application.setMainApplicationClass(RuedaApplication.class);
                context = application.run("--server.port=" + port, "--rueda.data=" + folder);
            } catch (DataFolder.CannotStart reason) {
                return refuse(reason.getMessage(), reason.code);
            } catch (Exception unexpected) {
                return refuse("Rueda could not start: " + cause(unexpected) + " The details are in " + report(folder, unexpected) + ".", DataFolder.OTHER);
            }
            if (programs != null) {
                try {
                    context.getBean(ProgramFolder.class).follow(programs.toAbsolutePath().normalize(), machine);
                } catch (IllegalArgumentException reason) {
                    context.close();
                    return refuse(reason.getMessage(), DataFolder.FOLDER_UNUSABLE);
                }
            }
            int real = ((ServletWebServerApplicationContext) context).getWebServer().getPort();
            if (tryOut) {
                try (context) {
                    return tryOut(real);
                }
            }
            System.out.println("Rueda is ready at http://127.0.0.1:" + real + "/");
            return KEEPS_RUNNING;
        }

        /** What a page asks for first; packaging keeps the classes that this needs in the archive. */
        private static int tryOut(int port) {
            HttpClient page = HttpClient.newHttpClient();
            for (String path : List.of("/", "/api/machines", "/api/machines/1")) {
                try {
                    HttpResponse<Void> answer = page.send(HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path)).build(), BodyHandlers.discarding());
                    if (answer.statusCode() >= 500) {
                        return refuse("Rueda started, but answered " + path + " with " + answer.statusCode() + ".", DataFolder.OTHER);
                    }
                } catch (IOException silent) {
                    return refuse("Rueda started, but did not answer " + path + ".", DataFolder.OTHER);
                } catch (InterruptedException ended) {
                    Thread.currentThread().interrupt();
                    return refuse("Rueda was ended before it had answered.", DataFolder.OTHER);
                }
            }
            System.out.println("Rueda starts and answers.");
            return 0;
        }
    }

    static int refuse(String message, int code) {
        System.err.println(message);
        return code;
    }

    /** The innermost reason, as one sentence without names of classes. */
    static String cause(Throwable failure) {
        Throwable inner = failure;
        while (inner.getCause() != null && inner.getCause() != inner) {
            inner = inner.getCause();
        }
        String message = inner.getMessage() == null ? "" : inner.getMessage().lines().findFirst().orElse("").replaceAll("\\b[a-z]+(\\.[A-Za-z0-9_$]+){2,}", "…");
        return message.isBlank() ? "the reason is not known." : message.endsWith(".") ? message : message + ".";
    }

    /** Keeps the whole of a failure in a file. @return where */
    private static String report(Path folder, Throwable failure) {
        Path file = folder.resolve("rueda-failed.log");
        try (PrintWriter out = new PrintWriter(Files.newBufferedWriter(file))) {
            failure.printStackTrace(out);
            return file.toString();
        } catch (IOException unwritable) {
            return "no file, because " + file + " cannot be written";
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
}
