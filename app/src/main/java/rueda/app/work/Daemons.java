package rueda.app.work;

/** Threads that do not keep the program from ending. */
public final class Daemons {

    private Daemons() {
    }

    public static Thread named(String name, Runnable work) {
        Thread thread = new Thread(work, name);
        thread.setDaemon(true);
        return thread;
    }
}
