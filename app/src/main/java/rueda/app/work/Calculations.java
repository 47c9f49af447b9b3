package rueda.app.work;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.FutureTask;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ScheduledThreadPoolExecutor;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.ResponseBodyEmitter;
import rueda.app.web.Refusals.TooMuchAtOnce;

/**
 * Trials that a request asks for, one on each processor, the others waiting in order. While one computes, spaces are sent ahead of its JSON
 * (RFC 8259 §2 allows them): that is how a server learns that nobody listens any more, and then the thread that computes is interrupted.
 * Thread-safe.
 */
@Component
public class Calculations {

    private static final Logger LOG = LoggerFactory.getLogger(Calculations.class);
    /** More than any number of pages asks for at once. */
    private static final int MOST_WAITING = 256;
    private static final long BEAT_MILLIS = 250;

    private final ThreadPoolExecutor workers;
    private final ScheduledThreadPoolExecutor heart = new ScheduledThreadPoolExecutor(1, work -> Daemons.named("calculations watched", work));
    private final ExecutorService senders = Executors.newCachedThreadPool(work -> Daemons.named("answer", work));
    private final Set<Answer> running = ConcurrentHashMap.newKeySet();
    private final AtomicInteger abandoned = new AtomicInteger();

    Calculations() {
        int processors = Math.max(2, Runtime.getRuntime().availableProcessors());
        workers = new ThreadPoolExecutor(processors, processors, 0, TimeUnit.SECONDS, new LinkedBlockingQueue<>(MOST_WAITING), work -> Daemons.named("calculation", work));
        heart.scheduleWithFixedDelay(this::beatAll, BEAT_MILLIS, BEAT_MILLIS, TimeUnit.MILLISECONDS);
    }

    /**
     * The answer to a question that has been checked.
     *
     * @param work computes what is answered, as an object that is written as JSON; throws what is refused
     * @throws TooMuchAtOnce when too many wait already
     */
    public ResponseEntity<ResponseBodyEmitter> answer(Callable<?> work) {
        Answer answer = new Answer(work);
        running.add(answer);
        try {
            workers.execute(answer.computed);
        } catch (RejectedExecutionException full) {
            running.remove(answer);
            throw new TooMuchAtOnce(MOST_WAITING + " calculations");
        }
        return ResponseEntity.ok().contentType(MediaType.APPLICATION_JSON).body(answer.emitter);
    }

    /** A schedule ends for good with the first thing thrown in it: nothing is. */
    private void beatAll() {
        for (Answer answer : running) {
            try {
                answer.beat();
            } catch (RuntimeException | Error unexpected) {
                LOG.error("A listener could not be told.", unexpected);
            }
        }
    }

    /** How many are being computed or wait. */
    int unanswered() {
        return running.size();
    }

    /** How many were given up because nobody listened any more. */
    int abandoned() {
        return abandoned.get();
    }

    @PreDestroy
    void close() {
        heart.shutdownNow();
        workers.shutdownNow();
        senders.shutdownNow();
    }

    private final class Answer implements Runnable {
        private final Callable<?> work;
        private final ResponseBodyEmitter emitter = new ResponseBodyEmitter(0L);
        private final FutureTask<?> computed = new FutureTask<>(this, null);
        private boolean begun;
        private boolean ended;

        Answer(Callable<?> work) {
            this.work = work;
        }

        @Override
        public void run() {
            try {
                Object result = work.call();
                // A reader that is slow keeps a sender waiting, and no processor.
                senders.execute(() -> end(result));
            } catch (Exception | Error failure) {
                fail(failure);
            } finally {
                // A thread that was interrupted at the very end begins its next work unhurt.
                Thread.interrupted();
            }
        }

        /** @return whether something had been sent before, or null when it had ended already */
        private synchronized Boolean ends() {
            if (ended) {
                return null;
            }
            ended = true;
            return begun;
        }

        private void end(Object result) {
            Boolean sent = ends();
            running.remove(this);
            if (sent == null) {
                return;
            }
            try {
                emitter.send(result, MediaType.APPLICATION_JSON);
                emitter.complete();
            } catch (IOException | IllegalStateException gone) {
                LOG.debug("An answer was not taken.", gone);
            } catch (RuntimeException | Error unwritable) {
                tell(unwritable, sent);
            }
        }

        private void fail(Throwable failure) {
            Boolean sent = ends();
            running.remove(this);
            if (sent != null) {
                tell(failure, sent);
            }
        }

        private void tell(Throwable failure, boolean sent) {
            if (sent) {
                // Its status has been sent: what is left is an answer that is no JSON, which no reader takes for one.
                LOG.error("A calculation failed.", failure);
                emitter.complete();
            } else {
                emitter.completeWithError(failure);
            }
        }

        void beat() {
            synchronized (this) {
                if (ended) {
                    return;
                }
                begun = true;
            }
            try {
                emitter.send(" ", MediaType.TEXT_PLAIN);
            } catch (IOException | IllegalStateException gone) {
                if (ends() != null && computed.cancel(true)) {
                    abandoned.incrementAndGet();
                }
                // Counted first: who sees that nothing runs any more sees also what was given up.
                running.remove(this);
            }
        }
    }
}
