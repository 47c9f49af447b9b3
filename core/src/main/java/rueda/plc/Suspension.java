package rueda.plc;

import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;

/**
 * Does work that can be held in its middle: the work has a thread of its own, and either it or the caller runs, never both. What one has
 * written the other sees. The caller's side is not thread-safe.
 */
final class Suspension {

    /** A thread without work ends after this. */
    private static final long IDLE_SECONDS = 10;

    /** Thrown into held work that nobody waits for any more. */
    private static final class Abandoned extends Error {
        Abandoned() {
            super("abandoned", null, false, false);
        }
    }

    private final Semaphore forWork = new Semaphore(0);
    private final Semaphore forCaller = new Semaphore(0);
    private Thread thread;
    private volatile Runnable work;
    private volatile boolean held;
    private volatile boolean abandoned;
    private volatile Throwable failure;

    /** Does the work, or begins it. @return false when it is held in its middle */
    boolean run(Runnable wanted) {
        work = wanted;
        if (thread == null || !thread.isAlive()) {
            forWork.drainPermits();
            thread = new Thread(this::loop, "held program");
            thread.setDaemon(true);
            thread.start();
        }
        return handedOver();
    }

    /** Goes on with held work. @return false when it is held again */
    boolean resume() {
        held = false;
        return handedOver();
    }

    private boolean handedOver() {
        forWork.release();
        forCaller.acquireUninterruptibly();
        if (failure != null) {
            Throwable thrown = failure;
            failure = null;
            if (thrown instanceof Error error) {
                throw error;
            }
            throw (RuntimeException) thrown;
        }
        return !held;
    }

    /** Called by the work: holds it until the caller goes on with it. */
    void hold() {
        held = true;
        forCaller.release();
        forWork.acquireUninterruptibly();
        if (abandoned) {
            throw new Abandoned();
        }
    }

    boolean held() {
        return held;
    }

    /** Gives held work up: it does not go on. */
    void abandon() {
        if (held) {
            abandoned = true;
            held = false;
            forWork.release();
        }
    }

    private void loop() {
        try {
            while (forWork.tryAcquire(IDLE_SECONDS, TimeUnit.SECONDS)) {
                try {
                    work.run();
                } catch (Abandoned gone) {
                    return;
                } catch (RuntimeException | Error thrown) {
                    failure = thrown;
                }
                work = null;
                forCaller.release();
            }
        } catch (InterruptedException ended) {
            Thread.currentThread().interrupt();
        }
    }
}
