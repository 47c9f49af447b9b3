package rueda.app.proof;

import jakarta.annotation.PreDestroy;
import java.util.Iterator;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;
import rueda.app.web.Refusals.TooMuchAtOnce;
import rueda.app.work.Daemons;
import rueda.bench.CalculationCancelled;

/**
 * Proofs run one after the other, in the order in which they were asked for: each takes a processor and room for its recording. Who waits
 * is told how many are before. Thread-safe.
 */
@Component
class ProofQueue {

    private static final int MOST_WAITING = 200;

    private final LinkedBlockingQueue<Runnable> waiting = new LinkedBlockingQueue<>(MOST_WAITING);
    private final ThreadPoolExecutor runner = new ThreadPoolExecutor(1, 1, 0, TimeUnit.SECONDS, waiting, work -> Daemons.named("proof", work));

    /** Whoever asked for a proof. Each method is called by one thread after the other. */
    interface Asker {
        /** @param before how many run before this one  @return false when it is not wanted any more */
        boolean waits(int before);

        /** @param time machine time that has passed, s  @param of duration of the run, s  @return false when it is not wanted any more */
        boolean runs(double time, double of);

        void done(RunView run);

        /** @param failure what is refused, or went wrong; {@link CalculationCancelled} when it was not wanted any more */
        void failed(Throwable failure);
    }

    /** The work of one proof. */
    interface Work {
        RunView run(Asker asker);
    }

    /** @throws TooMuchAtOnce when too many wait */
    void add(Asker asker, Work work) {
        try {
            runner.execute(new Waiting(asker, work));
        } catch (RejectedExecutionException full) {
            throw new TooMuchAtOnce(MOST_WAITING + " proofs");
        }
        tellWaiting();
    }

    /** Those nobody wants any more leave the queue. */
    private synchronized void tellWaiting() {
        int before = runner.getActiveCount();
        for (Iterator<Runnable> places = waiting.iterator(); places.hasNext();) {
            Waiting next = (Waiting) places.next();
            if (next.asker.waits(Math.max(1, before))) {
                before++;
            } else if (waiting.remove(next)) {
                next.asker.failed(new CalculationCancelled());
            }
        }
    }

    @PreDestroy
    void close() {
        runner.shutdownNow();
    }

    private final class Waiting implements Runnable {
        private final Asker asker;
        private final Work work;

        Waiting(Asker asker, Work work) {
            this.asker = asker;
            this.work = work;
        }

        @Override
        public void run() {
            try {
                tellWaiting();
                asker.done(work.run(asker));
            } catch (Exception | Error failure) {
                asker.failed(failure);
            }
        }
    }
}
