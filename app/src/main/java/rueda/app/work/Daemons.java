package rueda.app.work;

import java.util.concurrent.ThreadFactory;

/** Threads that do not keep the program from ending. */
public final class Daemons {

    private Daemons() {
    }

    /** Makes threads of a name. */
    public static ThreadFactory named(String name) {
        return work -> named(name, work);
    }

    public static Thread named(String name, Runnable work) {
        Thread thread = new Thread(work, name);
        thread.setDaemon(true);
        return thread;
    }
}
