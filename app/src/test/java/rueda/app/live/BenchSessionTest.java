package rueda.app.live;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.CyclicBarrier;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Function;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.springframework.web.socket.WebSocketSession;
import rueda.app.live.HandController.HandOrder;
import rueda.app.live.HandController.Order;
import org.springframework.web.socket.WebSocketSession;
import rueda.app.machine.MachineState;
import rueda.app.machine.MachineStore;
import rueda.app.work.Daemons;
import rueda.app.web.Refusals.ControlHeld;
import rueda.app.web.Refusals.NotFound;
import rueda.drive.ParameterGroup;
import rueda.machine.Axis;
import rueda.guard.GuardPhase;
import rueda.machine.DemoMachine;
import rueda.machine.Mistake;

/** Who may order what, and in which order. Tests wait for states, not for times. */
@Timeout(120)
class BenchSessionTest {

    private static final ExecutorService SENDERS = Executors.newCachedThreadPool(Daemons.named("live"));

    private static final Axis SHUTTLE = DemoMachine.create().axes().get(0);

    private final AtomicReference<LiveBench.State> last = new AtomicReference<>();
    private final LiveStream stream = new LiveStream(SENDERS) {
        @Override
        void send(Object message) {
            if (message instanceof LiveBench.State state) {
                last.set(state);
            }
            super.send(message);
        }
    };
    private BenchSession service;

    @BeforeEach
    void start() {
        MachineStore machines = mock(MachineStore.class);
        when(machines.get(anyLong())).thenReturn(new MachineState(1, 1, Instant.EPOCH, false, false, DemoMachine.create(), List.of()));
        service = new BenchSession(1, machines, stream, new Stand());
    }

    @AfterEach
    void stop() {
        service.close();
    }

    private static HandOrder order(Order order, Double value) {
        return new HandOrder(SHUTTLE.name(), order, value, null, null, null);
    }

    private String jogging() {
        String key = service.takeControl(10);
        assertThat(service.handOrder(key, order(Order.ENABLE, null))).isNull();
        while (!last.get().axes().get(0).driveState().equals("operation enabled")) {
            Thread.onSpinWait();
            service.renewControl(key);
        }
        assertThat(service.handOrder(key, order(Order.JOG, 1.0))).isNull();
        while (Math.abs(last.get().axes().get(0).speed()) < 1) {
            Thread.onSpinWait();
            service.renewControl(key);
        }
        return key;
    }

    /** Every order that touches axes, with a key that may be null. */
    private Map<String, Function<String, Object>> keyed() {
        String axis = SHUTTLE.name();
        return Map.of("run", service::run, "hold", service::hold, "cycle", service::oneCycle, "speed", k -> service.speed(k, 5), "keep", k -> service.keep(k, axis),
                "restart", k -> service.restart(k, axis), "factory reset", k -> service.factoryReset(k, axis), "write all", k -> service.writeDevices(k),
                "write", k -> service.writeDevice(k, axis, SHUTTLE, Set.of(ParameterGroup.LIMITS), 1), "finish", k -> service.endWriting(k, axis, true));
    }

    @Test
    void withoutTheKeyNothingThatTouchesAxesIsCarriedOut() {
        String key = jogging();
        keyed().forEach((name, order) -> {
            assertThatThrownBy(() -> order.apply(null)).as(name).isInstanceOf(ControlHeld.class);
            assertThatThrownBy(() -> order.apply("somebody else's")).as(name).isInstanceOf(ControlHeld.class);
        });
        assertThatThrownBy(() -> service.start(LiveBench.Kind.PROGRAM, "", true)).isInstanceOf(ControlHeld.class);
        assertThatThrownBy(() -> service.start(LiveBench.Kind.HOMING, SHUTTLE.name(), true)).isInstanceOf(ControlHeld.class);
        assertThatThrownBy(() -> service.takeControl(1)).isInstanceOf(ControlHeld.class);
        assertThatThrownBy(() -> service.condition(SHUTTLE.name(), Set.of(Mistake.values()[0]))).isInstanceOf(ControlHeld.class);
        assertThat(service.condition()).as("a refused order changes nothing").isEmpty();
        assertThatThrownBy(() -> service.switchedOffAndOn(() -> {
            throw new AssertionError("carried out");
        })).isInstanceOf(ControlHeld.class);
        assertThatThrownBy(() -> service.handOrder("somebody else's", order(Order.STOP, null))).isInstanceOf(NotFound.class);
        LiveBench.State state = last.get();
        assertThat(state.running()).isTrue();
        assertThat(state.speed()).isEqualTo(1);
        assertThat(state.axes().get(0).device().restarting()).isFalse();
        assertThat(state.axes().get(0).driveState()).isEqualTo("operation enabled");
        assertThat(Math.abs(state.axes().get(0).speed())).as("it still moves").isGreaterThan(1);
        service.renewControl(key);
    }

