package rueda.plant;

import rueda.machine.Mistake;

/** What is wrong at the machine of one axis now; whoever it touches looks here while it runs. No allocation after construction; not thread-safe. */
public final class Mistakes {

    private int present;

    public static Mistakes none() {
        return new Mistakes();
    }

    public boolean has(Mistake mistake) {
        return (present >> mistake.ordinal() & 1) != 0;
    }

    /** From now on these are wrong, and no others. @param mask a bit for each mistake, by its place */
    public void make(int mask) {
        present = mask;
    }

    /** A bit for each mistake that is there now: tells whether something has changed. */
    public int mask() {
        return present;
    }
}
