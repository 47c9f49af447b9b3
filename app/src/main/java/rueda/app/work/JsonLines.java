package rueda.app.work;

import java.io.IOException;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import java.util.function.Function;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.servlet.mvc.method.annotation.ResponseBodyEmitter;
import rueda.app.machine.MachineJson;
import rueda.app.storage.StorageFault;
import rueda.app.web.Refusals.TooMuchAtOnce;
import rueda.bench.CalculationCancelled;
import rueda.format.UnreadableFile;
import rueda.quantity.InvalidEntry;

/**
 * Long work that is told as it goes: a line of JSON each, its outcome or why there is none in the last. A connection that is closed means that it is not wanted any more.
 * Works of a kind run one after the other, on a thread that nobody interrupts. Thread-safe.
 */
public final class JsonLines {

    private static final Logger LOG = LoggerFactory.getLogger(JsonLines.class);
    private static final int MOST_WAITING = 16;

    private final String what;
    private final ThreadPoolExecutor worker;

    /** Where the lines go. */
    @FunctionalInterface
    public interface Teller {
        /** @return false when nobody listens any more */
        boolean line(Object line);

        /** @throws CalculationCancelled when nobody listens any more */
        default void tell(Object line) {
            if (!line(line)) {
                throw new CalculationCancelled();
            }
        }
    }

    /** The work. */
    @FunctionalInterface
    public interface Work {
        /** @return the last line */
        Object run(Teller teller);
    }

    /** @param what such works are called, in the plural, such as "recordings" */
    public JsonLines(String what) {
        this.what = what;
        worker = new ThreadPoolExecutor(1, 1, 0, TimeUnit.SECONDS, new LinkedBlockingQueue<>(MOST_WAITING), Daemons.named(what));
    }

    /**
     * @param failed makes the last line of why there is no outcome
     * @throws TooMuchAtOnce when too many wait
     */
    public ResponseEntity<ResponseBodyEmitter> answer(Work work, Function<String, Object> failed) {
        ResponseBodyEmitter emitter = new ResponseBodyEmitter(0L);
        try {
            worker.execute(() -> run(emitter, work, failed));
        } catch (RejectedExecutionException full) {
            throw new TooMuchAtOnce(MOST_WAITING + " " + what);
        }
        return ResponseEntity.ok().contentType(MediaType.APPLICATION_NDJSON).body(emitter);
    }

    private void run(ResponseBodyEmitter emitter, Work work, Function<String, Object> failed) {
        Teller teller = line -> sent(emitter, line);
        try {
            teller.line(work.run(teller));
        } catch (CalculationCancelled unwanted) {
            LOG.debug("Nobody wanted the outcome any more: {}.", what);
        } catch (RuntimeException | Error failure) {
            teller.line(failed.apply(words(failure)));
        }
        emitter.complete();
    }

    private String words(Throwable failure) {
        if (failure instanceof UnreadableFile unreadable) {
            return unreadable.getMessage() + "; " + unreadable.mend() + ". Nothing of it was taken.";
        } else if (failure instanceof InvalidEntry refused) {
            return refused.getMessage();
        }
        return StorageFault.of(failure).map(StorageFault::sentence).orElseGet(() -> {
            LOG.error("Failed: {}.", what, failure);
            return failure instanceof OutOfMemoryError ? "This needs more memory than there is. Nothing was stored; take less at once." : "Rueda made a mistake here. Nothing was stored; the reason is in the server's output.";
        });
    }

    private static boolean sent(ResponseBodyEmitter emitter, Object line) {
        try {
            emitter.send(MachineJson.write(line) + "\n", MediaType.TEXT_PLAIN);
            return true;
        } catch (IOException | RuntimeException gone) {
            return false;
        }
    }

    /** Lets what runs end; nothing more begins. */
    public void close() {
        worker.shutdown();
    }
}
