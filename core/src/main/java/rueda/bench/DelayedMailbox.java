package rueda.bench;

import rueda.drive.DriveObject;
import rueda.drive.ObjectDictionary;
import rueda.plcopen.Mailbox;

/**
 * The mailbox of one drive on the bench: requests are answered in the order in which they came, each after the same number of bus cycles,
 * and act in the cycle in which they are answered. At most one reading and one writing of each object wait. No allocation; not thread-safe.
 */
final class DelayedMailbox implements Mailbox {

    /**
     * Time from a request to its answer, ns. Our choice: a few ms is what masters show that poll the mailbox beside the process data
     * (common practice, no source).
     */
    static final long ANSWER_NANOS = 4_000_000;

    private static final DriveObject[] OBJECTS = DriveObject.values();

    private final ObjectDictionary device;
    private final int cyclesPerAnswer;
    /** requests in their order, a ring: the place of the object, and behind all of those the readings */
    private final int[] requests = new int[2 * OBJECTS.length];
    private final boolean[] waits = new boolean[2 * OBJECTS.length];
    private final long[] toWrite = new long[OBJECTS.length];
    private final long[] answers = new long[OBJECTS.length];
    private int first;
    private int count;
    private int writes;
    private int cyclesLeft;

    /** @param cycleNanos bus cycle, ns */
    DelayedMailbox(ObjectDictionary device, long cycleNanos) {
        this.device = device;
        cyclesPerAnswer = (int) Math.max(1, (ANSWER_NANOS + cycleNanos - 1) / cycleNanos);
    }

    @Override
    public void write(DriveObject object, long value) {
        toWrite[object.ordinal()] = value;
        if (ask(object.ordinal())) {
            writes++;
        }
    }

    @Override
    public long read(DriveObject object) {
        ask(OBJECTS.length + object.ordinal());
        return answers[object.ordinal()];
    }

    @Override
    public boolean answered(DriveObject object) {
        return !waits[OBJECTS.length + object.ordinal()];
    }

    @Override
    public boolean written() {
        return writes == 0;
    }

    /** @return whether it did not wait already */
    private boolean ask(int request) {
        if (waits[request]) {
            return false;
        }
        waits[request] = true;
        requests[(first + count) % requests.length] = request;
        if (count++ == 0) {
            cyclesLeft = cyclesPerAnswer;
        }
        return true;
    }

    /** Nothing waits. */
    boolean idle() {
        return count == 0;
    }

    /** Number of the request that is answered in the bus cycle that comes, or −1. */
    int due() {
        return count > 0 && cyclesLeft == 1 ? requests[first] : -1;
    }

    /** What a request that waits will write; of a reading what has been read before. */
    long content(int request) {
        return reads(request) ? answers[request - OBJECTS.length] : toWrite[request];
    }

    /** The request writes. */
    static boolean writes(int request) {
        return request >= 0 && !reads(request);
    }

    private static boolean reads(int request) {
        return request >= OBJECTS.length;
    }

    /** One bus cycle, before the drive takes its process data. */
    void cycle() {
        int request = due();
        if (pass() && reads(request)) {
            DriveObject object = OBJECTS[request - OBJECTS.length];
            answers[object.ordinal()] = device.get(object);
        } else if (request >= 0) {
            write(device, request, toWrite[request]);
        }
    }

    /** The same where the device is known to answer as it did before, and need not be there. @param answer what was read then, or written */
    void cycleKnown(long answer) {
        int request = due();
        if (pass() && reads(request)) {
            answers[request - OBJECTS.length] = answer;
        }
    }

    /** A request acts on a device; a reading does not. */
    static void write(ObjectDictionary device, int request, long content) {
        if (writes(request)) {
            device.set(OBJECTS[request], content);
        }
    }

    /** Time passes. @return whether a request has been answered */
    private boolean pass() {
        if (count == 0 || --cyclesLeft > 0) {
            return false;
        }
        int request = requests[first];
        first = (first + 1) % requests.length;
        count--;
        waits[request] = false;
        cyclesLeft = cyclesPerAnswer;
        writes -= reads(request) ? 0 : 1;
        return true;
    }
}