    /** Whoever opens a door needs no key; to let motion be allowed again the key is needed while somebody holds it. */
    @Test
    void aDoorOpensWithoutAKeyAndIsAcknowledgedWithOne() {
        String key = jogging();
        service.ask("Door", true, true);
        while (last.get().guards().watches().get(0).phase() != GuardPhase.STANDING) {
            Thread.onSpinWait();
            service.renewControl(key);
        }
        assertThat(last.get().guards().requests().get(0).firstOpen()).isTrue();
        assertThat(service.guardLog().get(0).words()).contains("safe stop");
        service.ask("Door", false, false);
        assertThatThrownBy(() -> service.acknowledge(null)).isInstanceOf(ControlHeld.class);
        assertThatThrownBy(() -> service.ask("Window", true, true)).isInstanceOf(NotFound.class);
        while (last.get().guards().watches().get(0).phase() != GuardPhase.FREE) {
            service.acknowledge(key);
        }
    }

    @Test
    void theHolderMayAndStopNeedsNoKey() {
        String key = jogging();
        service.stopAllAxes();
        while (last.get().axes().get(0).driveState().equals("operation enabled") && Math.abs(last.get().axes().get(0).speed()) > 1e-9) {
            Thread.onSpinWait();
            service.renewControl(key);
        }
        keyed().forEach((name, order) -> assertThat(order.apply(key)).as(name).isInstanceOf(LiveBench.State.class));
    }

    /** A program and a hand ask at the same moment: whoever comes second finds the other. Never do both have the axes. */
    @Test
    void theLeaseAndTheProgramNeverBothHaveTheAxes() throws Exception {
        int granted = 0;
        for (int round = 0; round < 60; round++) {
            CyclicBarrier together = new CyclicBarrier(2);
            CompletableFuture<String> hand = CompletableFuture.supplyAsync(() -> {
                await(together);
                try {
                    return service.takeControl(10);
                } catch (ControlHeld held) {
                    return null;
                }
            });
            await(together);
            try {
                service.start(LiveBench.Kind.PROGRAM, "", true);
            } catch (ControlHeld refused) {
                // The hand was first.
            }
            String key = hand.get();
            if (key != null) {
                granted++;
                LiveBench.State state = service.run(key);
                assertThat(state.byHand()).as("round %d", round).isTrue();
                assertThat(state.programHeld() || state.program().equals("BY_HAND")).as("round %d: the program is held", round).isTrue();
                service.releaseControl(key);
            }
        }
        assertThat(granted).as("the hand got it").isPositive();
    }

    private static void await(CyclicBarrier together) {
        try {
            together.await();
        } catch (InterruptedException | java.util.concurrent.BrokenBarrierException broken) {
            throw new IllegalStateException(broken);
        }
    }

    /** A program started in the very moment in which a lease has run out is not ramped down in its place. */
    @Test
    void aLeaseThatRanOutEndsItsOwnBenchOnly() {
        for (int round = 0; round < 5; round++) {
            String key = service.takeControl(0.2);
            assertThat(key).isNotNull();
            LiveBench.State started = null;
            while (started == null) {
                try {
                    started = service.start(LiveBench.Kind.PROGRAM, "", true);
                } catch (ControlHeld held) {
                    Thread.onSpinWait();
                }
            }
            double begun = started.time();
            while (last.get().time() < begun + 0.5 || last.get().axes().stream().noneMatch(a -> a.driveState().equals("operation enabled"))) {
                assertThat(last.get().programHeld()).isFalse();
                Thread.onSpinWait();
            }
        }
    }

    /**
     * Four pages take nothing that they are sent. The lease runs out all the same, the axis comes to rest, and a page that reads hears of it. A
     * hundred rounds by hand: -Drueda.silent=100.
     */
    @Test
    @Timeout(1800)
    void silentPagesDoNotHoldUpTheWatchOverTheLease() throws Exception {
        CountDownLatch never = new CountDownLatch(1);
        AtomicInteger heard = new AtomicInteger();
        WebSocketSession reading = mock(WebSocketSession.class);
        when(reading.getId()).thenReturn("reading");
        doAnswer(call -> heard.incrementAndGet()).when(reading).sendMessage(any());
        stream.join(reading);
        for (int round = 0; round < Integer.getInteger("rueda.silent", 3); round++) {
            for (int i = 0; i < 4; i++) {
                WebSocketSession silent = mock(WebSocketSession.class);
                when(silent.getId()).thenReturn("silent " + round + "." + i);
                doAnswer(call -> {
                    never.await();
                    return null;
                }).when(silent).sendMessage(any());
                stream.join(silent);
            }
            /* a new bench, so that a hundred rounds do not lead to the end of the travel */
            service.start(LiveBench.Kind.HOMING, SHUTTLE.name(), false);
            String key = jogging();
            service.releaseControl(key);
            key = service.takeControl(0.3);
            service.handOrder(key, order(Order.ENABLE, null));
            service.handOrder(key, order(Order.JOG, -1.0));
            int before = heard.get();
            while (last.get().byHand() && !last.get().axes().get(0).driveState().equals("switched on") || Math.abs(last.get().axes().get(0).speed()) > 1e-6 || heard.get() <= before) {
                Thread.onSpinWait();
            }
            String lost = key;
            assertThatThrownBy(() -> service.renewControl(lost)).isInstanceOf(NotFound.class);
        }
        never.countDown();
    }

