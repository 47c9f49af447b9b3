package rueda.e2e;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The packaged program, laid out as ./rueda demo starts it, as a process of its own, on a free port, with a database in a folder. */
final class RuedaProcess implements AutoCloseable {

    /** As the one script starts it: the optimising compiler comes in late, and pays for a program that runs through many stories. */
    private static final List<String> OPTIMISING = List.of("-XX:Tier4InvocationThreshold=50000", "-XX:Tier4MinInvocationThreshold=6000", "-XX:Tier4CompileThreshold=150000", "-XX:Tier4BackEdgeThreshold=400000");
    /** For a program that ends soon. */
    private static final List<String> SHORT_LIVED = List.of("-XX:TieredStopAtLevel=1");

    private final Process process;
    private final String address;
    private final HttpClient http = HttpClient.newHttpClient();

    RuedaProcess(Path data, String... more) throws IOException {
        this(SHORT_LIVED, data, more);
    }

    /** Runs through many stories. */
    static RuedaProcess forLong(Path data) throws IOException {
        return new RuedaProcess(OPTIMISING, data);
    }

    /** From now on its files may not grow beyond a size: what a full disk does to a program (limit of Linux, RLIMIT_FSIZE). @param bytes of one file */
    void filesUpTo(long bytes) throws IOException, InterruptedException {
        limited(Long.toString(bytes));
    }

    void filesOfAnySize() throws IOException, InterruptedException {
        limited("unlimited");
    }

    private void limited(String bytes) throws IOException, InterruptedException {
        int code = new ProcessBuilder("prlimit", "--pid", Long.toString(process.pid()), "--fsize=" + bytes + ":unlimited").inheritIO().start().waitFor();
        if (code != 0) {
            throw new IOException("prlimit ended with " + code);
        }
    }

    /** How the one script starts the program: laid out, with the archive of its classes. */
    static List<String> program(String... arguments) {
        return program(SHORT_LIVED, arguments);
    }

    private static List<String> program(List<String> compiler, String... arguments) {
        Path laidOut = Path.of(System.getProperty("rueda.jar")).resolveSibling("rueda");
        List<String> command = new ArrayList<>(List.of(Path.of(System.getProperty("java.home"), "bin", "java").toString()));
        command.addAll(compiler);
        command.addAll(List.of("-XX:SharedArchiveFile=" + laidOut.resolve("rueda.jsa"), "-Xlog:cds=off", "-Xlog:cds+dynamic=off", "-jar", laidOut.resolve("rueda.jar").toString()));
        command.addAll(List.of(arguments));
        return command;
    }

    private RuedaProcess(List<String> compiler, Path data, String... more) throws IOException {
        List<String> command = program(compiler, "serve", "--port", "0", "--data", data.toString());
        command.addAll(List.of(more));
        process = new ProcessBuilder(command).redirectErrorStream(true).start();
        BufferedReader output = new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8));
        StringBuilder said = new StringBuilder();
        String found = null;
        for (String line = output.readLine(); line != null && found == null; line = found == null ? output.readLine() : line) {
            said.append(line).append('\n');
            if (line.startsWith("Rueda is ready at ")) {
                found = line.substring("Rueda is ready at ".length()).trim().replaceAll("/$", "");
            }
        }
        if (found == null) {
            throw new IOException("The program did not start:\n" + said);
        }
        address = found;
        Thread drain = new Thread(() -> {
            try {
                while (output.readLine() != null) {
                    // What it says while it runs is not kept.
                }
            } catch (IOException ended) {
                // Its end closes the stream.
            }
        }, "output");
        drain.setDaemon(true);
        drain.start();
    }

    String address() {
        return address;
    }

    HttpResponse<String> get(String path) throws IOException {
        return answer(HttpRequest.newBuilder(URI.create(address + path)).build());
    }

    HttpResponse<String> put(String path, String body, long revision) throws IOException {
        return send("PUT", path, body, revision);
    }

    HttpResponse<String> send(String method, String path, String body, long revision) throws IOException {
        return answer(HttpRequest.newBuilder(URI.create(address + path)).header("Content-Type", "application/json").header("If-Match", Long.toString(revision))
                .method(method, HttpRequest.BodyPublishers.ofString(body)).build());
    }

    private HttpResponse<String> answer(HttpRequest request) throws IOException {
        try {
            return http.send(request, HttpResponse.BodyHandlers.ofString());
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
            throw new IOException(interrupted);
        }
    }

    /** The document of a machine as it is stored. */
    String document(long machine) throws IOException {
        return documentIn(get("/api/machines/" + machine).body());
    }

    long revision(long machine) throws IOException {
        return number(get("/api/machines/" + machine).body(), "revision");
    }

    /** The document in the answer about a machine. */
    static String documentIn(String state) {
        Matcher found = Pattern.compile("(?s)\"document\":(\\{.*}),\"unknown\":\\[").matcher(state);
        if (!found.find()) {
            throw new IllegalArgumentException("No document in " + state);
        }
        return found.group(1);
    }

    /** The first number of a name in an answer. */
    static long number(String json, String name) {
        Matcher found = Pattern.compile("\"" + name + "\":(\\d+)").matcher(json);
        if (!found.find()) {
            throw new IllegalArgumentException("No " + name + " in " + json);
        }
        return Long.parseLong(found.group(1));
    }

    /** As a power cut does: at once, without a word. */
    void kill() {
        process.destroyForcibly();
        try {
            process.waitFor(20, TimeUnit.SECONDS);
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
        }
    }

    @Override
    public void close() {
        process.destroy();
        try {
            if (!process.waitFor(20, TimeUnit.SECONDS)) {
                process.destroyForcibly();
            }
        } catch (InterruptedException interrupted) {
            process.destroyForcibly();
            Thread.currentThread().interrupt();
        }
    }
}
