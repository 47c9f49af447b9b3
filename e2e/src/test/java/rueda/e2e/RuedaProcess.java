package rueda.e2e;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;

/** The packaged program, laid out as ./rueda demo starts it, as a process of its own, on a free port, with a database in a folder. */
final class RuedaProcess implements AutoCloseable {

    private final Process process;
    private final String address;

    RuedaProcess(Path data, String... more) throws IOException {
        this(List.of(), data, more);
    }

    /** Its files may not grow beyond a size: what a full disk does to a program (limit of Linux, RLIMIT_FSIZE). @param bytes of one file */
    static RuedaProcess withFilesUpTo(long bytes, Path data) throws IOException {
        return new RuedaProcess(List.of("prlimit", "--fsize=" + bytes + ":unlimited"), data);
    }

    /** Takes the limit off while it runs. */
    void filesOfAnySize() throws IOException, InterruptedException {
        int code = new ProcessBuilder("prlimit", "--pid", Long.toString(process.pid()), "--fsize=unlimited").inheritIO().start().waitFor();
        if (code != 0) {
            throw new IOException("prlimit ended with " + code);
        }
    }

    private RuedaProcess(List<String> before, Path data, String... more) throws IOException {
        Path laidOut = Path.of(System.getProperty("rueda.jar")).resolveSibling("rueda");
        List<String> command = new ArrayList<>(before);
        command.addAll(List.of(Path.of(System.getProperty("java.home"), "bin", "java").toString(), "-XX:SharedArchiveFile=" + laidOut.resolve("rueda.jsa"), "-XX:TieredStopAtLevel=1", "-jar",
                laidOut.resolve("rueda.jar").toString(), "serve", "--port", "0", "--data", data.toString()));
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
