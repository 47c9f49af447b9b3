package rueda.app.proof;

import java.io.IOException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.MediaType;
import org.springframework.web.servlet.mvc.method.annotation.ResponseBodyEmitter;
import rueda.app.machine.MachineJson;
import rueda.app.storage.StorageFault;
import rueda.bench.CalculationCancelled;
import rueda.quantity.InvalidEntry;

/** Tells whoever asked for a proof how far it is, line by line. A connection that is closed means that it is not wanted any more. */
final class ProofLines implements ProofQueue.Asker {

    private static final Logger LOG = LoggerFactory.getLogger(ProofLines.class);
    /** No faster than an eye follows, ns. */
    private static final long LEAST_APART = 100_000_000;

    private final ResponseBodyEmitter emitter = new ResponseBodyEmitter(0L);
    private long told = System.nanoTime() - LEAST_APART;

    ResponseBodyEmitter emitter() {
        return emitter;
    }

    @Override
    public boolean waits(int before) {
        return line(new ProofProgress(before, 0, 0, null, null));
    }

    @Override
    public boolean runs(double time, double of) {
        long now = System.nanoTime();
        if (now - told < LEAST_APART) {
            return true;
        }
        told = now;
        return line(new ProofProgress(0, time, of, null, null));
    }

    @Override
    public void done(RunView run) {
        line(new ProofProgress(0, run.duration(), run.duration(), run, null));
        emitter.complete();
    }

    @Override
    public void failed(Throwable failure) {
        if (!(failure instanceof CalculationCancelled)) {
            line(new ProofProgress(0, 0, 0, null, words(failure)));
        }
        emitter.complete();
    }

    private static String words(Throwable failure) {
        if (failure instanceof InvalidEntry refused) {
            return refused.getMessage();
        }
        return StorageFault.of(failure).map(StorageFault::sentence).orElseGet(() -> {
            LOG.error("A proof failed.", failure);
            return failure instanceof OutOfMemoryError ? "This needs more memory than there is. Nothing was stored; shorten the proof." : "Rueda made a mistake with this proof. Nothing was stored; the reason is in the server's output.";
        });
    }

    /** @return false when nobody listens any more */
    private boolean line(ProofProgress progress) {
        try {
            emitter.send(MachineJson.write(progress) + "\n", MediaType.TEXT_PLAIN);
            return true;
        } catch (IOException | RuntimeException gone) {
            return false;
        }
    }
}
