package rueda.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static rueda.e2e.RuedaProcess.documentIn;
import static rueda.e2e.RuedaProcess.number;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;

/**
 * The packaged program, killed and started where it cannot start: nothing acknowledged is lost, and every reason is one sentence. It needs no
 * browser and so runs beside the stories that do.
 */
@Execution(ExecutionMode.CONCURRENT)
class ReliabilityTest {

    /** By hand: -Drueda.kills=200. */
    private static final int ROUNDS = Integer.getInteger("rueda.kills", 6);

    @TempDir
    Path folder;

    private record Ended(int code, String out, String err) {
        List<String> words() {
            return err.lines().filter(l -> !l.isBlank()).toList();
        }
    }

    private Ended program(String... arguments) throws Exception {
        return ended(RuedaProcess.program(arguments));
    }

    private Ended ended(List<String> command) throws Exception {
        Path out = folder.resolve("out.txt");
        Path err = folder.resolve("err.txt");
        Process process = new ProcessBuilder(command).redirectOutput(out.toFile()).redirectError(err.toFile()).start();
        assertThat(process.waitFor(120, TimeUnit.SECONDS)).as("it ends by itself").isTrue();
        return new Ended(process.exitValue(), Files.readString(out), Files.readString(err));
    }

    private void refused(Ended ended, int code, String... words) {
        assertThat(ended.err()).contains(words).doesNotContain("\tat ", "Exception", "org.springframework");
        assertThat(ended.words()).as("one sentence or two").hasSize(1);
        assertThat(ended.code()).isEqualTo(code);
    }

    @Test
    void whatKeepsItFromStartingIsOneSentenceWithACodeOfItsOwn() throws Exception {
        Path data = folder.resolve("data");
        try (RuedaProcess running = new RuedaProcess(data); ServerSocket taken = new ServerSocket(0, 1, InetAddress.getByName("127.0.0.1"))) {
            refused(program("serve", "--port", Integer.toString(taken.getLocalPort()), "--data", folder.resolve("other").toString()), 7, "Port " + taken.getLocalPort() + " cannot be used");
            refused(program("serve", "--port", "0", "--data", data.toString()), 4, "is open in another Rueda");
            assertThat(running.get("/api/machines").statusCode()).isEqualTo(200);
        }
        Path file = Files.writeString(folder.resolve("file"), "x");
        refused(program("serve", "--port", "0", "--data", file.toString()), 3, "is a file");
        refused(program("serve", "--port", "99999", "--data", data.toString()), 7, "ports are 1 to 65535");

        Path newer = Files.createDirectory(folder.resolve("newer"));
        Files.copy(data.resolve("rueda.mv.db"), newer.resolve("rueda.mv.db"));
        try (Connection connection = DriverManager.getConnection("jdbc:h2:file:" + newer.resolve("rueda"))) {
            connection.createStatement().execute("update \"flyway_schema_history\" set \"version\" = '99' where \"version\" = '3'");
        }
        byte[] before = Files.readAllBytes(newer.resolve("rueda.mv.db"));
        refused(program("serve", "--port", "0", "--data", newer.toString()), 6, "was made by a newer Rueda");

        Path damaged = Files.createDirectory(folder.resolve("damaged"));
        byte[] scrambled = before.clone();
        new Random(1).nextBytes(scrambled);
        Files.write(damaged.resolve("rueda.mv.db"), scrambled);
        refused(program("serve", "--port", "0", "--data", damaged.toString()), 5, "is damaged and cannot be opened", "Nothing was changed");
        assertThat(Files.readAllBytes(damaged.resolve("rueda.mv.db"))).as("touched nothing").isEqualTo(scrambled);
    }

