package rueda.app.proof;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verifyNoInteractions;
import static org.mockito.Mockito.when;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.springframework.transaction.PlatformTransactionManager;
import rueda.app.machine.MachineState;
import rueda.app.machine.MachineStore;
import rueda.app.recording.RecordingStore;
import rueda.app.web.Refusals.ProgramHasFaults;
import rueda.app.web.Refusals.TooMuchAtOnce;
import rueda.bench.CalculationCancelled;
import rueda.machine.DemoMachine;
import rueda.machine.Machine;

@Timeout(60)
class ProofQueueTest {

    private final ProofQueue queue = new ProofQueue();

    @AfterEach
    void close() {
        queue.close();
    }

    /** Remembers what it is told. */
    private static class Asker implements ProofQueue.Asker {
        final List<Integer> places = new CopyOnWriteArrayList<>();
        final List<Throwable> failures = new CopyOnWriteArrayList<>();
        final CountDownLatch ended = new CountDownLatch(1);
        volatile boolean wanted = true;

        @Override
        public boolean waits(int before) {
            places.add(before);
            return wanted;
        }

        @Override
        public boolean runs(double time, double of) {
            return wanted;
        }

        @Override
        public void done(RunView run) {
            ended.countDown();
        }

        @Override
        public void failed(Throwable failure) {
            failures.add(failure);
            ended.countDown();
        }
    }

    @Test
    void allRunInTheirTurnAndAreToldHowManyAreBefore() throws Exception {
        CountDownLatch go = new CountDownLatch(1);
        List<Integer> order = new CopyOnWriteArrayList<>();
        List<Asker> askers = new ArrayList<>();
        for (int i = 0; i < 40; i++) {
            int number = i;
            Asker asker = new Asker();
            askers.add(asker);
            queue.add(asker, told -> {
                await(go);
                order.add(number);
                return null;
            });
        }
        assertThat(askers.get(39).places).last().isEqualTo(39);
        go.countDown();
        for (Asker asker : askers) {
            asker.ended.await();
            assertThat(asker.failures).isEmpty();
        }
        assertThat(order).isSorted().hasSize(40);
        assertThat(askers.get(39).places).as("told as those before end").contains(1, 2, 30).isSortedAccordingTo(java.util.Comparator.reverseOrder());
    }

    @Test
    void whatNobodyWantsAnyMoreLeavesTheQueueAndNeverRuns() throws Exception {
        CountDownLatch go = new CountDownLatch(1);
        queue.add(new Asker(), told -> {
            await(go);
            return null;
        });
        Asker gone = new Asker();
        List<String> ran = new CopyOnWriteArrayList<>();
        queue.add(gone, told -> {
            ran.add("gone");
            return null;
        });
        gone.wanted = false;
        Asker last = new Asker();
        queue.add(last, told -> null);
        gone.ended.await();
        assertThat(gone.failures).singleElement().isInstanceOf(CalculationCancelled.class);
        assertThat(last.places).as("only one is before").contains(1);
        go.countDown();
        last.ended.await();
        assertThat(ran).isEmpty();
    }

    @Test
    void anErrorEndsItsOwnProofOnly() throws Exception {
        Asker failing = new Asker();
        queue.add(failing, told -> {
            throw new StackOverflowError();
        });
        Asker next = new Asker();
        queue.add(next, told -> null);
        next.ended.await();
        assertThat(failing.failures).singleElement().isInstanceOf(StackOverflowError.class);
        assertThat(next.failures).isEmpty();
    }

    @Test
    void tooManyAreRefusedInWords() throws Exception {
        CountDownLatch go = new CountDownLatch(1);
        List<Asker> askers = new ArrayList<>();
        assertThatThrownBy(() -> {
            for (int i = 0; i < 300; i++) {
                Asker asker = new Asker();
                queue.add(asker, told -> {
                    await(go);
                    return null;
                });
                askers.add(asker);
            }
        }).isInstanceOf(TooMuchAtOnce.class).hasMessageContaining("try again");
        go.countDown();
        for (Asker asker : askers) {
            asker.ended.await();
        }
        Asker again = new Asker();
        queue.add(again, told -> null);
        again.ended.await();
        assertThat(again.failures).isEmpty();
    }

    private static MachineStore holding(Machine machine) {
        MachineStore machines = mock(MachineStore.class);
        when(machines.get(anyLong())).thenReturn(new MachineState(1, 1, Instant.EPOCH, false, false, machine, List.of()));
        return machines;
    }

    /** Cancelled while it runs: it ends at the next step of its progress, and nothing is stored. */
    @Test
    void aRunningProofThatIsNotWantedAnyMoreEndsAndStoresNothing() throws Exception {
        PlatformTransactionManager transactions = mock(PlatformTransactionManager.class);
        RunStore store = new RunStore(holding(DemoMachine.create()), null, null, null, mock(RecordingStore.class), null, transactions, queue, Clock.systemUTC());
        List<Double> reached = new CopyOnWriteArrayList<>();
        Asker asker = new Asker() {
            @Override
            public boolean runs(double time, double of) {
                reached.add(time);
                return reached.size() < 5;
            }
        };
        store.run(1, "Fetch a wheel from slot 7", asker);
        asker.ended.await();
        assertThat(asker.failures).singleElement().isInstanceOf(CalculationCancelled.class);
        assertThat(reached).hasSize(5).isSorted();
        verifyNoInteractions(transactions);
    }

    @Test
    void aProgramWithFaultsDoesNotRunAndStoresNothing() {
        PlatformTransactionManager transactions = mock(PlatformTransactionManager.class);
        RunStore store = new RunStore(holding(DemoMachine.create().withProgram("PROGRAM P x := ; END_PROGRAM")), null, null, null, mock(RecordingStore.class), null, transactions, queue, Clock.systemUTC());
        assertThatThrownBy(() -> store.run(1, "Fetch a wheel from slot 7", new Asker())).isInstanceOf(ProgramHasFaults.class).hasMessageContaining("line 1");
        verifyNoInteractions(transactions);
    }

    private static void await(CountDownLatch latch) {
        try {
            latch.await();
        } catch (InterruptedException ended) {
            Thread.currentThread().interrupt();
        }
    }
}
