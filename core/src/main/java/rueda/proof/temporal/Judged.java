package rueda.proof.temporal;

/**
 * A sentence judged over a trace: its room at every sample at which it can be, and what decided that. Immutable when it has been made; not to be
 * kept longer than needed, it holds 8 bytes for each sample and part of the sentence.
 */
public abstract class Judged {

    private final double[] rooms;

    Judged(double[] rooms) {
        this.rooms = rooms;
    }

    /** Samples at which it can be judged, from the first on; 0 where the trace is too short. */
    public int length() {
        return rooms.length;
    }

    /** @param sample 0 to {@link #length()} − 1  @return positive exactly when the sentence holds there; infinite where only bits decide; never 0 */
    public double room(int sample) {
        return rooms[sample];
    }

    double[] rooms() {
        return rooms;
    }

    /** What decided the room at a sample: the first place where there are several. */
    public abstract Decision decision(int sample);
}
