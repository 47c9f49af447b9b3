package rueda.app.live;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.springframework.web.socket.CloseStatus;
import org.springframework.web.socket.TextMessage;
import org.springframework.web.socket.WebSocketSession;
import rueda.app.machine.MachineState;
import rueda.app.machine.MachineStore;
import rueda.app.work.Daemons;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;

/** Pages that do not read, and benches that break: the others go on. Tests wait for states, not for times. */
@Timeout(60)
class LiveStreamTest {

    private static final ExecutorService SENDERS = Executors.newCachedThreadPool(Daemons.named("live"));

    private static WebSocketSession session(String id) {
        WebSocketSession session = mock(WebSocketSession.class);
        when(session.getId()).thenReturn(id);
        return session;
    }

    @Test
    void aPageThatDoesNotReadIsDroppedAndHoldsNobodyUp() throws Exception {
        LiveStream stream = new LiveStream(SENDERS);
        CountDownLatch never = new CountDownLatch(1);
        CountDownLatch closed = new CountDownLatch(4);
        for (int i = 0; i < 4; i++) {
            WebSocketSession silent = session("silent " + i);
            doAnswer(call -> {
                never.await();
                return null;
            }).when(silent).sendMessage(any());
            doAnswer(call -> {
                closed.countDown();
                return null;
            }).when(silent).close(any(CloseStatus.class));
            stream.join(silent);
        }
        List<String> heard = new CopyOnWriteArrayList<>();
        CountDownLatch last = new CountDownLatch(1);
        WebSocketSession reading = session("reading");
        doAnswer(call -> {
            String text = ((TextMessage) call.getArgument(0)).getPayload();
            heard.add(text);
            if (text.contains("999")) {
                last.countDown();
            }
            return null;
        }).when(reading).sendMessage(any());
        stream.join(reading);
        // Sent in portions that a reading page takes; nobody who sends waits for the silent ones.
        for (int k = 0; k < 1000; k++) {
            int before = k;
            stream.send(Map.of("k", k));
            while (heard.size() < before - 100) {
                Thread.onSpinWait();
            }
        }
        assertThat(last.await(50, TimeUnit.SECONDS)).isTrue();
        assertThat(heard).hasSize(1000);
        assertThat(closed.await(50, TimeUnit.SECONDS)).as("the silent ones are closed").isTrue();
        assertThat(stream.listeners()).isEqualTo(1);
        never.countDown();
    }

    /** Anything thrown while a bench is stepped ends that bench: the page is told, the next one runs. */
    @Test
    void theClockSurvivesAnyErrorOfABench() throws Exception {
        for (Throwable failure : List.of(new StackOverflowError(), new OutOfMemoryError("test"), new IllegalStateException("test"), new AssertionError("test"))) {
            MachineStore machines = mock(MachineStore.class);
            Machine demo = DemoMachine.create();
            when(machines.get(anyLong())).thenReturn(new MachineState(1, 1, Instant.EPOCH, false, false, demo, java.util.List.of()));
            CountDownLatch told = new CountDownLatch(1);
            CountDownLatch runs = new CountDownLatch(3);
            LiveStream stream = new LiveStream(SENDERS) {
                private boolean thrown;

                @Override
                void send(Object message) {
                    if (message instanceof BenchSession.Ended ended) {
                        assertThat(ended.words()).startsWith("The bench ended: ").doesNotContain("Error", "java");
                        told.countDown();
                    } else if (Thread.currentThread().getName().equals("bench")) {
                        // Told from within the clock's own step, once.
                        if (!thrown) {
                            thrown = true;
                            LiveStreamTest.<RuntimeException>raise(failure);
                        }
                        runs.countDown();
                    }
                }
            };
            BenchSession service = new BenchSession(1, machines, stream, new Stand());
            service.start(LiveBench.Kind.PROGRAM, "", true);
            assertThat(told.await(30, TimeUnit.SECONDS)).as("%s is told", failure).isTrue();
            service.start(LiveBench.Kind.PROGRAM, "", true);
            assertThat(runs.await(30, TimeUnit.SECONDS)).as("the next bench runs after %s", failure).isTrue();
            service.close();
        }
    }

    /** The clock has taken a state of the old bench and not sent it yet, when a request puts another bench in its place, held: that one is heard last. */
    @Test
    void theBenchThatIsThereIsHeardLast() throws Exception {
        MachineStore machines = mock(MachineStore.class);
        when(machines.get(anyLong())).thenReturn(new MachineState(1, 1, Instant.EPOCH, false, false, DemoMachine.create(), java.util.List.of()));
        List<LiveBench.State> heard = new CopyOnWriteArrayList<>();
        CountDownLatch done = new CountDownLatch(1);
        BenchSession[] service = new BenchSession[1];
        LiveStream stream = new LiveStream(SENDERS) {
            @Override
            void send(Object message) {
                if (Thread.currentThread().getName().equals("bench") && done.getCount() > 0) {
                    Thread request = new Thread(() -> service[0].start(LiveBench.Kind.HOMING, "Shuttle", false));
                    request.start();
                    while (request.getState() != Thread.State.BLOCKED && request.getState() != Thread.State.TERMINATED) {
                        Thread.onSpinWait();
                    }
                    heard.add((LiveBench.State) message);
                    done.countDown();
                } else if (message instanceof LiveBench.State state) {
                    heard.add(state);
                }
            }
        };
        service[0] = new BenchSession(1, machines, stream, new Stand());
        service[0].start(LiveBench.Kind.PROGRAM, "", true);
        assertThat(done.await(50, TimeUnit.SECONDS)).isTrue();
        // Whatever the request had to say is said when a later one has been answered.
        LiveBench.State now = service[0].hold(null);
        List<Boolean> old = List.copyOf(heard).stream().map(state -> state.program().equals("program")).toList();
        assertThat(old).contains(false);
        assertThat(old.subList(old.indexOf(false), old.size())).doesNotContain(true);
        assertThat(now.program()).isEqualTo("homing");
        service[0].close();
    }

    @SuppressWarnings("unchecked")
    private static <T extends Throwable> void raise(Throwable failure) throws T {
        throw (T) failure;
    }
}