    /** A minute without a page, and it is held; a quarter of an hour, and it is put away. A page that joins hears that; the next order makes another. */
    @Test
    void aBenchThatNobodyLooksAtIsHeldAndPutAway() throws Exception {
        AtomicLong now = new AtomicLong(1);
        MachineStore machines = mock(MachineStore.class);
        when(machines.get(anyLong())).thenReturn(new MachineState(1, 1, Instant.EPOCH, false, false, DemoMachine.create(), List.of()));
        List<Object> heard = new CopyOnWriteArrayList<>();
        LiveStream unheard = new LiveStream(SENDERS) {
            @Override
            void send(Object message) {
                heard.add(message);
            }
        };
        BenchSession alone = new BenchSession(1, machines, unheard, new Stand(), now::get);
        assertThat(alone.start(LiveBench.Kind.PROGRAM, "", true).running()).isTrue();
        now.addAndGet(59_000_000_000L);
        /* the clock has looked at that time when it sends what it has stepped since */
        int before = heard.size();
        while (heard.size() == before) {
            Thread.sleep(5);
        }
        assertThat(alone.speed(null, 1).running()).as("it is not held before a minute").isTrue();
        now.addAndGet(2_000_000_000L);
        while (alone.speed(null, 1).running()) {
            Thread.sleep(5);
        }
        assertThat(alone.off()).isFalse();
        assertThat(alone.run(null).running()).isTrue();
        int told = heard.size();
        now.addAndGet(30_000_000_000L);
        while (heard.size() == told) {
            Thread.sleep(5);
        }
        assertThat(alone.speed(null, 1).running()).as("who lets it run has another minute").isTrue();
        now.addAndGet(16 * 60_000_000_000L);
        while (!alone.off()) {
            Thread.sleep(5);
        }
        heard.clear();
        WebSocketSession page = mock(WebSocketSession.class);
        when(page.getId()).thenReturn("late");
        unheard.join(page);
        assertThat(heard).singleElement().isInstanceOf(BenchSession.Off.class);
        assertThat(alone.start(LiveBench.Kind.PROGRAM, "", false)).isNotNull();
        assertThat(alone.off()).isFalse();
        alone.close();
    }

    /** Blocks of samples begin with the key of columns that have been named before; what travels is told of the axis that a page looks at, and of no other. */
    @Test
    void samplesAreNamedAndWhatTravelsIsToldOfTheAxisThatIsLookedAt() {
        List<Object> told = new CopyOnWriteArrayList<>();
        LiveStream listening = new LiveStream(SENDERS) {
            @Override
            void send(Object message) {
                told.add(message);
            }

            @Override
            void send(java.nio.ByteBuffer block) {
                told.add(block);
            }
        };
        MachineStore machines = mock(MachineStore.class);
        when(machines.get(anyLong())).thenReturn(new MachineState(1, 1, Instant.EPOCH, false, false, DemoMachine.create(), List.of()));
        BenchSession session = new BenchSession(1, machines, listening, new Stand());
        WebSocketSession page = mock(WebSocketSession.class);
        when(page.getId()).thenReturn("page");
        session.look(page, "Shuttle");
        assertThat(told).as("who does not listen is told nothing").isEmpty();
        listening.join(page);
        session.start(LiveBench.Kind.PROGRAM, "", false);
        session.look(page, "Lift");
        session.oneCycle(null);
        session.look(page, "nobody");
        session.oneCycle(null);
        List<LiveBench.ProcessData> travels = told.stream().filter(LiveBench.ProcessData.class::isInstance).map(LiveBench.ProcessData.class::cast).toList();
        assertThat(travels).isNotEmpty().allSatisfy(data -> {
            assertThat(data.axis()).isEqualTo("Lift");
            assertThat(data.outputs()).hasSameSizeAs(DemoMachine.lift().station().outputs());
            assertThat(data.inputs()).hasSameSizeAs(DemoMachine.lift().station().inputs());
            assertThat(data.status().words()).isEqualTo(data.state().words());
        });
        session.start(LiveBench.Kind.HOMING, "Shuttle", false);
        session.oneCycle(null);
        int key = 0;
        int blocks = 0;
        for (Object message : told) {
            if (message instanceof LiveBench.Columns columns) {
                assertThat(columns.key()).isNotEqualTo(key);
                assertThat(columns.names()).hasSize(5 * LiveBench.STREAMED.size()).contains("Shuttle.position", "Doser.torque");
                key = columns.key();
            } else if (message instanceof java.nio.ByteBuffer block) {
                assertThat(block.getInt(0)).as("the columns have been named").isEqualTo(key);
                assertThat((block.remaining() - Integer.BYTES) % (Double.BYTES + Float.BYTES * 5 * LiveBench.STREAMED.size())).isZero();
                blocks++;
            }
        }
        assertThat(blocks).isGreaterThan(2);
        told.clear();
        listening.leave(page);
        session.oneCycle(null);
        assertThat(told).noneMatch(LiveBench.ProcessData.class::isInstance);
        session.close();
    }
}
