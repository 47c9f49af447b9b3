package rueda.app.recording;

import java.io.IOException;
import java.util.function.Supplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.MediaType;
import org.springframework.web.servlet.mvc.method.annotation.ResponseBodyEmitter;
import rueda.app.machine.MachineJson;
import rueda.app.recording.RecordingController.BringingProgress;
import rueda.app.storage.StorageFault;
import rueda.bench.CalculationCancelled;
import rueda.format.UnreadableFile;
import rueda.quantity.InvalidEntry;

/** Tells whoever brings a recording how far it has been read, line by line. A connection that is closed means that it is not wanted any more. */
final class BringingLines implements RecordingStore.Progress {

    private static final Logger LOG = LoggerFactory.getLogger(BringingLines.class);
    private static final long LEAST_APART = 100_000_000;

    private final ResponseBodyEmitter emitter = new ResponseBodyEmitter(0L);
    private final long size;
    private long told = System.nanoTime() - LEAST_APART;

    BringingLines(long size) {
        this.size = size;
    }

    ResponseBodyEmitter emitter() {
        return emitter;
    }

    /** Does the work, and tells its end whatever it is. */
    void tell(Supplier<RecordingView> work) {
        try {
            line(new BringingProgress(size, size, work.get(), null));
        } catch (CalculationCancelled unwanted) {
            LOG.debug("Nobody wanted the recording any more.");
        } catch (UnreadableFile unreadable) {
            line(new BringingProgress(0, size, null, unreadable.getMessage() + "; " + unreadable.mend() + ". Nothing of it was taken."));
        } catch (InvalidEntry refused) {
            line(new BringingProgress(0, size, null, refused.getMessage()));
        } catch (RuntimeException | Error failure) {
            line(new BringingProgress(0, size, null, StorageFault.of(failure).map(StorageFault::sentence).orElseGet(() -> {
                LOG.error("A recording could not be read.", failure);
                return failure instanceof OutOfMemoryError ? "This needs more memory than there is. Nothing was stored; take fewer columns." : "Rueda made a mistake with this file. Nothing was stored; the reason is in the server's output.";
            })));
        }
        emitter.complete();
    }

    @Override
    public boolean read(long bytes) {
        long now = System.nanoTime();
        if (now - told < LEAST_APART) {
            return true;
        }
        told = now;
        return line(new BringingProgress(bytes, size, null, null));
    }

    private boolean line(BringingProgress progress) {
        try {
            emitter.send(MachineJson.write(progress) + "\n", MediaType.TEXT_PLAIN);
            return true;
        } catch (IOException | RuntimeException gone) {
            return false;
        }
    }
}