    /** Cut off at any place, emptied or gone: told apart from a new folder, touched by nothing, and the last sound copy leads back. */
    @Test
    void aDatabaseThatLacksWhatWasStoredIsToldAndTheCopyLeadsBack() throws Exception {
        Path data = folder.resolve("cut");
        long copied;
        try (RuedaProcess rueda = new RuedaProcess(data)) {
            long revision = number(rueda.get("/api/machines/1").body(), "revision");
            for (int i = 0; i < 5; i++) {
                revision = saved(rueda, "before the copy " + i, revision);
            }
            for (int wait = 0; wait < 600 && !Files.exists(data.resolve("rueda-copy.zip")); wait++) {
                Thread.sleep(100);
            }
            copied = revision;
            for (int i = 0; i < 20; i++) {
                revision = saved(rueda, "after the copy " + i, revision);
            }
            rueda.kill();
        }
        byte[] whole = Files.readAllBytes(data.resolve("rueda.mv.db"));
        Random random = new Random(5);
        for (int cut : new int[] {0, 4096, whole.length - 40_960, 12_288 + random.nextInt(whole.length / 2)}) {
            Files.write(data.resolve("rueda.mv.db"), Arrays.copyOf(whole, cut));
            Ended ended = program("serve", "--port", "0", "--data", data.toString());
            assertThat(ended.code()).as("cut to %d of %d bytes: %s", cut, whole.length, ended.err()).isIn(5, 9);
            refused(ended, ended.code(), "--restore-copy", "Nothing was changed");
            assertThat(Files.size(data.resolve("rueda.mv.db"))).as("touched nothing").isEqualTo(cut);
        }
        Files.delete(data.resolve("rueda.mv.db"));
        refused(program("serve", "--port", "0", "--data", data.toString()), 9, "is missing, although", "--restore-copy");
        Files.write(data.resolve("rueda.mv.db"), Arrays.copyOf(whole, 5000));
        /* on a busy machine the copy is made before all five are saved */
        String restored;
        try (RuedaProcess rueda = new RuedaProcess(data, "--restore-copy")) {
            restored = rueda.get("/api/machines/1").body();
            assertThat(number(restored, "revision")).isBetween(1L, copied);
            assertThat(restored).doesNotContain("after the copy");
        }
        try (var kept = Files.list(data)) {
            assertThat(kept.filter(p -> p.getFileName().toString().contains("set-aside"))).hasSize(1);
        }
        try (RuedaProcess rueda = new RuedaProcess(data)) {
            assertThat(documentIn(rueda.get("/api/machines/1").body())).isEqualTo(documentIn(restored));
        }
    }

    private long saved(RuedaProcess rueda, String name, long revision) throws Exception {
        String document = documentIn(rueda.get("/api/machines/1").body()).replaceFirst("\"name\":\"[^\"]*\"", "\"name\":\"" + name + "\"");
        HttpResponse<String> answer = rueda.send("PUT", "/api/machines/1", document, revision);
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
        return number(answer.body(), "revision");
    }

    /** No file may grow beyond a size, as on a full disk: saves are refused in words, reads go on, and it recovers by itself; what was acknowledged is there after a start. */
    @Test
    void aDiskThatFillsRefusesSavesInWordsAndRecovers() throws Exception {
        Path data = folder.resolve("full");
        long revision;
        try (RuedaProcess rueda = new RuedaProcess(data)) {
            rueda.filesUpTo(Files.size(data.resolve("rueda.mv.db")) + 200_000);
            revision = number(rueda.get("/api/machines/1").body(), "revision");
            String document = documentIn(rueda.get("/api/machines/1").body());
            HttpResponse<String> answer = null;
            int refusals = 0;
            for (int i = 0; i < 3000 && refusals < 5; i++) {
                answer = rueda.send("PUT", "/api/machines/1", document.replaceFirst("\"name\":\"[^\"]*\"", "\"name\":\"cell " + i + "\""), revision);
                if (answer.statusCode() == 200) {
                    revision = number(answer.body(), "revision");
                } else {
                    refusals++;
                    assertThat(answer.statusCode()).as(answer.body()).isIn(503, 507);
                    assertThat(answer.body()).contains("Nothing of this was stored");
                    /* the database closes when a write fails and opens again for the read; while that fails too, it is told in words */
                    HttpResponse<String> read = rueda.get("/api/machines/1");
                    for (int again = 0; again < 20 && read.statusCode() != 200; again++) {
                        assertThat(read.statusCode()).as(read.body()).isIn(503, 507);
                        read = rueda.get("/api/machines/1");
                    }
                    assertThat(number(read.body(), "revision")).as("reads go on").isEqualTo(revision);
                }
            }
            assertThat(refusals).as("it was full").isEqualTo(5);
            rueda.filesOfAnySize();
            for (int i = 0; i < 3; i++) {
                revision = saved(rueda, "with room " + i, revision);
            }
            rueda.kill();
        }
        try (RuedaProcess rueda = new RuedaProcess(data)) {
            assertThat(number(rueda.get("/api/machines/1").body(), "revision")).isEqualTo(revision);
        }
    }

    @Test
    void aProofThatCannotRunEndsWith2AndASentence() throws Exception {
        /* more of what is no machine: CommandsTest of the app */
        for (String content : List.of("", "[".repeat(5000))) {
            Ended ended = program("prove", Files.writeString(folder.resolve("m.json"), content).toString());
            assertThat(ended.err()).as(content.substring(0, Math.min(20, content.length()))).contains("Cannot read").doesNotContain("\tat ", "Exception", "java.", "tools.jackson");
            assertThat(ended.code()).isEqualTo(2);
        }
        String nowhere = folder.resolve("nowhere.json").toString();
        refused(program("prove", nowhere), 2, "there is no such file");
        /* the one file of the program says the same as the one laid out */
        refused(ended(List.of(Path.of(System.getProperty("java.home"), "bin", "java").toString(), "-jar", System.getProperty("rueda.jar"), "prove", nowhere)), 2, "there is no such file");
    }

    /** Killed at random moments while revisions and images are saved and proofs are run: what was answered is there when it starts again, and it starts. */
    @Test
    void nothingAcknowledgedIsLostWhenItIsKilled() throws Exception {
        /* two programs beside each other: while one starts, the other writes */
        ExecutorService both = Executors.newFixedThreadPool(2);
        try {
            Future<Integer> first = both.submit(() -> killedAgainAndAgain(folder.resolve("killed"), new Random(20261125), ROUNDS / 2));
            int acknowledged = killedAgainAndAgain(folder.resolve("killed too"), new Random(20261126), ROUNDS - ROUNDS / 2) + first.get();
            System.out.println("Killed " + ROUNDS + " times; " + acknowledged + " acknowledged writes, none lost.");
            assertThat(acknowledged).isGreaterThanOrEqualTo(ROUNDS / 2);
        } finally {
            both.shutdownNow();
        }
    }

    /** @return how many writes were acknowledged */
    private static int killedAgainAndAgain(Path data, Random random, int rounds) throws Exception {
        long revision = 0;
        String name = "";
        List<Long> images = new ArrayList<>();
        long run = 0;
        int acknowledged = 0;
        for (int round = 0; round <= rounds; round++) {
            RuedaProcess rueda = new RuedaProcess(data);
            String now = rueda.get("/api/machines/1").body();
            assertThat(number(now, "revision")).as("round %d", round).isGreaterThanOrEqualTo(revision);
            if (number(now, "revision") == revision) {
                assertThat(now).contains("\"name\":\"" + name + "\"");
            }
            String kept = rueda.get("/api/machines/1/images").body();
            images.forEach(id -> assertThat(kept).contains("\"id\":" + id + ","));
            if (run > 0) {
                assertThat(number(rueda.get("/api/machines/1/runs/latest").body(), "id")).isGreaterThanOrEqualTo(run);
            }
            if (round == rounds) {
                rueda.close();
                break;
            }
            String document = documentIn(now).replaceFirst("\"duration\":[0-9.]+", "\"duration\":0.2");
            /* what was stored without having been answered before the kill is there now: from here on it counts */
            revision = number(now, "revision");
            name = now.replaceFirst("(?s).*\"document\":\\{\"name\":\"([^\"]*)\".*", "$1");
            long killAfter = (long) ((200 + random.nextInt(2300)) * 1e6);
            /* in every other round from its first acknowledged write on, so that a busy machine has some too */
            CountDownLatch begun = new CountDownLatch(round % 2);
            Thread killer = new Thread(() -> {
                try {
                    begun.await();
                } catch (InterruptedException never) {
                    throw new IllegalStateException(never);
                }
                long killAt = System.nanoTime() + killAfter;
                for (long left = killAfter; left > 0; left = killAt - System.nanoTime()) {
                    LockSupport.parkNanos(left);
                }
                rueda.kill();
            });
            killer.start();
            try {
                for (int k = 0; ; k++) {
                    String next = "cell " + round + "." + k;
                    HttpResponse<String> saved = rueda.send("PUT", "/api/machines/1", document.replaceFirst("\"name\":\"[^\"]*\"", "\"name\":\"" + next + "\""), revision);
                    assertThat(saved.statusCode()).as(saved.body()).isEqualTo(200);
                    revision = number(saved.body(), "revision");
                    name = next;
                    acknowledged++;
                    begun.countDown();
                    if (k % 3 == 0) {
                        HttpResponse<String> image = rueda.send("POST", "/api/machines/1/images", "{\"axis\":\"Shuttle\",\"name\":\"" + next + "\"}", revision);
                        if (image.statusCode() == 200) {
                            images.add(number(image.body(), "id"));
                            acknowledged++;
                        }
                    }
                    if (k % 5 == 4) {
                        HttpResponse<String> proven = rueda.send("POST", "/api/machines/1/runs?proof=Fetch+a+wheel+from+slot+7", "{}", revision);
                        if (proven.statusCode() == 200) {
                            run = number(proven.body(), "id");
                            acknowledged++;
                        }
                    }
                }
            } catch (IOException killed) {
                killer.join();
            }
        }
        return acknowledged;
    }
}
